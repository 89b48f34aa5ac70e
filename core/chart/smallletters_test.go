package chart

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
)

// A chord may be typed without its capital; numerals keep their case, and what has two meanings is asked.
func TestChordsTypedInSmallLetters(t *testing.T) {
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	for text, want := range map[string]string{
		"e7": "E7", "am7": "Am7", "d9": "D9", "b7": "B7", "bb7": "Bb7", "c": "C", "f#m7b5": "F#m7b5", "g7 c7": "G7 C7", "iv": "Fm7", "IV7": "F7", "bVII7": "Bb7",
	} {
		spans, err := ReadBar(text, key, FourFour, nil)
		require.NoError(t, err, text)
		got := ""
		for n, span := range spans {
			if n > 0 {
				got += " "
			}
			got += span.Chord.Symbol()
		}
		assert.Equal(t, want, got, text)
	}
	_, err = ReadBar("h7", key, FourFour, nil)
	var refused *TextError
	require.ErrorAs(t, err, &refused)
	assert.Equal(t, []string{"B7"}, refused.Nearest)
	for _, text := range []string{"dim", "aug", "x7", "k"} {
		_, err := ReadBar(text, key, FourFour, nil)
		assert.Error(t, err, text)
	}
}
