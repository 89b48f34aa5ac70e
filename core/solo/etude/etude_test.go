package etude_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/exercise"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
	. "undaris/core/solo/etude"
)

func settingOf(t testing.TB, c chart.Chart) exercise.Setting {
	t.Helper()
	p, err := neck.FindPosition(neck.Standard(), c.Key.Tonic.Class(), "E")
	require.NoError(t, err)
	return exercise.Setting{Tune: c, Instrument: neck.Standard(), Position: p, SpanMM: 100}
}

// bell is a lick of four notes over A7.
func bell(t testing.TB) *lick.Lick {
	c := phrasetest.Song(t, "A", harmony.DominantMode, "A7")
	at := func(tick, s, fret int) phrase.Event {
		return phrase.Event{Tick: tick, Ticks: 480, Fingered: neck.Fingered{Place: neck.Place{String: s, Fret: fret}}}
	}
	p := phrase.Phrase{Meter: c.Meter, Events: []phrase.Event{at(0, 3, 7), at(480, 3, 5), at(960, 4, 7), at(1440, 4, 5)}}
	return &lick.Lick{Name: "Bell", Tonic: c.Key.Tonic, Phrase: p.WithChordsOf(c, 0)}
}

func parts(t testing.TB) []Part {
	return []Part{
		{Name: "Bell", Lick: bell(t)},
		{Name: "Arpeggios", Exercise: &exercise.Exercise{Tones: exercise.Seventh}},
		{Name: "Thirds", Exercise: &exercise.Exercise{Tones: exercise.ScaleOfChord, Order: exercise.Order{Figure: exercise.InThirds}}},
		{Name: "Runs", Exercise: &exercise.Exercise{Tones: exercise.ScaleOfChord, Time: exercise.Time{Pattern: exercise.CountedBack}}},
	}
}

func TestAnEtudeJoinsItsParts(t *testing.T) {
	c := phrasetest.Song(t, "C", harmony.DominantMode, "C7", "F7", "C7", "C7", "F7", "F7", "C7", "C7", "G7", "F7", "C7", "G7")
	e, err := Compose(Request{Setting: settingOf(t, c), Parts: parts(t)[:3], PartBars: 2, Choruses: 1, Ending: OnTheThird, Seed: 3})
	require.NoError(t, err)
	assert.Len(t, e.Names, 6)
	for n := 1; n < len(e.Names); n++ {
		assert.NotEqual(t, e.Names[n-1], e.Names[n], "no part follows itself")
	}
	blocks := e.Choruses[0].Blocks
	kinds := []string{}
	for _, b := range blocks {
		kinds = append(kinds, b.Name)
	}
	assert.Equal(t, "ending", kinds[len(kinds)-1])
	assert.Contains(t, strings.Join(kinds, ","), "chromatic run")
	line := e.Choruses[0].Phrase(c)
	require.NoError(t, line.Check(neck.Standard()))
	labels := line.Labels(neck.Standard(), c.Key)
	last := len(line.Events) - 1
	assert.Equal(t, 3, labels[last].Degree.Number)
	assert.Equal(t, c.Ticks(), line.Events[last].End())
	// Every run goes in half steps into the note after it.
	for n, b := range blocks {
		if b.Name != "chromatic run" {
			continue
		}
		require.Len(t, b.Notes, 3)
		goal := neck.Standard().Pitch(blocks[n+1].Notes[0].Place)
		way := goal - neck.Standard().Pitch(b.Notes[2].Place)
		assert.True(t, way == 1 || way == -1)
		assert.Equal(t, goal-3*way, neck.Standard().Pitch(b.Notes[0].Place))
	}
	again, err := Compose(Request{Setting: settingOf(t, c), Parts: parts(t)[:3], PartBars: 2, Choruses: 1, Ending: OnTheThird, Seed: 3})
	require.NoError(t, err)
	assert.Equal(t, e, again, "the same request gives the same etude")
}

