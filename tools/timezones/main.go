// Command timezones draws the borders of the world's time zones for app/timezones.br anew, and asks the library
// that they come from for the zones of random positions, which app's tests hold them against.
//
//	cd tools && go run ./timezones ../app
package main

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"log"
	"math"
	"math/rand/v2"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/andybalholm/brotli"
	"github.com/ringsaturn/tzf"
	tzfrellite "github.com/ringsaturn/tzf-rel-lite"
	tzfv1 "github.com/ringsaturn/tzf/gen/go/tzf/v1"
	"github.com/ringsaturn/tzf/reduce"
	"google.golang.org/protobuf/proto"
)

func main() {
	dir := os.Args[1]
	zones, err := load()
	if err != nil {
		log.Fatal(err)
	}
	if err := write(filepath.Join(dir, "timezones.br"), pack(zones)); err != nil {
		log.Fatal(err)
	}
	if err := ask(filepath.Join(dir, "testdata", "timezones.csv")); err != nil {
		log.Fatal(err)
	}
}

func load() ([]*tzfv1.Timezone, error) {
	var packed tzfv1.CompressedTimezones
	if err := proto.Unmarshal(tzfrellite.LiteCompressData, &packed); err != nil {
		return nil, err
	}
	all, err := reduce.Decompress(&packed)
	if err != nil {
		return nil, err
	}
	// The high seas go by their longitude.
	return slices.DeleteFunc(all.Timezones, func(z *tzfv1.Timezone) bool { return strings.HasPrefix(z.Name, "Etc/GMT") }), nil
}

// point is a longitude and a latitude in ten-thousandths of a degree: 11 m of a border that was drawn with fewer points than that before.
type point [2]int64

func pointOf(p *tzfv1.Point) point {
	return point{int64(math.Round(float64(p.Lng) * 1e4)), int64(math.Round(float64(p.Lat) * 1e4))}
}

// side is a border between two points, in whichever direction.
type side [2]point

func sideOf(a, b point) side {
	if a[0] > b[0] || a[0] == b[0] && a[1] > b[1] {
		a, b = b, a
	}
	return side{a, b}
}

// pack draws every border once: the names of the zones, then lines with the zones that they bound. A position lies in
// the zones of which it has an odd number of lines north of it.
func pack(zones []*tzfv1.Timezone) []byte {
	bounds := map[side][]uint64{}
	var rings [][]point
	for i, z := range zones {
		for _, polygon := range z.Polygons {
			outlines := [][]*tzfv1.Point{polygon.Points}
			for _, hole := range polygon.Holes {
				outlines = append(outlines, hole.Points)
			}
			for _, outline := range outlines {
				var ring []point
				for _, p := range outline {
					ring = append(ring, pointOf(p))
				}
				ring = append(ring, ring[0])
				rings = append(rings, ring)
				for k := 1; k < len(ring); k++ {
					s := sideOf(ring[k-1], ring[k])
					bounds[s] = toggled(bounds[s], uint64(i))
				}
			}
		}
	}
	out := binary.AppendUvarint(nil, uint64(len(zones)))
	for _, z := range zones {
		out = binary.AppendUvarint(out, uint64(len(z.Name)))
		out = append(out, z.Name...)
	}
	var last point
	line := func(of []uint64, points []point) {
		out = binary.AppendUvarint(out, uint64(len(of)))
		for _, z := range of {
			out = binary.AppendUvarint(out, z)
		}
		out = binary.AppendUvarint(out, uint64(len(points)))
		for _, p := range points {
			out = binary.AppendVarint(out, p[0]-last[0])
			out = binary.AppendVarint(out, p[1]-last[1])
			last = p
		}
	}
	for _, ring := range rings {
		var of []uint64
		var points []point
		for k := 1; k < len(ring); k++ {
			s := sideOf(ring[k-1], ring[k])
			its := bounds[s]
			delete(bounds, s)
			if !slices.Equal(its, of) || len(its) == 0 {
				if len(of) > 0 {
					line(of, points)
				}
				of, points = its, []point{ring[k-1]}
			}
			points = append(points, ring[k])
		}
		if len(of) > 0 {
			line(of, points)
		}
	}
	return out
}

// toggled is a list with one more, or without it: what bounds a zone twice does not bound it.
func toggled(list []uint64, one uint64) []uint64 {
	if k := slices.Index(list, one); k >= 0 {
		return slices.Delete(list, k, k+1)
	}
	return append(list, one)
}

func write(path string, data []byte) error {
	var out bytes.Buffer
	w := brotli.NewWriterOptions(&out, brotli.WriterOptions{Quality: 11, LGWin: 22})
	if _, err := w.Write(data); err != nil {
		return err
	}
	if err := w.Close(); err != nil {
		return err
	}
	log.Printf("%d bytes, %d packed", len(data), out.Len())
	return os.WriteFile(path, out.Bytes(), 0o644)
}

// ask writes the library's zones of positions spread over the globe, and of more where people live.
func ask(path string) error {
	finder, err := tzf.NewDefaultFinder()
	if err != nil {
		return err
	}
	random := rand.New(rand.NewPCG(1, 2))
	out := &bytes.Buffer{}
	fmt.Fprintln(out, "latitudeDeg,longitudeDeg,zone")
	for n := range 800 {
		lat, lng := math.Asin(2*random.Float64()-1)*180/math.Pi, 360*random.Float64()-180
		if n%2 == 0 { // Europe, and the seas about it
			lat, lng = 30+40*random.Float64(), -25+70*random.Float64()
		}
		fmt.Fprintf(out, "%.4f,%.4f,%s\n", lat, lng, finder.GetTimezoneName(lng, lat))
	}
	return os.WriteFile(path, out.Bytes(), 0o644)
}
