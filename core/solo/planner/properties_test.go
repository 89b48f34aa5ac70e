package planner_test

import (
	"fmt"
	"maps"
	"slices"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/analysis"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/solo/chorus"
	"undaris/core/solo/planner"
	"undaris/core/solo/solotest"
)

// Counted over many plans: how many were looked at, and how many were not as they should be.
type tally struct {
	mutex   sync.Mutex
	of, bad map[string]int
	example map[string]string
}

func (y *tally) say(where, what string, good bool) {
	y.mutex.Lock()
	defer y.mutex.Unlock()
	if y.of == nil {
		y.of, y.bad, y.example = map[string]int{}, map[string]int{}, map[string]string{}
	}
	y.of[what]++
	if !good {
		y.bad[what]++
		y.example[what] = where
	}
}

func (y *tally) report(t *testing.T) {
	for _, what := range slices.Sorted(maps.Keys(y.of)) {
		t.Logf("%-40s %6.2f %% of %d %s", what, 100*(1-float64(y.bad[what])/float64(y.of[what])), y.of[what], y.example[what])
	}
}

// share is that of good ones.
func (y *tally) share(what string) float64 { return 1 - float64(y.bad[what])/float64(y.of[what]) }

// everyPlan plans every scheme in twelve keys and five positions, from so many seeds, and
// hands the best chorus of each to be looked at.
func everyPlan(t *testing.T, blend float64, seeds uint64, look func(where string, o chorus.Request, p planner.Proposal)) {
	t.Run("plans", func(t *testing.T) {
		for _, s := range chart.Schemes {
			t.Run(s.Name, func(t *testing.T) {
				t.Parallel()
				for _, tonic := range []string{"C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"} {
					for _, form := range []string{"C", "A", "G", "E", "D"} {
						for seed := range seeds {
							o := solotest.Request(t, s.Name, tonic, form, seed)
							o.Blend = []float64{blend}
							look(fmt.Sprintf("%s in %s, %s form, seed %d", s.Name, tonic, form, seed), o, solotest.Planned(t, o).Best[0])
						}
					}
				}
			})
		}
	})
}

// lands says whether every change has a landing on a home tone within an eighth, and how
// many of them are the tone aimed at.
func lands(o chorus.Request, p planner.Proposal, t *testing.T) (all bool, aimed, of int) {
	told, err := o.Explain(p.Chorus)
	require.NoError(t, err)
	all = true
	for _, target := range told.Targets {
		of++
		home := false
		for _, e := range p.Line.Events {
			away := max(e.Tick-target.Tick, target.Tick-e.Tick)
			home = home || (away <= 240 && o.Chart.Key.Classify(target.Chord, e.Sounding(o.Instrument).Class()) == harmony.ChordTone)
		}
		all = all && home
		if target.OnAim {
			aimed++
		}
	}
	return all, aimed, of
}

// heard is how many chords that last a bar or longer are heard without the band.
func heard(o chorus.Request, p planner.Proposal) (heard, of int) {
	for _, d := range p.Implied {
		if d.To-d.From >= o.Chart.Meter.BarTicks() {
			of++
			if d.Recognition == analysis.Recognized {
				heard++
			}
		}
	}
	return heard, of
}

// What a good plan is, on every scheme in every key and position; and what keeps it from
// being dull, with the share of plans that meet each.
func TestEveryPlanIsGood(t *testing.T) {
	y := &tally{}
	aimed, changes := 0, 0
	everyPlan(t, chorus.DefaultBlend, 3, func(where string, o chorus.Request, p planner.Proposal) {
		good, a, n := lands(o, p, t)
		y.mutex.Lock()
		aimed, changes = aimed+a, changes+n
		y.mutex.Unlock()
		assert.True(t, good, "%s: every change has a landing on a home tone", where)
		labels := p.Line.Labels(o.Instrument, o.Chart.Key)
		for _, n := range p.Verdict.Rests.Notes {
			assert.NotEqual(t, harmony.Outside, labels[n].Class, "%s: no outside note is rested on", where)
		}
		assert.GreaterOrEqual(t, 10*p.Verdict.Strong.Good, 7*p.Verdict.Strong.Of, "%s: strong beats are home", where)
		for _, e := range p.Line.Events {
			assert.True(t, e.Fret >= o.Position.Low && e.Fret <= o.Position.High, "%s: fret %d", where, e.Fret)
		}
		assert.NoError(t, p.Line.Check(o.Instrument), where)
		assert.LessOrEqual(t, p.Verdict.Shape.WidestMM, o.SpanMM, "%s: the hand need not stretch", where)
		told, of := heard(o, p)
		assert.GreaterOrEqual(t, 4*told, 3*of, "%s: chords are heard without the band", where)
		y.say(where, "space of 15 % and more", p.Space >= 0.15)
		y.say(where, "nine in ten chords heard", 10*told >= 9*of)
		short := false
		for _, b := range analysis.PhraseSpans(p.Line) {
			short = short || p.Line.Events[b.To-1].End()-p.Line.Events[b.From].Tick < o.Chart.Meter.BarTicks()
		}
		y.say(where, "phrases of a bar and more", !short)
		for _, f := range p.Style {
			y.say(where, f.Name, f.Good)
			if len(o.Chart.Bars) >= 12 {
				y.say(where, f.Name+" (twelve bars and more)", f.Good)
			}
		}
	})
	y.report(t)
	t.Logf("%d of %d landings on the tone aimed at", aimed, changes)
	assert.GreaterOrEqual(t, 10*aimed, 9*changes, "nine in ten landings are on the tone aimed at")
	assert.Equal(t, 1.0, y.share("space of 15 % and more"))
	for what := range y.of {
		assert.GreaterOrEqual(t, y.share(what), 0.98, what)
	}
	for _, name := range analysis.FindingNames {
		assert.GreaterOrEqual(t, y.share(name+" (twelve bars and more)"), 0.995, name)
	}
}

func TestPlansOfChordTonesAloneAreHeard(t *testing.T) {
	everyPlan(t, 1, 1, func(where string, o chorus.Request, p planner.Proposal) {
		good, _, _ := lands(o, p, t)
		assert.True(t, good, where)
		told, of := heard(o, p)
		assert.GreaterOrEqual(t, 10*told, 9*of, "%s: nine in ten chords are heard without the band", where)
		assert.GreaterOrEqual(t, 10*p.Verdict.Strong.Good, 7*p.Verdict.Strong.Of, where)
		for n, l := range p.Line.Labels(o.Instrument, o.Chart.Key) {
			assert.Equal(t, harmony.ChordTone, l.Class, "%s: note %d", where, n+1)
		}
	})
}

func TestPlansOfTheBoxAloneStayInIt(t *testing.T) {
	everyPlan(t, 0, 1, func(where string, o chorus.Request, p planner.Proposal) {
		box, err := o.Chart.Key.Box(o.Chart.Box)
		require.NoError(t, err)
		for n, e := range p.Line.Events {
			_, boxed := box.Tone(e.Sounding(o.Instrument).Class())
			assert.True(t, boxed, "%s: note %d is in the box", where, n+1)
		}
		for _, offence := range p.Verdict.Rests.Issues {
			assert.NotContains(t, offence.Text, "outside", where)
		}
	})
}
