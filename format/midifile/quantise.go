package midifile

import (
	"math"
	"sort"
	"strings"

	"undaris/core/chart"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// quantise moves the notes to a grid and puts them on strings.
func (r *lickReader) quantise(notes []bent, most int) {
	meter := r.Lick.Lick.Phrase.Meter
	grid, farthest := map[int]bool{}, 0
	starts := quantised(meter, notes, grid, &farthest)
	sounded := make([]phrase.PitchedNote, len(notes))
	slides := make([]int, len(notes))
	for n, note := range notes {
		fine := meter.BeatTicks() / 12
		end := (note.end + fine/2) / fine * fine
		for m := n + 1; m < len(notes); m++ {
			if starts[m] > starts[n] {
				if end > starts[m]-fine && end < starts[m]+fine {
					end = starts[m] // a finger leaves a little early or late
				}
				break
			}
		}
		sounded[n] = phrase.PitchedNote{Tick: starts[n], Ticks: max(min(end, most)-starts[n], fine), Pitch: pitch.MIDI(note.key)}
		sounded[n].Technique, slides[n] = note.technique()
		if sounded[n].Tick+sounded[n].Ticks > most {
			sounded[n].Ticks = max(most-sounded[n].Tick, 1)
		}
	}
	order := make([]int, len(sounded))
	for n := range order {
		order[n] = n
	}
	sort.SliceStable(order, func(a, b int) bool { return sounded[order[a]].Tick < sounded[order[b]].Tick })
	sorted := make([]phrase.PitchedNote, len(order))
	for n, from := range order {
		sorted[n] = sounded[from]
	}
	placed := phrase.AssignStrings(r.terms.Instrument, r.terms.Window, sorted)
	r.slide(placed, sorted, order, slides)
	r.Lick.Lick.Phrase.Events = placed.Events
	names := []string{}
	for _, parts := range divisions(meter) {
		if grid[parts.parts] {
			names = append(names, parts.name)
		}
	}
	r.Remark(0, "", "the rhythm is moved to %s; the farthest note went %d ticks of %d to a quarter", strings.Join(names, " and "), farthest, chart.TicksPerQuarter)
	r.Remark(0, "", "fingered on frets %d to %d", placed.Window.Low, placed.Window.High)
	for _, n := range placed.Dropped {
		r.Remark(0, "", "note %d has no place on the instrument and is left out", order[n]+1)
	}
}

// division is a way to divide a beat, as it is called.
type division struct {
	parts int
	name  string
}

func divisions(m chart.Meter) []division {
	if m.Compound() {
		return []division{{1, "beats"}, {3, "eighths"}, {6, "sixteenths"}, {12, "thirty-seconds"}}
	}
	return []division{{1, "quarters"}, {2, "eighths"}, {3, "triplets"}, {4, "sixteenths"}, {6, "sextuplets"}, {8, "thirty-seconds"}}
}

// slack is how far, as a part of a beat, a played note may be from a grid that is still
// taken for its own.
const slack = 24

// quantised moves each beat's notes to the coarsest division that all of them are near,
// or else to the one that moves them least.
func quantised(m chart.Meter, notes []bent, used map[int]bool, farthest *int) []int {
	beat := m.BeatTicks()
	starts := make([]int, len(notes))
	for from := 0; from < len(notes); {
		of := (notes[from].tick + beat/slack) / beat
		to := from
		for to < len(notes) && (notes[to].tick+beat/slack)/beat == of {
			to++
		}
		chosen, least := 1, math.MaxInt
		for _, d := range divisions(m) {
			worst, sum := 0, 0
			for _, n := range notes[from:to] {
				off := n.tick - nearest(n.tick, beat/d.parts)
				worst, sum = max(worst, off, -off), sum+max(off, -off)
			}
			if worst <= beat/slack {
				chosen = d.parts
				break
			}
			if sum < least {
				chosen, least = d.parts, sum
			}
		}
		used[chosen] = true
		for n := from; n < to; n++ {
			starts[n] = nearest(notes[n].tick, beat/chosen)
			*farthest = max(*farthest, starts[n]-notes[n].tick, notes[n].tick-starts[n])
		}
		from = to
	}
	return starts
}

func nearest(tick, step int) int {
	return int(math.Floor(float64(tick)/float64(step)+0.5)) * step
}
