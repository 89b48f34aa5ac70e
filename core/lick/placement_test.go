package lick

import (
	"math/rand"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
	"undaris/core/pitch"
)

// Fingering a short lick anew costs what the best of all places for all of its notes
// costs: every choice of places is tried.
func TestFingeringALickAnewIsOptimal(t *testing.T) {
	random := rand.New(rand.NewSource(6))
	placed := 0
	for range 2000 {
		l := Lick{Name: "any", Phrase: phrase.Phrase{Meter: chart.FourFour}}
		fret := 1 + random.Intn(14)
		for n := range 2 + random.Intn(4) {
			e := phrasetest.At(n, 1+random.Intn(6), fret+random.Intn(4))
			if n > 0 && random.Intn(3) == 0 {
				e.String = l.Phrase.Events[n-1].String
				e.HammerOn = e.Fret > l.Phrase.Events[n-1].Fret
				e.PullOff = e.Fret < l.Phrase.Events[n-1].Fret
			}
			l.Phrase.Events = append(l.Phrase.Events, e)
		}
		w := phrasetest.Guitar.WindowFrom(random.Intn(16))
		shift := random.Intn(25) - 12
		setting, cost, ok := l.refingered(phrasetest.Guitar, w, shift)
		wanted := make([]neck.NoteToPlace, len(l.Phrase.Events))
		for n, e := range l.Phrase.Events {
			wanted[n] = neck.NoteToPlace{Pitch: phrasetest.Guitar.Pitch(e.Place) + pitch.MIDI(shift), Slurred: l.Phrase.Slurred(n)}
		}
		least := leastOfAll(w, wanted, 0)
		if !ok {
			continue
		}
		placed++
		require.Equal(t, least, cost)
		for _, e := range setting.Phrase.Events {
			assert.True(t, e.Fret >= w.Low && e.Fret <= w.High)
		}
	}
	assert.Greater(t, placed, 500, "most of them have room")
}

// leastOfAll tries every place in the window for the notes from n on; -1 for none.
func leastOfAll(w neck.Window, wanted []neck.NoteToPlace, n int) int {
	if n == len(wanted) {
		_, cost, err := neck.FingerPhrase(phrasetest.Guitar, w, wanted)
		if err != nil {
			return -1
		}
		return cost
	}
	least := -1
	for s := range phrasetest.Guitar.Open {
		fret := int(wanted[n].Pitch - phrasetest.Guitar.Open[s])
		if fret < w.Low || fret > w.High {
			continue
		}
		held := append([]neck.NoteToPlace(nil), wanted...)
		held[n].At = &neck.Place{String: s + 1, Fret: fret}
		if cost := leastOfAll(w, held, n+1); cost >= 0 && (least < 0 || cost < least) {
			least = cost
		}
	}
	return least
}

// A line of sixteen notes fingered anew in a position, in the octave that costs least.
func BenchmarkRefingering16Notes(b *testing.B) {
	l := Lick{Name: "Sixteen", Phrase: phrase.Phrase{Meter: chart.FourFour}}
	for n, fret := range []int{8, 10, 8, 11, 8, 10, 8, 10, 8, 10, 8, 10, 8, 11, 8, 11} {
		l.Phrase.Events = append(l.Phrase.Events, phrasetest.At(n, 1+n/3, fret))
	}
	w := phrasetest.Guitar.WindowFrom(5)
	b.ReportAllocs()
	for b.Loop() {
		if _, err := l.refingeredCheapest(phrasetest.Guitar, w, 5); err != nil {
			b.Fatal(err)
		}
	}
}
