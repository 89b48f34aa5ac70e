package neck

import (
	"fmt"
	"slices"

	"undaris/core/harmony"
)

// LayoutKind says which of a chord's tones a shape takes, and how many a string.
type LayoutKind string

// The layouts of a shape.
const (
	// AllTones takes every tone that the position has.
	AllTones LayoutKind = "all tones"
	// OneOctave takes one of each from a starting tone up, and that tone again.
	OneOctave LayoutKind = "one octave"
	// TwoAString lays two of the given tones on each string.
	TwoAString LayoutKind = "two a string"
	// ThreeAString lays three, FourAString four: the hand shifts on every string.
	ThreeAString LayoutKind = "three a string"
	FourAString  LayoutKind = "four a string"
	// SomeStrings and SomeFrets take only the tones there.
	SomeStrings LayoutKind = "some strings"
	SomeFrets   LayoutKind = "some frets"
)

// LayoutKinds lists every layout.
var LayoutKinds = []LayoutKind{AllTones, OneOctave, TwoAString, ThreeAString, FourAString, SomeStrings, SomeFrets}

// Layout is a layout with what it needs.
type Layout struct {
	Kind LayoutKind
	// From is the degree an octave starts from, as it is written.
	From string
	// Low and High bound strings (1 is the highest sounding) or frets. So many a string lie
	// on all strings where both are 0.
	Low, High int
}

// LayoutError says why a layout has nothing in it, and the nearest that has.
type LayoutError struct {
	Detail string
	// Nearest is a layout that works; its zero value where there is none.
	Nearest Layout
}

func (e *LayoutError) Error() string { return e.Detail }

// perString is how far the frets of a shape of two or three a string may lie
// apart on one string, fourPerString those of four: the hand shifts for the last.
const (
	perString     = 5
	fourPerString = 7
)

// PlaceInLayout lays tones out in a window. Those of so many a string leave
// the window where the strings lead them: the hand moves along.
func PlaceInLayout(i Instrument, w Window, tones []harmony.Tone, l Layout) (Shape, error) {
	switch l.Kind {
	case AllTones, "":
		return PlaceTones(i, w, tones), nil
	case OneOctave:
		return octave(i, w, tones, l)
	case TwoAString:
		return notesPerString(i, w, tones, l, 2)
	case ThreeAString:
		return notesPerString(i, w, tones, l, 3)
	case FourAString:
		return notesPerString(i, w, tones, l, 4)
	case SomeStrings, SomeFrets:
		return some(i, w, tones, l)
	}
	return Shape{}, &LayoutError{Detail: fmt.Sprintf("%q is not a layout; choose one of %v", l.Kind, LayoutKinds)}
}

func octave(i Instrument, w Window, tones []harmony.Tone, l Layout) (Shape, error) {
	all := PlaceTones(i, w, tones).Tones
	starts := []string{}
	for n, first := range all {
		for end := n + 1; end < len(all); end++ {
			if all[end].Pitch != first.Pitch+12 {
				continue
			}
			if first.Degree.String() == l.From {
				return fingeredAgain(i, w, all[n:end+1]), nil
			}
			starts = append(starts, first.Degree.String())
		}
	}
	fault := &LayoutError{Detail: fmt.Sprintf("the position has no octave from the %s up", l.From)}
	if len(starts) > 0 {
		fault.Detail += fmt.Sprintf("; it has one from the %s", starts[0])
		fault.Nearest = Layout{Kind: OneOctave, From: starts[0]}
	}
	return Shape{}, fault
}

func some(i Instrument, w Window, tones []harmony.Tone, l Layout) (Shape, error) {
	what, most := "strings", len(i.Open)
	if l.Kind == SomeFrets {
		what, most = "frets", i.Frets
	}
	if l.Low > l.High || l.Low < 0 || l.High > most || (l.Kind == SomeStrings && l.Low < 1) {
		return Shape{}, &LayoutError{
			Detail:  fmt.Sprintf("%s %d to %d are not on the neck", what, l.Low, l.High),
			Nearest: Layout{Kind: l.Kind, Low: max(min(l.Low, most), 1), High: max(min(l.High, most), 1)},
		}
	}
	inside := func(p Place) bool {
		if l.Kind == SomeFrets {
			return p.Fret >= l.Low && p.Fret <= l.High
		}
		return p.String >= l.Low && p.String <= l.High
	}
	kept := []Placed{}
	for _, tone := range PlaceTones(i, w, tones).Tones {
		// A tone that lies elsewhere may have another place inside; the hand does
		// not reach back below its core for it.
		at := tone.Place
		if !inside(at) {
			n := slices.IndexFunc(tone.Alternatives, func(p Place) bool { return inside(p) && p.Fret >= w.Core })
			if n < 0 {
				continue
			}
			at = tone.Alternatives[n]
		}
		tone.Place = at
		kept = append(kept, tone)
	}
	if len(kept) == 0 {
		return Shape{}, &LayoutError{
			Detail:  fmt.Sprintf("no tone lies on %s %d to %d in this position (frets %d to %d)", what, l.Low, l.High, w.Low, w.High),
			Nearest: Layout{Kind: AllTones},
		}
	}
	return fingeredAgain(i, w, kept), nil
}

