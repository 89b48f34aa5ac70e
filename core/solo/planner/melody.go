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

// placeChoice is a place that an onset may have, with what it costs there by itself.
type placeChoice struct {
	place       neck.Place
	pitch       pitch.MIDI
	cost, reach int
	// restless says that it must move on by a step, outside that it is outside, rests
	// that one may rest on it: over the chord of its onset.
	// Tone says that it is a chord tone, leans that it is a colour or suspends one.
	restless, outside, rests, tone, leans bool
	// own says that it is the note of the lick that stands there.
	own bool
}

// The costs of a melody, in tenths (all ours): what a note is over its chord, how near it
// comes to the contour, how it moves. They decide between lines that all keep the rules;
// never is stronger than any sum of them.
const (
	never          = 1 << 20
	costOfReach    = 6
	costContour    = 5 // a semitone off the contour
	costOffBox     = 40
	costOffChord   = 26
	costWeak       = 30 // a note on a strong beat that is no chord tone
	costOutside    = 120
	costUnguided   = 8 // a chord tone that is no guide tone, by the blend
	costThird      = 4 // a minor third, a step of the box
	costLeapOf4    = 16
	costLeapOf5    = 28
	costWide       = 60
	costRepeat     = 50 // a pitch struck again, not as a figure
	costUnrepeated = 60 // another pitch where the figure repeats one
	costSkipped    = 14 // a string skipped
	costCrosses    = 50 // a lower string while the pitch rises
	costLongRun    = 16 // the same direction again
	costBack       = 44 // a b a
	costUnturned   = 150
	costStuck      = 90 // an outside or blue note that does not move on by a step
	costUnlike     = 40 // another direction than the motif
	costUnlikeBy   = 6
	costUnled      = 60
	costEnding     = 150 // a question that answers, an answer that asks
	worthBend      = 8   // a long note that may be bent up to
	worthLean      = 40  // a note on a strong beat that leans on a chord tone a step away
	noise          = 14
	// choicesKept is how many places of an onset are weighed.
	choicesKept = 8
)

// classCost is what a note of each class costs off the strong beats.
var classCost = map[harmony.Class]int{harmony.ChordTone: 0, harmony.Colour: 6, harmony.Blue: 4, harmony.Suspension: 12, harmony.Outside: costOutside}

// landingPlaces are the places of the tone that an onset lands on, where the hand is: a late landing may
// come after the hand has moved on.
func (pc *planContext) landingPlaces(o onset) []neck.Placed {
	target := pc.Targets[o.arrival]
	if target.Window == o.window {
		return target.Places
	}
	if there := neck.PlaceTones(pc.Instrument, o.window, []harmony.Tone{target.Aim}).Tones; len(there) > 0 {
		return there
	}
	return target.Places
}

// choices are the places an onset may have, the cheapest few.
func (pc *planContext) choices(o onset, below pitch.MIDI, r *rand.Rand) []placeChoice {
	if o.lickNote != nil { // what a lick has is played as it is
		own := placeChoice{place: o.lickNote.Place, pitch: o.lickNote.Sounding(pc.Instrument), own: true}
		return []placeChoice{own}
	}
	found := make([]placeChoice, 0, 16)
	if o.arrival >= 0 && !(o.ends == endsOnTonic && pc.Chords[o.over].Class[pc.Chords[o.over].Key.Tonic.Class()] == harmony.ChordTone) {
		places := pc.landingPlaces(o)
		for _, tone := range places {
			if (tone.Pitch < below || o.peak) && (tone.Fret > 0 || !o.held && !o.peak) {
				found = append(found, placeChoice{place: tone.Place, pitch: tone.Pitch, cost: pc.contourCost(o, tone.Pitch) + r.IntN(noise)})
			}
		}
		if len(found) == 0 {
			for _, tone := range places {
				found = append(found, placeChoice{place: tone.Place, pitch: tone.Pitch})
			}
		}
		return found
	}
	for loosened := 0; loosened < 3 && len(found) == 0; loosened++ {
		for _, c := range pc.allPlaces(o.window) {
			if (c.pitch >= below && !o.peak && loosened < 2) || (c.place.Fret == 0 && (o.held || o.peak)) {
				continue
			}
			if own := pc.ownCost(o, c.pitch.Class(), loosened > 0); own < never {
				c.cost = own + c.reach + pc.contourCost(o, c.pitch) + r.IntN(noise)
				found = append(found, c)
			}
		}
	}
	slices.SortStableFunc(found, func(a, b placeChoice) int { return a.cost - b.cost })
	return found[:min(choicesKept, len(found))]
}

func (pc *planContext) contourCost(o onset, p pitch.MIDI) int {
	return int(costContour * math.Abs(float64(p)-o.want))
}

