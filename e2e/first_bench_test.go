package e2e

import (
	"context"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// A slow phone: a processor four times slower than this machine's, 1.5 Mbit/s, 40 ms away.
const (
	slowerBy   = 4
	bytesASec  = 1_500_000 / 8
	latencyMS  = 40
	firstViews = 5
)

// BenchmarkFirstSentence is the time from the address to the day's sentence painted, and to the whole screen, on
// a slow phone that never was there before, and the bytes that came until then.
func BenchmarkFirstSentence(b *testing.B) {
	ctx := context.Background()
	s, err := Serve(ctx, b.TempDir(), true)
	require.NoError(b, err)
	defer func() { require.NoError(b, s.Close()) }()
	boats, err := s.App.Boats(ctx)
	require.NoError(b, err)
	var all, screen time.Duration
	var received float64
	for range firstViews {
		p := Open(browser, s).Workless().Size(390, 844, true)
		p.line(bytesASec).do("slow down", func(ctx context.Context) error {
			_, err := chromedp.Call(ctx, emulation.SetCPUThrottlingRate,
				emulation.SetCPUThrottlingRateParams{Rate: slowerBy})
			return err
		})
		p.do("watch", func(ctx context.Context) error {
			_, err := chromedp.Call(ctx, page.AddScriptToEvaluateOnNewDocument,
				page.AddScriptToEvaluateOnNewDocumentParams{
					Source: `new MutationObserver(() => { if (document.querySelector("main h1")) requestAnimationFrame(() => setTimeout(() => { window.said ??= performance.now(); })); if (document.querySelector("main h2")) window.there ??= performance.now(); }).observe(document, { childList: true, subtree: true })`})
			return err
		})
		p.do("go", func(ctx context.Context) error {
			_, err := chromedp.Run(ctx, chromedp.Evaluate[bool](`location.assign(`+
				quoted(s.URL+"/boats/"+boats[0].ID+"/today")+`), true`))
			return err
		})
		p.until("the screen", "window.said > 0 && window.there > 0")
		var ms, there float64
		p.do("read", func(ctx context.Context) (err error) {
			if ms, err = chromedp.Run(ctx, chromedp.Evaluate[float64](`window.said`)); err != nil {
				return err
			}
			if there, err = chromedp.Run(ctx, chromedp.Evaluate[float64](`window.there`)); err != nil {
				return err
			}
			received, err = chromedp.Run(ctx,
				chromedp.Evaluate[float64](`[...performance.getEntriesByType("resource"), ...performance.getEntriesByType("navigation")].reduce((n, r) => n + r.transferSize, 0)`))
			return err
		})
		require.NoError(b, p.Err())
		all += time.Duration(ms * float64(time.Millisecond))
		screen += time.Duration(there * float64(time.Millisecond))
		p.Close()
	}
	b.ReportMetric(float64(all.Milliseconds())/firstViews, "ms-to-sentence")
	b.ReportMetric(float64(screen.Milliseconds())/firstViews, "ms-to-screen")
	b.ReportMetric(received/1024, "kB")
	b.ReportMetric(0, "ns/op")
}
