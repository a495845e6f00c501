package fair

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	rows := figures.Rows{
		"depth by eye, ± %":                         {guessPct["eye"]},
		"depth by hand":                             {guessPct["hand"]},
		"depth by a light":                          {guessPct["light"]},
		"a low on the mean, of its deepest":         {bowl},
		"readings may cover more than a surface by": {OffSurface},
		"worth filling from, mm":                    {seenMM},
		"boarded with, P":                           {BoardGrit},
		"a pass where the sheet is silent, mm":      {usualPassMM},
		"built up from, mm":                         {DeepMM},
		"the light filler on it, mm":                {topMM},
		"a pass laid without a break, h":            {onceH},
		"lows left by a round":                      {usualRatio},
		"pinholes worth a low":                      {pinWorth},
		"a pinhole's spot, m²":                      {spotM2},
		"a pinhole's fill, mm":                      {spotMM},
	}
	for _, c := range Classes {
		rows[c.Name] = []float64{c.GapMM, c.Lows, c.Pinholes, c.Worth}
	}
	for _, s := range Schools {
		rows[s.Name] = []float64{s.PassMM, s.ProudMM, s.LayLH, s.BoardM2H}
	}
	figures.Check(t, "Fairing", rows)
}
