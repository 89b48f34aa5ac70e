package neck

import (
	"slices"
	"strconv"
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Structure is a small part of a chord on a few strings: to strum, or to play
// one note at a time.
type Structure struct {
	// Name says what it is, Strings where: "strings 4 3 2".
	Name, Strings string
	Shape
}

// structures are the smaller structures by the degrees they take, from the
// lowest note up, and the strings they lie on (common practice): triads in close
// and spread position, a root with its third and the sixth that is its inversion,
// shells of root, third and seventh, octaves.
var structures = []struct {
	name    string
	degrees []int
	strings [][]int
}{
	{"triad, root position", []int{1, 3, 5}, closeSets},
	{"triad, first inversion", []int{3, 5, 1}, closeSets},
	{"triad, second inversion", []int{5, 1, 3}, closeSets},
	{"spread triad, 1 5 3", []int{1, 5, 3}, spreadSets},
	{"spread triad, 3 1 5", []int{3, 1, 5}, spreadSets},
	{"spread triad, 5 3 1", []int{5, 3, 1}, spreadSets},
	{"root and third", []int{1, 3}, [][]int{{6, 5}, {5, 4}, {4, 3}, {3, 2}, {2, 1}}},
	{"sixth: third and root", []int{3, 1}, [][]int{{6, 4}, {5, 3}, {4, 2}, {3, 1}}},
	{"shell: root, 7, 3", []int{1, 7, 3}, [][]int{{6, 4, 3}}},
	{"shell: root, 3, 7", []int{1, 3, 7}, [][]int{{5, 4, 3}}},
	{"octave", []int{1, 1}, [][]int{{6, 4}, {5, 3}, {4, 2}, {3, 1}}},
}

var (
	closeSets  = [][]int{{6, 5, 4}, {5, 4, 3}, {4, 3, 2}, {3, 2, 1}}
	spreadSets = [][]int{{6, 4, 3}, {5, 3, 2}, {4, 2, 1}}
)

// Structures lists every smaller structure of the chord that lies in the window,
// kind by kind, from the lowest strings up. Where a chord has no third the
// suspended tone stands for it, and a sixth for the seventh.
func Structures(i Instrument, w Window, c harmony.Chord) []Structure {
	found := []Structure{}
	for _, kind := range structures {
		tones := make([]*harmony.Tone, len(kind.degrees))
		for n, number := range kind.degrees {
			tones[n] = standing(c, number)
		}
		if slices.Contains(tones, nil) {
			continue
		}
		for _, set := range kind.strings {
			if set[0] > len(i.Open) {
				continue
			}
			for fret := w.Low; fret <= w.High; fret++ {
				if shape, ok := stacked(i, w, tones, set, fret); ok {
					found = append(found, Structure{Name: kind.name, Strings: stringsNamed(set), Shape: shape})
				}
			}
		}
	}
	return found
}

// standing is the chord's tone of a number, or what stands for it.
func standing(c harmony.Chord, number int) *harmony.Tone {
	instead := map[int][]int{3: {3, 4, 2}, 7: {7, 6}}[number]
	if instead == nil {
		instead = []int{number}
	}
	for _, wanted := range instead {
		for _, t := range c.Tones() {
			if t.Degree.Number == wanted {
				return &t
			}
		}
	}
	return nil
}

// stacked lays tones one above the other, each the next of its name above the
// one before, on the strings of a set, the lowest at a fret.
func stacked(i Instrument, w Window, tones []*harmony.Tone, set []int, fret int) (Shape, bool) {
	p := i.Pitch(Place{String: set[0], Fret: fret})
	if p.Class() != tones[0].Note.Class() {
		return Shape{}, false
	}
	placed := []Placed{}
	for n, t := range tones {
		if n > 0 {
			above := t.Note.Class().Above(p.Class())
			if above == 0 {
				above = 12
			}
			p += pitch.MIDI(above)
		}
		at := Place{String: set[n], Fret: int(p - i.Open[set[n]-1])}
		if at.Fret < w.Low || at.Fret > w.High {
			return Shape{}, false
		}
		placed = append(placed, Placed{Tone: *t, Pitch: p, Fingered: Fingered{Place: at}})
	}
	shape := fingeredAgain(i, w, placed)
	strummed(shape.Tones)
	return shape, true
}

func strummed(tones []Placed) {
	chord := make([]Fingered, len(tones))
	for n, t := range tones {
		chord[n] = t.Fingered
	}
	for n, f := range FingerChord(chord) {
		tones[n].Fingered = f
	}
}

// FingerChord fingers places that sound together: the first finger on the lowest
// fret, laid across where several lie there, and the others in order of fret,
// then from the lowest string up (common practice).
func FingerChord(places []Fingered) []Fingered {
	tones := slices.Clone(places)
	order := make([]int, len(tones))
	for n := range order {
		order[n] = n
	}
	slices.SortStableFunc(order, func(a, b int) int {
		if tones[a].Fret != tones[b].Fret {
			return tones[a].Fret - tones[b].Fret
		}
		return tones[b].String - tones[a].String
	})
	lowest, last := 0, 0
	for _, n := range order {
		t := &tones[n]
		switch {
		case t.Fret == 0:
			t.Finger = 0
			continue
		case lowest == 0:
			lowest, t.Finger = t.Fret, 1
		case t.Fret == lowest:
			t.Finger = 1
		default:
			t.Finger = min(max(last+1, t.Fret-lowest+1), 4)
		}
		last = t.Finger
	}
	return tones
}

func stringsNamed(set []int) string {
	names := make([]string, len(set))
	for n, s := range set {
		names[n] = strconv.Itoa(s)
	}
	return "strings " + strings.Join(names, " ")
}
