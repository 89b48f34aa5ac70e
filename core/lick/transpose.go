package lick

import (
	"fmt"
	"slices"

	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Transposition is a phrase that was moved to sound higher or lower, or to lie on another
// neck, and what that cost.
type Transposition struct {
	Phrase phrase.Phrase
	// Slid says that every note lies as many frets further on its own string; else the
	// notes were fingered anew.
	Slid bool
	// Lost are the techniques that had to go, each named with its note counted from 1.
	Lost []string
	// Dropped are the notes of the original, by index, that the neck does not have.
	Dropped []int
}

// TransposePhrase moves the phrase from one neck to another so that it sounds so many semitones
// higher: along its strings, which keeps hand and techniques, where the neck and the hand
// allow it; else fingered anew where the fewest techniques are lost, as near to the window
// as can be. spanMM is
// how far the hand reaches, in millimetres.
func TransposePhrase(p phrase.Phrase, from, to neck.Instrument, up int, w neck.Window, spanMM float64) Transposition {
	if slid, ok := SlidePhrase(p, from, to, up, spanMM); ok {
		return Transposition{Phrase: slid, Slid: true}
	}
	l := Lick{Name: "phrase", Phrase: p, Instrument: &from}
	best, least := Placement{}, -1
	for core := 0; core <= to.Frets-3; core++ {
		setting, _, ok := l.refingered(to, to.WindowFrom(core), up)
		// A technique kept is worth more than any way the hand has to go (our choice).
		cost := len(setting.Lost)*neck.MaxFrets + max(core-w.Core, w.Core-core)
		if ok && (least < 0 || cost < least) {
			best, least = setting, cost
		}
	}
	if least >= 0 {
		best.Phrase.Chords = p.Chords
		return Transposition{Phrase: best.Phrase, Lost: best.Lost}
	}
	return scattered(p, from, to, up, w)
}

// SlidePhrase moves every note by the same number of frets along its string, onto another neck
// whose strings lie as far apart, so that it sounds so many semitones higher. It fails
// where a note would leave the neck, where a technique needs a fret and would find an
// open string, and where open strings that become fretted ask for a reach beyond the
// span.
func SlidePhrase(p phrase.Phrase, from, to neck.Instrument, up int, spanMM float64) (phrase.Phrase, bool) {
	higher, alike := to.SemitonesAbove(from)
	if !alike {
		return phrase.Phrase{}, false
	}
	by := up - higher
	slid := phrase.Phrase{Meter: p.Meter, Events: slices.Clone(p.Events), Chords: p.Chords}
	opened := false
	for n := range slid.Events {
		e := &slid.Events[n]
		wasOpen := e.Fret == 0
		e.Fret += by
		if e.SlideFrom > 0 {
			if e.SlideFrom += by; e.SlideFrom < 1 || e.SlideFrom > to.Frets {
				return phrase.Phrase{}, false
			}
		}
		if !to.Has(e.Place) || e.Fret == 0 && e.NeedsFret() {
			return phrase.Phrase{}, false
		}
		opened = opened || wasOpen != (e.Fret == 0)
	}
	if !opened {
		return slid, true
	}
	if low, high := slid.Frets(); by > 0 && to.StretchMM(low, high) > spanMM {
		return phrase.Phrase{}, false // with the open strings the hand could go further than it now can
	}
	slid.Finger(to)
	for _, e := range slid.Events {
		if (e.Fret == 0) != (e.Finger == 0) {
			return phrase.Phrase{}, false
		}
	}
	return slid, true
}

// scattered puts each note where it can be had, though no one place of the hand has them
// all.
func scattered(p phrase.Phrase, from, to neck.Instrument, up int, w neck.Window) Transposition {
	notes := make([]phrase.PitchedNote, len(p.Events))
	for n, e := range p.Events {
		notes[n] = phrase.PitchedNote{Tick: e.Tick, Ticks: e.Ticks, Pitch: from.Pitch(e.Place) + pitch.MIDI(up), Technique: e.Technique}
		// The frets that a slide came from say nothing on another string.
		notes[n].SlideFrom = 0
	}
	placed := phrase.AssignStrings(to, w, notes)
	t := Transposition{Phrase: phrase.Phrase{Meter: p.Meter, Events: placed.Events, Chords: p.Chords}, Dropped: placed.Dropped}
	kept := 0
	for n, e := range p.Events {
		if slices.Contains(placed.Dropped, n) {
			continue
		}
		for _, name := range lostOf(e.Technique, placed.Events[kept].Technique) {
			t.Lost = append(t.Lost, fmt.Sprintf("the %s at note %d has no place on another string: pick it", name, n+1))
		}
		kept++
	}
	return t
}

// lostOf names what one way of playing has that another has not.
func lostOf(before, after phrase.Technique) []string {
	lost := []string{}
	for _, t := range []struct {
		name       string
		had, still bool
	}{
		{"slide", before.SlideFrom > 0 || before.SlideOut != 0, after.SlideFrom > 0 || after.SlideOut != 0},
		{"hammer-on", before.HammerOn, after.HammerOn}, {"pull-off", before.PullOff, after.PullOff}, {"tie", before.Tied, after.Tied},
		{"bend", before.Bend > 0, after.Bend > 0}, {"vibrato", before.Vibrato, after.Vibrato},
	} {
		if t.had && !t.still {
			lost = append(lost, t.name)
		}
	}
	return lost
}
