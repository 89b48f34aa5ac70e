package solo

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// orderFor is an order with default settings over a scheme.
func orderFor(t testing.TB, scheme, tonic, form string, seed uint64) ChorusRequest {
	t.Helper()
	s, err := chart.FindScheme(scheme)
	require.NoError(t, err)
	key, err := harmony.ParseKey(tonic, s.In)
	require.NoError(t, err)
	c := chart.Chart{Title: scheme, Key: key, Meter: chart.FourFour, Tempo: 112, Feel: chart.Shuffle, Swing: 2, Bars: s.Bars(key.Tonic, chart.FourFour)}
	return orderOver(t, c, form, seed)
}

func orderOver(t testing.TB, c chart.Chart, form string, seed uint64) ChorusRequest {
	t.Helper()
	i := neck.Standard()
	p, err := neck.FindPosition(i, c.Key.Tonic.Class(), form)
	require.NoError(t, err)
	eighths, err := c.Meter.Subdivision("")
	require.NoError(t, err)
	return ChorusRequest{Chart: c, Instrument: i, Position: p, SpanMM: neck.ComfortableSpanMM, Strategy: change.ThirdsFirst,
		Subdivision: eighths, Density: DefaultDensity, Blend: []float64{DefaultBlend}, Form: AAB, Space: DefaultSpace, Seed: seed}
}

func planned(t testing.TB, o ChorusRequest) Plan {
	t.Helper()
	p, err := o.Plan()
	require.NoError(t, err)
	require.NotEmpty(t, p.Best)
	return p
}

func TestTheSameOrderGivesTheSameChorusAndOtherSeedsOthers(t *testing.T) {
	seen := map[string]uint64{}
	for seed := range uint64(40) {
		o := orderFor(t, "quick change", "C", "E", seed)
		first := planned(t, o).Best[0]
		if seed < 4 {
			assert.Equal(t, first.Chorus, planned(t, o).Best[0].Chorus)
		}
		notes := fmt.Sprint(first.Line.Events)
		other, known := seen[notes]
		assert.False(t, known, "seeds %d and %d give the same chorus", seed, other)
		seen[notes] = seed
	}
}

func TestThreeAlternativesDiffer(t *testing.T) {
	p := planned(t, orderFor(t, "slow change", "G", "A", 7))
	require.Len(t, p.Best, 3)
	for n := range p.Best {
		assert.True(t, differs(p.Best[n], p.Best[:n]))
		if n > 0 {
			assert.LessOrEqual(t, p.Best[n-1].Faults, p.Best[n].Faults, "the best first")
		}
	}
	assert.Empty(t, p.Concessions, "nothing gives way with default settings")
}

