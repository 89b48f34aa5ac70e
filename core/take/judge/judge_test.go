package judge

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/listen"
	"undaris/core/listen/pluck"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
	"undaris/core/take/standin"
	"undaris/core/take/transcribe"
)

// chorus is a line over the whole of a blues: a figure in eighths on each bar, with a bend on the fourth.
func chorus(t testing.TB) (chart.Chart, phrase.Phrase) {
	c := phrasetest.TwelveBar(t, "C")
	c.Tempo = 170
	line := phrase.Phrase{Meter: c.Meter}
	figure := []neck.Place{{String: 3, Fret: 9}, {String: 2, Fret: 8}, {String: 2, Fret: 11}, {String: 1, Fret: 8}}
	for bar := range 12 {
		for n, at := range figure {
			e := phrase.Event{Tick: bar*1920 + n*240, Ticks: 240, Fingered: neck.Fingered{Place: at}}
			if n == 3 {
				e.Ticks = 720
				if bar%3 == 0 {
					e.Bend, e.Place = 4, neck.Place{String: 2, Fret: 11}
				}
			}
			line.Events = append(line.Events, e)
		}
	}
	require.NoError(t, line.WithChordsOf(c, 0).Check(neck.Standard()))
	return c, line.WithChordsOf(c, 0)
}

const start = 0.5

func heard(t testing.TB, line phrase.Phrase, c chart.Chart, f standin.Faults) []listen.Note {
	playing := standin.Play(line, neck.Standard(), c, 0, start, f)
	notes, err := listen.NotesOf(pluck.Render(playing.Notes, pluck.CleanNeck, 22050, playing.Seconds, 1), 22050)
	require.NoError(t, err)
	return notes
}

func judged(t testing.TB, f standin.Faults) (Verdict, phrase.Phrase) {
	c, line := chorus(t)
	return Judge(Order{
		Notes: heard(t, line, c, f), Chart: c, Instrument: neck.Standard(), Hand: neck.Standard().WindowFrom(8), Clock: transcribe.ClockFor(c, start, 0), Plan: &line,
	}), line
}

func names(found []Finding) []string {
	all := []string{}
	for _, f := range found {
		all = append(all, f.Name)
	}
	return all
}

// What is played as written is written as it was: the same ticks, strings and frets, and nothing to complain of.
func TestWhatIsPlayedAsWrittenIsWrittenAgain(t *testing.T) {
	v, line := judged(t, standin.Faults{})
	require.Len(t, v.Written.Phrase.Events, len(line.Events))
	for n, e := range v.Written.Phrase.Events {
		want := line.Events[n]
		assert.Equal(t, []int{want.Tick, want.String, want.Fret, want.Bend}, []int{e.Tick, e.String, e.Fret, e.Bend}, "note %d", n+1)
	}
	for _, p := range v.Pairs {
		assert.Equal(t, AsMeant, p.Kind)
	}
	assert.InDelta(t, 0, v.Timing.Lean, 0.004)
	assert.Less(t, v.Timing.Spread, 0.004)
	assert.InDelta(t, 2, v.Timing.SwingPlayed, 0.1)
	for _, b := range v.Intonation.Bends {
		assert.Equal(t, 2, b.Target)
		assert.InDelta(t, 0, b.Cents, 10)
		assert.Equal(t, BendTrue, b.Judgement)
	}
	assert.Len(t, v.Intonation.Bends, 4)
	assert.Subset(t, names(v.Good), []string{FindingSteady, FindingSwing, FindingBends, FindingPlan})
}

// Each fault of the player is found, and is said.
func TestEachFaultIsFound(t *testing.T) {
	for name, c := range map[string]struct {
		faults standin.Faults
		check  func(v Verdict)
	}{
		"behind": {standin.Faults{Late: 40}, func(v Verdict) {
			assert.InDelta(t, 0.04, v.Timing.Lean, 0.005)
			assert.Contains(t, names(v.Good), FindingSteady, "steady is no fault")
			assert.Contains(t, v.Good[slices.Index(names(v.Good), FindingSteady)].Text, "laid back by")
		}},
		"ahead": {standin.Faults{Late: -50}, func(v Verdict) { assert.InDelta(t, -0.05, v.Timing.Lean, 0.005) }},
		"rushing": {standin.Faults{Drift: -9}, func(v Verdict) {
			assert.InDelta(t, -0.009, v.Timing.Drift, 0.003)
			assert.Contains(t, names(slices.Concat(v.First, v.Rest)), FindingRushing)
		}},
		"uneven": {standin.Faults{Uneven: 35, Seed: 2}, func(v Verdict) {
			assert.Greater(t, v.Timing.Spread, SteadySpread)
			assert.Contains(t, names(slices.Concat(v.First, v.Rest)), FindingUneven)
		}},
		"straight": {standin.Faults{Swing: 1.05}, func(v Verdict) {
			assert.InDelta(t, 1.05, v.Timing.SwingPlayed, 0.12)
			assert.Contains(t, names(slices.Concat(v.First, v.Rest)), FindingSwing)
		}},
		"flat bends": {standin.Faults{Flat: 40}, func(v Verdict) {
			for _, b := range v.Intonation.Bends {
				assert.InDelta(t, -40, b.Cents, 10)
			}
			assert.Contains(t, names(slices.Concat(v.First, v.Rest)), FindingFlat)
		}},
		"sharp bends": {standin.Faults{Flat: -30}, func(v Verdict) { assert.Contains(t, names(slices.Concat(v.First, v.Rest)), FindingSharp) }},
		"missed notes": {standin.Faults{Missed: 0.3, Seed: 5}, func(v Verdict) {
			left := 0
			for _, p := range v.Pairs {
				if p.Kind == LeftOut {
					left++
				}
			}
			assert.Equal(t, 48-len(v.Written.Places), left)
			assert.Greater(t, left, 5)
			assert.Contains(t, names(slices.Concat(v.First, v.Rest)), FindingLeftOut)
		}},
		"wrong notes": {standin.Faults{Wrong: 0.3, Seed: 3}, func(v Verdict) {
			changed := 0
			for _, p := range v.Pairs {
				if p.Kind == Changed {
					changed++
				}
			}
			assert.Greater(t, changed, 5)
		}},
		"soft": {standin.Faults{Soft: 25}, func(v Verdict) { assert.GreaterOrEqual(t, len(v.Written.Places), 46) }},
	} {
		t.Run(name, func(t *testing.T) {
			v, _ := judged(t, c.faults)
			c.check(v)
			assert.LessOrEqual(t, len(v.First), 3)
		})
	}
}

