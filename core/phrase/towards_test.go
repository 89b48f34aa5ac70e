package phrase_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

// A note that is not to be rested on says which chord tone it goes to, if it goes to one.
func TestWhereANoteGoes(t *testing.T) {
	c := phrasetest.Song(t, "A", harmony.DominantMode, "A7", "D7")
	at := func(tick, ticks, s, fret int) phrase.Event {
		return phrase.Event{Tick: tick, Ticks: ticks, Fingered: neck.Fingered{Place: neck.Place{String: s, Fret: fret}}}
	}
	for _, c2 := range []struct {
		name   string
		second phrase.Event
		want   string
	}{
		{"up a fret to the third", at(480, 480, 3, 6), "Here it is on its way to the 3."},
		{"to a note that is no chord tone", at(480, 480, 3, 7), ""},
		{"a leap away", at(480, 480, 2, 10), ""},
		{"after a long silence", at(1440, 480, 3, 6), ""},
	} {
		p := phrase.Phrase{Meter: c.Meter, Events: []phrase.Event{at(0, 480, 3, 5), c2.second}}.WithChordsOf(c, 0)
		labels := p.Labels(neck.Standard(), c.Key)
		assert.Equal(t, c2.want, labels[0].Towards, c2.name)
	}
	over := phrase.Phrase{Meter: c.Meter, Events: []phrase.Event{at(1440, 480, 3, 10), at(1920, 480, 3, 11)}}.WithChordsOf(c, 0)
	assert.Equal(t, "Here it is on its way to the 3 of D7.", over.Labels(neck.Standard(), c.Key)[0].Towards)
	assert.Contains(t, over.Labels(neck.Standard(), c.Key)[0].Why(), ". Here it is on its way")
}
