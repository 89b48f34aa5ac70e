package planner_test

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/chart/charttest"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/core/solo/planner"
	"undaris/core/solo/solotest"
)

func TestTheSameOrderGivesTheSameChorusAndOtherSeedsOthers(t *testing.T) {
	seen := map[string]uint64{}
	for seed := range uint64(40) {
		o := solotest.Request(t, "quick change", "C", "E", seed)
		first := solotest.Planned(t, o).Best[0]
		if seed < 4 {
			assert.Equal(t, first.Chorus, solotest.Planned(t, o).Best[0].Chorus)
		}
		notes := fmt.Sprint(first.Line.Events)
		other, known := seen[notes]
		assert.False(t, known, "seeds %d and %d give the same chorus", seed, other)
		seen[notes] = seed
	}
}

func TestThreeAlternativesDiffer(t *testing.T) {
	p := solotest.Planned(t, solotest.Request(t, "slow change", "G", "A", 7))
	require.Len(t, p.Best, 3)
	for n, one := range p.Best {
		for m, other := range p.Best[:n] {
			shared := 0
			for _, e := range one.Line.Events {
				if slices.ContainsFunc(other.Line.Events, func(o phrase.Event) bool { return o.Tick == e.Tick && o.Place == e.Place }) {
					shared++
				}
			}
			assert.LessOrEqual(t, 10*shared, 7*len(one.Line.Events), "choruses %d and %d share %d notes of %d", m+1, n+1, shared, len(one.Line.Events))
		}
		if n > 0 {
			assert.LessOrEqual(t, p.Best[n-1].Faults, one.Faults, "the best first")
		}
	}
	assert.Empty(t, p.Concessions, "nothing gives way with default settings")
}

// Other meters, feels, subdivisions, densities, tunings and position plans give lines that
// hands can play, that land, and whose blocks are in order.
func TestEveryOrderGivesALineThatLands(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		c := charttest.Song(rt, 12)
		if rapid.Bool().Draw(rt, "a scheme") {
			s := rapid.SampledFrom(chart.Schemes).Draw(rt, "scheme")
			c.Key.Mode = s.In
			c.Bars, c.Scales, c.Pickup = s.Bars(c.Key.Tonic, c.Meter), nil, nil
		}
		if !slices.ContainsFunc(c.ChordSpans(), func(m chart.ChordSpan) bool { return !m.Silent || m.Imagined }) {
			rt.Skip("no chord to play over")
		}
		m := c.Meter
		i := rapid.SampledFrom(neck.Presets()).Draw(rt, "instrument")
		positions := neck.Positions(i, c.Key.Tonic.Class())
		at := rapid.SampledFrom(positions).Draw(rt, "position")
		bars := len(c.PlayedBars())
		o := chorus.Request{
			Chart: c, Instrument: i, Position: at, SpanMM: 110, Strategy: rapid.SampledFrom(change.TargetStrategies).Draw(rt, "school"),
			Subdivision: rapid.SampledFrom(m.Subdivisions()).Draw(rt, "subdivision"), Density: rapid.Float64Range(1, 8).Draw(rt, "density"),
			Form: rapid.SampledFrom(chorus.Forms).Draw(rt, "form"), Space: rapid.Float64Range(0, chorus.MaxSpace).Draw(rt, "space"), Seed: rapid.Uint64().Draw(rt, "seed"),
		}
		for range bars {
			o.Blend = append(o.Blend, rapid.SampledFrom([]float64{0, 0.25, 0.5, 0.75, 1}).Draw(rt, "blend"))
		}
		if bars > 4 && rapid.Bool().Draw(rt, "shifts") {
			o.Shifts = []chorus.Shift{{Bar: bars / 2, Position: rapid.SampledFrom(positions).Draw(rt, "to")}}
		}
		p, err := planner.Plan(context.Background(), o)
		require.NoError(rt, err)
		on, err := o.NewContext()
		require.NoError(rt, err)
		for _, best := range p.Best {
			require.NoError(rt, best.Check(c.Timeline()))
			require.NoError(rt, best.Line.Check(i))
			explained, err := o.Explain(best.Chorus)
			require.NoError(rt, err)
			for _, target := range explained.Targets {
				if target.Index < 0 { // left to the band: nothing sounds there
					require.False(rt, slices.ContainsFunc(best.Line.Events, func(e phrase.Event) bool { return e.Tick <= target.Tick && e.End() > target.Tick }),
						"%s in bar %d has a landing or silence", target.Chord.Symbol(), on.Time.BarAt(target.Tick)+1)
					continue
				}
				// A note may be heard late on one chord and be meant for the next, a beat after it. Where the tone
				// aimed at cannot be reached in time another tone of the chord may stand for it.
				meant := slices.ContainsFunc(explained.Targets, func(other chorus.TargetReport) bool { return other.Index == target.Index && other.OnAim })
				// Where chords follow each other by the beat one note stands for two of them.
				crowded := slices.ContainsFunc(explained.Targets, func(other chorus.TargetReport) bool {
					apart := (other.Tick - target.Tick + c.Ticks()) % c.Ticks()
					return other.Tick != target.Tick && min(apart, c.Ticks()-apart) <= on.Time.BeatTicksAt(target.Tick)
				})
				require.True(rt, meant || crowded || target.Class == harmony.ChordTone || on.BlendAt(target.Tick) == 0, "it is the tone aimed at")
			}
			require.Len(rt, explained.Why, len(best.Line.Events))
			for _, e := range best.Line.Events {
				w := on.PositionAt(e.Tick).Window
				require.True(rt, e.Fret >= w.Low && e.Fret <= w.High, "the hand stays where it was told: fret %d in %d to %d", e.Fret, w.Low, w.High)
			}
		}
	})
}

