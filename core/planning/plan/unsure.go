package plan

import (
	"cmp"
	"hash/fnv"
	"math"
	"math/rand/v2"
	"slices"
	"strconv"

	"allcoats/core/job/task"
	"allcoats/core/planning/schedule"
)

// What may go otherwise beside the weather: rules of thumb. Hours of work are log-normal, with one
// part that all of a yard's work shares and one of each task, as far as the log told of its kind; so are the clocks of
// coats against their sheets. Some coats have to be laid again, now and then somebody is away for some days, and a
// delivery is late.
const (
	clockLog    = 0.15
	reworkShare = 0.04
	awayADay    = 0.01
	awayDays    = 2.5
)

// longestAway is the longest that somebody is away, days.
const longestAway, secondsADay = 14, 24 * 3600

// overnight is how long work rests until it goes on the next day, slots.
const overnight = 15 * perHour

// Unsure is the work with hours, clocks, coats laid again and people away as one future has them.
// A task's luck is the same whenever it is asked for.
func (m Model) Unsure(seed, k uint64) Model {
	var source rand.PCG
	h, r := fnv.New64a(), rand.New(&source)
	luck := func(name string) *rand.Rand { // till it is asked for another
		h.Reset()
		h.Write([]byte(name))
		source.Seed(seed<<32^k, h.Sum64())
		return r
	}
	clocks := map[string]float64{}
	m.Problem.Tasks, m.Problem.Links = slices.Clone(m.Problem.Tasks), slices.Clone(m.Problem.Links)
	yard := math.Exp(task.SharedSD * luck("yard").NormFloat64())
	longest := m.longestStretch()
	longer := make([]int, len(m.Tasks)) // slots of a task that have to be done on another day
	for i, t := range m.Tasks {
		if i == nowTask || t.Milestone {
			continue
		}
		r := luck(t.ID)
		times := yard * math.Exp(cmp.Or(t.Of.HoursSD, task.UsualSD)*r.NormFloat64())
		if again := r.Float64() < reworkShare; again && t.Coat {
			times *= 2
		}
		one := &m.Problem.Tasks[i]
		hours := max(1, int(math.Round(float64(one.Duration)*times)))
		if most := max(longest, one.Duration); hours > most {
			longer[i] = hours - most + overnight
			hours = most
		}
		one.Duration = hours
	}
	for i := range m.Problem.Links {
		l := &m.Problem.Links[i]
		if l.From == nowTask {
			if name := m.causes[i].late; name != "" {
				l.Opens = late(l.Opens, luck("delivery of "+name))
			}
			continue
		}
		sheet := m.Tasks[l.From].sheet.Name
		clock, ok := clocks[sheet]
		if !ok {
			clock = math.Exp(clockLog * luck("clock of "+sheet).NormFloat64())
			clocks[sheet] = clock
		}
		l.Opens, l.Closes = scaled(l.Opens, clock, longer[l.From]), scaled(l.Closes, clock, longer[l.From])
	}
	m.Problem.Hands = m.away(luck)
	return m
}

// scaled is a lag that takes so many times as long, and some slots more.
func scaled(lag schedule.Lag, times float64, more int) schedule.Lag {
	return func(end int) int {
		at := lag(end)
		if at >= schedule.Never {
			return at
		}
		return end + int(math.Round(float64(at-end)*times)) + more
	}
}

// longestStretch is the longest that somebody works without a break, slots.
func (m Model) longestStretch() (most int) {
	for _, h := range m.Problem.Hands {
		for _, w := range h.Works {
			most = max(most, w.Last-w.First+1)
		}
	}
	return most
}

// away are the hands without the days on which they are away; which those are hangs on the
// calendar.
func (m Model) away(luck func(name string) *rand.Rand) []schedule.Hand {
	out := slices.Clone(m.Problem.Hands)
	for i := range out {
		gone := map[int64]bool{}
		first := m.Start.Unix() / secondsADay
		for day := first - longestAway; day <= first+int64(m.slots/(24*perHour))+1; day++ {
			r := luck(m.People[i].Name + strconv.FormatInt(day, 10))
			if r.Float64() < awayADay {
				for d := range min(longestAway, 1+int64(r.ExpFloat64()*(awayDays-0.5))) {
					gone[day+d] = true
				}
			}
		}
		out[i].Works = slices.DeleteFunc(slices.Clone(out[i].Works), func(w span) bool {
			return gone[m.At(w.First).Unix()/secondsADay]
		})
	}
	return out
}
