package listen

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/listen/pluck"
)

// heardIn are the notes that a sound is heard to have.
func heardIn(t *testing.T, sound []float32) []Note {
	t.Helper()
	notes, err := NotesOf(sound, 44100)
	require.NoError(t, err)
	last := math.Inf(-1)
	for _, n := range notes {
		assert.GreaterOrEqual(t, n.Onset, last, "in order of time")
		assert.Greater(t, n.Length, 0.0)
		assert.True(t, n.Confidence > 0 && n.Confidence <= 1, n.Confidence)
		last = n.Onset
	}
	return notes
}

func TestNothingIsHeardWhereNothingIsPlayed(t *testing.T) {
	chance := rand.New(rand.NewPCG(1, 2))
	noise, hum, constant, broken := make([]float32, 10*44100), make([]float32, 10*44100), make([]float32, 44100), make([]float32, 44100)
	for n := range noise {
		noise[n] = float32(0.05 * chance.NormFloat64())
		hum[n] = float32(0.03 * math.Sin(2*math.Pi*50*float64(n)/44100))
	}
	for n := range constant {
		constant[n] = 0.7
		broken[n] = float32(math.NaN())
	}
	for name, sound := range map[string][]float32{"no samples": nil, "silence": make([]float32, 5*44100), "hiss": noise, "hum": hum, "a constant": constant, "no numbers": broken} {
		assert.Empty(t, heardIn(t, sound), name)
	}
}

// speech is a voice of sorts: syllables of a buzz whose pitch glides, through two resonances, with hisses between.
func speech(seconds int) []float32 {
	chance := rand.New(rand.NewPCG(7, 7))
	out := make([]float32, seconds*44100)
	phase, pitch := 0.0, 120.0
	var state [2][2]float64
	formants := [2]float64{600, 1400}
	for n := range out {
		if n%6000 == 0 {
			formants = [2]float64{300 + 500*chance.Float64(), 900 + 1200*chance.Float64()}
		}
		syllable := n / 9000
		into := float64(n%9000) / 9000
		pitch += 0.004 * (110 + 60*math.Sin(float64(syllable)*1.7) - pitch + 40*math.Sin(2*math.Pi*into))
		phase += pitch / 44100
		source := 2*(phase-math.Floor(phase)) - 1
		if syllable%4 == 3 {
			source = 0.4 * chance.NormFloat64()
		}
		sample := source * math.Sin(math.Pi*into)
		for f, hertz := range formants {
			w := 2 * math.Pi * hertz / 44100
			y := sample + 2*0.985*math.Cos(w)*state[f][0] - 0.985*0.985*state[f][1]
			state[f] = [2]float64{y, state[f][0]}
			sample = 0.05 * y
		}
		out[n] = float32(0.3 * sample)
	}
	return out
}

// A voice is no guitar: nothing breaks, and what is heard has no more than a few notes a second.
func TestSpeech(t *testing.T) {
	notes := heardIn(t, speech(20))
	t.Logf("%d notes in 20 s", len(notes))
	assert.Less(t, len(notes), 160)
	for _, n := range notes {
		if n.Bend != nil {
			assert.LessOrEqual(t, n.Bend.Cents, bendMost)
		}
	}
}

// Two guitars at once: of each moment at most two notes are heard, and notes of one line alone stay as they are.
func TestTwoGuitars(t *testing.T) {
	first, second := []pluck.Played{}, []pluck.Played{}
	for n := range 12 {
		first = append(first, pluck.Played{Onset: 0.3 + 0.5*float64(n), Length: 0.45, Pitch: 64 + float64(n%5), String: 1, Attack: pluck.Picked, Loudness: 0.4})
		if n >= 6 {
			second = append(second, pluck.Played{Onset: 0.55 + 0.5*float64(n), Length: 0.4, Pitch: 48 + float64(n%3), String: 1, Attack: pluck.Picked, Loudness: 0.3})
		}
	}
	sound := pluck.Render(first, pluck.CleanBridge, 44100, 7, 1)
	for n, s := range pluck.Render(second, pluck.CleanNeck, 44100, 7, 2) {
		sound[n] += s
	}
	notes := heardIn(t, sound)
	alone := 0
	for _, n := range notes {
		if n.Onset < 3.2 {
			assert.Equal(t, int(first[alone].Pitch), n.MIDI())
			alone++
		}
	}
	assert.Equal(t, 6, alone)
	assert.GreaterOrEqual(t, len(notes), 12)
	for n := 2; n < len(notes); n++ {
		assert.False(t, notes[n].Together && notes[n-1].Together, "three at once")
	}
}

// What clips is heard still: the same notes, at the same times.
func TestClippedSound(t *testing.T) {
	played := []pluck.Played{}
	for n := range 8 {
		played = append(played, pluck.Played{Onset: 0.3 + 0.5*float64(n), Length: 0.45, Pitch: 52 + 3*float64(n), String: 1, Attack: pluck.Picked, Loudness: 0.5})
	}
	sound := pluck.Render(played, pluck.CleanNeck, 44100, 4.5, 1)
	for n := range sound {
		sound[n] = min(max(20*sound[n], -1), 1)
	}
	notes := heardIn(t, sound)
	require.Len(t, notes, len(played))
	for n, p := range played {
		assert.Equal(t, int(p.Pitch), notes[n].MIDI())
		assert.InDelta(t, p.Onset, notes[n].Onset, 0.02)
	}
}

// An hour is heard in pieces without keeping its sound: what is held stays as it was after half a minute. Shortened
// here to a minute and a quarter; the notes alone grow.
func TestALongSoundIsNotHeld(t *testing.T) {
	l, err := Listen(16000)
	require.NoError(t, err)
	piece := make([]float32, 15*16000)
	for n := range piece {
		into := n % 16000
		piece[n] = float32(0.3 * math.Exp(-float64(into)/4000) * math.Sin(2*math.Pi*220*float64(n)/16000))
	}
	held := []int{}
	for range 5 {
		l.Hear(piece)
		held = append(held, cap(l.frames.samples)+cap(l.segments.frames)+cap(l.frames.slow))
	}
	assert.LessOrEqual(t, held[4], held[1]+held[1]/4)
	assert.InDelta(t, 75, len(l.Close()), 2)
}