// Other meters, feels, subdivisions, densities, tunings and position plans give lines that
// hands can play, that land, and whose blocks are in order.
func TestEveryOrderGivesALineThatLands(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		s := rapid.SampledFrom(chart.Schemes).Draw(rt, "scheme")
		key, err := harmony.ParseKey(rapid.SampledFrom(s.In.Tonics()).Draw(rt, "tonic"), s.In)
		require.NoError(rt, err)
		m := rapid.SampledFrom(chart.Meters).Draw(rt, "meter")
		c := chart.Chart{Title: "any", Key: key, Meter: m, Tempo: 90, Feel: chart.Straight, Swing: 2, Bars: s.Bars(key.Tonic, m)}
		if m == chart.TwelveEight {
			c.Feel = chart.Slow128
		}
		i := rapid.SampledFrom(neck.Presets()).Draw(rt, "instrument")
		positions := neck.Positions(i, key.Tonic.Class())
		at := rapid.SampledFrom(positions).Draw(rt, "position")
		bars := c.Ticks() / m.BarTicks()
		o := ChorusRequest{
			Chart: c, Instrument: i, Position: at, SpanMM: 110, Strategy: rapid.SampledFrom(change.TargetStrategies).Draw(rt, "school"),
			Subdivision: rapid.SampledFrom(m.Subdivisions()).Draw(rt, "subdivision"), Density: rapid.Float64Range(1, 8).Draw(rt, "density"),
			Form: rapid.SampledFrom(Forms).Draw(rt, "form"), Space: rapid.Float64Range(0, MaxSpace).Draw(rt, "space"), Seed: rapid.Uint64().Draw(rt, "seed"),
		}
		for range bars {
			o.Blend = append(o.Blend, rapid.SampledFrom([]float64{0, 0.25, 0.5, 0.75, 1}).Draw(rt, "blend"))
		}
		if bars > 4 && rapid.Bool().Draw(rt, "shifts") {
			o.Shifts = []Shift{{Bar: bars / 2, Position: rapid.SampledFrom(positions).Draw(rt, "to")}}
		}
		p, err := o.Plan()
		require.NoError(rt, err)
		for _, best := range p.Best {
			require.NoError(rt, best.Check(m, c.Ticks()))
			require.NoError(rt, best.Line.Check(i))
			told, err := o.Explain(best.Chorus)
			require.NoError(rt, err)
			for _, target := range told.Targets {
				require.GreaterOrEqual(rt, target.Index, 0, "%s in bar %d has a landing", target.Chord.Symbol(), target.Tick/m.BarTicks()+1)
				require.True(rt, target.Aimed || o.blendAt(target.Tick) == 0, "it is the tone aimed at")
			}
			require.Len(rt, told.Why, len(best.Line.Events))
			for _, e := range best.Line.Events {
				w := o.PositionAt(e.Tick).Window
				require.True(rt, e.Fret >= w.Low && e.Fret <= w.High, "the hand stays where it was told: fret %d in %d to %d", e.Fret, w.Low, w.High)
			}
		}
	})
}

// Whatever is locked stands as it was, note for note, and the rest is planned around it.
func TestLockedBlocksStay(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		o := orderFor(t, rapid.SampledFrom([]string{"quick change", "jazz blues", "minor twelve-bar"}).Draw(rt, "scheme"), "C", "E", rapid.Uint64().Draw(rt, "seed"))
		c := planned(t, o).Best[0].Chorus
		locked := []Block{}
		for n := range c.Blocks {
			if c.Blocks[n].Kind != RestBlock && rapid.IntRange(0, 3).Draw(rt, "lock") == 0 {
				c.Blocks[n].Locked = true
				locked = append(locked, c.Blocks[n])
			}
		}
		again, _, err := o.Edit(c, ChorusEdit{Kind: Reroll, Seed: rapid.Uint64().Draw(rt, "other seed")})
		require.NoError(rt, err)
		require.NoError(rt, again.Check(o.Chart.Meter, o.Chart.Ticks()))
		kept := slices.DeleteFunc(slices.Clone(again.Blocks), func(b Block) bool { return !b.Locked })
		require.Equal(rt, locked, append([]Block{}, kept...))
		require.NoError(rt, again.Phrase(o.Chart).Check(o.Instrument))
	})
}

