package harmony

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestJoiningScales(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  Mode
		chord string
		name  string
		notes string
		rule  string
	}{
		{"C", DominantMode, "C7", "Mixolydian", "C D E F G A Bb", "a dominant of a blues joins as Mixolydian"},
		{"C", DominantMode, "F#dim7", "whole-half diminished", "F# G# A B C D Eb E#", "the usual scale of a diminished seventh chord"},
		{"C", MajorMode, "F", "Lydian", "F G A B C D E", "the key has this chord, so it joins as its mode in C major"},
		{"Ab", MajorMode, "Fm7", "natural minor", "F G Ab Bb C Db Eb", "the key has this chord, so it joins as its mode in Ab major"},
		{"Ab", MajorMode, "F7", "Mixolydian", "F G A Bb C D Eb", "the key does not have this chord, so it joins by the usual scale of a dominant seventh chord"},
		{"Ab", MajorMode, "Cm7", "Phrygian", "C Db Eb F G Ab Bb", "the key has this chord, so it joins as its mode in Ab major"},
		{"F#", MinorMode, "F#m7", "natural minor", "F# G# A B C# D E", "the key has this chord, so it joins as its mode in F# minor"},
		{"F#", MinorMode, "Bm7", "Dorian", "B C# D E F# G# A", "the key has this chord, so it joins as its mode in F# minor"},
		{"F#", MinorMode, "C#7", "Phrygian dominant", "C# D E# F# G# A B", "the V of F# minor joins by its harmonic minor"},
		{"F#", MinorMode, "D7", "Mixolydian", "D E F# G A B C", "the key does not have this chord, so it joins by the usual scale of a dominant seventh chord"},
		{"C", DominantMode, "G7alt", "altered", "G Ab A# B C# Eb F", "the usual scale of a altered chord"},
		{"C", DominantMode, "G7#11", "Lydian dominant", "G A B C# D E F", "the usual scale of a seventh sharp eleven chord"},
		{"C", DominantMode, "G7b9", "half-whole diminished", "G Ab A# B C# D E F", "the usual scale of a seventh flat nine chord"},
	} {
		scale, rule := mustKey(t, c.tonic, c.mode).Joining(mustChord(t, c.chord))
		assert.Equal(t, c.name, scale.Name, c.chord)
		assert.Equal(t, c.notes, spellTones(scale.Tones), c.chord)
		assert.Equal(t, strings.Replace(c.rule, "a altered", "an altered", 1), rule, c.chord)
	}
}

// Every chord's joining scale has the chord's own tones, and names them as the
// chord does.
func TestTheJoiningScaleHoldsTheChord(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		mode := rapid.SampledFrom(Modes).Draw(t, "mode")
		key, err := ParseKey(rapid.SampledFrom(mode.Tonics()).Draw(t, "tonic"), mode)
		require.NoError(t, err)
		chord, err := ParseChord(rapid.SampledFrom(Tonics).Draw(t, "root") + rapid.SampledFrom(Signs()).Draw(t, "sign"))
		require.NoError(t, err)
		scale, rule := key.Joining(chord)
		assert.NotEmpty(t, rule)
		for _, tone := range chord.Tones() {
			found, ok := scale.tone(tone.Note.Class())
			assert.True(t, ok, "%s over %s lacks %s", scale.Name, chord.Symbol(), tone.Note)
			assert.Equal(t, tone, found)
		}
	})
}

func TestExtensionsAsTheKeyHasThem(t *testing.T) {
	for _, c := range []struct {
		tonic string
		mode  Mode
		chord string
		want  string
	}{
		{"C", DominantMode, "C7", "9 colour, 11 lean, 13 colour"}, {"C", MajorMode, "F", "9 colour, #11 colour, 13 colour"},
		{"Ab", MajorMode, "Cm7", "b9 outside, 11 colour, b13 colour"}, {"C", DominantMode, "C13", "11 lean"},
		{"F#", MinorMode, "C#7", "b9 outside, 11 lean, b13 outside"},
	} {
		said := []string{}
		for _, j := range mustKey(t, c.tonic, c.mode).Extensions(mustChord(t, c.chord)) {
			said = append(said, j.Degree.String()+" "+string(j.Class))
		}
		assert.Equal(t, c.want, strings.Join(said, ", "), c.chord)
	}
}

func TestANinthIsAddedToFour(t *testing.T) {
	key := mustKey(t, "C", DominantMode)
	for chord, want := range map[string]string{"C7": "C E G Bb D", "C9": "C E G Bb D", "G7b9": "G B D F Ab", "Am": "A C E B"} {
		assert.Equal(t, want, spellTones(key.WithNinth(mustChord(t, chord))), chord)
	}
}

func TestSuperimposedArpeggios(t *testing.T) {
	key := mustKey(t, "C", DominantMode)
	list := key.Superimposed(mustChord(t, "G7"))
	said := map[string]string{}
	for n, s := range list {
		degrees := []string{}
		for _, j := range s.Tones {
			degrees = append(degrees, j.Degree.String())
		}
		said[s.Arpeggio.Symbol()] = strings.Join(degrees, " ")
		if s.Lean != nil {
			said[s.Arpeggio.Symbol()] += ", leans on " + s.Lean.Degree.String()
		}
		if n > 0 && (list[n-1].Lean == nil) == (s.Lean == nil) {
			assert.GreaterOrEqual(t, list[n-1].worth(), s.worth(), "best first")
		}
		if n > 0 && list[n-1].Lean != nil {
			assert.NotNil(t, s.Lean, "those that lean come last")
		}
	}
	assert.Equal(t, "3 5 b7 9", said["Bm7b5"], "the half diminished on the 3")
	assert.Equal(t, "5 b7 9 11, leans on 11", said["Dm7"], "the minor seventh on the 5")
	assert.NotContains(t, said, "G7")
	assert.NotContains(t, said, "Bdim", "part of the chord adds nothing")

}
