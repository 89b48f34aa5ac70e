package chorus_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/solo/chorus"
)

func TestParseForm(t *testing.T) {
	for text, want := range map[string]chorus.Form{"": chorus.AAB, " a b a ": "A B A", "question-answer": chorus.QuestionAnswer, "H": "H"} {
		got, err := chorus.ParseForm(text)
		require.NoError(t, err)
		assert.Equal(t, want, got)
	}
	for _, text := range []string{"AAB", "A Z", "1", "A A A A A A A A A A A A A A A A A"} {
		_, err := chorus.ParseForm(text)
		assert.Error(t, err, text)
	}
}
