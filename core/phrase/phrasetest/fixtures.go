// Package phrasetest holds notes, phrases and charts that the tests of several packages use.
package phrasetest

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// At is an eighth on a string and fret, the nth of its bar.
func At(n, s, fret int, with ...func(*phrase.Event)) phrase.Event {
	e := phrase.Event{Tick: n * 240, Ticks: 240, Fingered: neck.Fingered{Place: neck.Place{String: s, Fret: fret}}}
	for _, f := range with {
		f(&e)
	}
	return e
}

func HammerOn(e *phrase.Event) { e.HammerOn = true }

func PullOff(e *phrase.Event) { e.PullOff = true }

func BentWhole(e *phrase.Event) { e.Bend = 4 }

func Tied(e *phrase.Event) { e.Tied = true }

func TooLong(e *phrase.Event) { e.Ticks = 481 }

func Released(e *phrase.Event) { e.Release = true }

func SlideFrom(from int) func(*phrase.Event) {
	return func(e *phrase.Event) { e.SlideFrom = from }
}

// ErrorText writes an error about the whole phrase without a note's number.
func ErrorText(err error) error {
	if e, ok := err.(*phrase.EventError); ok && e.Field == "events" {
		return fmt.Errorf("%s", e.Detail)
	}
	return err
}

func TwelveBar(t testing.TB, tonic string) chart.Chart {
	t.Helper()
	key, err := harmony.ParseKey(tonic, harmony.DominantMode)
	require.NoError(t, err)
	return chart.Chart{Title: "A test", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Shuffle, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
}

func Places(p phrase.Phrase) string {
	all := []string{}
	for _, e := range p.Events {
		all = append(all, fmt.Sprintf("%d:%d", e.String, e.Fret))
	}
	return strings.Join(all, " ")
}

func KeyOfC(t testing.TB) harmony.Key {
	t.Helper()
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	return key
}

func Lasting(ticks int) func(*phrase.Event) { return func(e *phrase.Event) { e.Ticks = ticks } }

func Degrees(all []pitch.Degree) string {
	names := []string{}
	for _, d := range all {
		names = append(names, d.String())
	}
	return strings.Join(names, " ")
}

func WindowOf(t testing.TB, form string) neck.Window {
	t.Helper()
	p, err := neck.FindPosition(Guitar, 0, form)
	require.NoError(t, err)
	return p.Window
}

func DrawnChord(t *rapid.T) harmony.Chord {
	c, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
	require.NoError(t, err)
	return c
}

func ChordOf(t testing.TB, symbol string) harmony.Chord {
	t.Helper()
	c, err := harmony.ParseChord(symbol)
	require.NoError(t, err)
	return c
}

var Guitar = neck.Standard()

// Text writes a phrase as "tick+ticks string:fret technique" for each note.
func Text(p phrase.Phrase) string {
	notes := []string{}
	for _, e := range p.Events {
		note := fmt.Sprintf("%d+%d %d:%d", e.Tick, e.Ticks, e.String, e.Fret)
		if names := e.Names(); len(names) > 0 {
			note += " " + strings.Join(names, " ")
		}
		notes = append(notes, note)
	}
	return strings.Join(notes, ", ")
}

func FourFour(events ...phrase.Event) phrase.Phrase {
	return phrase.Phrase{Meter: chart.FourFour, Events: events}
}

func Over(t *testing.T, symbols ...string) []phrase.PhraseChord {
	t.Helper()
	all := []phrase.PhraseChord{}
	for n, symbol := range symbols {
		all = append(all, phrase.PhraseChord{Tick: 1920 * n, Chord: ChordOf(t, symbol)})
	}
	return all
}

func Song(t testing.TB, tonic string, mode harmony.Mode, bars ...string) chart.Chart {
	t.Helper()
	key, err := harmony.ParseKey(tonic, mode)
	require.NoError(t, err)
	c := chart.Chart{Title: "a song", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Straight, Swing: 2}
	for _, text := range bars {
		spans, err := chart.ReadBar(text, key, chart.FourFour, nil)
		require.NoError(t, err)
		c.Bars = append(c.Bars, chart.Bar{Spans: spans})
	}
	return c
}

// OverC7 is a line in the first box over C7: the blue 3, the 4 bent to the 5, the b7, and
// the root.
func OverC7(t testing.TB) phrase.Phrase {
	return phrase.Phrase{
		Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: ChordOf(t, "C7")}},
		Events: []phrase.Event{At(0, 3, 8), At(1, 3, 10, BentWhole), At(2, 2, 8), At(3, 2, 11), At(4, 2, 8, PullOff), At(5, 3, 9), At(6, 4, 10)},
	}
}

// DrawnOverSeventh draws up to eight eighths on the four frets of a hand, some of them bent,
// over a dominant seventh chord.
func DrawnOverSeventh(t *rapid.T) phrase.Phrase {
	root, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "from") + "7")
	require.NoError(t, err)
	p := phrase.Phrase{Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: root}}}
	fret := rapid.IntRange(1, 16).Draw(t, "fret")
	for n := range rapid.IntRange(1, 8).Draw(t, "notes") {
		e := At(n, rapid.IntRange(1, 6).Draw(t, "string"), fret+rapid.IntRange(0, 3).Draw(t, "up"))
		if rapid.Bool().Draw(t, "bends") {
			e.Bend = 2 * rapid.IntRange(0, neck.MostBend(e.Place)/2).Draw(t, "bend")
		}
		p.Events = append(p.Events, e)
	}
	return p
}
