package neck

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// I7, IV7 and V7 of three keys in their five lowest positions: the form each
// makes, then its tones from the lowest string up, * at a reach.
var threeKeys = map[string]map[string]string{
	"C": {
		"C-0 C7":  "C: 6:0 3, 6:3 5, 5:1 b7, 5:3 R, 4:2 3, 3:0 5, 3:3 b7, 2:1 R, 1:0 3, 1:3 5",
		"C-0 F7":  "E: 6:1 R, 5:0 3, 5:3 5, 4:1 b7, 4:3 R, 3:2 3, 2:1 5, 2:4 b7*, 1:1 R",
		"C-0 G7":  "G: 6:1 b7, 6:3 R, 5:2 3, 4:0 5, 4:3 b7, 3:0 R, 2:0 3, 2:3 5, 1:1 b7, 1:3 R",
		"A-3 C7":  "A: 6:3 5, 6:6 b7, 5:3 R, 5:7 3*, 4:5 5, 3:3 b7, 3:5 R, 2:5 3, 1:3 5, 1:6 b7",
		"A-3 F7":  "D: 6:5 3, 5:3 5, 5:6 b7, 4:3 R, 4:7 3*, 3:5 5, 2:4 b7, 2:6 R, 1:5 3",
		"A-3 G7":  "E: 6:3 R, 6:7 3*, 5:5 5, 4:3 b7, 4:5 R, 3:4 3, 2:3 5, 2:6 b7, 1:3 R, 1:7 3*",
		"G-5 C7":  "G: 6:6 b7, 6:8 R, 5:7 3, 4:5 5, 4:8 b7, 3:5 R, 2:5 3, 2:8 5, 1:6 b7, 1:8 R",
		"G-5 F7":  "C: 6:5 3, 6:8 5, 5:6 b7, 5:8 R, 4:7 3, 3:5 5, 3:8 b7, 2:6 R, 1:5 3, 1:8 5",
		"G-5 G7":  "D: 6:7 3, 5:5 5, 5:8 b7, 4:5 R, 4:9 3*, 3:7 5, 2:6 b7, 2:8 R, 1:7 3",
		"E-7 C7":  "E: 6:8 R, 5:7 3, 5:10 5, 4:8 b7, 4:10 R, 3:9 3, 2:8 5, 2:11 b7*, 1:8 R",
		"E-7 F7":  "A: 6:8 5, 6:11 b7*, 5:8 R, 4:7 3, 4:10 5, 3:8 b7, 3:10 R, 2:10 3, 1:8 5, 1:11 b7*",
		"E-7 G7":  "C: 6:7 3, 6:10 5, 5:8 b7, 5:10 R, 4:9 3, 3:7 5, 3:10 b7, 2:8 R, 1:7 3, 1:10 5",
		"D-10 C7": "D: 6:12 3, 5:10 5, 5:13 b7, 4:10 R, 4:14 3*, 3:12 5, 2:11 b7, 2:13 R, 1:12 3",
		"D-10 F7": "G: 6:11 b7, 6:13 R, 5:12 3, 4:10 5, 4:13 b7, 3:10 R, 2:10 3, 2:13 5, 1:11 b7, 1:13 R",
		"D-10 G7": "A: 6:10 5, 6:13 b7, 5:10 R, 5:14 3*, 4:12 5, 3:10 b7, 3:12 R, 2:12 3, 1:10 5, 1:13 b7",
	},
	"F#": {
		"E-1 F#7":  "E: 6:2 R, 5:1 3, 5:4 5, 4:2 b7, 4:4 R, 3:3 3, 2:2 5, 1:0 b7*, 1:2 R",
		"E-1 B7":   "A: 6:2 5, 5:0 b7*, 5:2 R, 4:1 3, 4:4 5, 3:2 b7, 2:0 R*, 2:4 3, 1:2 5, 1:5 b7*",
		"E-1 C#7":  "C: 6:1 3, 6:4 5, 5:2 b7, 5:4 R, 4:3 3, 3:1 5, 2:0 b7*, 2:2 R, 1:1 3, 1:4 5",
		"D-4 F#7":  "D: 6:6 3, 5:4 5, 5:7 b7, 4:4 R, 4:8 3*, 3:6 5, 2:5 b7, 2:7 R, 1:6 3",
		"D-4 B7":   "G: 6:5 b7, 6:7 R, 5:6 3, 4:4 5, 4:7 b7, 3:4 R, 2:4 3, 2:7 5, 1:5 b7, 1:7 R",
		"D-4 C#7":  "A: 6:4 5, 6:7 b7, 5:4 R, 5:8 3*, 4:6 5, 3:4 b7, 3:6 R, 2:6 3, 1:4 5, 1:7 b7",
		"C-6 F#7":  "C: 6:6 3, 6:9 5, 5:7 b7, 5:9 R, 4:8 3, 3:6 5, 3:9 b7, 2:7 R, 1:6 3, 1:9 5",
		"C-6 B7":   "E: 6:7 R, 5:6 3, 5:9 5, 4:7 b7, 4:9 R, 3:8 3, 2:7 5, 2:10 b7*, 1:7 R",
		"C-6 C#7":  "G: 6:7 b7, 6:9 R, 5:8 3, 4:6 5, 4:9 b7, 3:6 R, 2:6 3, 2:9 5, 1:7 b7, 1:9 R",
		"A-9 F#7":  "A: 6:9 5, 6:12 b7, 5:9 R, 5:13 3*, 4:11 5, 3:9 b7, 3:11 R, 2:11 3, 1:9 5, 1:12 b7",
		"A-9 B7":   "D: 6:11 3, 5:9 5, 5:12 b7, 4:9 R, 4:13 3*, 3:11 5, 2:10 b7, 2:12 R, 1:11 3",
		"A-9 C#7":  "E: 6:9 R, 6:13 3*, 5:11 5, 4:9 b7, 4:11 R, 3:10 3, 2:9 5, 2:12 b7, 1:9 R, 1:13 3*",
		"G-11 F#7": "G: 6:12 b7, 6:14 R, 5:13 3, 4:11 5, 4:14 b7, 3:11 R, 2:11 3, 2:14 5, 1:12 b7, 1:14 R",
		"G-11 B7":  "C: 6:11 3, 6:14 5, 5:12 b7, 5:14 R, 4:13 3, 3:11 5, 3:14 b7, 2:12 R, 1:11 3, 1:14 5",
		"G-11 C#7": "D: 6:13 3, 5:11 5, 5:14 b7, 4:11 R, 4:15 3*, 3:13 5, 2:12 b7, 2:14 R, 1:13 3",
	},
	"Bb": {
		"A-1 Bb7":  "A: 6:1 5, 6:4 b7, 5:1 R, 4:0 3*, 4:3 5, 3:1 b7, 3:3 R, 2:3 3, 1:1 5, 1:4 b7",
		"A-1 Eb7":  "D: 6:3 3, 5:1 5, 5:4 b7, 4:1 R, 3:0 3*, 3:3 5, 2:2 b7, 2:4 R, 1:3 3",
		"A-1 F7":   "E: 6:1 R, 5:0 3*, 5:3 5, 4:1 b7, 4:3 R, 3:2 3, 2:1 5, 2:4 b7, 1:1 R, 1:5 3*",
		"G-3 Bb7":  "G: 6:4 b7, 6:6 R, 5:5 3, 4:3 5, 4:6 b7, 3:3 R, 2:3 3, 2:6 5, 1:4 b7, 1:6 R",
		"G-3 Eb7":  "C: 6:3 3, 6:6 5, 5:4 b7, 5:6 R, 4:5 3, 3:3 5, 3:6 b7, 2:4 R, 1:3 3, 1:6 5",
		"G-3 F7":   "D: 6:5 3, 5:3 5, 5:6 b7, 4:3 R, 4:7 3*, 3:5 5, 2:4 b7, 2:6 R, 1:5 3",
		"E-5 Bb7":  "E: 6:6 R, 5:5 3, 5:8 5, 4:6 b7, 4:8 R, 3:7 3, 2:6 5, 2:9 b7*, 1:6 R",
		"E-5 Eb7":  "A: 6:6 5, 6:9 b7*, 5:6 R, 4:5 3, 4:8 5, 3:6 b7, 3:8 R, 2:8 3, 1:6 5, 1:9 b7*",
		"E-5 F7":   "C: 6:5 3, 6:8 5, 5:6 b7, 5:8 R, 4:7 3, 3:5 5, 3:8 b7, 2:6 R, 1:5 3, 1:8 5",
		"D-8 Bb7":  "D: 6:10 3, 5:8 5, 5:11 b7, 4:8 R, 4:12 3*, 3:10 5, 2:9 b7, 2:11 R, 1:10 3",
		"D-8 Eb7":  "G: 6:9 b7, 6:11 R, 5:10 3, 4:8 5, 4:11 b7, 3:8 R, 2:8 3, 2:11 5, 1:9 b7, 1:11 R",
		"D-8 F7":   "A: 6:8 5, 6:11 b7, 5:8 R, 5:12 3*, 4:10 5, 3:8 b7, 3:10 R, 2:10 3, 1:8 5, 1:11 b7",
		"C-10 Bb7": "C: 6:10 3, 6:13 5, 5:11 b7, 5:13 R, 4:12 3, 3:10 5, 3:13 b7, 2:11 R, 1:10 3, 1:13 5",
		"C-10 Eb7": "E: 6:11 R, 5:10 3, 5:13 5, 4:11 b7, 4:13 R, 3:12 3, 2:11 5, 2:14 b7*, 1:11 R",
		"C-10 F7":  "G: 6:11 b7, 6:13 R, 5:12 3, 4:10 5, 4:13 b7, 3:10 R, 2:10 3, 2:13 5, 1:11 b7, 1:13 R",
	},
}

