package exercise

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// material is what is walked over one chord.
type material struct {
	// tones are the notes of the ladder, from the lowest degree up.
	tones []harmony.Tone
	// above are how many steps of the tones the other notes of a structure lie above its lowest;
	// nil for single notes.
	above []int
	// stacks are the structures of a chord by their tones, the lowest first, each the next of its name
	// above the one before; nil for what is built of steps.
	stacks [][]harmony.Tone
	// concession is what could not be had and what is walked instead; empty for nothing.
	concession string
}

// structureSteps are how many steps of a scale the notes of the structures lie apart.
var structureSteps = map[Tones]int{Thirds: 2, Fourths: 3, Fifths: 4, Sixths: 5, Octaves: 7, Tenths: 9}

// stackDegrees are the structures of a chord by their degrees, the lowest first (common practice).
var stackDegrees = map[Tones][][]int{
	Shells:       {{1, 7, 3}, {1, 3, 7}},
	GuideTones:   {{3, 7}, {7, 3}},
	RootAndThird: {{1, 3}},
	SpreadTriads: {{1, 5, 3}, {3, 1, 5}, {5, 3, 1}},
}

// IsStructure says whether the tones are several at a time.
func (t Tones) IsStructure() bool {
	_, stacked := stackDegrees[t]
	_, steps := structureSteps[t]
	return stacked || steps
}

// TakesExtensions says whether a 9, 11 or 13 can be added.
func (t Tones) TakesExtensions() bool {
	return slices.Contains([]Tones{"", ChordTones, Triad, Seventh}, t)
}

// isOnePerChord says whether a chord has one structure of these tones that is kept while the
// chord lasts, in place of a ladder of them.
func (t Tones) isOnePerChord() bool {
	return t == Shells || t == GuideTones || t == RootAndThird
}

// IsArpeggio says whether the tones are those of a chord, a third or more apart.
func (t Tones) IsArpeggio() bool {
	return slices.Contains([]Tones{"", ChordTones, Triad, Seventh, SuperimposedOver}, t)
}

// material is what the exercise walks over a chord in a key. Its error is a
// *chart.FieldError.
func (e Exercise) material(c chart.Chart, chord harmony.Chord) (material, error) {
	if degrees, ok := stackDegrees[e.Tones]; ok {
		return stacksOf(e.Tones, degrees, chord)
	}
	key := chord.Context(c.Key).Key
	scale, _ := key.ChordScale(chord)
	switch e.Tones {
	case ChordTones, "":
		return e.extended(key, chord, chord.Tones()), nil
	case Triad:
		tones, err := triadOf(chord)
		return e.extended(key, chord, tones), err
	case Seventh:
		tones, err := triadOf(chord)
		return e.extended(key, chord, withSeventh(tones, chord, scale)), err
	case ScaleOfChord:
		return material{tones: ordered(scale.Tones, chord.Root.Class())}, nil
	case BoxTones:
		box, err := key.Box(c.Box)
		tones := ordered(box.Tones, key.Tonic.Class())
		for n, t := range tones { // degrees are counted over the chord, not over the tonic
			tones[n].Degree = key.ToneOver(chord, t.Note.Class()).Degree
		}
		return material{tones: tones}, err
	case SuperimposedOver:
		return e.superimposed(key, chord)
	}
	step, ok := structureSteps[e.Tones]
	if !ok {
		return material{}, unknown("tones", "walked", string(e.Tones), Choices.Tones)
	}
	return material{tones: ordered(scale.Tones, chord.Root.Class()), above: []int{step}}, nil
}

// ordered is the tones from a root up, by how they sound.
func ordered(tones []harmony.Tone, root pitch.Class) []harmony.Tone {
	sorted := slices.Clone(tones)
	slices.SortStableFunc(sorted, func(a, b harmony.Tone) int {
		return a.Note.Class().Above(root) - b.Note.Class().Above(root)
	})
	return sorted
}

// extended adds the extensions that are wished.
func (e Exercise) extended(k harmony.Key, chord harmony.Chord, tones []harmony.Tone) material {
	all := slices.Clone(tones)
	for _, wanted := range e.Extensions {
		for _, extension := range k.Extensions(chord) {
			if extension.Degree.Number == wanted && !hasClass(all, extension.Note.Class()) {
				all = append(all, extension.Tone)
			}
		}
	}
	return material{tones: ordered(all, chord.Root.Class())}
}

