package neck

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
)

func laid(t *testing.T, position, chord string, l Layout) (Shape, error) {
	t.Helper()
	c, err := harmony.ParseChord(chord)
	require.NoError(t, err)
	p, err := FindPosition(Standard(), 0, position)
	require.NoError(t, err)
	return PlaceInLayout(Standard(), p.Window, c.Tones(), l)
}

func places(s Shape) string {
	said := []string{}
	for _, tone := range s.Tones {
		said = append(said, fmt.Sprintf("%d:%d %s", tone.String, tone.Fret, tone.Degree))
	}
	return strings.Join(said, ", ")
}

func TestLayouts(t *testing.T) {
	for _, c := range []struct {
		position, chord string
		layout          Layout
		want            string
	}{
		{"E-7", "C7", Layout{Kind: OneOctave, From: "R"}, "6:8 R, 5:7 3, 5:10 5, 4:8 b7, 4:10 R"},
		{"E-7", "C7", Layout{Kind: OneOctave, From: "3"}, "5:7 3, 5:10 5, 4:8 b7, 4:10 R, 3:9 3"},
		{"E-7", "C7", Layout{Kind: SomeStrings, Low: 1, High: 3}, "3:9 3, 2:8 5, 2:11 b7, 1:8 R"},
		{"E-7", "F7", Layout{Kind: SomeStrings, Low: 4, High: 5}, "5:8 R, 4:7 3, 4:10 5"},
		{"E-7", "C7", Layout{Kind: SomeFrets, Low: 7, High: 8}, "6:8 R, 5:7 3, 4:8 b7, 2:8 5, 1:8 R"},
		{"E-7", "C9", Layout{Kind: TwoAString}, "6:8 R, 6:10 9, 5:7 3, 5:10 5, 4:8 b7, 4:10 R, 3:7 9, 3:9 3, 2:8 5, 2:11 b7, 1:8 R, 1:10 9"},
	} {
		shape, err := laid(t, c.position, c.chord, c.layout)
		require.NoError(t, err, c.want)
		assert.Equal(t, c.want, places(shape))
	}
	mixolydian, _ := harmony.Key{Mode: harmony.DominantMode}.ChordScale(mustChord(t, "C7"))
	p, err := FindPosition(Standard(), 0, "E-7")
	require.NoError(t, err)
	shape, err := PlaceInLayout(Standard(), p.Window, mixolydian.Tones, Layout{Kind: ThreeAString})
	require.NoError(t, err)
	assert.Equal(t, "6:8 R, 6:10 2, 6:12 3, 5:8 4, 5:10 5, 5:12 6, 4:8 b7, 4:10 R, 4:12 2, 3:9 3, 3:10 4, 3:12 5, 2:10 6, 2:11 b7, 2:13 R, 1:10 2, 1:12 3, 1:13 4", places(shape))
	assert.InDelta(t, Standard().StretchMM(8, 12), shape.StretchMM, 0.01, "the widest string: between strings the hand moves")
}

func TestALayoutWithNothingInItNamesTheNearest(t *testing.T) {
	for _, c := range []struct {
		layout  Layout
		want    string
		nearest Layout
	}{
		{Layout{Kind: OneOctave, From: "9"}, "the position has no octave from the 9 up; it has one from the R", Layout{Kind: OneOctave, From: "R"}},
		{Layout{Kind: SomeStrings, Low: 0, High: 3}, "strings 0 to 3 are not on the neck", Layout{Kind: SomeStrings, Low: 1, High: 3}},
		{Layout{Kind: SomeFrets, Low: 20, High: 30}, "frets 20 to 30 are not on the neck", Layout{Kind: SomeFrets, Low: 20, High: 22}},
		{Layout{Kind: SomeFrets, Low: 1, High: 3}, "no tone lies on frets 1 to 3 in this position (frets 6 to 11)", Layout{Kind: AllTones}},
		{Layout{Kind: "spiral"}, `"spiral" is not a layout; choose one of [all tones one octave two a string three a string four a string some strings some frets]`, Layout{}},
	} {
		_, err := laid(t, "E-7", "C7", c.layout)
		var fault *LayoutError
		require.ErrorAs(t, err, &fault)
		assert.Equal(t, c.want, fault.Detail)
		assert.Equal(t, c.nearest, fault.Nearest)
	}
}

// Whatever the layout, tones rise, sound what they are called, and each string
// of two or three a string has so many.
func TestLayoutsHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		chord, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
		require.NoError(t, err)
		all := Positions(Standard(), chord.Root.Class())
		p := rapid.SampledFrom(all).Draw(t, "position")
		l := Layout{Kind: rapid.SampledFrom(LayoutKinds).Draw(t, "kind"), From: "3", Low: rapid.IntRange(0, 22).Draw(t, "low"), High: rapid.IntRange(0, 22).Draw(t, "high")}
		shape, err := PlaceInLayout(Standard(), p.Window, chord.Tones(), l)
		if err != nil {
			var fault *LayoutError
			require.ErrorAs(t, err, &fault)
			return
		}
		require.NotEmpty(t, shape.Tones)
		count := map[int]int{}
		for n, tone := range shape.Tones {
			assert.Equal(t, tone.Pitch, Standard().Pitch(tone.Place))
			assert.Equal(t, tone.Note.Class(), tone.Pitch.Class())
			assert.True(t, n == 0 || shape.Tones[n-1].Pitch < tone.Pitch)
			assert.True(t, tone.Fret == 0 == (tone.Finger == 0))
			count[tone.String]++
		}
		for _, each := range count {
			switch l.Kind {
			case TwoAString:
				assert.Equal(t, 2, each)
			case ThreeAString:
				assert.Equal(t, 3, each)
			}
		}
	})
}

// The scale of the chord of C7 where players finger it so: a finger for each fret, the
// little finger up for the b7 on string 2, and no reach back for it on string 1.
func TestTheScaleInTheFirstPosition(t *testing.T) {
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	position, err := FindPosition(Standard(), key.Tonic.Class(), "E")
	require.NoError(t, err)
	scale, _ := key.ChordScale(mustChord(t, "C7"))
	laid := []string{}
	for _, tone := range PlaceTones(Standard(), position.Window, scale.Tones).Tones {
		laid = append(laid, fmt.Sprintf("%d:%d/%d", tone.String, tone.Fret, tone.Finger))
	}
	assert.Equal(t, "6:8/2 6:10/4 5:7/1 5:8/2 5:10/4 4:7/1 4:8/2 4:10/4 3:7/1 3:9/3 3:10/4 2:8/2 2:10/3 2:11/4 1:8/2 1:10/4", strings.Join(laid, " "))
}
