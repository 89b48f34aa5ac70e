package pitch

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestParseNote(t *testing.T) {
	for text, want := range map[string]Note{
		"C": {0, 0}, "Bb": {6, -1}, "B♭": {6, -1}, "F#": {3, 1}, "F♯": {3, 1}, "Abb": {5, -2}, "G##": {4, 2},
	} {
		got, err := ParseNote(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	for _, text := range []string{"", "H", "c", "b", "Cb#", "C###", "C7", "♭"} {
		_, err := ParseNote(text)
		assert.ErrorContains(t, err, "is not a note", text)
	}
}

func TestReadNoteLeavesWhatFollows(t *testing.T) {
	note, rest, err := ReadNote("Bb7b9")
	require.NoError(t, err)
	assert.Equal(t, "Bb", note.String())
	assert.Equal(t, "7b9", rest)
}

func TestDegreesReadBackAsWritten(t *testing.T) {
	for _, text := range []string{"R", "b9", "9", "#9", "b3", "3", "11", "#11", "b5", "5", "#5", "b13", "13", "6", "bb7", "b7", "7", "2", "4"} {
		assert.Equal(t, text, MustDegree(text).String())
	}
	assert.Panics(t, func() { MustDegree("x") })
	assert.Panics(t, func() { MustDegree("14") })
}

// A degree over any root takes the letter of its number and sounds its semitones.
func TestSpellingOverARoot(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		root := Note{Letter: Letter(rapid.IntRange(0, 6).Draw(t, "letter")), Accidental: rapid.IntRange(-1, 1).Draw(t, "accidental")}
		degree := Degree{Number: rapid.IntRange(1, 13).Draw(t, "number"), Alter: rapid.IntRange(-2, 1).Draw(t, "alter")}
		spelt := degree.Over(root)
		assert.Equal(t, Letter((int(root.Letter)+degree.Number-1)%7), spelt.Letter)
		assert.Equal(t, degree.Semitones(), spelt.Class().Above(root.Class()))
	})
}
