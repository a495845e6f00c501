package e2e

import (
	"bytes"
	"context"
	"image"
	"image/color"
	"image/jpeg"
	"math/rand/v2"
	"testing"

	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// line sets what the page's network carries, bytes a second, 0 for nothing; answers take latencyMS to come.
func (p *Page) line(bytesASec float64) *Page {
	return p.do("a line of another kind", func(ctx context.Context) error {
		if _, err := chromedp.Call(ctx, network.Enable, network.EnableParams{}); err != nil {
			return err
		}
		c := network.Conditions{Latency: latencyMS, DownloadThroughput: bytesASec, UploadThroughput: bytesASec,
			Offline: bytesASec == 0}
		_, err := chromedp.Call(ctx, network.EmulateNetworkConditionsByRule,
			network.EmulateNetworkConditionsByRuleParams{MatchedNetworkConditions: []*network.Conditions{&c}})
		return err
	})
}

// photoOf is a picture that no packing makes small.
func photoOf(t *testing.T, side int) []byte {
	r := rand.New(rand.NewPCG(1, 2))
	m := image.NewRGBA(image.Rect(0, 0, side, side))
	for y := range side {
		for x := range side {
			m.Set(x, y, color.RGBA{uint8(r.Uint32()), uint8(r.Uint32()), uint8(r.Uint32()), 255})
		}
	}
	var out bytes.Buffer
	require.NoError(t, jpeg.Encode(&out, m, &jpeg.Options{Quality: 90}))
	return out.Bytes()
}

// A photo of a defect goes by a line that breaks in its midst: what was there of it stays there, and it comes in whole.
func TestPhotoByABadLine(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s).Workless()
	p.Go("/boats/"+boats[0].ID+"/survey").Press("Pin a defect").See("Press the place of the defect").At(
		`[data-surface="Topsides port"]`, 0.4, 0.5).
		Choose("What is it", "crack").Press("Note it").See("Photo")
	p.line(200_000).Upload("Photo", write(t, "crack.jpg", photoOf(t, 900)))
	pieces := `performance.getEntriesByType("resource").filter((r) => r.name.includes("/api/pieces/") && r.responseStatus === 200).length`
	p.until("a piece is there", pieces+" === 2").line(0).SeeIn("[data-testid=outbox]", "photo of defect")
	p.line(2_000_000).js(`dispatchEvent(new Event("online"))`).until("the photo shows",
		`[...document.querySelectorAll("figure img")].some((i) => i.complete && i.naturalWidth > 100)`)
	require.NoError(t, p.Err())
}
