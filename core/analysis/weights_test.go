package analysis

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/chart"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

// How much notes weigh, by hand: twice their ticks on a strong beat, half as much again on another beat, a tone that the
// chord before did not have half as much again.
func TestWhatNotesWeigh(t *testing.T) {
	p := phrase.Phrase{Meter: chart.FourFour}
	note := func(tick, ticks int) phrase.Event { return phrase.Event{Tick: tick, Ticks: ticks} }
	assert.Equal(t, 960.0, weightOf(p, note(0, 480), 0, 1920), "beat 1")
	assert.Equal(t, 720.0, weightOf(p, note(480, 480), 0, 1920), "beat 2")
	assert.Equal(t, 960.0, weightOf(p, note(960, 480), 0, 1920), "beat 3")
	assert.Equal(t, 240.0, weightOf(p, note(240, 240), 0, 1920), "off the beat")
	assert.Equal(t, 480.0, weightOf(p, note(1680, 480), 1920, 3840), "its part in the next bar, from the bar line on")
	assert.Zero(t, weightOf(p, note(0, 480), 480, 960))
	assert.Zero(t, weightOf(p, note(480, 480), 0, 480))

	weights := [12]float64{0: 100, 4: 100, 5: 100, 9: 100, 10: 100, 3: 100}
	weighNewTones(&weights, phrasetest.ChordOf(t, "C7"), phrasetest.ChordOf(t, "F7"))
	assert.Equal(t, [12]float64{0: 100, 3: 150, 4: 100, 5: 150, 9: 150, 10: 100}, weights, "F, A and Eb are new; C both have; E and Bb are not of F7")
}

// What a rival loses, by hand: one that has no root in what is played loses 0.6, one that is not in the tune 0.4; of two that
// fit equally the first is the rival.
func TestTheBestRival(t *testing.T) {
	fits := func(class int, by float64) (all [12]float64) {
		all[class] = by
		return all
	}
	weights := [12]float64{0: 1, 4: 1, 7: 2}
	total := fitOf(fits(4, 1), weights)
	rivals := []rivalChord{{Chord: phrasetest.ChordOf(t, "G7"), fits: fits(4, 1)}}
	_, margin := bestRival(fits(4, 1), weights, rivals)
	assert.InDelta(t, 0, margin, 1e-9, "its root sounds, and it is in the tune")
	rivals[0].foreign = true
	_, margin = bestRival(fits(4, 1), weights, rivals)
	assert.InDelta(t, 0.4, margin, 1e-9)
	rivals[0] = rivalChord{Chord: phrasetest.ChordOf(t, "F7"), fits: fits(4, 1)}
	_, margin = bestRival(fits(4, 1), weights, rivals)
	assert.InDelta(t, 0.6, margin, 1e-9, "no F is played")
	rival, margin := bestRival(fits(4, 1), weights, append(rivals, rivalChord{Chord: phrasetest.ChordOf(t, "C7"), fits: fits(4, 1)}, rivalChord{Chord: phrasetest.ChordOf(t, "G7"), fits: fits(4, 1)}))
	assert.Equal(t, "C7", rival.Symbol())
	assert.InDelta(t, 0, margin, 1e-9)
	assert.Positive(t, total)
}
