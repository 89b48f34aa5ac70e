package leak

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/listen"
	"undaris/core/listen/evaluation"
	"undaris/core/listen/pluck"
)

const seconds = 30

// bandSound is a band of sorts: a bass in quarters, chords on the off-beats, and hits of noise.
func bandSound() []float32 {
	chance := rand.New(rand.NewPCG(9, 9))
	notes := []pluck.Played{}
	for beat := 0; beat < seconds*2-2; beat++ {
		at := float64(beat) / 2
		root := 36 + []float64{0, 5, 0, 7}[beat/8%4]
		notes = append(notes, pluck.Played{Onset: at, Length: 0.45, Pitch: root + []float64{0, 4, 7, 9}[beat%4], String: 6, Attack: pluck.Picked, Loudness: 0.5})
		for k, tone := range []float64{16, 22, 26} {
			notes = append(notes, pluck.Played{Onset: at + 0.25, Length: 0.2, Pitch: root + tone, String: 3 + k, Attack: pluck.Picked, Loudness: 0.2})
		}
	}
	sound := pluck.Render(notes, pluck.CleanNeck, listen.Rate, seconds, 5)
	for beat := range 2 * seconds {
		for n := range listen.Rate / 12 {
			if at := beat*listen.Rate/2 + n; at < len(sound) {
				sound[at] += float32(0.3 * chance.NormFloat64() * math.Exp(-float64(n)/400))
			}
		}
	}
	return sound
}

// playerSound is a line over it, and where its notes are.
func playerSound() ([]float32, []pluck.Played) {
	chance := rand.New(rand.NewPCG(2, 1))
	notes := []pluck.Played{}
	for at := 1.1; at < seconds-2; at += 0.25 * float64(1+chance.IntN(3)) {
		notes = append(notes, pluck.Played{Onset: at, Length: 0.22, Pitch: 58 + float64([]int{0, 3, 5, 7, 10, 12, 15}[chance.IntN(7)]), String: 2, Attack: pluck.Picked, Loudness: 0.4})
	}
	return pluck.Render(notes, pluck.CleanBridge, listen.Rate, seconds, 6), notes
}

// inRoom is a sound some milliseconds later, with echoes that die away.
func inRoom(sound []float32, late int) []float32 {
	chance := rand.New(rand.NewPCG(3, 3))
	out := make([]float32, len(sound))
	taps := map[int]float64{late: 1}
	for range 60 {
		d := chance.ExpFloat64() * 0.03
		taps[late+int(d*listen.Rate)] += 0.25 * chance.NormFloat64() * math.Exp(-d/0.03)
	}
	for d, share := range taps {
		for n := d; n < len(out); n++ {
			out[n] += float32(share) * sound[n-d]
		}
	}
	return out
}

func power(sound []float32) float64 {
	sum := 0.0
	for _, s := range sound {
		sum += float64(s) * float64(s)
	}
	return sum
}

// mixed is the player with the band so many dB below, and the share it is mixed with.
func mixed(player, room []float32, decibels float64) ([]float32, float64) {
	share := math.Sqrt(power(player) / power(room) * math.Pow(10, decibels/10))
	out := make([]float32, len(player))
	for n := range out {
		out[n] = player[n] + float32(share)*room[n]
	}
	return out, share
}

// A band at a known level is found at that level, and what is left of it after it was taken out is much less; judged
// by the player's own sound, which the program does not know.
func TestALeakIsFoundAndTakenOut(t *testing.T) {
	band := bandSound()
	player, played := playerSound()
	room := inRoom(band, 1500) // 62 ms late
	levels := []float64{-6, -12, -20}
	if testing.Short() {
		levels = levels[1:2]
	}
	for _, level := range levels {
		recording, share := mixed(player, room, level)
		l := Find(recording, band, 0)
		require.True(t, l.Found, level)
		assert.InDelta(t, 1500.0/listen.Rate, l.Late, 0.001, level)
		assert.InDelta(t, level, l.Decibels, 2, level)
		rest := Without(recording, band, 0, l)
		left := make([]float32, len(rest))
		for n := range left {
			left[n] = rest[n] - player[n]
		}
		gain := 10 * math.Log10(share*share*power(room)/power(left))
		before, err := listen.NotesOf(recording, listen.Rate)
		require.NoError(t, err)
		after, err := listen.NotesOf(rest, listen.Rate)
		require.NoError(t, err)
		fBefore, fAfter := evaluation.Compare(played, before), evaluation.Compare(played, after)
		t.Logf("%.0f dB: found %.1f dB, %.1f dB taken out; F %.3f before, %.3f after", level, l.Decibels, gain, fBefore.F(), fAfter.F())
		assert.Greater(t, fAfter.F(), fBefore.F()-0.005, level)
		if level >= -12 {
			assert.Greater(t, gain, 6.0, level)
		}
	}
}

func TestNoLeakIsFoundWhereThereIsNone(t *testing.T) {
	band := bandSound()
	player, _ := playerSound()
	assert.False(t, Find(player, band, 0).Found)
	assert.False(t, Find(player, make([]float32, len(player)), 0).Found)
	assert.False(t, Find(make([]float32, listen.Rate), band, 0).Found)
	assert.False(t, Find(nil, band, 0).Found)
}

func TestABandThatBeginsLater(t *testing.T) {
	band := bandSound()
	player, _ := playerSound()
	room := append(make([]float32, 2*listen.Rate), inRoom(band, 480)...)[:len(player)]
	recording, _ := mixed(player, room, -8)
	l := Find(recording, band, 2.1)
	require.True(t, l.Found)
	assert.InDelta(t, 0.02-0.1, l.Late, 0.002)
}
