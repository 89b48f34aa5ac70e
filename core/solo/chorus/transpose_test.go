package chorus_test

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/core/solo/planner"
)

func blues(t require.TestingT, tonic string) chart.Chart {
	key, err := harmony.ParseKey(tonic, harmony.DominantMode)
	require.NoError(t, err)
	scheme, err := chart.FindScheme("slow change")
	require.NoError(t, err)
	return chart.Chart{
		Title: "A tune", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Shuffle, Swing: 2, Bars: scheme.Bars(key.Tonic, chart.FourFour),
	}
}

func settingIn(t require.TestingT, tonic string, capo int) chorus.PlayContext {
	c := blues(t, tonic)
	c.Capo = capo
	i, err := neck.Standard().WithCapo(capo)
	require.NoError(t, err)
	return chorus.PlayContext{Chart: c, Instrument: i, SpanMM: neck.ComfortableSpanMM}
}

func note(tick, ticks, str, fret, finger int, how phrase.Technique) phrase.Event {
	return phrase.Event{Tick: tick, Ticks: ticks, Fingered: neck.Fingered{Place: neck.Place{String: str, Fret: fret}, Finger: finger}, Technique: how}
}

// lick is a block in the first box of B: a bend, a pull-off and a shaken root.
func sampleBlock() chorus.Block {
	return chorus.Block{Kind: chorus.LickBlock, Name: "call", Start: 0, Ticks: 1920, Notes: []phrase.Event{
		note(0, 480, 3, 9, 3, phrase.Technique{Bend: 4}),
		note(480, 240, 2, 10, 4, phrase.Technique{}),
		note(720, 240, 2, 7, 1, phrase.Technique{PullOff: true}),
		note(960, 480, 3, 9, 3, phrase.Technique{SlideFrom: 7}),
		note(1440, 240, 4, 9, 3, phrase.Technique{Vibrato: true}),
	}}
}

func places(b chorus.Block) string {
	remarks := []string{}
	for _, e := range b.Notes {
		remarks = append(remarks, fmt.Sprintf("%d:%d", e.String, e.Fret))
	}
	return strings.Join(remarks, " ")
}

func TestTranspositionSlidesTheHand(t *testing.T) {
	for _, c := range []struct {
		name, from, to string
		capo           int
		want           string
	}{
		{"down a whole step", "B", "A", 0, "3:7 2:8 2:5 3:7 4:7"},
		{"up a half step", "B", "C", 0, "3:10 2:11 2:8 3:10 4:10"},
		{"down a fourth, the nearer way", "B", "F#", 0, "3:4 2:5 2:2 3:4 4:4"},
		{"a capo keeps what sounds", "B", "B", 3, "3:6 2:7 2:4 3:6 4:6"},
		{"a capo and a new key", "B", "A", 2, "3:5 2:6 2:3 3:5 4:5"},
	} {
		moved, conceded := chorus.Transpose([]chorus.Chorus{{Blocks: []chorus.Block{sampleBlock()}}}, settingIn(t, c.from, 0), settingIn(t, c.to, c.capo))
		assert.Equal(t, c.want, places(moved[0].Blocks[0]), c.name)
		assert.Empty(t, conceded, c.name)
		for n, e := range moved[0].Blocks[0].Notes {
			before := sampleBlock().Notes[n]
			assert.Equal(t, before.Finger, e.Finger, "the fingers stay")
			before.SlideFrom, e.SlideFrom = 0, 0
			assert.Equal(t, before.Technique, e.Technique)
		}
		assert.Equal(t, moved[0].Blocks[0].Notes[3].Fret-2, moved[0].Blocks[0].Notes[3].SlideFrom, "a slide comes from as far away")
	}
}

func TestWhereTheNeckEndsItIsSaid(t *testing.T) {
	high := sampleBlock()
	for n := range high.Notes {
		high.Notes[n].Fret += 11
		if high.Notes[n].SlideFrom > 0 {
			high.Notes[n].SlideFrom += 11
		}
	}
	from, to := settingIn(t, "Bb", 0), settingIn(t, "D", 0)
	moved, conceded := chorus.Transpose([]chorus.Chorus{{Blocks: []chorus.Block{high}}}, from, to)
	assert.Equal(t, "3:12 2:13 2:10 3:12 4:12", places(moved[0].Blocks[0]))
	require.NotEmpty(t, conceded)
	assert.Equal(t, "the neck has no room for it where it was, so it sounds an octave lower", conceded[0].Text)
}

