package analysis

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/chart"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

// What is rested on and what is held, on both sides of every bound: a beat, half a beat of silence, a beat and a half.
func TestRestedOnAndHeld(t *testing.T) {
	line := func(ticks, next int) phrase.Phrase {
		return phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{
			phrasetest.At(0, 3, 9, phrasetest.Lasting(ticks)), {Tick: next, Ticks: 120, Fingered: phrasetest.At(0, 2, 8).Fingered},
		}}
	}
	assert.True(t, RestsOn(line(480, 480), 0), "a beat")
	assert.False(t, RestsOn(line(479, 479), 0), "a tick less")
	assert.True(t, RestsOn(line(240, 480), 0), "half a beat of silence after it")
	assert.False(t, RestsOn(line(240, 479), 0), "a tick less")
	assert.True(t, RestsOn(line(240, 240), 1), "the last note")
	for ticks, held := range map[int]bool{719: false, 720: true, 721: true} {
		assert.Equal(t, held, IsHeld(phrase.Event{Ticks: ticks}, chart.FourFour), "%d ticks", ticks)
	}
	for ticks, held := range map[int]bool{1079: false, 1080: true} {
		assert.Equal(t, held, IsHeldFor(ticks, chart.TwelveEight.BeatTicks()), "%d ticks of 12/8", ticks)
	}
}

// The window of a landing, by hand: from an eighth before, ringing, to a beat after.
func TestTheLandingWindow(t *testing.T) {
	for _, c := range []struct {
		tick, end int
		want      bool
	}{
		{720, 1200, true}, {719, 1200, false}, {720, 960, false}, {720, 961, true}, {959, 960, false}, {960, 961, true}, {1440, 1500, true}, {1441, 1500, false},
	} {
		assert.Equal(t, c.want, InLandingWindow(c.tick, c.end, 960, 480), "a note from %d to %d, the chord at 960", c.tick, c.end)
	}
}