func TestRollingOneBarAgainLeavesTheOthers(t *testing.T) {
	o := orderFor(t, "quick change", "C", "E", 3)
	c := planned(t, o).Best[0].Chorus
	bar := o.Chart.Meter.BarTicks()
	again, _, err := o.Edit(c, ChorusEdit{Kind: Reroll, Bar: 4, Bars: 1, Seed: 99})
	require.NoError(t, err)
	outside := func(c Chorus) []phrase.Event {
		return slices.DeleteFunc(slices.Clone(c.Phrase(o.Chart).Events), func(e phrase.Event) bool { return e.Tick >= 4*bar && e.Tick < 5*bar })
	}
	inside := func(c Chorus) []phrase.Event {
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

func demoLick(t testing.TB) lick.Lick {
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

// A vocabulary of licks is heard: phrases begin with them, and their tails turn to the
// landing.
func TestPhrasesBeginWithLicksOfTheVocabulary(t *testing.T) {
	for seed := range uint64(6) {
		o := orderFor(t, "quick change", "C", "E", seed)
		o.Licks, o.FromLicks = []lick.Lick{demoLick(t)}, true
		p := planned(t, o)
		assert.Empty(t, p.Concessions)
		licks := 0
		for _, b := range p.Best[0].Blocks {
			if b.Kind == LickBlock {
				licks++
				assert.Equal(t, "Jetty steps", b.Name)
			}
		}
		assert.GreaterOrEqual(t, licks, 2, "it comes back")
		told, err := o.Explain(p.Best[0].Chorus)
		require.NoError(t, err)
		said := 0
		for n, why := range told.Why {
			if k := told.BlockOf[n]; k >= 0 && p.Best[0].Blocks[k].Kind == LickBlock && strings.HasPrefix(why, `From the lick "Jetty steps", `) {
				said++
			}
		}
		assert.Positive(t, said, "its notes say where they are from")
		for _, target := range told.Targets {
			assert.True(t, target.Aimed)
		}
	}
}

// What cannot be had gives way and is named; what cannot be meant is refused with its place.
func TestWhatGivesWayAndWhatIsRefused(t *testing.T) {
	base := func() ChorusRequest { return orderFor(t, "quick change", "C", "E", 5) }
	gives := map[string]struct {
		with  func(o *ChorusRequest)
		field string
		said  string
	}{
		"no licks":   {func(o *ChorusRequest) { o.FromLicks = true }, "licks", "no licks are in the vocabulary"},
		"no fit":     {func(o *ChorusRequest) { o.FromLicks, o.Licks = true, []lick.Lick{oneNote(t)} }, "licks", "none of the 1 licks fits on frets 6 to 11"},
		"too dense":  {func(o *ChorusRequest) { o.Density = 12 }, "density", "12 notes a bar do not fit in eighths with 25 % of space: planned with 6.0"},
		"no changes": {func(o *ChorusRequest) { *o = orderFor(t, "one-chord vamp", "C", "E", 5) }, "changes", "the chart stays on C7"},
		"a locked rest on a change": {func(o *ChorusRequest) {
			o.Kept = []Block{{Kind: RestBlock, Name: "rest", Start: 4 * 1920, Ticks: 1920, Locked: true}}
		}, "kept", "bar 5: the locked block \"rest\" has no tone of F7 where it arrives"},
	}
	for name, c := range gives {
		o := base()
		c.with(&o)
		p := planned(t, o)
		require.Len(t, p.Concessions, 1, name)
		assert.Equal(t, c.field, p.Concessions[0].Field, name)
		assert.Contains(t, p.Concessions[0].Text, c.said, name)
	}
	refused := map[string]struct {
		with  func(o *ChorusRequest)
		field string
		said  string
	}{
		"blend":  {func(o *ChorusRequest) { o.Blend = slices.Repeat([]float64{0.5}, 12); o.Blend[2] = 1.5 }, "blend[2]", "bar 3: a blend is 0 (the box alone) to 1 (chord tones alone); 1.5 is not, the nearest is 1"},
		"blends": {func(o *ChorusRequest) { o.Blend = []float64{0.5, 0.5} }, "blend", "one for each of the 12 bars; this is 2 numbers"},
		"space":  {func(o *ChorusRequest) { o.Space = 0.9 }, "space", "0.9 is not, the nearest is 0.6"},
		"thin":   {func(o *ChorusRequest) { o.Density = 0 }, "density", "density is 1 to 64 notes a bar"},
		"shift":  {func(o *ChorusRequest) { o.Shifts = []Shift{{Bar: 12, Position: o.Position}} }, "shifts[0]", "the hand shifts at bar 2 to 12"},
		"empty":  {func(o *ChorusRequest) { o.Chart.Bars = chart.EmptyBars(12, chart.FourFour) }, "chart.bars", "the chart has no chord yet"},
		"overlap": {func(o *ChorusRequest) {
			o.Kept = []Block{{Kind: RestBlock, Name: "first", Start: 0, Ticks: 1920}, {Kind: RestBlock, Name: "second", Start: 960, Ticks: 1920}}
		}, "kept[1]", "two locked blocks overlap: \"first\" goes on to beat 1 of bar 2, and \"second\" begins on beat 3 of bar 1"},
		"outside": {func(o *ChorusRequest) { o.Kept = []Block{{Kind: RestBlock, Start: 12 * 1920, Ticks: 480}} }, "kept[0]", "lies outside the chorus"},
	}
	for name, c := range refused {
		o := base()
		c.with(&o)
		_, err := o.Plan()
		fault := &chart.FieldError{}
		require.ErrorAs(t, err, &fault, name)
		assert.Equal(t, c.field, fault.Field, name)
		assert.Contains(t, fault.Detail, c.said, name)
	}
}

func oneNote(t testing.TB) lick.Lick {
	l := demoLick(t)
	l.Phrase.Events = l.Phrase.Events[:1]
	return l
}

// Where phrases ask and answer, answers end on the root or the third, and questions do
// not, where the chord does not change under their last note.
func TestQuestionsAskAndAnswersAnswer(t *testing.T) {
	asked, of, answered, all := 0, 0, 0, 0
	for seed := range uint64(20) {
		o := orderFor(t, "slow change", "A", "E", seed)
		o.Form = QuestionAnswer
		p := planned(t, o).Best[0]
		labels := p.Line.Labels(o.Instrument, o.Chart.Key)
		for _, b := range phraseSpans(p.Line) {
			last := p.Line.Events[b.to-1]
			closes := labels[b.to-1].Degree.Number == 1 || labels[b.to-1].Degree.Number == 3
			if last.Tick%(4*1920) < 2*1920 {
				of++
				if !closes {
					asked++
				}
			} else {
				all++
				if closes {
					answered++
				}
			}
		}
	}
	t.Logf("%d of %d questions ask, %d of %d answers answer", asked, of, answered, all)
	assert.GreaterOrEqual(t, 10*answered, 9*all)
	assert.GreaterOrEqual(t, 10*asked, 8*of)
}

func TestParseForm(t *testing.T) {
	for text, want := range map[string]Form{"": AAB, " a b a ": "A B A", "question–answer": QuestionAnswer, "H": "H"} {
		got, err := ParseForm(text)
		require.NoError(t, err)
		assert.Equal(t, want, got)
	}
	for _, text := range []string{"AAB", "A Z", "1", "A A A A A A A A A A A A A A A A A"} {
		_, err := ParseForm(text)
		assert.Error(t, err, text)
	}
}

// An imagined turnaround is planned on the chords that are imagined, and judged on both
// layers.
func TestAnImaginedTurnaroundIsFollowed(t *testing.T) {
	o := orderFor(t, "slow change", "C", "E", 2)
	turn, err := chart.FindTurnaround("I VI7 ii7 V7")
	if err != nil {
		turn = chart.Turnarounds[2]
	}
	c, err := o.Chart.WithTurnaround(turn, 10, true)
	require.NoError(t, err)
	c.Imagining = true
	o.Chart = c
	p := planned(t, o)
	told, err := o.Explain(p.Best[0].Chorus)
	require.NoError(t, err)
	imagined := 0
	for _, target := range told.Targets {
		if target.Tick >= 10*1920 {
			imagined++
			assert.True(t, target.Aimed, "%s is landed on", target.Chord.Symbol())
		}
	}
	assert.GreaterOrEqual(t, imagined, 3, "the imagined chords are aimed at")
	written, both := o.OverWrittenChords(p.Best[0].Chorus, FullStage)
	require.True(t, both)
	assert.Greater(t, len(p.Best[0].Line.Chords), len(written.Line.Chords))
	_, both = orderFor(t, "slow change", "C", "E", 2).OverWrittenChords(p.Best[0].Chorus, FullStage)
	assert.False(t, both, "nothing is imagined there")
}

// Each stage is the same chorus with more notes between: those of one stage are all in the
// next, at their times and places.
func TestAChorusGrowsWithoutLosingItsThread(t *testing.T) {
	for seed := range uint64(12) {
		o := orderFor(t, chart.Schemes[seed%7].Name, "C", "E", seed)
		c := planned(t, o).Best[0].Chorus
		before := []phrase.Event{}
		for _, stage := range Stages {
			grown, err := o.Grown(c, stage)
			require.NoError(t, err)
			p := grown.Phrase(o.Chart)
			require.NoError(t, p.Check(o.Instrument))
			for _, e := range before {
				assert.True(t, slices.ContainsFunc(p.Events, func(other phrase.Event) bool { return other.Tick == e.Tick && other.Place == e.Place }), "%s keeps every note", stage)
			}
			labels := p.Labels(o.Instrument, o.Chart.Key)
			for n := range p.Events {
				if stage == ChordToneStage {
					assert.Equal(t, harmony.ChordTone, labels[n].Class)
				}
			}
			assert.GreaterOrEqual(t, len(p.Events), len(before))
			before = p.Events
		}
		assert.Equal(t, c.Phrase(o.Chart).Events, before, "the last stage is the chorus")
	}
	o := orderFor(t, "quick change", "C", "E", 3)
	c := planned(t, o).Best[0].Chorus
	thin, err := o.Grown(c, ChordToneStage)
	require.NoError(t, err)
	for n, e := range thin.Phrase(o.Chart).Events {
		at, err := o.NoteInWhole(c, ChordToneStage, n)
		require.NoError(t, err)
		assert.Equal(t, e.Place, c.Phrase(o.Chart).Events[at].Place, "a note of a stage is one of the chorus")
	}
	_, err = o.NoteInWhole(c, ChordToneStage, 400)
	assert.ErrorContains(t, err, "there is no note 401")
	at, err := o.NoteInWhole(c, ChordToneStage, -1)
	require.NoError(t, err)
	assert.Equal(t, -1, at)
	_, err = ParseStage("half")
	assert.ErrorContains(t, err, "is not a stage")
}

// The exact path over places equals the best of every line there is, on random small cases.
func TestTheCheapestLineEqualsExhaustiveSearch(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		layers := make([][]placeChoice, rapid.IntRange(1, 5).Draw(rt, "layers"))
		for n := range layers {
			layers[n] = make([]placeChoice, rapid.IntRange(1, 4).Draw(rt, "choices"))
			for k := range layers[n] {
				layers[n][k] = placeChoice{cost: rapid.IntRange(0, 30).Draw(rt, "cost"), pitch: pitch.MIDI(rapid.IntRange(40, 52).Draw(rt, "pitch"))}
			}
		}
		salt := rapid.IntRange(1, 97).Draw(rt, "salt")
		move := func(n int, a, b *placeChoice) int { return (int(a.pitch)*7 + int(b.pitch)*salt + n) % 23 }
		turn := func(n int, a, b, c *placeChoice) int {
			return (int(a.pitch)*salt + int(b.pitch)*3 + int(c.pitch)*5 + n) % 19
		}
		line, cost := cheapestLine(layers, move, turn)
		priced := func(line []int) int {
			sum := 0
			for n, at := range line {
				sum += layers[n][at].cost
				if n > 0 {
					sum += move(n, &layers[n-1][line[n-1]], &layers[n][at])
				}
				if n > 1 {
					sum += turn(n, &layers[n-2][line[n-2]], &layers[n-1][line[n-1]], &layers[n][at])
				}
			}
			return sum
		}
		require.Equal(rt, cost, priced(line), "it costs what it says")
		best := priced(line)
		var search func(line []int)
		search = func(line []int) {
			if len(line) == len(layers) {
				best = min(best, priced(line))
				return
			}
			for at := range layers[len(line)] {
				search(append(slices.Clone(line), at))
			}
		}
		search(nil)
		require.Equal(rt, best, cost)
	})
}

// Planning choruses of 12, 24, 48 and 96 bars, and the whole review of one of twelve.
func BenchmarkPlan(b *testing.B) {
	for _, choruses := range []int{1, 2, 4, 8} {
		b.Run(fmt.Sprintf("%d bars", 12*choruses), func(b *testing.B) {
			o := orderFor(b, "quick change", "C", "E", 1)
			o.Chart.Bars = slices.Repeat(o.Chart.Bars, choruses)
			b.ReportAllocs()
			for b.Loop() {
				planned(b, o)
			}
		})
	}
}

func BenchmarkReview(b *testing.B) {
	o := orderFor(b, "quick change", "C", "E", 1)
	c := planned(b, o).Best[0].Chorus
	b.ReportAllocs()
	for b.Loop() {
		ReviewLine(o.Instrument, c.Phrase(o.Chart), o.Chart)
	}
}
