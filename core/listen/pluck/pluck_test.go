package pluck

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// The pitch of a string is what it was asked for, counted from the crossings of zero of its slowed-down wave.
func TestPitches(t *testing.T) {
	for _, pitch := range []float64{28, 40, 52.5, 64, 76} {
		sound := Render([]Played{{Length: 2, Pitch: pitch, String: 1, Attack: Picked, Loudness: 0.5}}, FingersNeck, 48000, 2, 1)
		period := 48000 / hertz(pitch)
		best, at := -1.0, 0.0
		for lag := period * 0.97; lag < period*1.03; lag += period * 0.0005 {
			alike := 0.0
			for n := 20000; n < 24000; n++ {
				place := float64(n) + 8*lag
				whole := int(place)
				d := float32(place - float64(whole))
				alike += float64(sound[n] * (sound[whole]*(1-d) + sound[whole+1]*d))
			}
			if alike > best {
				best, at = alike, lag
			}
		}
		assert.InDelta(t, 0, 1200*math.Log2(period/at), 3, "pitch %.1f", pitch)
	}
}

func TestNotesEndAndRing(t *testing.T) {
	loud := func(sound []float32, from, to float64) float64 {
		most := 0.0
		for _, s := range sound[int(from*44100):int(to*44100)] {
			most = math.Max(most, math.Abs(float64(s)))
		}
		return most
	}
	note := Played{Onset: 0.1, Length: 0.4, Pitch: 52, String: 1, Attack: Picked, Loudness: 0.5}
	ended := Render([]Played{note}, CleanNeck, 44100, 1.5, 1)
	assert.Zero(t, loud(ended, 0, 0.099))
	assert.Greater(t, loud(ended, 0.1, 0.3), 0.2)
	assert.Less(t, loud(ended, 0.7, 1.4), 0.002)
	note.Rings = true
	assert.Greater(t, loud(Render([]Played{note}, CleanNeck, 44100, 1.5, 1), 0.7, 1.4), 0.05)
	assert.Equal(t, ended, Render([]Played{{Onset: 0.1, Length: 0.4, Pitch: 52, String: 1, Attack: Picked, Loudness: 0.5}}, CleanNeck, 44100, 1.5, 1), "the same for the same notes and seed")
	driven := Render([]Played{note}, Lead, 44100, 1.5, 1)
	assert.LessOrEqual(t, loud(driven, 0, 1.5), 1.0)
}

func TestCurves(t *testing.T) {
	n := Played{Curve: []Point{{Seconds: 0.1}, {Seconds: 0.2, Cents: 100}, {Seconds: 0.3, Cents: 50}}}
	for seconds, cents := range map[float64]float64{0: 0, 0.1: 0, 0.15: 50, 0.2: 100, 0.25: 75, 0.3: 50, 9: 50} {
		assert.InDelta(t, cents, n.Cents(seconds), 1e-6, seconds)
	}
	slide := Played{Curve: SlideFrom(-3)}
	assert.Equal(t, []float64{-300, -200, -100, 0}, []float64{slide.Cents(0.01), slide.Cents(0.03), slide.Cents(0.05), slide.Cents(0.1)})
}