func TestThreeKeysInFivePositions(t *testing.T) {
	for tonic, shapes := range threeKeys {
		note, err := pitch.ParseNote(tonic)
		require.NoError(t, err)
		assert.Len(t, shapes, 15)
		for name, want := range shapes {
			position, chord, _ := strings.Cut(name, " ")
			p, err := FindPosition(Standard(), note.Class(), position)
			require.NoError(t, err)
			c := mustChord(t, chord)
			assert.Equal(t, want, string(FormAt(Standard(), c.Root.Class(), p.Window))+": "+written(PlaceTones(Standard(), p.Window, c.Tones())), "%s in %s", name, tonic)
		}
	}
}

// All twelve keys: moved by its tonic, every position of C holds the same shape
// as long as no open string comes into it.
func TestEveryKeyIsCMoved(t *testing.T) {
	for up := range 12 {
		for _, of := range []struct{ root, from pitch.Class }{{0, 0}, {5, 5}, {7, 7}} {
			for _, p := range Positions(Standard(), 0) {
				moved := Standard().WindowFrom(p.Core + up)
				if p.Low == 0 || moved.High > Standard().Frets || moved.High != p.High+up {
					continue
				}
				at := func(root pitch.Class, w Window, back int) []Place {
					places := []Place{}
					for _, tone := range PlaceTones(Standard(), w, seventh(root)).Tones {
						places = append(places, Place{tone.String, tone.Fret - back})
					}
					return places
				}
				assert.Equal(t, at(of.root, p.Window, 0), at(pitch.ClassOf(int(of.root)+up), moved, up), "%s up %d", p.ID(), up)
			}
		}
	}
}

