package solo

import (
	"math/rand/v2"

	"undaris/core/change"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// How often a technique is used where it lies under the hand (ours), and how many bends a
// chorus has: a bend said too often says nothing.
const (
	oftenSlid    = 0.45
	oftenBent    = 0.4
	oftenSlurred = 0.55
	oftenCurled  = 0.6
	mostBends    = 3
	// lowestBend is the lowest fret that a whole step is bent at: nearer the nut the string is
	// too stiff.
	lowestBend = 4
)

// play gives the notes of a chorus their techniques, at places where hands do them:
// vibrato on what is held, the b3 slid to the 3 of a dominant, the note of the box a whole
// step below bent up, neighbours on a string hammered and pulled, the blue third curled.
func (g *ground) play(phrases []sung, r *rand.Rand) {
	all := []played{}
	for k := range phrases {
		p := &phrases[k]
		for n := range p.notes {
			all = append(all, played{&p.notes[n], &p.onsets[n], p.fromLick[n]})
		}
	}
	for try := range 3 {
		often := 1 + float64(try)
		if g.playOnce(all, often, r); kindsOf(all) >= leastTouch {
			return
		}
	}
}

// played is a note with what it is there for.
type played struct {
	*phrase.Event
	onset  *onset
	asLick bool
}

func kindsOf(all []played) int {
	p := phrase.Phrase{}
	for _, one := range all {
		p.Events = append(p.Events, *one.Event)
	}
	return len(touches(p))
}

// playOnce goes through the notes once, so often as often says.
func (g *ground) playOnce(all []played, often float64, r *rand.Rand) {
	beat := g.Chart.Meter.BeatTicks()
	bends := 0
	for n, e := range all {
		if e.Bend > 1 {
			bends++
		}
		if e.asLick || len(e.Names()) > 0 {
			continue
		}
		o := e.onset
		over := g.chords[o.over]
		class := e.Sounding(g.Instrument).Class()
		joined := n > 0 && all[n-1].String == e.String && all[n-1].End() == e.Tick
		switch {
		case o.arrival >= 0 && over.third[class] && r.Float64() < often*oftenSlid && g.slidable(e, joined && n > 0 && all[n-1].Fret != e.Fret-1):
			e.SlideFrom = e.Fret - 1
		case bends < mostBends && 2*e.Ticks >= beat && !o.gap && r.Float64() < often*oftenBent*bendWeight(e.Ticks, beat) && g.bend(all, n):
			bends++
		case joined && all[n-1].Bend == 0 && !all[n-1].Vibrato && e.Fret != all[n-1].Fret && !o.onBeat &&
			max(e.Fret-all[n-1].Fret, all[n-1].Fret-e.Fret) <= 3 && r.Float64() < often*oftenSlurred:
			e.HammerOn, e.PullOff = e.Fret > all[n-1].Fret, e.Fret < all[n-1].Fret
		case over.class[class] == harmony.Blue && e.Fret > 0 && g.boxed[class] && r.Float64() < often*oftenCurled:
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
func (g *ground) slidable(e played, blocked bool) bool {
	if e.Fret < 2 || e.Fret-1 < e.onset.window.Low || blocked {
		return false
	}
	for _, led := range g.arrivals[e.onset.arrival].leads[e.Place] {
		if led.Arrives == change.Slid {
			return true
		}
	}
	return false
}

// bend plays a note from the note of the box a whole step below it, bent up: 4 to 5 and b7
// to R in the minor box, 2 to 3 and 5 to 6 in the major (common). The string is one of the
// three thin ones, the fret one that the first finger does not have, since it is too weak
// alone. It says whether that lies under the hand.
func (g *ground) bend(all []played, n int) bool {
	e := all[n]
	goal := e.Sounding(g.Instrument)
	if !g.boxed[(goal-2).Class()] || !g.boxed[goal.Class()] {
		return false
	}
	// The note before is not the same pitch, or the bend would not be heard.
	if n > 0 && all[n-1].Sounding(g.Instrument) == goal {
		return false
	}
	w := e.onset.window
	for s := 1; s <= min(3, len(g.Instrument.Open)); s++ {
		from := neck.Place{String: s, Fret: int(goal - 2 - g.Instrument.Open[s-1])}
		if from.Fret < max(w.Core+2, lowestBend) || from.Fret > w.High || neck.MostBend(from) < 4 {
			continue
		}
		if n > 0 && !g.within(all[n-1].Place, from) || n+1 < len(all) && !g.within(all[n+1].Place, from) {
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

// within says whether both places lie within the span of the hand.
func (g *ground) within(a, b neck.Place) bool {
	return a.Fret == 0 || b.Fret == 0 || max(a.Fret, b.Fret) <= g.widest[min(a.Fret, b.Fret)]
}

// ledBy is the approach by which notes lead into a landing, nil for none. Of several the
// longest.
func (g *ground) ledBy(before []phrase.Event, landing phrase.Event, a arrival) *change.Led {
	var best *change.Led
	at := landing.Place
	at.Fret += landing.Bend / 2
	for n, led := range a.leads[at] {
		length := len(led.Notes) - 1
		if length < 1 || length > len(before) {
			continue
		}
		alike := true
		for k := range length {
			if pitch.MIDI(led.Notes[k].Pitch) != before[len(before)-length+k].Sounding(g.Instrument) {
				alike = false
			}
		}
		if alike && (best == nil || length > len(best.Notes)-1) {
			best = &a.leads[at][n]
		}
	}
	return best
}
