package app

import (
	"bytes"
	"context"
	"encoding/binary"
	"image"
	"image/jpeg"
	_ "image/png" // photos may be PNG

	"allcoats/core/base/fielderr"

	"golang.org/x/image/draw"
	_ "golang.org/x/image/webp" // or WebP
)

// drawing is held by who has a picture in memory: one takes some hundred MB, and a small machine has
// room for one.
var drawing = make(chan struct{}, 1)

// kept is a picture as it is kept.
func kept(ctx context.Context, data []byte) (image.Rectangle, []byte, error) {
	refuse := func(format string, args ...any) (image.Rectangle, []byte, error) {
		return image.Rectangle{}, nil, fielderr.At("file", format, args...)
	}
	c, kind, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil || kind != "jpeg" && kind != "png" && kind != "webp" {
		return refuse("this is no JPEG, PNG or WebP picture")
	}
	if c.Width*c.Height > maxPixels {
		return refuse("%d × %d pixels; at most %d million are taken", c.Width, c.Height, maxPixels/1_000_000)
	}
	select {
	case drawing <- struct{}{}:
		defer func() { <-drawing }()
	case <-ctx.Done():
		return image.Rectangle{}, nil, ctx.Err()
	}
	img, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return refuse("the picture is damaged: %v", err)
	}
	img = upright(fitting(img, keptSide), orientation(data))
	var out bytes.Buffer
	if err := jpeg.Encode(&out, img, &jpeg.Options{Quality: 85}); err != nil {
		return image.Rectangle{}, nil, err
	}
	return img.Bounds(), out.Bytes(), nil
}

// fitting is a picture made smaller to have no side over most pixels, on white.
func fitting(img image.Image, most int) *image.RGBA {
	b := img.Bounds()
	w, h := b.Dx(), b.Dy()
	if longer := max(w, h); longer > most {
		w, h = max(1, (w*most+longer/2)/longer), max(1, (h*most+longer/2)/longer)
	}
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	draw.Draw(out, out.Bounds(), image.White, image.Point{}, draw.Src)
	draw.CatmullRom.Scale(out, out.Bounds(), img, b, draw.Over, nil)
	return out
}

// upright turns and mirrors a picture as its camera was held, by Exif's orientation: 1 is upright, 3 upside down,
// 6 a quarter turned to the right to be upright, 8 to the left; 2, 4, 5 and 7 are their mirror images.
func upright(img *image.RGBA, orientation int) *image.RGBA {
	w, h := img.Bounds().Dx(), img.Bounds().Dy()
	turned, ok := map[int]func(x, y int) (int, int){
		2: func(x, y int) (int, int) { return w - 1 - x, y },
		3: func(x, y int) (int, int) { return w - 1 - x, h - 1 - y },
		4: func(x, y int) (int, int) { return x, h - 1 - y },
		5: func(x, y int) (int, int) { return y, x },
		6: func(x, y int) (int, int) { return h - 1 - y, x },
		7: func(x, y int) (int, int) { return h - 1 - y, w - 1 - x },
		8: func(x, y int) (int, int) { return y, w - 1 - x },
	}[orientation]
	if !ok {
		return img
	}
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	if orientation >= 5 {
		out = image.NewRGBA(image.Rect(0, 0, h, w))
	}
	for y := range h {
		for x := range w {
			tx, ty := turned(x, y)
			out.SetRGBA(tx, ty, img.RGBAAt(x, y))
		}
	}
	return out
}

// orientation is the one that a JPEG's Exif data tell (CIPA DC-008, tag 0x0112), 0 without.
func orientation(data []byte) int {
	const app1, startOfScan, tag = 0xE1, 0xDA, 0x0112
	for at := 2; at+4 <= len(data) && data[at] == 0xFF && data[at+1] != startOfScan; {
		length := int(binary.BigEndian.Uint16(data[at+2:]))
		segment := data[at+4 : min(max(at+4, at+2+length), len(data))]
		if tiff, ok := bytes.CutPrefix(segment, []byte("Exif\x00\x00")); ok && data[at+1] == app1 && len(tiff) >= 8 {
			var order binary.ByteOrder = binary.BigEndian
			if tiff[0] == 'I' {
				order = binary.LittleEndian
			}
			fields := int64(order.Uint32(tiff[4:]))
			if fields+2 > int64(len(tiff)) {
				return 0
			}
			for entry := tiff[fields+2:]; len(entry) >= 12; entry = entry[12:] {
				if order.Uint16(entry) == tag {
					return int(order.Uint16(entry[8:]))
				}
			}
			return 0
		}
		at += 2 + length
	}
	return 0
}
