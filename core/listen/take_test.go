package listen

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/listen/pluck"
)

// phraseOf draws a line on one string: struck, bent, slurred.
func phraseOf(t *rapid.T) []pluck.Played {
	notes := []pluck.Played{}
	at := 0.3
	for n := range rapid.IntRange(2, 8).Draw(t, "notes") {
		length := rapid.SampledFrom([]float64{0.15, 0.25, 0.5, 0.8}).Draw(t, "length")
		note := pluck.Played{Onset: at, Length: 0.93 * length, Pitch: float64(rapid.IntRange(40, 84).Draw(t, "pitch")), String: 1, Attack: pluck.Picked,
			Loudness: rapid.Float64Range(0.1, 0.6).Draw(t, "loudness")}
		if n > 0 && note.Pitch == notes[n-1].Pitch {
			note.Pitch += 2
		}
		if length >= 0.5 && rapid.IntRange(0, 2).Draw(t, "bent?") == 0 {
			note.Curve = []pluck.Point{{}, {Seconds: 0.08}, {Seconds: 0.22, Cents: 100 * float64(rapid.IntRange(1, 2).Draw(t, "bend"))}}
		}
		notes = append(notes, note)
		at += length
	}
	return notes
}

// What is played is heard: of the notes of random lines at most one in a hundred is missed, invented or of
// another pitch, and bends go as far as they were bent. (Judged against the notes that were played, not by what
// the ear itself goes by.)
func TestWhatIsPlayedIsHeard(t *testing.T) {
	drawn := rapid.Custom(phraseOf)
	tones, rates := []pluck.Tone{pluck.CleanNeck, pluck.CleanBridge, pluck.LightNeck, pluck.Crunch}, []int{16000, 22050, 44100, 48000}
	of, wrong, bends, bendErrors := 0, []string{}, 0, 0.0
	for n := range 40 {
		played := drawn.Example(n)
		last := played[len(played)-1]
		rate := rates[n%len(rates)]
		tone := tones[n/len(rates)%len(tones)]
		if tone.Drive > 1 { // what is driven at a low rate folds back, which no amplifier does
			rate = 48000
		}
		heard, err := NotesOf(pluck.Render(played, tone, rate, last.Onset+last.Length+0.6, uint64(n)), rate)
		require.NoError(t, err)
		of += len(played) + len(heard)
		found := map[int]bool{}
		for _, p := range played {
			k := slices.IndexFunc(heard, func(h Note) bool { return math.Abs(h.Onset-p.Onset) <= 0.05 && h.MIDI() == int(p.Pitch) })
			if k < 0 || found[k] {
				wrong = append(wrong, fmt.Sprintf("line %d: %.0f at %.2f s is missed", n, p.Pitch, p.Onset))
				continue
			}
			found[k] = true
			if most := p.Cents(p.Length); most > 0 {
				bends++
				if heard[k].Bend == nil {
					wrong = append(wrong, fmt.Sprintf("line %d: the bend of %.0f at %.2f s is missed", n, p.Pitch, p.Onset))
					continue
				}
				bendErrors = math.Max(bendErrors, math.Abs(heard[k].Bend.Cents-most))
			}
		}
		for k, h := range heard {
			if !found[k] {
				wrong = append(wrong, fmt.Sprintf("line %d: %.2f at %.2f s is invented", n, h.Pitch, h.Onset))
			}
		}
	}
	assert.Less(t, float64(len(wrong)), 0.01*float64(of), "%v", wrong)
	assert.Greater(t, bends, 12)
	assert.Less(t, bendErrors, 10.0)
}

// It makes no difference in what pieces sound comes.
func TestPiecesMakeNoDifference(t *testing.T) {
	drawn := rapid.Custom(phraseOf)
	for example := range 8 {
		chance := rand.New(rand.NewPCG(uint64(example), 3))
		played := drawn.Example(example)
		last := played[len(played)-1]
		sound := pluck.Render(played, pluck.CleanNeck, 44100, last.Onset+last.Length+0.4, 5)
		whole, err := NotesOf(sound, 44100)
		require.NoError(t, err)
		l, err := Listen(44100)
		require.NoError(t, err)
		for rest := sound; len(rest) > 0; {
			n := min([]int{1, 128, 441, 2048, 30000}[chance.IntN(5)], len(rest))
			l.Hear(rest[:n])
			rest = rest[n:]
		}
		pieces := l.Close()
		assert.NotEmpty(t, whole)
		assert.Equal(t, whole, pieces, "line %d", example)
	}
}

// Where nothing is played nothing is heard: silence, hiss, hum, clicks.
func TestNothingIsInvented(t *testing.T) {
	chance := rand.New(rand.NewPCG(1, 2))
	const rate = 44100
	for name, sample := range map[string]func(n int) float64{
		"silence":      func(int) float64 { return 0 },
		"hiss":         func(int) float64 { return 0.01 * chance.NormFloat64() },
		"loud hiss":    func(int) float64 { return 0.2 * chance.NormFloat64() },
		"hum":          func(n int) float64 { return 0.02 * math.Sin(2*math.Pi*50*float64(n)/rate) },
		"clicks":       func(n int) float64 { return map[bool]float64{true: 0.8}[n%rate < 8] },
		"a constant":   func(int) float64 { return 0.3 },
		"no number":    func(n int) float64 { return map[bool]float64{true: math.NaN()}[n == 20000] },
		"out of range": func(n int) float64 { return 1e9 * chance.NormFloat64() },
	} {
		sound := make([]float32, 4*rate)
		for n := range sound {
			sound[n] = float32(sample(n))
		}
		heard, err := NotesOf(sound, rate)
		require.NoError(t, err)
		assert.Empty(t, heard, name)
	}
}

