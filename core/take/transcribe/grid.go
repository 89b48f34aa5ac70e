package transcribe

import (
	"math"

	"undaris/core/chart"
)

// grid is a division of a beat that notes may be written on.
type grid struct {
	divisions int
	// penalty is what it costs to read a beat so finely, in squares of ticks (our choice: what is simpler is
	// meant, unless it is more than about 25 ms off for every note).
	penalty float64
}

// The divisions of a beat of a quarter, and of a dotted quarter.
var (
	simpleGrids   = []grid{{2, 0}, {4, 900}, {3, 1100}, {6, 3200}, {8, 4500}}
	compoundGrids = []grid{{3, 0}, {6, 900}, {2, 2200}, {4, 3200}, {12, 5200}}
)

// earlyShare is the share of a beat that a note may come before it and still belong to it.
const earlyShare = 0.14

// placed is the notated tick of a note, and where it sounds there.
type placed struct{ tick, sounds int }

// quantize gives each sounding tick, in order of time, its notated tick: beat by beat the division whose
// places lie nearest, as the chart's feel sounds them, and no two notes on one place that were not struck
// together.
func quantize(sounding []float64, together []bool, line chart.Timeline) []placed {
	out := make([]placed, len(sounding))
	for from := 0; from < len(sounding); {
		start, beat := beatOf(sounding[from], line)
		to := from + 1
		for to < len(sounding) {
			if s, _ := beatOf(sounding[to], line); s != start {
				break
			}
			to++
		}
		copy(out[from:to], beatPlaces(sounding[from:to], together[from:to], start, beat, line))
		from = to
	}
	// A note must not come before the one before it, nor upon it: it goes to the next place there is.
	for n := 1; n < len(out); n++ {
		if !together[n] && out[n].tick <= out[n-1].tick {
			out[n].tick = out[n-1].tick + leastApart
			out[n].sounds = line.Swung(out[n].tick)
		} else if together[n] {
			out[n] = out[n-1]
		}
	}
	return out
}

// leastApart is how many ticks two notes are written apart at least: a thirty-second.
const leastApart = 60

// beatOf is the beat that a sounding tick belongs to: where it begins and how long it is, in ticks.
func beatOf(sounding float64, line chart.Timeline) (start, beat int) {
	beat = line.BeatTicksAt(int(math.Floor(sounding)))
	at := int(math.Floor(sounding + earlyShare*float64(beat)))
	beat = line.BeatTicksAt(at)
	return at - (at-line.BarStart(at))%beat, beat
}

func beatPlaces(sounding []float64, together []bool, start, beat int, line chart.Timeline) []placed {
	grids := simpleGrids
	if beat%chart.TicksPerQuarter != 0 {
		grids = compoundGrids
	}
	var best []placed
	least := math.Inf(1)
	for _, g := range grids {
		places := make([]placed, len(sounding))
		cost, last := g.penalty, -1
		for n, s := range sounding {
			if n > 0 && together[n] {
				places[n] = places[n-1]
				continue
			}
			nearest, off := -1, math.Inf(1)
			for d := last + 1; d <= g.divisions; d++ {
				tick := start + d*beat/g.divisions
				if apart := math.Abs(float64(line.Swung(tick)) - s); apart < off {
					nearest, off = d, apart
				}
			}
			if nearest < 0 {
				cost = math.Inf(1)
				break
			}
			tick := start + nearest*beat/g.divisions
			places[n] = placed{tick, line.Swung(tick)}
			last = nearest
			cost += off * off
		}
		if cost < least {
			best, least = places, cost
		}
	}
	if best == nil { // more notes in the beat than places
		best = make([]placed, len(sounding))
		for n := range best {
			tick := start + n*beat/len(best)
			best[n] = placed{tick, line.Swung(tick)}
		}
	}
	return best
}
