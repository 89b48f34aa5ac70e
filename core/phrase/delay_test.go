package phrase

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/chart"
	"undaris/core/neck"
)

func TestDelayed(t *testing.T) {
	p := Phrase{
		Meter: chart.FourFour, MeterChanges: []chart.MeterChange{{Tick: 1920, Meter: chart.ThreeFour}},
		Events: []Event{{Tick: -240, Ticks: 240, Fingered: neck.Fingered{Place: neck.Place{String: 2, Fret: 8}}}, {Tick: 0, Ticks: 480}},
		Chords: []PhraseChord{{Tick: 0}},
	}
	later := p.Delayed(1920)
	assert.Equal(t, []int{1680, 1920}, []int{later.Events[0].Tick, later.Events[1].Tick})
	assert.Equal(t, neck.Place{String: 2, Fret: 8}, later.Events[0].Place)
	assert.Equal(t, 1920, later.Chords[0].Tick)
	assert.Equal(t, 3840, later.MeterChanges[0].Tick)
	assert.Equal(t, -240, p.Events[0].Tick, "what it was made from stays as it is")
}