func TestRatesThatCannotBeHeard(t *testing.T) {
	for _, rate := range []int{-1, 0, 7999, 96001} {
		_, err := Listen(rate)
		assert.ErrorContains(t, err, "8000 to 96000 can", rate)
	}
	for _, rate := range []int{8000, 11025, 22051, 96000} {
		sound := pluck.Render([]pluck.Played{{Onset: 0.2, Length: 0.5, Pitch: 52, String: 1, Attack: pluck.Picked, Loudness: 0.4}}, pluck.CleanNeck, rate, 1.2, 1)
		heard, err := NotesOf(sound, rate)
		require.NoError(t, err)
		if assert.Len(t, heard, 1, rate) {
			assert.InDelta(t, 52, heard[0].Pitch, 0.05, rate)
			assert.InDelta(t, 0.2, heard[0].Onset, 0.005, rate)
		}
	}
}

// Timing shifts are measured.
func TestShiftsOfTimeAreMeasured(t *testing.T) {
	errors := []float64{}
	for _, shift := range []float64{-0.05, -0.02, 0, 0.013, 0.05} {
		for k, pitch := range []float64{40, 47, 52, 59, 64, 71, 76} {
			onset := 0.5 + shift + 0.0007*float64(k)
			sound := pluck.Render([]pluck.Played{{Onset: onset, Length: 0.4, Pitch: pitch, String: 1, Attack: pluck.Picked, Loudness: 0.4}}, pluck.CleanNeck, 48000, 1.4, uint64(k))
			heard, err := NotesOf(sound, 48000)
			require.NoError(t, err)
			require.Len(t, heard, 1)
			errors = append(errors, math.Abs(heard[0].Onset-onset))
		}
	}
	assert.Less(t, slices.Max(errors), 0.005)
}

// Two strings struck at once are two notes, where it is clear.
func TestDoubleStops(t *testing.T) {
	for _, pair := range [][2]float64{{57, 61}, {59, 64}, {60, 69}, {64, 68}, {52, 59}} {
		played := []pluck.Played{
			{Onset: 0.3, Length: 0.8, Pitch: pair[0], String: 2, Attack: pluck.Picked, Loudness: 0.35},
			{Onset: 0.3, Length: 0.8, Pitch: pair[1], String: 1, Attack: pluck.Picked, Loudness: 0.35},
		}
		heard, err := NotesOf(pluck.Render(played, pluck.CleanNeck, 44100, 1.8, 1), 44100)
		require.NoError(t, err)
		pitches := []int{}
		for _, h := range heard {
			pitches = append(pitches, h.MIDI())
		}
		slices.Sort(pitches)
		assert.Equal(t, []int{int(pair[0]), int(pair[1])}, pitches)
	}
}

// The likeliest way through the frames is that of trying every way.
func TestTrackingEqualsExhaustiveSearch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		all := make([]frame, rapid.IntRange(1, 6).Draw(t, "frames"))
		for n := range all {
			left := 1.0
			for k := range rapid.IntRange(0, 3).Draw(t, "candidates") {
				share := left * rapid.Float64Range(0, 1).Draw(t, "share")
				left -= share
				all[n].candidates = append(all[n].candidates, candidate{pitch: 40 + 7*float64(k) + rapid.Float64Range(0, 6).Draw(t, "pitch"), share: share})
			}
			all[n].flux = rapid.Float64Range(0, 50).Draw(t, "flux")
		}
		tr, out := &tracker{}, []pitchFrame{}
		for _, f := range all {
			out = tr.add(f, out)
		}
		out = tr.flush(out)
		cost := func(states []int) float64 {
			sum := 0.0
			for n, s := range states {
				sum += ownCost(all[n], s)
				if n > 0 {
					sum += change(all[n-1], states[n-1], all[n], s)
				}
			}
			return sum
		}
		least := math.Inf(1)
		var try func(states []int)
		try = func(states []int) {
			if n := len(states); n < len(all) {
				for s := range len(all[n].candidates) + 1 {
					try(append(slices.Clone(states), s))
				}
				return
			}
			least = math.Min(least, cost(states))
		}
		try(nil)
		states := make([]int, len(all))
		for n, d := range out {
			states[n] = len(all[n].candidates)
			for k, c := range all[n].candidates {
				if c.pitch == d.pitch {
					states[n] = k
					break
				}
			}
		}
		if got := cost(states); math.Abs(got-least) > 1e-9 {
			t.Fatalf("%v costs %.4f, the least is %.4f", states, got, least)
		}
	})
}

// A note is shown soon after it is struck: within 45 ms of sound from E2 up, which leaves 35 ms for the way.
func TestANoteIsShownSoon(t *testing.T) {
	for _, pitch := range []float64{40, 45, 52, 64, 76, 88} {
		sound := pluck.Render([]pluck.Played{{Onset: 0.5, Length: 1, Pitch: pitch, String: 1, Attack: pluck.Picked, Loudness: 0.4}}, pluck.CleanBridge, 48000, 1.2, 1)
		l, err := Listen(48000)
		require.NoError(t, err)
		shown := -1.0
		for n := 0; n+240 <= len(sound); n += 240 {
			l.Hear(sound[n : n+240])
			if s := l.Sounding(); s.Voiced && shown < 0 {
				shown = float64(n+240) / 48000
				assert.InDelta(t, pitch, s.Pitch, 0.3)
			}
		}
		assert.Greater(t, shown, 0.5, pitch)
		assert.Less(t, shown, 0.545, pitch)
	}
}
