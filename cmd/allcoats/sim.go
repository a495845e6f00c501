package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"allcoats/core/exposure/reading"
	"allcoats/demo"
	"allcoats/instruments"

	"github.com/spf13/cobra"
)

// sim is a simulated logger that sends over HTTP as a real one would.
type sim struct {
	to, instrument, fault string
	lat, lon              float64
	every                 time.Duration
	times                 int
}

func simCommand() *cobra.Command {
	var s sim
	c := &cobra.Command{
		Use: "sim", Short: "Be a logger that sends readings to a running All Coats, at its time", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error { return s.run(c.Context(), c.OutOrStdout().Write) },
	}
	c.Flags().StringVar(&s.to, "to", "http://127.0.0.1:8080", "address of the running program")
	c.Flags().StringVar(&s.instrument, "instrument", "", "id of the instrument that it is (Weather, Readings)")
	c.Flags().StringVar(&s.fault, "fault", "", "drop-outs, stuck or clock-ahead")
	c.Flags().Float64Var(&s.lat, "latitude", demo.Yard.LatitudeDeg, "where it hangs")
	c.Flags().Float64Var(&s.lon, "longitude", demo.Yard.LongitudeDeg, "where it hangs")
	c.Flags().DurationVar(&s.every, "every", 10*time.Second, "how often it sends")
	c.Flags().IntVar(&s.times, "times", 0, "stop after so many; 0 goes on")
	_ = c.MarkFlagRequired("instrument") // the flag is there
	return c
}

// run sends what the logger saw since it sent last, an hour at first.
func (s sim) run(ctx context.Context, say func([]byte) (int, error)) error {
	l := instruments.Logger{Seed: demo.Seed, Fault: s.fault, Step: time.Minute, Local: 1.6}
	last := time.Time{}
	for n := 0; s.times == 0 || n < s.times; n++ {
		now, err := s.now(ctx)
		if err != nil {
			return err
		}
		if last.IsZero() || last.After(now) {
			last = now.Add(-time.Hour)
		}
		var truth []reading.Reading
		for _, h := range (instruments.Forecast{Seed: demo.Seed}).Hours(s.lat, s.lon, last.Add(-4*time.Hour),
			now.Add(2*time.Hour), now.Add(2*time.Hour)) {
			truth = append(truth, reading.Reading{At: h.At, TempC: h.TempC, RHPct: h.RHPct})
		}
		if lines := l.Lines(truth, last, now, time.UTC); len(lines) > 0 {
			if err := s.post(ctx, lines); err != nil {
				return err
			}
			_, _ = say(lines) // to a terminal
		}
		last = now
		select {
		case <-ctx.Done():
			return nil
		case <-time.After(s.every):
		}
	}
	return nil
}

// now is the time of the running program.
func (s sim) now(ctx context.Context) (time.Time, error) {
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, s.to+"/api/meta", nil)
	if err != nil {
		return time.Time{}, err
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return time.Time{}, err
	}
	defer res.Body.Close()
	var meta struct{ Now time.Time }
	return meta.Now, json.NewDecoder(res.Body).Decode(&meta)
}

func (s sim) post(ctx context.Context, lines []byte) error {
	req, err := http.NewRequestWithContext(ctx, http.MethodPost, s.to+"/api/instruments/"+s.instrument+"/readings",
		bytes.NewReader(lines))
	if err != nil {
		return err
	}
	req.Header.Set("Content-Type", "application/x-ndjson")
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return err
	}
	defer res.Body.Close()
	if res.StatusCode >= 300 {
		var problem struct{ Detail string }
		_ = json.NewDecoder(res.Body).Decode(&problem) // the status is told in any case
		return fmt.Errorf("%s: %s", res.Status, problem.Detail)
	}
	return nil
}
