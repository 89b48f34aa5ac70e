package listen

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// A note that is as long as can be written, under a wheel that moves, has a curve of a minute and no more; so have
// thousands that sound together.
func TestCurvesOfKeysAreBounded(t *testing.T) {
	long := []KeyEvent{{Wheel: true, Cents: 50}, {Key: 60, Velocity: 90}, {Seconds: 1e11, Key: 60}}
	notes := NotesOfKeys(long)
	assert.Len(t, notes, 1)
	assert.InDelta(t, MaxSeconds, notes[0].Length, 1e-9)
	assert.Len(t, notes[0].Curve, int(maxCurveSeconds/hopSeconds))

	many := []KeyEvent{}
	for channel := range 16 {
		many = append(many, KeyEvent{Channel: channel, Wheel: true, Cents: 10})
		for key := range 128 {
			many = append(many, KeyEvent{Channel: channel, Key: key, Velocity: 1})
		}
	}
	many = append(many, KeyEvent{Seconds: MaxSeconds, Key: 1})
	frames := 0
	for _, n := range NotesOfKeys(many) {
		frames += len(n.Curve)
	}
	assert.LessOrEqual(t, frames, int(maxCurvesSeconds/hopSeconds))
	assert.Empty(t, NotesOfKeys(nil))
}

// Whatever keys send, notes lie within a take, in order, and their curves are no longer than they are.
func TestNotesOfAnyKeys(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		events := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) KeyEvent {
			return KeyEvent{
				Seconds: rapid.Float64Range(-10, 4000).Draw(t, "at"), Channel: rapid.IntRange(0, 2).Draw(t, "channel"), Key: rapid.IntRange(58, 62).Draw(t, "key"),
				Velocity: rapid.SampledFrom([]int{0, 0, 64, 127}).Draw(t, "velocity"), Wheel: rapid.Bool().Draw(t, "wheel"), Cents: rapid.Float64Range(-200, 200).Draw(t, "cents"),
			}
		}), 0, 60).Draw(t, "events")
		before := -1.0
		for _, n := range NotesOfKeys(events) {
			assert.GreaterOrEqual(t, n.Onset, math.Max(before, 0))
			assert.LessOrEqual(t, n.Onset, MaxSeconds)
			assert.GreaterOrEqual(t, n.Length, 0.0)
			assert.LessOrEqual(t, float64(len(n.Curve))*hopSeconds, math.Min(n.Length, maxCurveSeconds)+1e-9)
			before = n.Onset
		}
	})
}
