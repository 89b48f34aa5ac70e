package schedule_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/practice"
	. "undaris/core/practice/schedule"
)

func tune(t *testing.T, scheme, tonic string) chart.Chart {
	t.Helper()
	s, err := chart.FindScheme(scheme)
	require.NoError(t, err)
	key, err := harmony.ParseKey(tonic, s.In)
	require.NoError(t, err)
	return chart.Chart{Title: scheme, Key: key, Meter: chart.FourFour, Tempo: 112, Bars: s.Bars(key.Tonic, chart.FourFour)}
}

func TestATuneEnrolsItsCards(t *testing.T) {
	cards := Enrol(tune(t, "quick change", "C"), neck.Standard())
	ids := map[string]bool{}
	for _, card := range cards {
		assert.False(t, ids[card.ID()], "%s comes once", card.ID())
		ids[card.ID()] = true
		_, err := practice.Ask(practice.Context{Instrument: neck.Standard()}, card, 3)
		assert.NoError(t, err, card.ID())
	}
	assert.Equal(t, "find it|C dominant|E|C7", cards[0].ID(), "where the tonic chord lies comes first")
	assert.Contains(t, ids, "nearest landing|C dominant|E|C7 F7")
	assert.Contains(t, ids, "nearest landing|C dominant|D|G7 F7")
	assert.Contains(t, ids, "box and chord|C dominant|E|F7")
	assert.Contains(t, ids, "guide-tone line|C dominant|E|C7 F7 C7 F7 C7 G7 F7 C7 G7")
	assert.Contains(t, ids, "which bar, by ear|C dominant||C7 F7 C7 C7 F7 F7 C7 C7 G7 F7 C7 G7", "a bar has its chord, the same as before or not")
	assert.Contains(t, ids, "spell a chord|C dominant||G7")
	assert.NotContains(t, ids, "spell a chord|C dominant|E|G7")
	assert.Greater(t, len(cards), 100)

	open, err := neck.ReadTuning("D A D G A D")
	require.NoError(t, err)
	for _, card := range Enrol(tune(t, "quick change", "C"), neck.Instrument{Name: "DADGAD", Open: open, Frets: 21, ScaleMM: 648}) {
		assert.NotContains(t, []practice.Kind{practice.WhichForm, practice.WhereForm}, card.Kind, "no forms lie there")
	}
	vamp := Enrol(tune(t, "one-chord vamp", "C"), neck.Standard())
	require.NotEmpty(t, vamp, "a tune without changes has cards too")
	for _, card := range vamp {
		assert.NotEqual(t, practice.Landing, card.Kind)
	}
	empty := tune(t, "quick change", "C")
	empty.Bars = chart.EmptyBars(4, chart.FourFour)
	assert.Empty(t, Enrol(empty, neck.Standard()))
}

func TestTheWeakestIsAskedFirst(t *testing.T) {
	cards := Enrol(tune(t, "quick change", "C"), neck.Standard())[:4]
	memories, enrolled := map[string]Memory{}, []practice.Card{}
	for n, card := range cards {
		m := Memory{}.Review(start, Grade(1+n))
		memories[card.ID()] = m.Review(m.Due, Grade(1+n))
		if n != 2 {
			enrolled = append(enrolled, card)
		}
	}
	at := start.AddDate(1, 0, 0)
	due := Due(memories, enrolled, at)
	require.Len(t, due, 3, "the third is enrolled by no tune any more, and rests")
	for n := 1; n < len(due); n++ {
		assert.LessOrEqual(t, due[n-1].Memory.Retrievability(at), due[n].Memory.Retrievability(at))
	}
	assert.Empty(t, Due(memories, enrolled, start.Add(-time.Hour)), "nothing is due before its time")
	memories[cards[0].ID()] = Memory{}
	assert.Len(t, Due(memories, enrolled, at), 2, "whose first answer was taken back is new again")
}

func TestNewCardsComeFromNearKeysFirst(t *testing.T) {
	c, g, f := Enrol(tune(t, "quick change", "C"), neck.Standard()), Enrol(tune(t, "quick change", "F#"), neck.Standard()), Enrol(tune(t, "quick change", "G"), neck.Standard())
	enrolled := append(append(append([]practice.Card{}, g[:2]...), f[:2]...), c[:2]...)
	known := map[string]Memory{c[0].ID(): Memory{}.Review(start, Good)}
	fresh := NewCards(enrolled, known, 10)
	tonics := []string{}
	for _, card := range fresh {
		tonics = append(tonics, card.Key.Tonic.String())
	}
	assert.Equal(t, []string{"C", "G", "G", "F#", "F#"}, tonics)
	assert.Len(t, NewCards(enrolled, known, 2), 2)
	assert.Empty(t, NewCards(nil, known, 2))
}