// Whatever is locked stands as it was, note for note, and the rest is planned around it.
func TestLockedBlocksStay(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		o := solotest.Request(t, rapid.SampledFrom([]string{"quick change", "jazz blues", "minor twelve-bar"}).Draw(rt, "scheme"), "C", "E", rapid.Uint64().Draw(rt, "seed"))
		c := solotest.Planned(t, o).Best[0].Chorus
		locked := []chorus.Block{}
		for n := range c.Blocks {
			if c.Blocks[n].Kind != chorus.RestBlock && rapid.IntRange(0, 3).Draw(rt, "lock") == 0 {
				c.Blocks[n].Locked = true
				locked = append(locked, c.Blocks[n])
			}
		}
		again, _, err := solotest.Edit(o, c, chorus.Edit{Kind: chorus.Reroll, Seed: rapid.Uint64().Draw(rt, "other seed")})
		require.NoError(rt, err)
		require.NoError(rt, again.Check(o.Chart.Timeline()))
		kept := slices.DeleteFunc(slices.Clone(again.Blocks), func(b chorus.Block) bool { return !b.Locked })
		require.Equal(rt, locked, append([]chorus.Block{}, kept...))
		require.NoError(rt, again.Phrase(o.Chart).Check(o.Instrument))
	})
}

func TestRollingOneBarAgainLeavesTheOthers(t *testing.T) {
	o := solotest.Request(t, "quick change", "C", "E", 3)
	c := solotest.Planned(t, o).Best[0].Chorus
	bar := o.Chart.Meter.BarTicks()
	again, _, err := solotest.Edit(o, c, chorus.Edit{Kind: chorus.Reroll, Bar: 4, Bars: 1, Seed: 99})
	require.NoError(t, err)
	outside := func(c chorus.Chorus) []phrase.Event {
		return slices.DeleteFunc(slices.Clone(c.Phrase(o.Chart).Events), func(e phrase.Event) bool { return e.Tick >= 4*bar && e.Tick < 5*bar })
	}
	inside := func(c chorus.Chorus) []phrase.Event {
		return slices.DeleteFunc(slices.Clone(c.Phrase(o.Chart).Events), func(e phrase.Event) bool { return e.Tick < 4*bar || e.Tick >= 5*bar })
	}
	assert.NotEqual(t, inside(c), inside(again), "bar 5 is another")
	before, after := outside(c), outside(again)
	require.Len(t, after, len(before))
	for n := range before {
		assert.Equal(t, before[n].Place, after[n].Place)
		assert.Equal(t, before[n].Tick, after[n].Tick)
	}
}

// A vocabulary of licks is heard: phrases begin with them, and their tails turn to the
// landing.
func TestPhrasesBeginWithLicksOfTheVocabulary(t *testing.T) {
	for seed := range uint64(6) {
		o := solotest.Request(t, "quick change", "C", "E", seed)
		o.Licks, o.FromLicks = []lick.Lick{solotest.Lick(t)}, true
		p := solotest.Planned(t, o)
		assert.Empty(t, p.Concessions)
		licks := 0
		for _, b := range p.Best[0].Blocks {
			if b.Kind == chorus.LickBlock {
				licks++
				assert.Equal(t, "Jetty steps", b.Name)
			}
		}
		assert.GreaterOrEqual(t, licks, 2, "it comes back")
		explained, err := o.Explain(p.Best[0].Chorus)
		require.NoError(t, err)
		remarks := 0
		for n, why := range explained.Why {
			if k := explained.BlockOf[n]; k >= 0 && p.Best[0].Blocks[k].Kind == chorus.LickBlock && strings.HasPrefix(why, `From the lick "Jetty steps", `) {
				remarks++
			}
		}
		assert.Positive(t, remarks, "its notes say where they are from")
		for _, target := range explained.Targets {
			assert.True(t, target.Index < 0 || target.Class == harmony.ChordTone)
		}
	}
}