func hasClass(tones []harmony.Tone, class pitch.Class) bool {
	return slices.ContainsFunc(tones, func(t harmony.Tone) bool { return t.Note.Class() == class })
}

// triadOf is a chord's root, third and fifth; a suspended tone stands for the third.
func triadOf(chord harmony.Chord) ([]harmony.Tone, error) {
	tones := []harmony.Tone{}
	for _, number := range []int{1, 3, 5} {
		if t, ok := chordToneNumbered(chord, number); ok {
			tones = append(tones, t)
		}
	}
	if len(tones) < 2 {
		return nil, &chart.FieldError{Field: "tones", Detail: fmt.Sprintf("%s has no triad", chord.Symbol())}
	}
	return tones, nil
}

// substitutes are the degrees that stand for one that a chord does not have: suspended tones
// for the third, a sixth for the seventh, an altered tone for the fifth (common practice).
var substitutes = map[int][]int{1: {1}, 3: {3, 4, 2}, 5: {5, 11, 13}, 7: {7, 6}}

// chordToneNumbered is the chord's tone of a degree, or what stands for it.
func chordToneNumbered(chord harmony.Chord, number int) (harmony.Tone, bool) {
	for _, wanted := range substitutes[number] {
		for _, t := range chord.Tones() {
			if t.Degree.Number == wanted {
				return t, true
			}
		}
	}
	return harmony.Tone{}, false
}

// withSeventh adds the seventh of the chord, or where it has none that of its scale.
func withSeventh(tones []harmony.Tone, chord harmony.Chord, scale harmony.Scale) []harmony.Tone {
	if t, ok := chordToneNumbered(chord, 7); ok {
		return append(tones, t)
	}
	for _, t := range scale.Tones {
		if t.Degree.Number == 7 && !hasClass(tones, t.Note.Class()) {
			return append(tones, t)
		}
	}
	return tones
}

// superimposed is the best superimposed arpeggio, on the degree that is wished; where a chord
// has none there, its own seventh arpeggio, and it is said.
func (e Exercise) superimposed(k harmony.Key, chord harmony.Chord) (material, error) {
	for _, s := range k.Superimposed(chord) {
		on := (s.Tones[0].Degree.Number-1)%7 + 1
		if e.Superimposed != 0 && on != (e.Superimposed-1)%7+1 {
			continue
		}
		tones := make([]harmony.Tone, len(s.Tones))
		for n, j := range s.Tones {
			tones[n] = j.Tone
		}
		return material{tones: ordered(tones, s.Arpeggio.Root.Class())}, nil
	}
	tones, err := triadOf(chord)
	scale, _ := k.ChordScale(chord)
	m := material{tones: ordered(withSeventh(tones, chord, scale), chord.Root.Class())}
	m.concession = fmt.Sprintf("%s has no arpeggio there that adds to it; its own is played", chord.SignedSymbol())
	return m, err
}

// stacksOf are the structures of a chord by their degrees.
func stacksOf(kind Tones, degrees [][]int, chord harmony.Chord) (material, error) {
	m := material{}
	for _, numbers := range degrees {
		stack := []harmony.Tone{}
		for _, number := range numbers {
			t, ok := chordToneNumbered(chord, number)
			if !ok && kind == Shells { // a triad has its fifth in place of a seventh
				t, ok = chordToneNumbered(chord, 5)
			}
			if ok && !hasClass(stack, t.Note.Class()) {
				stack = append(stack, t)
			}
		}
		if kind == GuideTones && len(stack) == 1 {
			// A triad has one guide tone; the root is the voice beside it.
			stack = append(stack, chord.Tones()[0])
		}
		if len(stack) >= 2 {
			m.stacks = append(m.stacks, stack)
		}
	}
	if len(m.stacks) == 0 {
		return m, &chart.FieldError{Field: "tones", Detail: fmt.Sprintf("%s has no %s", chord.SignedSymbol(), kind)}
	}
	return m, nil
}

// TonesOver is the tones that single notes are walked over a chord: its own, its scale or the box of
// the chart. Its error is a *chart.FieldError.
func TonesOver(c chart.Chart, chord harmony.Chord, tones Tones) ([]harmony.Tone, error) {
	if tones != ChordTones && tones != ScaleOfChord && tones != BoxTones {
		return nil, &chart.FieldError{Field: "tones", Detail: fmt.Sprintf("%q is not walked over; choose %s, %s, %s", tones, ChordTones, ScaleOfChord, BoxTones)}
	}
	m, err := Exercise{Tones: tones}.material(c, chord)
	return m.tones, err
}
