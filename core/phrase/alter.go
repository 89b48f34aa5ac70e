package phrase

import (
	"fmt"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Alteration is one note that was changed so that it no longer clashes.
type Alteration struct {
	// Index counts events from 0; Semitones is how far its sound moved.
	Index, Semitones int
	Text             string
}

// NoteTest says whether a class is good enough over a chord.
type NoteTest func(k harmony.Key, c harmony.Chord, class pitch.Class) bool

// IsChordTone wants home alone.
func IsChordTone(k harmony.Key, c harmony.Chord, class pitch.Class) bool {
	return k.Classify(c, class) == harmony.ChordTone
}

// MayRestOn says whether a note may be rested on: home or colour.
func MayRestOn(k harmony.Key, c harmony.Chord, class pitch.Class) bool {
	kind := k.Classify(c, class)
	return kind == harmony.ChordTone || kind == harmony.Colour
}

// LeastChange finds the least movement of one note that makes it good.
func LeastChange(i neck.Instrument, k harmony.Key, c harmony.Chord, e Event, good NoteTest) (int, Event, bool) {
	class := e.Sounding(i).Class()
	wanted := k.Judge(c, class).GoesTo
	for far := 1; far <= 6; far++ {
		best, found, bestBy, bestRank := Event{}, false, 0, 0
		for _, by := range []int{-far, far} {
			goal := pitch.ClassOf(int(class) + by)
			if !good(k, c, goal) {
				continue
			}
			altered, ok := altered(i, e, by)
			if !ok {
				continue
			}
			rank := 1
			switch {
			case wanted != nil && wanted.Note.Class() == goal:
				rank = 3
			case k.Classify(c, goal) == harmony.ChordTone:
				rank = 2
			}
			if !found || rank > bestRank {
				best, found, bestBy, bestRank = altered, true, by, rank
			}
		}
		if found {
			return bestBy, best, true
		}
	}
	return 0, e, false
}

// altered moves the sound of a note by semitones: a bend is bent differently, any
// other note moves along its string.
func altered(i neck.Instrument, e Event, by int) (Event, bool) {
	if bend := e.Bend + 2*by; e.Bend > 0 && bend >= 0 && bend <= neck.MostBend(e.Place) {
		e.Bend = bend
		if bend == 0 {
			e.PreBend, e.Release = false, false
		}
		return e, true
	}
	e.Fret += by
	if !i.Has(e.Place) || e.Fret == 0 && e.NeedsFret() || e.Bend > neck.MostBend(e.Place) {
		return e, false
	}
	return e, true
}

// how says what a hand does otherwise.
func ChangeText(before, after Event) string {
	switch {
	case after.Fret != before.Fret:
		return fmt.Sprintf("fret %d instead of %d", after.Fret, before.Fret)
	case after.Bend == 0:
		return "no bend"
	}
	return fmt.Sprintf("bend it %s instead of %s", bendNames[min(after.Bend, MaxBend)], bendNames[min(before.Bend, MaxBend)])
}

// DropBrokenSlurs drops the slurs and ties that altered notes no longer allow, and says
// which.
func DropBrokenSlurs(events []Event) (lost []string) {
	last := map[int]Event{}
	for n := range events {
		e := &events[n]
		before, heard := last[e.String]
		lose := func(slur string) {
			lost = append(lost, fmt.Sprintf("the %s at note %d no longer fits: pick it", slur, n+1))
		}
		if e.HammerOn && (!heard || before.Fret >= e.Fret) {
			e.HammerOn = false
			lose("hammer-on")
		}
		if e.PullOff && (!heard || before.Fret <= e.Fret) {
			e.PullOff = false
			lose("pull-off")
		}
		if e.Tied && (!heard || before.Place != e.Place || before.End() != e.Tick) {
			e.Tied = false
			lose("tie")
		}
		if e.SlideFrom > 0 && e.SlideFrom == e.Fret {
			e.SlideFrom = 0
			lose("slide")
		}
		last[e.String] = *e
	}
	return lost
}

// Mended is the phrase with what no hand could play taken away, note by note, and what
// that was: notes at once on a string, bends and slides of open strings, slurs from
// nowhere. What can be played as it is stays as it is.
func (p Phrase) Playable() (Phrase, []string) {
	events, said := withoutOverlaps(slices.Clone(p.Events), nil)
	for n := range events {
		e := &events[n]
		if before := *e; e.Fret == 0 {
			if e.dropUnplayable(); *e != before {
				said = append(said, fmt.Sprintf("note %d is on an open string, which cannot be bent, slid or shaken", n+1))
			}
		}
	}
	p.Events = events
	return p, append(said, DropBrokenSlurs(p.Events)...)
}
