package solotest

import (
	"testing"

	"github.com/stretchr/testify/require"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/core/solo/planner"
)

// Request is an order with default settings over a scheme.
func Request(t testing.TB, scheme, tonic, form string, seed uint64) chorus.Request {
	t.Helper()
	s, err := chart.FindScheme(scheme)
	require.NoError(t, err)
	key, err := harmony.ParseKey(tonic, s.In)
	require.NoError(t, err)
	c := chart.Chart{Title: scheme, Key: key, Meter: chart.FourFour, Tempo: 112, Feel: chart.Shuffle, Swing: 2, Bars: s.Bars(key.Tonic, chart.FourFour)}
	return RequestOver(t, c, form, seed)
}

func RequestOver(t testing.TB, c chart.Chart, form string, seed uint64) chorus.Request {
	t.Helper()
	i := neck.Standard()
	p, err := neck.FindPosition(i, c.Key.Tonic.Class(), form)
	require.NoError(t, err)
	eighths, err := c.Meter.Subdivision("")
	require.NoError(t, err)
	return chorus.Request{Chart: c, Instrument: i, Position: p, SpanMM: neck.ComfortableSpanMM, Strategy: change.ThirdsFirst,
		Subdivision: eighths, Density: chorus.DefaultDensity, Blend: []float64{chorus.DefaultBlend}, Form: chorus.AAB, Space: chorus.DefaultSpace, Seed: seed}
}

func Lick(t testing.TB) lick.Lick {
	t.Helper()
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	c7, err := key.ParseRoman("I")
	require.NoError(t, err)
	l := lick.Lick{Name: "Jetty steps", Tonic: key.Tonic, Phrase: phrase.Phrase{Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: c7}}}}
	for n, at := range []struct{ tick, ticks, s, fret int }{{0, 240, 3, 8}, {240, 240, 3, 10}, {480, 480, 2, 8}, {960, 240, 2, 11}, {1200, 240, 2, 8}, {1440, 480, 3, 10}} {
		l.Phrase.Events = append(l.Phrase.Events, phrase.Event{Tick: at.tick, Ticks: at.ticks, Fingered: neck.Fingered{Place: neck.Place{String: at.s, Fret: at.fret}, Finger: 1 + n%4}})
	}
	return l
}

func Planned(t testing.TB, o chorus.Request) planner.Proposals {
	t.Helper()
	p, err := planner.Plan(o)
	require.NoError(t, err)
	require.NotEmpty(t, p.Best)
	return p
}

// Edit makes one change of a chorus and returns it with what gave way.
func Edit(o chorus.Request, c chorus.Chorus, e chorus.Edit) (chorus.Chorus, []string, error) {
	edited, err := planner.Edit(o, c, e)
	return edited.Chorus, edited.Remarks, err
}
