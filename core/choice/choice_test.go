package choice

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type paper struct {
	name  string
	width int
}

func TestFind(t *testing.T) {
	papers := []paper{{"A4", 210}, {"Letter", 216}}
	nameOf := func(p paper) string { return p.name }
	found, err := Find("a paper", papers, nameOf, "Letter")
	require.NoError(t, err)
	assert.Equal(t, 216, found.width)
	_, err = Find("a paper", papers, nameOf, "A5")
	assert.Equal(t, &Error{Noun: "a paper", Name: "A5", Allowed: []string{"A4", "Letter"}}, err)
}

func TestNearest(t *testing.T) {
	names := []string{"thirds first", "guide tones", "roots first", "nearest tone"}
	for written, nearest := range map[string]string{
		"third first": "thirds first",
		"root first":  "roots first",
		"GUIDE TONE":  "guide tones",
		"nearest ton": "nearest tone",
		"sevenths":    "",
	} {
		_, err := FindText("a target strategy", names, written)
		var unknown *Error
		require.ErrorAs(t, err, &unknown)
		assert.Equal(t, nearest, unknown.Nearest(), written)
	}
	assert.Empty(t, (&Error{}).Nearest(), "nothing can be chosen")
}
