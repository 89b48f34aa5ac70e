// Package solotest holds what the tests of solos have in common: requests, licks and plans.
package solotest

import (
	"context"
	"testing"

	"github.com/stretchr/testify/require"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/core/solo/line"
	"undaris/core/solo/planner"
)

// Request is a request with default settings over a scheme, in a key and a form.
func Request(t testing.TB, scheme, tonic, form string, seed uint64) chorus.Request {
	t.Helper()
	s, err := chart.FindScheme(scheme)
	require.NoError(t, err)
	key, err := harmony.ParseKey(tonic, s.In)
	require.NoError(t, err)
	c := chart.Chart{Title: scheme, Key: key, Meter: chart.FourFour, Tempo: 112, Feel: chart.Shuffle, Swing: 2, Bars: s.Bars(key.Tonic, chart.FourFour)}
	return RequestOver(t, c, form, seed)
}

// RequestOver is a request with default settings over a chart.
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

// Lick is a lick of one bar in the minor box of C.
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

// Planned is what is planned for a request.
func Planned(t testing.TB, o chorus.Request) planner.Proposals {
	t.Helper()
	p, err := planner.Plan(context.Background(), o)
	require.NoError(t, err)
	require.NotEmpty(t, p.Best)
	return p
}

// Edit makes one change of a chorus and returns it with what gave way.
func Edit(o chorus.Request, c chorus.Chorus, e chorus.Edit) (chorus.Chorus, []string, error) {
	edited, err := planner.Edit(context.Background(), o, c, e)
	return edited.Chorus, edited.Remarks, err
}

// BluesInC is a request with default settings over a twelve-bar blues in C.
func BluesInC() chorus.Request {
	scheme, err := chart.FindScheme("quick change")
	key, second := harmony.ParseKey("C", harmony.DominantMode)
	if err != nil || second != nil {
		panic("the scheme and the key are known")
	}
	c := chart.Chart{Title: "A blues", Key: key, Meter: chart.FourFour, Tempo: 112, Feel: chart.Shuffle, Swing: 2, Bars: scheme.Bars(key.Tonic, chart.FourFour)}
	i := neck.Standard()
	position, err := neck.FindPosition(i, key.Tonic.Class(), "E")
	eighths, second := c.Meter.Subdivision("eighth")
	if err != nil || second != nil {
		panic("the position and the subdivision are known")
	}
	return chorus.Request{Chart: c, Instrument: i, Position: position, SpanMM: neck.ComfortableSpanMM, Strategy: change.ThirdsFirst,
		Subdivision: eighths, Density: chorus.DefaultDensity, Blend: []float64{chorus.DefaultBlend}, Form: chorus.AAB, Space: chorus.DefaultSpace, Seed: 1}
}

// PlanOf is the best chorus that is planned for a request.
func PlanOf(o chorus.Request) chorus.Chorus {
	planned, err := planner.Plan(context.Background(), o)
	if err != nil {
		panic(err)
	}
	return planned.Best[0].Chorus
}

// LineRequest is a request for a lick over the change from bar 4 to bar 5 of BluesInC.
func LineRequest() line.Request {
	o := BluesInC()
	c7, err := o.Chart.Key.ParseRoman("I")
	if err != nil {
		panic(err)
	}
	l := lick.Lick{Name: "Jetty steps", Tonic: o.Chart.Key.Tonic, Phrase: phrase.Phrase{Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: c7}}}}
	for n, at := range []neck.Place{{String: 3, Fret: 8}, {String: 3, Fret: 10}, {String: 2, Fret: 8}, {String: 2, Fret: 11}, {String: 2, Fret: 8}, {String: 3, Fret: 10}} {
		l.Phrase.Events = append(l.Phrase.Events, phrase.Event{Tick: n * 240, Ticks: 240, Fingered: neck.Fingered{Place: at}})
	}
	ch, err := o.Chart.ChangeAt(7680)
	if err != nil {
		panic(err)
	}
	return line.Request{Chart: o.Chart, Instrument: o.Instrument, Position: o.Position, Change: ch, Lick: l, Strategy: o.Strategy, Subdivision: o.Subdivision}
}
