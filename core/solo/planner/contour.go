package planner

import (
	"cmp"
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
var depths = []float64{0, 0, 3, 6}

// partRise is how much higher the last of several choruses lies than the first, in semitones
// (our choice: a solo rises).
const partRise = 5

// setContour gives every onset its place in the contour: each sentence a little higher until
// the climax past the middle, the one highest note there. It returns the pitch that the
// other notes stay below.
func (pc *planContext) setContour(slots []phraseSlot, phrases []draftPhrase, patterns []pattern, r *rand.Rand) pitch.MIDI {
	n := len(slots)
	climax := pc.climaxSlot(slots, phrases, r)
	deep, low := map[string]float64{}, false
	for _, s := range slots {
		if _, known := deep[s.motifID]; !known {
			deep[s.motifID] = depths[r.IntN(len(depths))]
			if low { // two low motifs in a row are hard to tell apart
				deep[s.motifID] = 0
			}
			low = deep[s.motifID] > 0
		}
	}
	for k := range phrases {
		low, high := pc.pitchRange(pc.PositionAt(slots[k].start).Window)
		middle := float64(low+high)/2 + float64(r.IntN(5)) - 1
		near := 1 - float64(max(k-climax, climax-k))/float64(max(climax, n-climax, 1))
		middle += 4*near + partRise*(pc.Part.Progress()-0.5)
		if k != climax {
			middle -= deep[slots[k].motifID]
		}
		spread := 4 + 2*r.Float64()
		curve := patterns[k].curve
		onsets := phrases[k].onsets
		for m := range onsets {
			t := float64(m) / float64(max(len(onsets)-1, 1))
			onsets[m].want = middle + spread*curve.at(t)
			if slots[k].answer && m == len(onsets)-1 {
				onsets[m].want = middle - 3
			}
		}
	}
	return pc.setHighNote(phrases, climax, r)
}

// climaxSlot is the slot of the climax: one that reaches into the last third of the chorus, not
// its turnaround.
func (pc *planContext) climaxSlot(slots []phraseSlot, phrases []draftPhrase, r *rand.Rand) int {
	late := []int{}
	for n, s := range slots {
		if float64(s.start+s.ticks/2) >= lastThird*float64(pc.Length) && !s.turnaround && len(phrases[n].onsets) > 0 {
			late = append(late, n)
		}
	}
	if len(late) == 0 {
		return len(slots) - 1
	}
	return late[r.IntN(len(late))]
}

// pitchRange is the range of pitches that lines mostly lie in: from the fourth string up.
func (pc *planContext) pitchRange(w neck.Window) (low, high pitch.MIDI) {
	strings := len(pc.Instrument.Open)
	low = pc.Instrument.Pitch(neck.Place{String: min(4, strings), Fret: w.Core})
	high = pc.Instrument.Pitch(neck.Place{String: 1, Fret: w.CoreEnd})
	return low, high
}

// lastThird is where the climax of a chorus lies, as a share of it (our choice: late, with time
// left to come down).
const lastThird = 2.0 / 3

// setHighNote makes one onset of the last third the highest note of the chorus, and lets it last
// a beat. It returns its pitch, which the others stay below.
func (pc *planContext) setHighNote(phrases []draftPhrase, climax int, r *rand.Rand) pitch.MIDI {
	p := &phrases[climax]
	at, heights := -1, []pitch.MIDI{}
	for _, m := range pc.highNoteChoices(p) {
		o := p.onsets[m]
		o.rests = true
		if heights = pc.heights(phrases, o); len(heights) > 0 {
			at = m
			break
		}
	}
	if at < 0 {
		return pc.ceiling()
	}
	beat := p.onsets[at].beat
	for m := at + 1; m < len(p.onsets); m++ {
		if p.onsets[m].tick >= p.onsets[at].tick+beat {
			p.onsets[at].ticks = max(p.onsets[at].ticks, min(beat, p.onsets[m].tick-p.onsets[at].tick))
			pc.outsideKept(&p.onsets[at])
			p.onsets = slices.Delete(p.onsets, at+1, m)
			break
		}
	}
	o := &p.onsets[at]
	top := heights[r.IntN(min(3, len(heights)))]
	o.leads, o.rests, o.peak, o.want = 0, true, true, float64(top)
	for m := range p.onsets {
		if m != at {
			away := max(m-at, at-m)
			p.onsets[m].want = max(p.onsets[m].want, float64(top)-3*float64(away))
		}
	}
	return top
}

// highNoteChoices are the onsets of a phrase that may be the highest note, by their indices, the
// best first: high in the contour, long already, no landing, in the last third.
func (pc *planContext) highNoteChoices(p *draftPhrase) []int {
	choices, value := []int{}, map[int]float64{}
	for m, o := range p.onsets {
		beat := o.beat
		if float64(o.tick) < lastThird*float64(pc.Length) || o.lickNote != nil || o.repeat || o.held && p.answer || o.tick+beat > pc.nextChange(o) || !pc.mayLast(p.onsets, m, beat) {
			continue
		}
		value[m] = o.want
		if o.ticks < beat {
			value[m] -= 6
		}
		if o.arrival >= 0 {
			value[m] -= 4
		}
		choices = append(choices, m)
	}
	slices.SortStableFunc(choices, func(a, b int) int { return cmp.Compare(value[b], value[a]) })
	return choices
}

// ceiling is the pitch that the chorus stays below: that of the climax of the solo it is part
// of, or above all there is.
func (pc *planContext) ceiling() pitch.MIDI {
	if pc.Part.Ceiling > 0 {
		return pc.Part.Ceiling
	}
	return pitch.MIDI(128)
}

// mayLast says whether an onset lasts so long, or would without the notes that follow it, which
// are no landings.
func (pc *planContext) mayLast(onsets []onset, at, ticks int) bool {
	o := onsets[at]
	if o.ticks >= ticks {
		return true
	}
	for m := at + 1; m < len(onsets); m++ {
		next := onsets[m]
		if next.tick >= o.tick+ticks {
			return true
		}
		if next.arrival >= 0 || next.lickNote != nil || next.held {
			return false
		}
	}
	return false
}

// heights are the pitches that an onset may have as the highest note, from the top.
func (pc *planContext) heights(phrases []draftPhrase, o onset) []pitch.MIDI {
	above := pitch.MIDI(0) // the notes of licks, which stay as they are
	for _, p := range phrases {
		for _, other := range p.onsets {
			if other.lickNote != nil {
				above = max(above, other.lickNote.Sounding(pc.Instrument))
			}
		}
	}
	// The rest of the chorus lies below: it is to have room.
	low, high := pc.pitchRange(o.window)
	above = max(above, (low+high)/2+2)
	heights := []pitch.MIDI{}
	add := func(p pitch.MIDI) {
		if p > above && p < pc.ceiling() && !slices.Contains(heights, p) {
			heights = append(heights, p)
		}
	}
	if o.arrival >= 0 {
		for _, tone := range pc.Targets[o.arrival].Places {
			if tone.Fret > 0 {
				add(tone.Pitch)
			}
		}
	} else {
		for _, c := range pc.allPlaces(o.window) {
			class := c.pitch.Class()
			if c.place.Fret > 0 && pc.ownCost(o, class, false) < never && pc.Chords[o.over].Class[class] != harmony.Outside {
				add(c.pitch)
			}
		}
	}
	slices.Sort(heights)
	slices.Reverse(heights)
	return heights
}
