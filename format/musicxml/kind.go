package musicxml

import (
	"fmt"
	"sort"
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// kind is how the format names one of our qualities: its kind, and the degrees
// that are added (+), altered (~) or taken out (-).
type kind struct{ sign, name, degrees string }

// kinds names the common qualities. Where several are possible the first is written and
// all are read; the other qualities are written as a plain kind with degrees (degrees.go).
var kinds = []kind{
	{"", "major", ""}, {"m", "minor", ""}, {"7", "dominant", ""}, {"maj7", "major-seventh", ""}, {"m7", "minor-seventh", ""},
	{"m(maj7)", "major-minor", ""}, {"m7b5", "half-diminished", ""}, {"dim", "diminished", ""}, {"dim7", "diminished-seventh", ""},
	{"aug", "augmented", ""}, {"6", "major-sixth", ""}, {"m6", "minor-sixth", ""}, {"6/9", "major-sixth", "+9"},
	{"9", "dominant-ninth", ""}, {"m9", "minor-ninth", ""}, {"maj9", "major-ninth", ""}, {"11", "dominant-11th", ""},
	{"m11", "minor-11th", ""}, {"13", "dominant-13th", ""}, {"m13", "minor-13th", ""}, {"add9", "major", "+9"},
	{"sus2", "suspended-second", ""}, {"sus4", "suspended-fourth", ""}, {"7sus4", "suspended-fourth", "+b7"},
	{"9sus4", "suspended-fourth", "+b7 +9"}, {"7b9", "dominant", "+b9"}, {"7#9", "dominant", "+#9"}, {"7#5", "augmented-seventh", ""},
	{"7b5", "dominant", "~b5"}, {"7b13", "dominant", "+b13"}, {"7#11", "dominant", "+#11"}, {"7alt", "dominant", "-5 +b9 +#9 +#11 +b13"},
	{"5", "power", ""},
	{"7#5", "dominant", "~#5"}, {"7b9", "dominant-ninth", "~b9"}, {"7#9", "dominant-ninth", "~#9"}, {"9", "dominant", "+9"},
	{"13", "dominant-ninth", "+13"}, {"m7b5", "minor-seventh", "~b5"}, {"m9", "minor-seventh", "+9"}, {"maj9", "major-seventh", "+9"},
	{"6", "major", "+6"}, {"m6", "minor", "+6"}, {"dim", "minor", "~b5"}, {"aug", "major", "~#5"}, {"7", "major", "+b7"},
	{"7sus4", "dominant", "-3 +4"}, {"9sus4", "dominant-ninth", "-3 +4"}, {"7#11", "dominant", "~#11"}, {"m7", "minor", "+b7"},
}

func (k kind) id() string { return k.name + " " + sorted(strings.Fields(k.degrees)) }

func sorted(degrees []string) string {
	sort.Strings(degrees)
	return strings.Join(degrees, " ")
}

// bySign is how a quality is written, byID what is read.
var bySign, byID = func() (map[string]kind, map[string]string) {
	written, read := map[string]kind{}, map[string]string{}
	for _, k := range kinds {
		if _, ok := written[k.sign]; !ok {
			written[k.sign] = k
		}
		read[k.id()] = k.sign
	}
	return written, read
}()

// In the format a degree's alteration counts from the degree that a dominant
// chord has: a 7 without alteration is the minor seventh.
const dominantSeventh = 7

func mark(span harmony.Chord) *harmonyMark {
	k := kindFor(span.Quality)
	h := &harmonyMark{
		Root: &rootMark{Step: step(span.Root), Alter: float64(span.Root.Accidental)},
		Kind: kindMark{Value: k.name, Text: span.Quality.Sign},
	}
	if span.Bass != nil {
		h.Bass = &bassMark{Step: step(*span.Bass), Alter: float64(span.Bass.Accidental)}
	}
	for _, text := range strings.Fields(k.degrees) {
		d := pitch.MustDegree(text[1:])
		alter := d.Alter
		if d.Number == dominantSeventh {
			alter++
		}
		h.Degrees = append(h.Degrees, degree{
			Value: d.Number, Alter: float64(alter), Type: map[byte]string{'+': "add", '~': "alter", '-': "subtract"}[text[0]],
		})
	}
	return h
}

// noChord is a harmony that says the band rests.
func noChord() *harmonyMark {
	return &harmonyMark{Root: &rootMark{Step: "C"}, Kind: kindMark{Value: "none", Text: "N.C."}}
}

func step(n pitch.Note) string { return pitch.Note{Letter: n.Letter}.String() }

// chord reads a harmony; empty says that it is no chord. What is not known is an
// error that names it.
func (h *harmonyMark) chord() (chord harmony.Chord, empty bool, err error) {
	name := strings.TrimSpace(h.Kind.Value)
	if name == "none" {
		return chord, true, nil
	}
	if h.Root == nil {
		return chord, false, fmt.Errorf("a harmony without a root")
	}
	if chord.Root, err = noteOf(h.Root.Step, h.Root.Alter); err != nil {
		return chord, false, err
	}
	degrees := []string{}
	for _, d := range h.Degrees {
		sign, ok := map[string]string{"add": "+", "alter": "~", "subtract": "-"}[strings.TrimSpace(d.Type)]
		alter := int(d.Alter)
		if d.Value == dominantSeventh {
			alter--
		}
		if !ok || d.Value < 1 || d.Value > 13 || float64(int(d.Alter)) != d.Alter || alter < -2 || alter > 2 {
			return chord, false, fmt.Errorf("a degree %s %d altered by %g", d.Type, d.Value, d.Alter)
		}
		if sign == "-" {
			alter = 0
		}
		degrees = append(degrees, sign+pitch.Degree{Number: d.Value, Alter: alter}.String())
	}
	sign, ok := signOf(name, degrees)
	if !ok {
		said := name
		if len(degrees) > 0 {
			said += " with " + strings.Join(degrees, " ")
		}
		return chord, false, fmt.Errorf("the kind %q", said)
	}
	if chord, err = harmony.ParseChord(chord.Root.String() + sign); err != nil {
		return chord, false, err
	}
	if h.Bass != nil {
		bass, err := noteOf(h.Bass.Step, h.Bass.Alter)
		if err != nil {
			return chord, false, err
		}
		chord.Bass = &bass
	}
	return chord, false, nil
}

func noteOf(step string, alter float64) (pitch.Note, error) {
	note, err := pitch.ParseNote(strings.TrimSpace(step))
	if err != nil || note.Accidental != 0 || float64(int(alter)) != alter || alter < -2 || alter > 2 {
		return pitch.Note{}, fmt.Errorf("the note %q altered by %g", step, alter)
	}
	note.Accidental = int(alter)
	return note, nil
}

// said is the chord as a player would read it off the score, for one that cannot be read.
func (h *harmonyMark) said() string {
	root := "?"
	if h.Root != nil {
		if note, err := noteOf(h.Root.Step, h.Root.Alter); err == nil {
			root = note.String()
		}
	}
	if text := strings.TrimSpace(h.Kind.Text); text != "" {
		return root + text
	}
	return root + " " + strings.TrimSpace(h.Kind.Value)
}