// What cannot be had gives way and is named; what cannot be meant is refused with its place.
func TestWhatGivesWayAndWhatIsRefused(t *testing.T) {
	base := func() chorus.Request { return solotest.Request(t, "quick change", "C", "E", 5) }
	gives := map[string]struct {
		with  func(o *chorus.Request)
		field string
		said  string
	}{
		"no licks": {func(o *chorus.Request) { o.FromLicks = true }, "licks", "no licks are in the vocabulary"},
		"no fit":   {func(o *chorus.Request) { o.FromLicks, o.Licks = true, []lick.Lick{oneNote(t)} }, "licks", "none of the 1 licks fits on frets 6 to 11"},
		"only licks with bends, and no bends": {func(o *chorus.Request) {
			bent := solotest.Lick(t)
			bent.Phrase.Events = append([]phrase.Event{}, bent.Phrase.Events...)
			bent.Phrase.Events[0].Bend = 2
			o.FromLicks, o.NoBends, o.Licks = true, true, []lick.Lick{bent}
		}, "licks", "all 1 licks have bends, and none are wanted"},
		"too dense":  {func(o *chorus.Request) { o.Density = 12 }, "density", "12 notes a bar do not fit in eighths with 25 % of space: planned with 6.0"},
		"no changes": {func(o *chorus.Request) { *o = solotest.Request(t, "one-chord vamp", "C", "E", 5) }, "changes", "the chart stays on C7"},
		"a locked rest on a change": {func(o *chorus.Request) {
			o.Kept = []chorus.Block{{Kind: chorus.RestBlock, Name: "rest", Start: 4 * 1920, Ticks: 1920, Locked: true}}
		}, "kept", "bar 5: the locked block \"rest\" has no tone of F7 where it arrives"},
	}
	for name, c := range gives {
		o := base()
		c.with(&o)
		p := solotest.Planned(t, o)
		require.Len(t, p.Concessions, 1, name)
		assert.Equal(t, c.field, p.Concessions[0].Field, name)
		assert.Contains(t, p.Concessions[0].Text, c.said, name)
	}
	refused := map[string]struct {
		with  func(o *chorus.Request)
		field string
		said  string
	}{
		"blend":  {func(o *chorus.Request) { o.Blend = slices.Repeat([]float64{0.5}, 12); o.Blend[2] = 1.5 }, "blend[2]", "bar 3: a blend is 0 (the box alone) to 1 (chord tones alone); 1.5 is not, the nearest is 1"},
		"blends": {func(o *chorus.Request) { o.Blend = []float64{0.5, 0.5} }, "blend", "one for each of the 12 bars; this is 2 numbers"},
		"space":  {func(o *chorus.Request) { o.Space = 0.9 }, "space", "0.9 is not, the nearest is 0.6"},
		"thin":   {func(o *chorus.Request) { o.Density = 0 }, "density", "density is 1 to 64 notes a bar"},
		"shift":  {func(o *chorus.Request) { o.Shifts = []chorus.Shift{{Bar: 12, Position: o.Position}} }, "shifts[0]", "the hand shifts at bar 2 to 12"},
		"empty":  {func(o *chorus.Request) { o.Chart.Bars = chart.EmptyBars(12, chart.FourFour) }, "chart.bars", "the chart has no chord yet"},
		"overlap": {func(o *chorus.Request) {
			o.Kept = []chorus.Block{{Kind: chorus.RestBlock, Name: "first", Start: 0, Ticks: 1920}, {Kind: chorus.RestBlock, Name: "second", Start: 960, Ticks: 1920}}
		}, "kept[1]", "two locked blocks overlap: \"first\" goes on to beat 1 of bar 2, and \"second\" begins on beat 3 of bar 1"},
		"outside": {func(o *chorus.Request) {
			o.Kept = []chorus.Block{{Kind: chorus.RestBlock, Start: 12 * 1920, Ticks: 480}}
		}, "kept[0]", "lies outside the chorus"},
	}
	for name, c := range refused {
		o := base()
		c.with(&o)
		_, err := planner.Plan(context.Background(), o)
		fault := &chart.FieldError{}
		require.ErrorAs(t, err, &fault, name)
		assert.Equal(t, c.field, fault.Field, name)
		assert.Contains(t, fault.Detail, c.said, name)
	}
}