// Nothing heard is said, and judges nothing else.
func TestNothingHeard(t *testing.T) {
	c, line := chorus(t)
	v := Judge(Order{Chart: c, Instrument: neck.Standard(), Hand: neck.Standard().WindowFrom(8), Clock: transcribe.ClockFor(c, start, 0), Plan: &line})
	assert.Equal(t, []string{FindingNothing, FindingLeftOut}, names(v.First))
	assert.Empty(t, v.Good)
}

// The alignment costs no more than any other, by trying all.
func TestAlignmentEqualsExhaustiveSearch(t *testing.T) {
	guitar := neck.Standard()
	rapid.Check(t, func(t *rapid.T) {
		plan, notes := phrase.Phrase{Meter: chart.FourFour}, []listen.Note{}
		for n := range rapid.IntRange(0, 4).Draw(t, "planned") {
			plan.Events = append(plan.Events, phrase.Event{Tick: n*240 + rapid.IntRange(0, 2).Draw(t, "tick")*60, Ticks: 60, Fingered: neck.Fingered{Place: neck.Place{String: 1, Fret: rapid.IntRange(1, 3).Draw(t, "fret")}}})
		}
		at := 0.0
		for range rapid.IntRange(0, 4).Draw(t, "heard") {
			at += rapid.Float64Range(0.05, 0.6).Draw(t, "later")
			notes = append(notes, listen.Note{Onset: at, Pitch: float64(64 + rapid.IntRange(1, 3).Draw(t, "pitch")), Confidence: 1})
		}
		clock := transcribe.Clock{SecondsPerTick: 1.0 / 960}
		same := func(tick int) int { return tick }
		cost := func(p, h int) float64 {
			off := math.Abs(clock.At(notes[h].Onset)-float64(plan.Events[p].Tick)) / 480
			if off > 1 {
				return math.Inf(1)
			}
			if float64(guitar.Pitch(plan.Events[p].Place)) != notes[h].Pitch {
				off++
			}
			return off
		}
		var least func(p, h int) float64
		least = func(p, h int) float64 {
			if p == len(plan.Events) && h == len(notes) {
				return 0
			}
			best := math.Inf(1)
			if p < len(plan.Events) {
				best = math.Min(best, 0.85+least(p+1, h))
			}
			if h < len(notes) {
				best = math.Min(best, 0.85+least(p, h+1))
			}
			if p < len(plan.Events) && h < len(notes) {
				best = math.Min(best, cost(p, h)+least(p+1, h+1))
			}
			return best
		}
		got := 0.0
		for _, pair := range Align(plan, guitar, notes, clock, same, 480) {
			switch pair.Kind {
			case LeftOut, Added:
				got += 0.85
			default:
				got += cost(pair.Planned, pair.Heard)
			}
		}
		if want := least(0, 0); math.Abs(got-want) > 1e-9 {
			t.Fatalf("it costs %.3f, the least is %.3f", got, want)
		}
	})
}

func TestFindingsHaveNames(t *testing.T) {
	for _, f := range []standin.Faults{{Late: 30, Uneven: 40, Missed: 0.4, Wrong: 0.2, Flat: 50, Seed: 9}} {
		v, _ := judged(t, f)
		for _, one := range slices.Concat(v.First, v.Rest, v.Good) {
			assert.Contains(t, FindingNames, one.Name)
			assert.NotEmpty(t, one.Text)
			for _, n := range one.Notes {
				assert.True(t, n >= 0 && n < len(v.Written.Places)+50, fmt.Sprint(one))
			}
		}
	}
}
