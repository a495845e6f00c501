package app

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// held is a JPEG whose Exif data say how the camera was held.
func held(t *testing.T, img image.Image, order binary.AppendByteOrder, orientation uint16) []byte {
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, img, &jpeg.Options{Quality: 100}))
	tiff := []byte("II*\x00")
	if order == binary.AppendByteOrder(binary.BigEndian) {
		tiff = []byte("MM\x00*")
	}
	tiff = order.AppendUint32(tiff, 8)
	tiff = order.AppendUint16(tiff,
		2) // fields
	tiff = append(order.AppendUint32(order.AppendUint16(order.AppendUint16(tiff, 0x010F), 2), 4),
		"abc\x00"...) // a maker
	tiff = order.AppendUint32(order.AppendUint16(order.AppendUint16(tiff, 0x0112), 3), 1)
	tiff = append(order.AppendUint16(tiff, orientation), 0, 0, 0, 0, 0, 0)
	segment := append([]byte("Exif\x00\x00"), tiff...)
	out := append([]byte{0xFF, 0xD8, 0xFF, 0xE1}, binary.BigEndian.AppendUint16(nil, uint16(len(segment)+2))...)
	return append(append(out, segment...), b.Bytes()[2:]...)
}

// A photo stands as it was seen, however the camera was held: by the eight orientations of Exif, where the 0th row and
// the 0th column of what is stored lie (CIPA DC-008, 4.6.5).
func TestPhotosStandUpright(t *testing.T) {
	red, blue := color.RGBA{200, 0, 0, 255}, color.RGBA{0, 0, 200, 255}
	near := func(a color.Color, b color.RGBA) bool {
		r, _, bl, _ := a.RGBA()
		return (r>>8 > 100) == (b.R > 100) && (bl>>8 > 100) == (b.B > 100)
	}
	for orientation, seen := range map[uint16]struct {
		w, h    int
		x0, y0  int // where the first stored pixel is seen: 0 at the left or top, 1 at the right or bottom
		rowDown bool
	}{
		1: {48, 32, 0, 0, true}, 2: {48, 32, 1, 0, true}, 3: {48, 32, 1, 1, true}, 4: {48, 32, 0, 1, true},
		5: {32, 48, 0, 0, false}, 6: {32, 48, 1, 0, false}, 7: {32, 48, 1, 1, false}, 8: {32, 48, 0, 1, false},
	} {
		stored := image.NewRGBA(image.Rect(0, 0, 48,
			32)) // red in the corner of the first row and column, and along the row
		for i := range 48 * 32 {
			x, y := i%48, i/48
			stored.Set(x, y, blue)
			if y < 16 && x < 16 || y < 8 {
				stored.Set(x, y, red)
			}
		}
		for _, order := range []binary.AppendByteOrder{binary.LittleEndian, binary.BigEndian} {
			b, raw, err := kept(t.Context(), held(t, stored, order, orientation))
			require.NoError(t, err)
			assert.Equal(t, image.Pt(seen.w, seen.h), b.Size(), orientation)
			img, err := jpeg.Decode(bytes.NewReader(raw))
			require.NoError(t, err)
			at := func(alongRow, alongColumn int) color.Color { // of what was stored, as it is seen
				x, y := alongRow, alongColumn
				if !seen.rowDown {
					x, y = y, x
				}
				if seen.x0 == 1 {
					x = seen.w - 1 - x
				}
				if seen.y0 == 1 {
					y = seen.h - 1 - y
				}
				return img.At(x, y)
			}
			assert.True(t, near(at(3, 12), red), "%d: the corner", orientation)
			assert.True(t, near(at(44, 3), red), "%d: the end of the first row", orientation)
			assert.True(t, near(at(3, 28), blue), "%d: the end of the first column", orientation)
			assert.True(t, near(at(40, 28), blue), "%d: the far corner", orientation)
		}
	}
	for _, cut := range []int{3, 20, 30, 40, 60} { // whatever is cut off is no orientation, and no panic
		whole := held(t, image.NewRGBA(image.Rect(0, 0, 8, 8)), binary.LittleEndian, 6)
		assert.Contains(t, []int{0, 6}, orientation(whole[:cut]))
	}
}

func TestLargePhotosAreMadeSmaller(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewNRGBA(image.Rect(0, 0, 3*keptSide, keptSide)))) // nothing is seen of it
	size, raw, err := kept(t.Context(), b.Bytes())
	require.NoError(t, err)
	assert.Equal(t, image.Pt(keptSide, (keptSide+1)/3), size.Size())
	img, err := jpeg.Decode(bytes.NewReader(raw))
	require.NoError(t, err)
	r, _, _, _ := img.At(9, 9).RGBA()
	assert.Greater(t, r>>8, uint32(250), "what is clear is white")
	assert.Equal(t, image.Pt(20, 10), fitting(image.NewGray(image.Rect(5, 5, 25, 15)), keptSide).Bounds().Size(),
		"none is made larger")
}
