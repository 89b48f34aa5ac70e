package planner

import (
	"math/rand/v2"

	"undaris/core/analysis"
	"undaris/core/change"
	"undaris/core/harmony"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// How often a technique is used where it lies under the hand (ours).
const (
	oftenSlid    = 0.45
	oftenSlurred = 0.55
	oftenTrilled = 0.03
	oftenRaked   = 0.07
	oftenGhosted = 0.05
)

// addTechniques gives the notes of a chorus their techniques, at places where hands do them:
// bends, vibrato on what is held, the b3 slid to the 3 of a dominant, neighbours on a string
// hammered and pulled, the blue third curled.
func (pc *planContext) addTechniques(phrases []draftPhrase, r *rand.Rand) {
	all := []plannedNote{}
	for k := range phrases {
		p := &phrases[k]
		for n := range p.notes {
			all = append(all, plannedNote{&p.notes[n], &p.onsets[n], p.fromLick[n]})
		}
	}
	pc.addBends(all, r)
	for try := range 3 {
		often := 1 + float64(try)
		if pc.addTechniquesOnce(all, often, r); kindsOf(all) >= analysis.LeastTechniqueKinds {
			break
		}
	}
	pc.addOrnaments(all, r)
}

// addOrnaments trills a long note, rakes into one that begins a phrase and hints at a short one,
// now and then.
func (pc *planContext) addOrnaments(all []plannedNote, r *rand.Rand) {
	for _, e := range all {
		beat := e.onset.beat
		if e.asLick || len(e.Names()) > 0 && !(e.Vibrato && len(e.Names()) == 1) {
			continue
		}
		switch draws := r.Float64(); {
		case e.Ticks >= beat && !e.onset.peak && draws < oftenTrilled:
			if by := pc.trill(e); by > 0 {
				e.Trill, e.Vibrato = by, false
			}
		case e.onset.gap && e.String <= 3 && e.String < len(pc.Instrument.Open) && draws < oftenRaked:
			e.Rake = true
		case 2*e.Ticks <= beat && !e.onset.onBeat && e.onset.arrival < 0 && !e.onset.repeat && draws < oftenGhosted:
			e.Ghost = true
		}
	}
}

// trill is how many half steps above a note the next tone of the box or the chord lies that the
// hand reaches, 0 for none.
func (pc *planContext) trill(e plannedNote) int {
	for by := 1; by <= 2; by++ {
		class := (e.Sounding(pc.Instrument) + pitch.MIDI(by)).Class()
		if e.Fret > 0 && e.Fret+by <= e.onset.window.High && (pc.Chords[e.onset.over].InBox[class] || e.onset.blend > 0 && pc.Chords[e.onset.over].Class[class] == harmony.ChordTone) {
			return by
		}
	}
	return 0
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
	for n, e := range all {
		beat := e.onset.beat
		if e.asLick || len(e.Names()) > 0 && e.Bend == 0 {
			continue
		}
		o := e.onset
		over := pc.Chords[o.over]
		class := e.Sounding(pc.Instrument).Class()
		joined := n > 0 && all[n-1].String == e.String && all[n-1].End() == e.Tick
		switch {
		case e.Bend > 0:
		case o.arrival >= 0 && over.Third[class] && r.Float64() < often*oftenSlid && pc.slidable(e, joined && n > 0 && all[n-1].Fret != e.Fret-1):
			e.SlideFrom = e.Fret - 1
		case joined && all[n-1].Bend == 0 && !all[n-1].Vibrato && e.Fret != all[n-1].Fret && !o.onBeat &&
			max(e.Fret-all[n-1].Fret, all[n-1].Fret-e.Fret) <= 3 && r.Float64() < often*oftenSlurred:
			e.HammerOn, e.PullOff = e.Fret > all[n-1].Fret, e.Fret < all[n-1].Fret
		}
		if e.Fret > 0 && !e.Release && (analysis.IsHeldFor(e.Ticks, beat) || o.peak) {
			e.Vibrato = true
		}
	}
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