func oneNote(t testing.TB) lick.Lick {
	l := solotest.Lick(t)
	l.Phrase.Events = l.Phrase.Events[:1]
	return l
}

// Where phrases ask and answer, answers end on the root or the third, and questions do
// not, where the chord does not change under their last note.
func TestQuestionsAskAndAnswersAnswer(t *testing.T) {
	asked, of, answered, all := 0, 0, 0, 0
	for seed := range uint64(20) {
		o := solotest.Request(t, "slow change", "A", "E", seed)
		o.Form = chorus.QuestionAnswer
		p := solotest.Planned(t, o).Best[0]
		labels := p.Line.Labels(o.Instrument, o.Chart.Key)
		// The last note of each half of a sentence; the last bar is the turnaround.
		for _, half := range []struct {
			from, to int
			answer   bool
		}{{0, 2, false}, {2, 4, true}, {4, 6, false}, {6, 8, true}, {8, 9, false}, {9, 11, true}} {
			last := -1
			for n, e := range p.Line.Events {
				if e.Tick >= half.from*1920 && e.Tick < half.to*1920-480 {
					last = n
				}
			}
			if last < 0 {
				continue
			}
			closes := labels[last].Degree.Number == 1 || labels[last].Degree.Number == 3
			switch {
			case half.answer:
				all++
				if closes {
					answered++
				}
			default:
				of++
				if !closes {
					asked++
				}
			}
		}
	}
	t.Logf("%d of %d questions ask, %d of %d answers answer", asked, of, answered, all)
	assert.GreaterOrEqual(t, 10*answered, 9*all)
	assert.GreaterOrEqual(t, 10*asked, 8*of)
}

// An imagined turnaround is planned on the chords that are imagined, and judged on both
// layers.
func TestAnImaginedTurnaroundIsFollowed(t *testing.T) {
	o := solotest.Request(t, "slow change", "C", "E", 2)
	turn, err := chart.FindTurnaround("I VI7 ii7 V7")
	if err != nil {
		turn = chart.Turnarounds[2]
	}
	c, err := o.Chart.WithTurnaround(turn, 10, true)
	require.NoError(t, err)
	c.Imagining = true
	o.Chart = c
	p := solotest.Planned(t, o)
	explained, err := o.Explain(p.Best[0].Chorus)
	require.NoError(t, err)
	imagined := 0
	for _, target := range explained.Targets {
		if target.Tick >= 10*1920 {
			imagined++
			assert.True(t, target.OnAim, "%s is landed on", target.Chord.Symbol())
		}
	}
	assert.GreaterOrEqual(t, imagined, 3, "the imagined chords are aimed at")
	written, both := o.OverWrittenChords(p.Best[0].Chorus, chorus.FullStage)
	require.True(t, both)
	assert.Greater(t, len(p.Best[0].Line.Chords), len(written.Line.Chords))
	_, both = solotest.Request(t, "slow change", "C", "E", 2).OverWrittenChords(p.Best[0].Chorus, chorus.FullStage)
	assert.False(t, both, "nothing is imagined there")
}

// Planning choruses of 12, 24, 48 and 96 bars, and the whole review of one of twelve.
func BenchmarkPlan(b *testing.B) {
	for _, choruses := range []int{1, 2, 4, 8} {
		b.Run(fmt.Sprintf("%d bars", 12*choruses), func(b *testing.B) {
			o := solotest.Request(b, "quick change", "C", "E", 1)
			o.Chart.Bars = slices.Repeat(o.Chart.Bars, choruses)
			b.ReportAllocs()
			for b.Loop() {
				solotest.Planned(b, o)
			}
		})
	}
}

// Planning over the longest chart that is read, 512 bars of four chords each.
func BenchmarkPlanTheLongestChart(b *testing.B) {
	o := solotest.Request(b, "quick change", "C", "E", 1)
	spans := []chart.Span{}
	for _, bar := range []int{0, 1, 8, 1} {
		span := o.Chart.Bars[bar].Spans[0]
		span.Beats = 1
		spans = append(spans, span)
	}
	o.Chart.Bars = slices.Repeat([]chart.Bar{{Spans: spans}}, 512)
	for b.Loop() {
		solotest.Planned(b, o)
	}
}