// fingeredAgain fingers a part of a shape for itself, its places held.
func fingeredAgain(i Instrument, w Window, tones []Placed) Shape {
	wanted := make([]NoteToPlace, len(tones))
	for n := range tones {
		at := tones[n].Place
		wanted[n] = NoteToPlace{Pitch: tones[n].Pitch, At: &at}
	}
	fingering, _, err := Finger(i, w, wanted)
	if err != nil {
		panic("places that were found can be fingered: " + err.Error())
	}
	kept := slices.Clone(tones)
	for n, f := range fingering {
		kept[n].Fingered = f
		kept[n].Reach = w.IsReach(f.Fret)
		kept[n].Alternatives = slices.DeleteFunc(i.PlacesOf(w, kept[n].Pitch), func(p Place) bool { return p == f.Place })
	}
	return measured(i, Shape{Tones: kept})
}

// measured is the shape with its stretch, from its lowest to its highest fretted
// fret.
func measured(i Instrument, s Shape) Shape {
	lowest, highest := i.Frets+1, 0
	for _, tone := range s.Tones {
		if tone.Fret > 0 {
			lowest, highest = min(lowest, tone.Fret), max(highest, tone.Fret)
		}
	}
	s.StretchMM = 0
	if highest >= lowest {
		s.StretchMM = i.StretchMM(lowest, highest)
	}
	return s
}

// notesPerString lays so many tones on each string, from the lowest string up, starting
// with the first tone that the core has on it. The layout may bound the strings. The frets of
// a string lie at most perString apart, fourPerString where there are four. They begin lower where
// they would run off the neck.
func notesPerString(i Instrument, w Window, tones []harmony.Tone, l Layout, count int) (Shape, error) {
	highest, lowest := 1, len(i.Open)
	if l.Low != 0 || l.High != 0 {
		if l.Low < 1 || l.High > lowest || l.Low > l.High {
			return Shape{}, &LayoutError{Detail: fmt.Sprintf("strings %d to %d are not on the neck", l.Low, l.High), Nearest: Layout{Kind: l.Kind}}
		}
		highest, lowest = l.Low, l.High
	}
	apart := perString
	if count > 3 {
		apart = fourPerString
	}
	var best Shape
	found := false
	try := func(fret int) {
		if shape, ok := runs(i, tones, Place{String: lowest, Fret: fret}, highest, count, apart); ok && !found {
			best, found = shape, true
		}
	}
	for fret := w.Core; fret <= w.High; fret++ {
		try(fret)
	}
	for fret := w.Core - 1; fret >= 0; fret-- {
		try(fret)
	}
	if !found {
		return Shape{}, &LayoutError{
			Detail:  fmt.Sprintf("from frets %d to %d up, %d tones a string do not lie within %d frets on every string", w.Core, w.High, count, apart+1),
			Nearest: Layout{Kind: AllTones},
		}
	}
	return best, nil
}

// runs lays the tones from a place up to the highest string.
func runs(i Instrument, tones []harmony.Tone, start Place, highest, count, apart int) (Shape, bool) {
	at := func(p Place) *harmony.Tone {
		for n := range tones {
			if tones[n].Note.Class() == i.Pitch(p).Class() {
				return &tones[n]
			}
		}
		return nil
	}
	if at(start) == nil {
		return Shape{}, false
	}
	shape := Shape{}
	p := i.Pitch(start)
	for s := start.String; s >= highest; s-- {
		first, last := -1, -1
		for n := 0; n < count; {
			place := Place{String: s, Fret: int(p - i.Open[s-1])}
			if place.Fret < 0 || place.Fret > i.Frets || (first >= 0 && place.Fret-first > apart) {
				return Shape{}, false
			}
			if tone := at(place); tone != nil {
				if first < 0 {
					first = place.Fret
				}
				last = place.Fret
				shape.Tones = append(shape.Tones, Placed{Tone: *tone, Pitch: p, Fingered: Fingered{Place: place}})
				n++
			}
			p++
		}
		stretch(shape.Tones[len(shape.Tones)-count:], first, last)
	}
	shape = measured(i, shape)
	shape.StretchMM = widestString(i, shape)
	return shape, true
}

// stretch fingers the tones of one string, a hand's breadth at its own place:
// the first finger on the lowest, the little one on the highest.
func stretch(tones []Placed, first, last int) {
	for n := range tones {
		fret := tones[n].Fret
		switch {
		case fret == 0:
			tones[n].Finger = 0
		case fret == first:
			tones[n].Finger = 1
		case fret == last && last-first > 2:
			tones[n].Finger = 4
		default:
			tones[n].Finger = min(max(fret-first+1, 2), 4)
			if last-first > 3 { // spread wide, the middle finger takes the middle
				tones[n].Finger = min(max(fret-first, 2), 3)
			}
		}
	}
}

// widestString is the widest stretch that one string asks for: between strings
// the hand moves.
func widestString(i Instrument, s Shape) float64 {
	widest := 0.0
	for first := range s.Tones {
		for _, other := range s.Tones[first:] {
			if a := s.Tones[first]; a.String == other.String && a.Fret > 0 {
				widest = max(widest, i.StretchMM(a.Fret, other.Fret))
			}
		}
	}
	return widest
}
