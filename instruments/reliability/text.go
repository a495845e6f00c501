package reliability

import (
	"fmt"
	"strings"
)

// Text is the tables as lines: of each tenth of the odds the share that came, in per cent, in
// brackets where bets are few.
func Text(tables []Table) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%-50s %6s", "odds, %", "bets")
	for i := range 10 {
		fmt.Fprintf(&b, " %6s", fmt.Sprintf("%d-%d", 10*i, 10*i+10))
	}
	fmt.Fprintf(&b, " %6s %6s %7s %7s %8s\n", "worst", "mean", "Brier", "usual", "forecast")
	for _, t := range tables {
		fmt.Fprintf(&b, "%-50s %6d", t.Name, t.N)
		for _, d := range t.Deciles {
			switch {
			case d.N == 0:
				fmt.Fprintf(&b, " %6s", "")
			case d.N < fewest:
				fmt.Fprintf(&b, " %6s", fmt.Sprintf("(%.0f)", 100*(d.Came-d.Odds)))
			default:
				fmt.Fprintf(&b, " %+6.1f", 100*(d.Came-d.Odds))
			}
		}
		fmt.Fprintf(&b, " %6.1f %6.1f %7.4f %7.4f %8.4f\n", t.WorstPoints, t.MeanGapInPoints, t.Brier, t.BrierClimate,
			t.BrierForecast)
	}
	within, of, faultless := Within(tables, 5)
	fmt.Fprintf(&b,
		"%d of %d tenths with %d bets or more lie within five points; of faultless odds, whose bets have nothing in common, %.0f would\n", within, of, fewest, faultless)
	return b.String()
}
