package phrase_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

// drawnPhrase is a line of one voice in steps of a sixteenth, some of it slurred.
func drawnPhrase(t *rapid.T) phrase.Phrase {
	p := phrase.Phrase{Meter: chart.FourFour}
	tick := 0
	for range rapid.IntRange(1, 12).Draw(t, "notes") {
		tick += 120 * rapid.IntRange(1, 4).Draw(t, "step")
		e := phrase.Event{Tick: tick, Ticks: 120, Fingered: neck.Fingered{Place: neck.Place{String: rapid.IntRange(1, 6).Draw(t, "string"), Fret: rapid.IntRange(1, 17).Draw(t, "fret")}}}
		e.Vibrato, e.Accent = rapid.Bool().Draw(t, "vibrato"), rapid.Bool().Draw(t, "accent")
		p.Events = append(p.Events, e)
	}
	return p
}

func whole(p phrase.Phrase) (from, to int) { return p.Events[0].Tick, p.End() }

// What is moved one way and back is what it was: in time, along the strings, across them.
func TestMovingAndMovingBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := drawnPhrase(t)
		from, to := whole(p)
		for _, kind := range []phrase.EditKind{phrase.Shift, phrase.Transpose, phrase.MoveString} {
			by := rapid.IntRange(-5, 5).Draw(t, "by")
			if kind == phrase.Shift {
				by *= 120
			}
			there, _, err := p.Apply(phrasetest.Guitar, phrase.Edit{Kind: kind, From: from, To: to, By: by})
			if err != nil {
				continue
			}
			start, end := from, to
			if kind == phrase.Shift {
				start, end = from+by, to+by
			}
			back, _, err := there.Apply(phrasetest.Guitar, phrase.Edit{Kind: kind, From: start, To: end, By: -by})
			require.NoError(t, err)
			require.Len(t, back.Events, len(p.Events))
			for n, e := range back.Events {
				was := p.Events[n]
				assert.Equal(t, was.Tick, e.Tick)
				assert.Equal(t, was.Place, e.Place)
				if kind != phrase.MoveString && there.Events[n].Fret > 0 {
					assert.Equal(t, was.Vibrato, e.Vibrato, "what stays fretted stays shaken")
				}
				assert.Equal(t, was.Accent, e.Accent)
			}
			if kind == phrase.MoveString {
				for n, e := range there.Events {
					assert.Equal(t, phrasetest.Guitar.Pitch(p.Events[n].Place), phrasetest.Guitar.Pitch(e.Place), "the sound stays")
				}
			}
		}
	})
}

// What is played again is played twice, alike, and what follows comes as much later.
func TestRepeatingASelection(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := drawnPhrase(t)
		from, to := whole(p)
		again, _, err := p.Apply(phrasetest.Guitar, phrase.Edit{Kind: phrase.Repeat, From: from, To: to})
		require.NoError(t, err)
		require.Len(t, again.Events, 2*len(p.Events))
		for n := range p.Events {
			one, two := again.Events[n], again.Events[n+len(p.Events)]
			assert.Equal(t, one.Place, two.Place)
			assert.Equal(t, to-from, two.Tick-one.Tick)
			assert.Equal(t, one.Technique, two.Technique)
		}
	})
}

// What is copied and pasted behind the end stands there as it stood; what is pasted over
// others takes their place.
func TestPastingASelection(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := drawnPhrase(t)
		from, to := whole(p)
		held := []phrase.Event{}
		for _, e := range p.Events {
			e.Tick -= from
			held = append(held, e)
		}
		behind, _, err := p.Apply(phrasetest.Guitar, phrase.Edit{Kind: phrase.Paste, From: to, Events: held})
		require.NoError(t, err)
		require.Len(t, behind.Events, 2*len(p.Events))
		over, _, err := p.Apply(phrasetest.Guitar, phrase.Edit{Kind: phrase.Paste, From: from, Events: held})
		require.NoError(t, err)
		assert.Equal(t, phrasetest.Text(p), phrasetest.Text(over), "over itself it changes nothing")
	})
}

// Everything cleared leaves nothing, and everything cut leaves no time.
func TestClearingAndCutting(t *testing.T) {
	p := phrasetest.FourFour(phrasetest.At(0, 3, 8), phrasetest.At(1, 3, 10, phrasetest.HammerOn), phrasetest.At(2, 2, 8), phrasetest.At(4, 1, 8))
	p.Chords = []phrase.PhraseChord{{Chord: phrasetest.ChordOf(t, "C7")}, {Tick: 480, Chord: phrasetest.ChordOf(t, "F7")}, {Tick: 960, Chord: phrasetest.ChordOf(t, "G7")}}
	cleared, _ := edited(t, p, phrase.Edit{Kind: phrase.Clear, From: 0, To: 480})
	assert.Equal(t, "480+240 2:8, 960+240 1:8", phrasetest.Text(cleared))
	assert.Len(t, cleared.Chords, 3, "the chords stay where they are")
	cut, remarks := edited(t, p, phrase.Edit{Kind: phrase.RemoveTime, From: 0, To: 240})
	assert.Equal(t, "0+240 3:10, 240+240 2:8, 720+240 1:8", phrasetest.Text(cut))
	assert.Equal(t, "the hammer-on at note 1 no longer fits: pick it", remarks)
	ticks := []int{}
	for _, from := range cut.Chords {
		ticks = append(ticks, from.Tick)
	}
	assert.Equal(t, []int{0, 240, 720}, ticks)
	none, _ := edited(t, p, phrase.Edit{Kind: phrase.RemoveTime, From: 0, To: 1200})
	assert.Empty(t, none.Events)
	require.Len(t, none.Chords, 1)
	assert.Equal(t, "G7", none.Chords[0].Chord.Symbol(), "the last that began there holds on")
	empty, _ := edited(t, none, phrase.Edit{Kind: phrase.Put, From: 0, String: 1, Fret: 3, Ticks: 240})
	assert.Equal(t, "0+240 1:3", phrasetest.Text(empty), "it can be written from nothing again")
}
