package practice_test

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/practice"
)

func context(i neck.Instrument) practice.Context {
	return practice.Context{Instrument: i, Strategy: change.ThirdsFirst, Meter: chart.FourFour}
}

// drawnCard is a card of any kind, in any key and position, over chords of any quality.
func drawnCard(rt *rapid.T, i neck.Instrument) practice.Card {
	facts := rapid.SampledFrom(practice.Kinds).Draw(rt, "kind")
	mode := rapid.SampledFrom(harmony.Modes).Draw(rt, "mode")
	key, err := harmony.ParseKey(rapid.SampledFrom(mode.Tonics()).Draw(rt, "tonic"), mode)
	require.NoError(rt, err)
	positions := neck.Positions(i, key.Tonic.Class())
	card := practice.Card{Kind: facts.Kind, Key: key, Position: rapid.SampledFrom(positions).Draw(rt, "position").Name(positions)}
	count := facts.Chords
	if count == practice.Many {
		count = rapid.IntRange(2, 12).Draw(rt, "chords")
	}
	for range count {
		roman := rapid.SampledFrom([]string{"I7", "IV7", "V7", "ii7", "vi7", "bVII7", "#IVdim7", "Imaj7", "V7#9", "iim7b5", "IVm6", "Vsus4"}).Draw(rt, "roman")
		chord, err := key.ParseRoman(roman)
		require.NoError(rt, err)
		card.Chords = append(card.Chords, chord)
	}
	return card
}

// instruments are necks of four to eight strings, with forms and without.
func instruments(t testing.TB) []neck.Instrument {
	all := neck.Presets()
	open, err := neck.ReadTuning("D A D G A D")
	require.NoError(t, err)
	all = append(all, neck.Instrument{Name: "DADGAD", Open: open, Frets: 21, ScaleMM: 648})
	return all
}

// Every question has a right answer, which is marked right; without one of its parts, or with
// another in its place, it is not. What cannot be asked is refused with a sentence.
func TestEveryRightAnswerIsRight(t *testing.T) {
	asked, refused := map[practice.Kind]int{}, map[practice.Kind]int{}
	all := instruments(t)
	rapid.Check(t, func(rt *rapid.T) {
		i := rapid.SampledFrom(all).Draw(rt, "instrument")
		card := drawnCard(rt, i)
		q, err := practice.Ask(context(i), card, rapid.Uint64().Draw(rt, "seed"))
		var cannot *practice.CardError
		if errors.As(err, &cannot) {
			refused[card.Kind]++
			assert.NotEmpty(rt, cannot.Detail)
			return
		}
		require.NoError(rt, err)
		asked[card.Kind]++
		assert.NotEmpty(rt, q.Title)
		assert.NotEmpty(rt, q.Hint)
		assert.NotEmpty(rt, q.Text)
		right := q.RightAnswer()
		mark, err := q.Mark(i, right)
		require.NoError(rt, err)
		assert.True(rt, mark.Right, "%s: %+v", q.Title, mark)
		assert.Equal(rt, mark.Of, mark.Got)

		nothing, err := q.Mark(i, practice.Answer{})
		require.NoError(rt, err)
		assert.False(rt, nothing.Right, "no answer is no right answer")
		if q.Form == practice.Chosen {
			assert.Contains(rt, q.Choices, right.Choice)
			for _, choice := range q.Choices {
				other, err := q.Mark(i, practice.Answer{Choice: choice})
				require.NoError(rt, err)
				if other.Right {
					assert.NotEqual(rt, practice.Wrong, other.Parts[0].State)
				}
			}
			return
		}
		at := rapid.IntRange(0, len(right.Given)-1).Draw(rt, "part")
		wrong := practice.Answer{Given: append([]practice.Given{}, right.Given...)}
		g := wrong.Given[at]
		if g.Note != nil {
			other := card.Key.Spell(pitch.ClassOf(int(g.Note.Class()) + 1))
			g.Note = &other
		} else {
			up := neck.Place{String: g.Place.String, Fret: g.Place.Fret + 1}
			if !i.Has(up) {
				up.Fret -= 2
			}
			g.Place = &up
		}
		wrong.Given[at] = g
		changed, err := q.Mark(i, wrong)
		require.NoError(rt, err)
		if changed.Right { // the other is right too: then it is a tone that was asked for
			assert.Contains(rt, []practice.Kind{practice.Landing, practice.GuideLine}, card.Kind, "%s: %+v", q.Title, wrong)
		}
		less, err := q.Mark(i, practice.Answer{Given: append(append([]practice.Given{}, right.Given[:at]...), right.Given[at+1:]...)})
		require.NoError(rt, err)
		assert.False(rt, less.Right && len(right.Given) > 0, "a part is missing")
	})
	t.Logf("asked %v, refused %v", asked, refused)
}

// The same card and seed make the same question, and a card is read back from its ID.
func TestQuestionsAndCardsAreRepeatable(t *testing.T) {
	i := neck.Standard()
	rapid.Check(t, func(rt *rapid.T) {
		card := drawnCard(rt, i)
		seed := rapid.Uint64().Draw(rt, "seed")
		a, errA := practice.Ask(context(i), card, seed)
		b, errB := practice.Ask(context(i), card, seed)
		assert.Equal(rt, errA, errB)
		assert.Equal(rt, a.Title, b.Title)
		assert.Equal(rt, a.Shown, b.Shown)
		read, err := practice.ParseCard(card.ID())
		require.NoError(rt, err)
		assert.Equal(rt, card.ID(), read.ID())
	})
}