// ownCost is what a class costs at an onset, by the chord, the beat and the blend; never
// where a rule forbids it. Loosened lets a phrase rest on what the box has.
func (pc *planContext) ownCost(o onset, class pitch.Class, loosened bool) int {
	over := pc.Chords[o.over]
	is := over.Class[class]
	switch {
	case o.blend == 0 && !over.InBox[class]:
		return never
	case o.blend == 1 && is != harmony.ChordTone && !loosened:
		return never
	case o.rests && is != harmony.ChordTone && is != harmony.Colour && (!loosened || is == harmony.Outside):
		return never
	case is == harmony.Outside && (o.strong || o.leads == 0 && !over.InBox[class]):
		return never
	}
	cost := classCost[is]
	closes := over.Root[class] || over.Third[class]
	if o.ends == endsAsAnswer && !closes || o.ends == endsAsQuestion && closes {
		cost += costEnding
	}
	if o.ends == endsOnTonic && class != over.Key.Tonic.Class() {
		cost += 2 * costEnding
	}
	if o.leads > 0 && is == harmony.Outside {
		cost = 10 // it is led on, and the approach is priced with the landing
	}
	if o.ticks >= o.beat && pc.bendGoals[o.over][class] {
		cost -= worthBend
	}
	if !over.InBox[class] {
		cost += int(costOffBox * (1 - o.blend))
	}
	if is != harmony.ChordTone {
		cost += int(costOffChord * o.blend)
		if o.strong {
			cost += int(costWeak * (1 + 2*o.blend))
		}
		if o.rests {
			cost += 20
		}
	} else if !over.Guide[class] && (o.strong || o.rests) {
		cost += int(costUnguided * (1 + 2*o.blend))
		if !over.Root[class] {
			cost += int(costUnguided * (1 + o.blend))
		}
	}
	return cost
}

// moveCost is what it costs to go from one choice to the next.
func (pc *planContext) moveCost(a, b *placeChoice, oa, ob *onset) int {
	by := int(b.pitch - a.pitch)
	far := max(by, -by)
	if ob.gap {
		// A line that starts anew does so near where it ended, and the hand is there.
		if oa.window == ob.window && !pc.WithinSpan(a.place, b.place) {
			return never
		}
		return max(far-5, 0) * 4
	}
	if far > 12 {
		return never
	}
	cost := 0
	switch {
	case ob.repeat && far == 0:
		cost = 0
	case far == 0:
		cost = costRepeat
	case ob.repeat:
		cost = costUnrepeated
	case far > 7:
		cost = costWide
	case far > 4:
		cost = costLeapOf5
	case far > 3:
		cost = costLeapOf4
	case far == 3:
		cost = costThird
	}
	apart := max(a.place.String-b.place.String, b.place.String-a.place.String)
	cost += costSkipped * max(apart-1, 0)
	if (by > 0 && b.place.String > a.place.String) || (by < 0 && b.place.String < a.place.String) {
		cost += costCrosses
	}
	if a.place.Fret > 0 && b.place.Fret > 0 && oa.window == ob.window && !pc.WithinSpan(a.place, b.place) {
		return never
	}
	if ob.motifInterval != noMotifInterval {
		if cmp.Compare(ob.motifInterval, 0) != cmp.Compare(by, 0) {
			cost += costUnlike
		}
		cost += costUnlikeBy * max(by-ob.motifInterval, ob.motifInterval-by)
	}
	if ob.arrival >= 0 {
		cost += pc.leadCost(a, b, ob)
	}
	return cost
}

// leadCost is what it costs to come into a landing from the note before: nothing by the
// last step of an allowed approach.
func (pc *planContext) leadCost(a, b *placeChoice, ob *onset) int {
	by := int(a.pitch - b.pitch)
	for _, led := range pc.Targets[ob.arrival].Approaches[b.place] {
		notes := led.Notes
		if last := len(notes) - 2; last >= 0 && notes[last].Pitch == a.pitch {
			return 0
		}
	}
	if max(by, -by) <= 2 && by != 0 {
		return costUnled / 3
	}
	return costUnled
}

// turnCost is what three notes in a row cost beside their moves.
func turnCost(a, b, c *placeChoice, ob, oc *onset) int {
	cost := 0
	first, second := int(b.pitch-a.pitch), int(c.pitch-b.pitch)
	if ob.gap {
		first = 0
	}
	if oc.gap {
		second = 0
	}
	if first != 0 && first == -second {
		cost += costBack
	}
	if first*second > 0 {
		cost += costLongRun
	}
	if max(first, -first) > 7 && (first*second >= 0 || max(second, -second) > 2) {
		cost += costUnturned
	}
	if ob.strong && b.leans && c.tone && second != 0 && max(second, -second) <= 2 {
		cost -= worthLean
	}
	if b.restless {
		if step := max(second, -second); step < 1 || step > 2 || !c.rests {
			cost += costStuck
			if b.outside {
				cost += costStuck
			}
		}
	}
	return cost
}
