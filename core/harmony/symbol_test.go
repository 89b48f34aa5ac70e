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
	for sign := range bySign {
		assert.LessOrEqual(t, len([]rune(sign)), longestRead)
	}
}
