package planner

import (
	"math/rand/v2"

	"undaris/core/analysis"
	"undaris/core/change"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// How often a technique is used where it lies under the hand (ours), and how many bends a
// chorus has: a bend said too often says nothing.
const (
	oftenSlid        = 0.45
	oftenBent        = 0.4
	oftenSlurred     = 0.55
	oftenQuarterBent = 0.6
	mostBends        = 3
	// lowestBend is the lowest fret that a whole step is bent at: nearer the nut the string is
	// too stiff.
	lowestBend = 4
)

// addTechniques gives the notes of a chorus their techniques, at places where hands do them:
// vibrato on what is held, the b3 slid to the 3 of a dominant, the note of the box a whole
// step below bent up, neighbours on a string hammered and pulled, the blue third curled.
func (pc *planContext) addTechniques(phrases []draftPhrase, r *rand.Rand) {
	all := []plannedNote{}
	for k := range phrases {
		p := &phrases[k]
		for n := range p.notes {
			all = append(all, plannedNote{&p.notes[n], &p.onsets[n], p.fromLick[n]})
		}
	}
	for try := range 3 {
		often := 1 + float64(try)
		if pc.addTechniquesOnce(all, often, r); kindsOf(all) >= analysis.LeastTechniqueKinds {
			return
		}
	}
}

// plannedNote is a note with what it is there for.
type plannedNote struct {
	*phrase.Event
	onset  *onset
	asLick bool
}

func kindsOf(all []plannedNote) int {
	p := phrase.Phrase{}
	for _, one := range all {
		p.Events = append(p.Events, *one.Event)
	}
	return len(analysis.TechniqueKinds(p))
}

// addTechniquesOnce goes through the notes once, so often as often says.
func (pc *planContext) addTechniquesOnce(all []plannedNote, often float64, r *rand.Rand) {
	beat := pc.Chart.Meter.BeatTicks()
	bends := 0
	for n, e := range all {
		if e.Bend > 1 {
			bends++
		}
		if e.asLick || len(e.Names()) > 0 {
			continue
		}
		o := e.onset
		over := pc.Chords[o.over]
		class := e.Sounding(pc.Instrument).Class()
		joined := n > 0 && all[n-1].String == e.String && all[n-1].End() == e.Tick
		switch {
		case o.arrival >= 0 && over.Third[class] && r.Float64() < often*oftenSlid && pc.slidable(e, joined && n > 0 && all[n-1].Fret != e.Fret-1):
			e.SlideFrom = e.Fret - 1
		case bends < mostBends && 2*e.Ticks >= beat && !o.gap && r.Float64() < often*oftenBent*bendWeight(e.Ticks, beat) && pc.bend(all, n):
			bends++
		case joined && all[n-1].Bend == 0 && !all[n-1].Vibrato && e.Fret != all[n-1].Fret && !o.onBeat &&
			max(e.Fret-all[n-1].Fret, all[n-1].Fret-e.Fret) <= 3 && r.Float64() < often*oftenSlurred:
			e.HammerOn, e.PullOff = e.Fret > all[n-1].Fret, e.Fret < all[n-1].Fret
		case over.Class[class] == harmony.Blue && e.Fret > 0 && pc.InBox[class] && r.Float64() < often*oftenQuarterBent:
			e.Bend = 1
		}
		if 2*e.Ticks >= 3*beat && e.Fret > 0 {
			e.Vibrato = true
		}
	}
}

func bendWeight(ticks, beat int) float64 {
	if ticks >= beat {
		return 1
	}
	return 0.4
}

// slidable says whether the fret below can be slid from: it lies in the window, and the
// slide is allowed. Where the note before lies on it, the slide goes on from there.
func (pc *planContext) slidable(e plannedNote, blocked bool) bool {
	if e.Fret < 2 || e.Fret-1 < e.onset.window.Low || blocked {
		return false
	}
	for _, led := range pc.Targets[e.onset.arrival].Approaches[e.Place] {
		if led.Arrival == change.Slid {
			return true
		}
	}
	return false
}

// bend plays a note from the note of the box a whole step below it, bent up: 4 to 5 and b7
// to R in the minor box, 2 to 3 and 5 to 6 in the major (common). The string is one of the
// three thin ones, the fret one that the first finger does not have, since it is too weak
// alone. It says whether that lies under the hand.
func (pc *planContext) bend(all []plannedNote, n int) bool {
	e := all[n]
	goal := e.Sounding(pc.Instrument)
	if !pc.InBox[(goal-2).Class()] || !pc.InBox[goal.Class()] {
		return false
	}
	// The note before is not the same pitch, or the bend would not be heard.
	if n > 0 && all[n-1].Sounding(pc.Instrument) == goal {
		return false
	}
	w := e.onset.window
	for s := 1; s <= min(3, len(pc.Instrument.Open)); s++ {
		from := neck.Place{String: s, Fret: int(goal - 2 - pc.Instrument.Open[s-1])}
		if from.Fret < max(w.Core+2, lowestBend) || from.Fret > w.High || neck.MostBend(from) < 4 {
			continue
		}
		if n > 0 && !pc.WithinSpan(all[n-1].Place, from) || n+1 < len(all) && !pc.WithinSpan(all[n+1].Place, from) {
			continue
		}
		if n > 0 && all[n-1].String == s && all[n-1].End() > e.Tick || n+1 < len(all) && all[n+1].String == s && all[n+1].Tick < e.End() {
			continue
		}
		e.Place, e.Bend = from, 4
		return true
	}
	return false
}
