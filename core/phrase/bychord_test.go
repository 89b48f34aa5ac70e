package phrase_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

// Each place is listed once, under the chord that it is played over; a note that pushes a change belongs to the
// chord that comes.
func TestAPhraseChordByChord(t *testing.T) {
	at := func(tick, ticks, s, fret int) phrase.Event {
		return phrase.Event{Tick: tick, Ticks: ticks, Fingered: neck.Fingered{Place: neck.Place{String: s, Fret: fret}}}
	}
	c := phrasetest.Song(t, "C", harmony.DominantMode, "C7", "F7")
	p := phrase.Phrase{Meter: c.Meter, Events: []phrase.Event{at(0, 480, 3, 9), at(480, 480, 4, 10), at(960, 480, 3, 9), at(1680, 720, 4, 7)}}.WithChordsOf(c, 0)
	parts := p.ByChord()
	assert.Len(t, parts, 2)
	assert.Equal(t, "C7", parts[0].Chord.Symbol())
	assert.Equal(t, []neck.Fingered{{Place: neck.Place{String: 4, Fret: 10}}, {Place: neck.Place{String: 3, Fret: 9}}}, parts[0].Places)
	assert.Equal(t, 1920, parts[1].Tick)
	assert.Equal(t, []neck.Fingered{{Place: neck.Place{String: 4, Fret: 7}}}, parts[1].Places)
	p.Chords = nil
	assert.Empty(t, p.ByChord())
}
