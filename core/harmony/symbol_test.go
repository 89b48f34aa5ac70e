package harmony

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// However long what is no sign is: it is refused as quickly, with its place.
func TestAVeryLongSymbolIsRefusedAtOnce(t *testing.T) {
	_, err := ParseChord("Cmaj7" + strings.Repeat("b", 1<<20))
	var unknown *SymbolError
	require.ErrorAs(t, err, &unknown)
	assert.Equal(t, 6, unknown.At)
	assert.NotEmpty(t, unknown.Nearest)
	assert.Less(t, len(err.Error()), 300, "the text is not said back whole")
	for sign := range bySign {
		assert.LessOrEqual(t, len([]rune(sign)), longestRead)
	}
}

func TestATextIsSaidBackShortened(t *testing.T) {
	long := strings.Repeat("♭", maxShown)
	assert.Equal(t, long, Shortened(long))
	assert.Equal(t, long+"…", Shortened(long+"♭♭"))
	assert.Equal(t, "Xy", Shortened("Xy"))
}
