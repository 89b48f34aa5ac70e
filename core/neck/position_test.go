package neck

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/pitch"
)

// A position that was kept for another key or another neck is found again by its form, else
// by where it lies.
func TestNearestPosition(t *testing.T) {
	c := pitch.Class(0)
	openG := Standard()
	openG.Open = []pitch.MIDI{62, 59, 55, 50, 43, 38}
	for _, test := range []struct {
		instrument Instrument
		text, id   string
	}{
		{Standard(), "E-7", "E-7"},
		{Standard(), "E-5", "E-7"},
		{Standard(), "A-12", "A-15"},
		{Standard(), "A", "A-3"},
		{Standard(), "A+7", "A-3"},
		{Standard(), "nowhere", "E-7"},
		{openG, "E-7", "fret-6"},
		{openG, "E", "fret-9"},
	} {
		assert.Equal(t, test.id, NearestPosition(test.instrument, c, test.text).ID(), test.text)
	}
}
