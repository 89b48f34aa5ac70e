package planner

import (
	"math"
	"math/rand/v2"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// contour is the way a phrase goes: -1 its lowest to 1 its highest, at 0 its beginning to
// 1 its end.
type contour struct {
	name string
	at   func(t float64) float64
}

// contours are those that phrases take (common: up and over, down, to and fro, round one
// note, up).
var contours = []contour{
	{"arch", func(t float64) float64 { return 2*math.Sin(math.Pi*min(t*1.1, 1)) - 1 }},
	{"fall", func(t float64) float64 { return 1 - 2*t }},
	{"wave", func(t float64) float64 { return math.Sin(2 * math.Pi * (t*1.2 + 0.1)) }},
	{"pivot", func(t float64) float64 { return 0.8 * math.Cos(5*math.Pi*t) * (1 - t/2) }},
	{"rise and fall back", func(t float64) float64 { return math.Sin(math.Pi*t*1.5) - 0.2 }},
	{"dip", func(t float64) float64 { return 0.8 - 1.8*math.Sin(math.Pi*t) }},
}

// depths are how far below the middle of the range a motif may lie, in semitones (ours: so
// that a chorus does not stay on the thin strings).
var depths = []float64{0, 0, 3, 7}

// setContour gives every onset its place in the contour: each sentence a little higher until
// the climax past the middle, the one highest note there. It returns the pitch that the
// other notes stay below.
func (pc *planContext) setContour(slots []phraseSlot, phrases []draftPhrase, patterns map[string]pattern, r *rand.Rand) pitch.MIDI {
	n := len(slots)
	climax := n/2 + r.IntN(max((n+1)/2-1, 1))
	climax = min(climax, n-1)
	deep := map[string]float64{}
	for _, s := range slots {
		if _, known := deep[s.motifID]; !known {
			deep[s.motifID] = depths[r.IntN(len(depths))]
		}
	}
	for k := range phrases {
		low, high := pc.pitchRange(pc.PositionAt(slots[k].start).Window)
		middle := float64(low+high)/2 + float64(r.IntN(5)) - 1
		near := 1 - float64(max(k-climax, climax-k))/float64(max(climax, n-climax))
		middle += 4 * near
		if k != climax {
			middle -= deep[slots[k].motifID]
		}
		spread := 4 + 2*r.Float64()
		curve := patterns[slots[k].motifID].curve
		onsets := phrases[k].onsets
		for m := range onsets {
			t := float64(m) / float64(max(len(onsets)-1, 1))
			onsets[m].want = middle + spread*curve.at(t)
			if slots[k].answer && m == len(onsets)-1 {
				onsets[m].want = middle - 3
			}
		}
	}
	return pc.setHighNote(slots, phrases, climax, r)
}

// pitchRange is the range of pitches that lines mostly lie in: from the fourth string up.
func (pc *planContext) pitchRange(w neck.Window) (low, high pitch.MIDI) {
	strings := len(pc.Instrument.Open)
	low = pc.Instrument.Pitch(neck.Place{String: min(4, strings), Fret: w.Core})
	high = pc.Instrument.Pitch(neck.Place{String: 1, Fret: w.CoreEnd})
	return low, high
}

// setHighNote makes one onset of the climax the highest note of the chorus.
func (pc *planContext) setHighNote(slots []phraseSlot, phrases []draftPhrase, climax int, r *rand.Rand) pitch.MIDI {
	top := pitch.MIDI(128)
	half := pc.Chart.Ticks() / 2
	at, best := -1, 0.0
	onsets := phrases[climax].onsets
	for m, o := range onsets {
		if o.tick > half && o.arrival < 0 && o.lickNote == nil && !(m == len(onsets)-1 && slots[climax].answer) && (at < 0 || o.want > best) {
			at, best = m, o.want
		}
	}
	if at < 0 {
		return top
	}
	o := &onsets[at]
	o.leads = 0
	heights := []pitch.MIDI{}
	above := pitch.MIDI(0) // the notes of licks, which stay as they are
	for _, p := range phrases {
		for _, other := range p.onsets {
			if other.lickNote != nil {
				above = max(above, other.lickNote.Sounding(pc.Instrument))
			}
		}
	}
	for _, c := range pc.allPlaces(o.window) {
		class := c.pitch.Class()
		if c.pitch > above && c.place.Fret > 0 && pc.ownCost(*o, class, false) < never && pc.Chords[o.over].Class[class] != harmony.Outside && !slices.Contains(heights, c.pitch) {
			heights = append(heights, c.pitch)
		}
	}
	slices.Sort(heights)
	slices.Reverse(heights)
	if len(heights) == 0 {
		return top
	}
	top = heights[r.IntN(min(3, len(heights)))]
	o.peak, o.want = true, float64(top)
	for m := range onsets {
		if m != at {
			away := max(m-at, at-m)
			onsets[m].want = max(onsets[m].want, float64(top)-3*float64(away))
		}
	}
	return top
}