func TestEndings(t *testing.T) {
	c := phrasetest.Song(t, "C", harmony.DominantMode, "C7", "F7", "G7", "C7")
	for ending, want := range map[Ending]string{OnTheRoot: "R", OnTheThird: "3", FifthToRoot: "5 R"} {
		e, err := Compose(Request{Setting: settingOf(t, c), Parts: parts(t)[1:2], PartBars: 4, Choruses: 2, Ending: ending})
		require.NoError(t, err)
		require.Len(t, e.Choruses, 2)
		line := e.Choruses[1].Phrase(c)
		labels := line.Labels(neck.Standard(), c.Key)
		degrees := []string{}
		for _, l := range labels[len(labels)-len(strings.Fields(want)):] {
			degrees = append(degrees, l.Degree.String())
		}
		assert.Equal(t, want, strings.Join(degrees, " "), ending)
	}
}

func TestEtudesThatCannotBe(t *testing.T) {
	c := phrasetest.Song(t, "C", harmony.DominantMode, "C7", "F7")
	good := Request{Setting: settingOf(t, c), Parts: parts(t), PartBars: 1, Choruses: 1, Ending: OnTheRoot}
	for want, change := range map[string]func(*Request){
		"choose some":        func(r *Request) { r.Parts = nil },
		"a block has 1 to 2": func(r *Request) { r.PartBars = 3 },
		"1 to 8 choruses":    func(r *Request) { r.Choruses = 9 },
		"no ending":          func(r *Request) { r.Ending = "with a bang" },
		"none of the parts can": func(r *Request) {
			r.Parts = []Part{{Name: "Odd", Exercise: &exercise.Exercise{Order: exercise.Order{Figure: exercise.InThirds}}}}
		},
	} {
		r := good
		change(&r)
		_, err := Compose(r)
		var field *chart.FieldError
		require.ErrorAs(t, err, &field, want)
		assert.Contains(t, field.Detail, want)
	}
	mixed := good
	mixed.Parts = append(mixed.Parts, Part{Name: "Odd", Exercise: &exercise.Exercise{Order: exercise.Order{Figure: exercise.InThirds}}})
	for seed := range uint64(8) {
		mixed.Seed = seed
		e, err := Compose(mixed)
		require.NoError(t, err)
		assert.NotContains(t, e.Names, "Odd")
	}
}

// Over any scheme, key and choice an etude can be played, lies within its choruses, and no two blocks
// overlap.
func TestEtudesHold(t *testing.T) {
	all := parts(t)
	rapid.Check(t, func(t *rapid.T) {
		scheme := rapid.SampledFrom(chart.Schemes).Draw(t, "scheme")
		key, err := harmony.ParseKey(rapid.SampledFrom(scheme.In.Tonics()).Draw(t, "tonic"), scheme.In)
		require.NoError(t, err)
		c := chart.Chart{Title: "any", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Straight, Swing: 2, Bars: scheme.Bars(key.Tonic, chart.FourFour)}
		s := exercise.Setting{Tune: c, Instrument: neck.Standard(), Position: rapid.SampledFrom(neck.Positions(neck.Standard(), key.Tonic.Class())).Draw(t, "position"), SpanMM: 100}
		r := Request{
			Setting: s, Parts: all[:rapid.IntRange(1, len(all)).Draw(t, "parts")], PartBars: rapid.SampledFrom([]int{1, 2, 4}).Draw(t, "bars"),
			Choruses: rapid.IntRange(1, 3).Draw(t, "choruses"), Ending: rapid.SampledFrom(Endings).Draw(t, "ending"), Seed: rapid.Uint64().Draw(t, "seed"),
		}
		e, err := Compose(r)
		require.NoError(t, err)
		require.Len(t, e.Choruses, r.Choruses)
		for n, one := range e.Choruses {
			require.NoError(t, one.Check(c.Timeline()))
			require.NotEmpty(t, one.Blocks, fmt.Sprint(n))
			require.NoError(t, one.Phrase(c).Check(s.Instrument))
		}
	})
}
