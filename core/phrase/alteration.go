package phrase

import (
	"fmt"

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

// IsChordTone says whether a class is a chord tone.
func IsChordTone(k harmony.Key, c harmony.Chord, class pitch.Class) bool {
	return k.Classify(c, class) == harmony.ChordTone
}

// MayRestOn says whether a note may be rested on: a chord tone or a colour.
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
			altered, ok := Altered(i, e, by)
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

// Altered moves the sound of a note by semitones: a bend is bent differently, any
// other note moves along its string.
func Altered(i neck.Instrument, e Event, by int) (Event, bool) {
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

// ChangeText says what a hand does otherwise.
func ChangeText(before, after Event) string {
	switch {
	case after.Fret != before.Fret:
		return fmt.Sprintf("fret %d instead of %d", after.Fret, before.Fret)
	case after.Bend == 0:
		return "no bend"
	}
	return fmt.Sprintf("bend it %s instead of %s", BendNames[min(after.Bend, MaxBend)], BendNames[min(before.Bend, MaxBend)])
}
