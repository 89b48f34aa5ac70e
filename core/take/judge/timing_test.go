package judge

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/chart"
	"undaris/core/phrase/phrasetest"
	"undaris/core/take/transcribe"
)

// The drift is the slope of the line that lies nearest to the bars, weighed by their notes, counted by hand.
func TestDrift(t *testing.T) {
	bars := func(late ...float64) []BarTiming {
		all := []BarTiming{}
		for n, l := range late {
			all = append(all, BarTiming{Bar: n, Late: l, Notes: 4})
		}
		return all
	}
	assert.InDelta(t, 0.01, driftOf(bars(0, 0.01, 0.02, 0.03)), 1e-9)
	assert.InDelta(t, -0.004, driftOf(bars(0.012, 0.008, 0.004, 0)), 1e-9)
	assert.Zero(t, driftOf(bars(0, 0.01, 0.02)[:leastDrift-1]), "too few bars to say")
	// Weighed by hand: bars 0 to 3 with 1, 1, 1 and 5 notes, only the last one late by 0.1. Sum 8, x 18, y 0.5, xx 50, xy 1.5:
	// (8·1.5 - 18·0.5) / (8·50 - 18²) = 3 / 76.
	heavy := bars(0, 0, 0, 0.1)
	for n, notes := range []int{1, 1, 1, 5} {
		heavy[n].Notes = notes
	}
	assert.InDelta(t, 3.0/76, driftOf(heavy), 1e-9)
	// A bar of more than eight notes weighs as one of eight: sum 11, x 27, y 0.8, xx 77, xy 2.4.
	heavy[3].Notes = 40
	assert.InDelta(t, (11*2.4-27*0.8)/(11*77-27*27.0), driftOf(heavy), 1e-9)
}

// The swing that was played, of straight eighths and of the last of three, on a grid where the notes lie as they are given.
func TestSwingPlayed(t *testing.T) {
	straight, shuffle := phrasetest.TwelveBar(t, "C"), phrasetest.TwelveBar(t, "C")
	straight.Feel, shuffle.Feel, shuffle.Swing = chart.Straight, chart.Shuffle, 2
	at := func(ticks ...int) []transcribe.Place {
		all := []transcribe.Place{}
		for beat := range 8 {
			for _, tick := range ticks {
				all = append(all, transcribe.Place{Tick: 480*beat + tick})
			}
		}
		return all
	}
	ratio, of := swingOf(at(0, 240), straight)
	assert.InDelta(t, 1, ratio, 1e-9)
	assert.Equal(t, 8, of)
	ratio, of = swingOf(at(0, 240), shuffle)
	assert.InDelta(t, 2, ratio, 1e-9, "an eighth of a shuffle sounds at two thirds of the beat")
	assert.Equal(t, 8, of)
	ratio, of = swingOf(at(0, 320), shuffle)
	assert.InDelta(t, 2, ratio, 1e-9, "and so does the last of three")
	assert.Equal(t, 8, of)
	_, of = swingOf(at(0, 320), straight)
	assert.Zero(t, of, "a triplet in straight time is no swing")
	late := at(0, 240)
	for n := range late {
		if n%2 == 1 {
			late[n].LateTicks = 40
		}
	}
	ratio, _ = swingOf(late, straight)
	assert.InDelta(t, 280.0/200, ratio, 1e-9)
	slow := phrasetest.TwelveBar(t, "C")
	slow.Meter = chart.TwelveEight
	_, of = swingOf(at(0, 240), slow)
	assert.Zero(t, of)
}

// Bars are told from the first of the tune on: what is played in the count-in is none of them.
func TestBarsOfTheCountIn(t *testing.T) {
	c := phrasetest.TwelveBar(t, "C")
	bars := barsOf([]transcribe.Place{{Tick: -960, Late: 0.3}, {Tick: -1, Late: 0.3}, {Tick: 0, Late: 0.02}, {Tick: 480, Late: 0.04}, {Tick: 1920, Late: 0.05}}, c, 0.01)
	assert.Len(t, bars, 2)
	assert.Equal(t, []int{0, 1}, []int{bars[0].Bar, bars[1].Bar})
	assert.Equal(t, []int{2, 1}, []int{bars[0].Notes, bars[1].Notes})
	assert.InDelta(t, 0.02, bars[0].Late, 1e-9)
	assert.InDelta(t, 0.04, bars[1].Late, 1e-9)
}
