package chart

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSubdivisionsOfAnotherMeter(t *testing.T) {
	for wanted, name := range map[string]string{"quarter": "dotted quarter", "triplet": "eighth", "eighth": "eighth", "sixteenth": "sixteenth"} {
		s, err := TwelveEight.NearestSubdivision(wanted)
		require.NoError(t, err)
		assert.Equal(t, name, s.Name, wanted)
	}
	s, err := FourFour.NearestSubdivision("dotted quarter")
	require.NoError(t, err)
	assert.Equal(t, "quarter", s.Name)
	_, err = FourFour.NearestSubdivision("seventh")
	assert.Error(t, err)
}