// Open strings can be slid neither down nor far up: what they become is said.
func TestOpenStringsAreFingeredAnew(t *testing.T) {
	open := chorus.Block{Kind: chorus.FreeBlock, Name: "open", Start: 0, Ticks: 1920, Notes: []phrase.Event{
		note(0, 480, 1, 0, 0, phrase.Technique{}), note(480, 480, 1, 3, 3, phrase.Technique{HammerOn: true}), note(960, 480, 2, 0, 0, phrase.Technique{}),
	}}
	call := sampleBlock()
	for n := range call.Notes {
		call.Notes[n].Tick += 1920
	}
	call.Start = 1920
	moved, conceded := chorus.Transpose([]chorus.Chorus{{Blocks: []chorus.Block{open, call}}}, settingIn(t, "E", 0), settingIn(t, "D", 0))
	assert.Equal(t, "2:3 2:6 3:2", places(moved[0].Blocks[0]))
	assert.Equal(t, "3:7 2:8 2:5 3:7 4:7", places(moved[0].Blocks[1]))
	remarks := []string{}
	for _, c := range conceded {
		remarks = append(remarks, c.Text)
	}
	assert.Equal(t, []string{
		"the D on beat 1 of bar 1 goes from string 1 to string 2, fret 3", "the F on beat 2 of bar 1 goes from string 1 to string 2, fret 6",
		"the A on beat 3 of bar 1 goes from string 2 to string 3, fret 2",
	}, remarks)
	alone, conceded := chorus.Transpose([]chorus.Chorus{{Blocks: []chorus.Block{open}}}, settingIn(t, "E", 0), settingIn(t, "D", 0))
	assert.Equal(t, "1:10 1:13 2:10", places(alone[0].Blocks[0]), "by itself it can be slid an octave higher")
	require.Len(t, conceded, 1)
	up, conceded := chorus.Transpose([]chorus.Chorus{{Blocks: []chorus.Block{open}}}, settingIn(t, "E", 0), settingIn(t, "F", 0))
	assert.Equal(t, "1:1 1:4 2:1", places(up[0].Blocks[0]))
	assert.Empty(t, conceded)
}

func TestAShorterTuneCutsWhatLiesBeyond(t *testing.T) {
	late := sampleBlock()
	late.Start += 11 * 1920
	for n := range late.Notes {
		late.Notes[n].Tick += 11 * 1920
	}
	to := settingIn(t, "B", 0)
	to.Chart.Bars = to.Chart.Bars[:8]
	moved, conceded := chorus.Transpose([]chorus.Chorus{{Blocks: []chorus.Block{sampleBlock(), late}}}, settingIn(t, "B", 0), to)
	assert.Len(t, moved[0].Blocks, 1)
	require.Len(t, conceded, 1)
	assert.Equal(t, `"call" on beat 1 of bar 12 is left out: the tune is shorter now`, conceded[0].Text)
}

// A key that is read anew moves no chord, and so no note.
func TestRereadingMovesNothing(t *testing.T) {
	from, to := settingIn(t, "C", 0), settingIn(t, "C", 0)
	key, err := harmony.ParseKey("F", harmony.MajorMode)
	require.NoError(t, err)
	to.Chart = to.Chart.Rekeyed(key)
	assert.Zero(t, from.Interval(to))
	moved, conceded := chorus.Transpose([]chorus.Chorus{{Blocks: []chorus.Block{sampleBlock()}}}, from, to)
	assert.Equal(t, sampleBlock(), moved[0].Blocks[0])
	assert.Empty(t, conceded)
}

// Whatever is planned, to whatever key, capo and tuning it goes: the result can be played,
// every note that is there sounds by the interval, and where nothing is said nothing else
// has changed.
func TestTranspositionKeepsTheSound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from := settingIn(t, rapid.SampledFrom(harmony.Tonics).Draw(t, "from"), rapid.IntRange(0, 4).Draw(t, "capo before"))
		to := settingIn(t, rapid.SampledFrom(harmony.Tonics).Draw(t, "to"), rapid.IntRange(0, 4).Draw(t, "capo after"))
		presets := neck.Presets()
		tuning := presets[rapid.IntRange(0, len(presets)-1).Draw(t, "tuning")]
		var err error
		to.Instrument, err = tuning.WithCapo(to.Chart.Capo)
		require.NoError(t, err)
		position, err := neck.FindPosition(from.Instrument, from.Chart.Key.Tonic.Class(), "")
		require.NoError(t, err)
		request := chorus.Request{
			Chart: from.Chart, Instrument: from.Instrument, Position: position, SpanMM: neck.ComfortableSpanMM, Strategy: "thirds first",
			Subdivision: from.Chart.Meter.Subdivisions()[1], Density: 4, Space: 0.25, Seed: rapid.Uint64Range(0, 5).Draw(t, "seed"),
		}
		planned, err := planner.Plan(context.Background(), request)
		require.NoError(t, err)
		before := planned.Best[0].Chorus
		moved, conceded := chorus.Transpose([]chorus.Chorus{before}, from, to)
		require.NoError(t, moved[0].Check(to.Chart.Timeline()))
		require.NoError(t, moved[0].Phrase(to.Chart).Check(to.Instrument))
		up := from.Interval(to)
		left := 0
		for _, c := range conceded {
			if strings.Contains(c.Text, "left out") {
				left++
			}
		}
		notes := func(c chorus.Chorus) (n int) {
			for _, b := range c.Blocks {
				n += len(b.Notes)
			}
			return n
		}
		assert.Equal(t, notes(before)-left, notes(moved[0]), "no note goes without a word")
		if left > 0 {
			return
		}
		for n, b := range before.Blocks {
			for k, e := range b.Notes {
				now := moved[0].Blocks[n].Notes[k]
				was, is := int(e.Sounding(from.Instrument)), int(now.Sounding(to.Instrument))
				assert.Zero(t, (is-was-up)%12, "note %d of block %d", k, n)
				if len(conceded) == 0 {
					assert.Equal(t, e.String, now.String)
					assert.Equal(t, was+up, is)
				}
			}
		}
	})
}
