package neck

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/pitch"
)

func TestPositionsFollowTheirKey(t *testing.T) {
	openG := Presets()[3]
	capo3, err := Standard().WithCapo(3)
	require.NoError(t, err)
	for _, c := range []struct {
		name, from string
		tonic, to  pitch.Class
		neck       Instrument
		want       string
	}{
		{"the same form, lower", "E-6", 11, 9, Standard(), "E-4"},
		{"the same form, an octave up", "E-18", 11, 9, Standard(), "E-16"},
		{"a form that leaves the neck comes back an octave lower", "E-18", 11, 3, Standard(), "E-10"},
		{"under a capo", "E-6", 11, 11, capo3, "E-3"},
		{"no forms: as far from the tonic", "E-6", 11, 11, openG, "fret-8"},
		{"a window that no form names", "fret-5", 0, 2, Standard(), "fret-7"},
	} {
		p, err := FindPosition(Standard(), c.tonic, c.from)
		require.NoError(t, err, c.name)
		assert.Equal(t, c.want, p.Follow(Standard(), c.tonic, c.neck, c.to).ID(), c.name)
	}
}

// A position's name finds it again, and means the same form in every key.
func TestPositionNames(t *testing.T) {
	for tonic := range pitch.Class(12) {
		all := Positions(Standard(), tonic)
		for _, p := range all {
			found, err := FindPosition(Standard(), tonic, p.Name(all))
			require.NoError(t, err)
			assert.Equal(t, p, found)
		}
	}
	all := Positions(Standard(), 0)
	names := []string{}
	for _, p := range all {
		names = append(names, p.Name(all))
	}
	assert.Equal(t, []string{"C", "A", "G", "E", "D", "C+1", "A+1", "G+1", "E+1"}, names)
	for _, bad := range []string{"E+9", "E+0", "E+x", "+1", "E-"} {
		_, err := FindPosition(Standard(), 0, bad)
		assert.Error(t, err, bad)
	}
}
