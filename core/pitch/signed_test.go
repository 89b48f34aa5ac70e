package pitch

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestSigned(t *testing.T) {
	for symbol, want := range map[string]string{"C": "C", "Bb": "B♭", "F#m7b5": "F♯m7♭5", "Gbb": "G♭♭", "Eb7/Db": "E♭7/D♭", "#11": "♯11"} {
		assert.Equal(t, want, Signed(symbol))
	}
}
