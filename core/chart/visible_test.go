package chart

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestVisibleTitles(t *testing.T) {
	for text, want := range map[string]string{
		"Weir Light":       "Weir Light",
		"Wéir Líght ☂":     "Wéir Líght ☂",
		"\u202eWeir\u202c": "Weir",
		"We\u200bir":       "Weir",
		"We\u0085ir":       "Weir",
		"\u200b\u200d":     "",
		"\u3164\u2800":     "",
		"":                 "",
		"\u0301":           "",
		"می\u200cخواهم":    "می\u200cخواهم",
		"👩\u200d🎤":         "👩\u200d🎤",
		"\U000e0041unseen": "unseen",
	} {
		assert.Equal(t, want, Visible(text), "%q", text)
		assert.Equal(t, want, Visible(Visible(text)), "%q twice", text)
		if want != "" {
			assert.Equal(t, want == text, CheckVisible(text) == nil, "%q", text)
		}
	}
	assert.EqualError(t, CheckVisible("We\u202eir"), "character 3 cannot be seen (U+202E); take it out")
}