// seventh is the tones of the dominant seventh on a class, spelled with sharps.
func seventh(root pitch.Class) []harmony.Tone {
	for _, tonic := range harmony.Tonics {
		if note, err := pitch.ParseNote(tonic); err == nil && note.Class() == root {
			c, _ := harmony.ParseChord(tonic + "7")
			return c.Tones()
		}
	}
	panic("every class has a tonic")
}

// The spread triads and sixths of Paper Lanterns, the demo's song in Ab, in its
// first position.
func TestSpreadTriadsAndSixthsOfASong(t *testing.T) {
	p, err := FindPosition(Standard(), 8, "E-3")
	require.NoError(t, err)
	got := [][3]string{}
	for _, symbol := range []string{"Ab", "Fm7", "Dbmaj7", "Eb7", "Eb/G", "Bbm7", "Cm7", "F7"} {
		for _, s := range Structures(Standard(), p.Window, mustChord(t, symbol)) {
			if strings.HasPrefix(s.Name, "spread") || strings.HasPrefix(s.Name, "sixth") {
				got = append(got, [3]string{symbol, s.Name, places(s.Shape)})
			}
		}
	}
	assert.Equal(t, [][3]string{
		{"Ab", "sixth: third and root", "3:5 3, 1:4 R"},
		{"Fm7", "spread triad, 3 1 5", "6:4 b3, 4:3 R, 3:5 5"},
		{"Fm7", "sixth: third and root", "6:4 b3, 4:3 R"},
		{"Fm7", "sixth: third and root", "4:6 b3, 2:6 R"},
		{"Dbmaj7", "spread triad, 3 1 5", "4:3 3, 2:2 R, 1:4 5"},
		{"Dbmaj7", "spread triad, 5 3 1", "6:4 5, 4:3 3, 3:6 R"},
		{"Dbmaj7", "sixth: third and root", "4:3 3, 2:2 R"},
		{"Eb7", "spread triad, 3 1 5", "4:5 3, 2:4 R, 1:6 5"},
		{"Eb7", "sixth: third and root", "4:5 3, 2:4 R"},
		{"Eb/G", "spread triad, 3 1 5", "4:5 3, 2:4 R, 1:6 5"},
		{"Eb/G", "sixth: third and root", "4:5 3, 2:4 R"},
		{"Bbm7", "spread triad, 1 5 3", "6:6 R, 4:3 5, 3:6 b3"},
		{"Bbm7", "spread triad, 3 1 5", "5:4 b3, 3:3 R, 2:6 5"},
		{"Bbm7", "spread triad, 5 3 1", "4:3 5, 2:2 b3, 1:6 R"},
		{"Bbm7", "sixth: third and root", "5:4 b3, 3:3 R"},
		{"Bbm7", "sixth: third and root", "3:6 b3, 1:6 R"},
		{"Cm7", "sixth: third and root", "5:6 b3, 3:5 R"},
		{"F7", "spread triad, 3 1 5", "6:5 3, 4:3 R, 3:5 5"},
		{"F7", "spread triad, 5 3 1", "5:3 5, 3:2 3, 2:6 R"},
		{"F7", "sixth: third and root", "6:5 3, 4:3 R"},
		{"F7", "sixth: third and root", "4:7 3, 2:6 R"},
	}, got)
}
