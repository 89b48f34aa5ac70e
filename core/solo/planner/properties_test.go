package planner_test

import (
	"fmt"
	"maps"
	"slices"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
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

// everyPlan plans every scheme in twelve keys and five positions, each from a seed of its own,
// and hands the best chorus of each to be looked at.
func everyPlan(t *testing.T, blend float64, look func(where string, o chorus.Request, p planner.Proposal)) {
	t.Run("plans", func(t *testing.T) {
		for _, s := range chart.Schemes {
			t.Run(s.Name, func(t *testing.T) {
				t.Parallel()
				for k, tonic := range []string{"C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"} {
					if testing.Short() && (k%2 != 0 || blend != chorus.DefaultBlend && k%6 != 0) {
						continue
					}
					for f, form := range []string{"C", "A", "G", "E", "D"} {
						seed := uint64(5*k + f)
						o := solotest.Request(t, s.Name, tonic, form, seed)
						o.Blend = []float64{blend}
						look(fmt.Sprintf("%s in %s, %s form, seed %d", s.Name, tonic, form, seed), o, solotest.Planned(t, o).Best[0])
					}
				}
			})
		}
	})
}

// listener measures a chorus from its notes and the chords alone, with none of the figures
// that the planner chooses by.
type listener struct {
	chart      chart.Chart
	instrument neck.Instrument
	events     []phrase.Event
}

// isChordTone says whether a note is a tone of the chord, by its pitch class.
func (l listener) isChordTone(c harmony.Chord, e phrase.Event) bool {
	return slices.ContainsFunc(c.Tones(), func(t harmony.Tone) bool { return t.Note.Class() == e.Sounding(l.instrument).Class() })
}

// landings counts the changes that something is played over: of how many there are, on how many
// a chord tone of the arriving chord starts from an eighth before to a beat after, or all is
// silent, and how many are silent.
func (l listener) landings() (good, silent, of int) {
	length := l.chart.Ticks()
	for _, ch := range l.chart.TargetChanges() {
		of++
		at := ch.Tick % length
		heard := func(e phrase.Event) bool { return e.End() > at && e.Tick <= at+480 }
		switch {
		case !slices.ContainsFunc(l.events, heard):
			silent++
			good++
		case slices.ContainsFunc(l.events, func(e phrase.Event) bool {
			return heard(e) && e.Tick >= at-240 && l.isChordTone(ch.Arriving.Chord, e)
		}):
			good++
		}
	}
	return good, silent, of
}

// chordUnder is the chord that a note belongs to: that of its beginning, or one that arrives
// within an eighth and that it rings into.
func (l listener) chordUnder(e phrase.Event) harmony.Chord {
	if e.End() > e.Tick+240 {
		return l.chart.ChordAt(e.Tick + 240)
	}
	return l.chart.ChordAt(e.Tick)
}

// onTheBeat counts the notes on beats 1 and 3 of 4/4 that are chord tones, of how many.
func (l listener) onTheBeat() (good, of int) {
	for _, e := range l.events {
		if e.Tick >= 0 && e.Tick%960 == 0 {
			of++
			if l.isChordTone(l.chart.ChordAt(e.Tick), e) {
				good++
			}
		}
	}
	return good, of
}

// silence is the share of 32nd notes in which nothing sounds.
func (l listener) silence() float64 {
	silent, slots := 0, l.chart.Ticks()/60
	for slot := range slots {
		at := slot*60 + 30
		if !slices.ContainsFunc(l.events, func(e phrase.Event) bool { return e.Tick <= at && at < e.End() }) {
			silent++
		}
	}
	return float64(silent) / float64(slots)
}

// impliedChords counts the chords of a bar or more under which their 3rd or 7th is played, of how many.
// A chord that goes on over several bars counts once, one that the line is silent under not.
func (l listener) impliedChords() (implied, of int) {
	spans := l.chart.ChordSpans()
	for n := 0; n < len(spans); {
		chord, from, to := spans[n].Chord, spans[n].Tick, 0
		for ; n < len(spans) && spans[n].Chord.Same(chord); n++ {
			to = spans[n].Tick + spans[n].Ticks
		}
		if to-from < l.chart.Meter.BarTicks() || !slices.ContainsFunc(l.events, func(e phrase.Event) bool { return e.Tick >= from && e.Tick < to }) {
			continue
		}
		of++
		if slices.ContainsFunc(l.events, func(e phrase.Event) bool {
			tone, ok := chord.Tone(e.Sounding(l.instrument).Class())
			return ok && e.End() > from && e.Tick < to && (tone.Degree.Number == 3 || tone.Degree.Number == 7)
		}) {
			implied++
		}
	}
	return implied, of
}

// line counts steps of up to a minor third, leaps, and leaps past an octave, between notes
// without half a beat of silence between them: after a breath a line may begin anywhere.
func (l listener) line() (steps, leaps, wide int) {
	for n := 1; n < len(l.events); n++ {
		if l.events[n].Tick-l.events[n-1].End() >= 240 {
			continue
		}
		switch by := l.events[n].Sounding(l.instrument) - l.events[n-1].Sounding(l.instrument); {
		case by == 0:
		case max(by, -by) <= 3:
			steps++
		case max(by, -by) <= 12:
			leaps++
		default:
			wide++
		}
	}
	return steps, leaps, wide
}

// What a good plan is, on every scheme in every key and position, measured from its notes.
func TestEveryPlanIsGood(t *testing.T) {
	y := &tally{}
	everyPlan(t, chorus.DefaultBlend, func(where string, o chorus.Request, p planner.Proposal) {
		l := listener{o.Chart, o.Instrument, p.Line.Events}
		landed, silent, changes := l.landings()
		assert.Equal(t, changes, landed, "%s: every change that something is played over is landed on", where)
		y.say(where, "three changes in four are played over", 4*silent <= changes)
		good, strong := l.onTheBeat()
		y.say(where, "strong beats are chord tones", 10*good >= 7*strong)
		box, err := o.Chart.Key.Box(o.Chart.Box)
		require.NoError(t, err)
		for n, e := range l.events {
			assert.True(t, e.Fret >= o.Position.Low && e.Fret <= o.Position.High, "%s: fret %d", where, e.Fret)
			if n > 0 && e.Fret > 0 && l.events[n-1].Fret > 0 {
				assert.LessOrEqual(t, o.Instrument.StretchMM(min(e.Fret, l.events[n-1].Fret), max(e.Fret, l.events[n-1].Fret)), o.SpanMM, "%s: the hand need not stretch", where)
			}
			if _, boxed := box.Tone(e.Sounding(o.Instrument).Class()); e.Ticks >= 480 && !boxed {
				scale, _ := o.Chart.Key.ChordScale(l.chordUnder(e))
				assert.True(t, slices.ContainsFunc(scale.Tones, func(t harmony.Tone) bool { return t.Note.Class() == e.Sounding(o.Instrument).Class() }),
					"%s: note %d in bar %g is long, and neither in the box nor in the scale of its chord", where, n+1, 1+float64(e.Tick)/1920)
			}
		}
		assert.NoError(t, p.Line.Check(o.Instrument), where)
		implied, chords := l.impliedChords()
		y.say(where, "nine in ten chords have their 3rd or 7th", 10*implied >= 9*chords)
		y.say(where, "a seventh of the time is silent", l.silence() >= 1.0/7)
		steps, leaps, wide := l.line()
		y.say(where, "steps outnumber leaps", steps > leaps)
		y.say(where, "no leap past an octave", wide == 0)
		y.say(where, "something is bent, slid or slurred", slices.ContainsFunc(l.events, func(e phrase.Event) bool {
			return e.Bend > 0 || e.SlideFrom > 0 || e.HammerOn || e.PullOff
		}))
	})
	y.report(t)
	for what := range y.of {
		assert.GreaterOrEqual(t, y.share(what), 0.94, what)
	}
}

// With blend 1 every note is a chord tone.
func TestPlansOfChordTonesAlone(t *testing.T) {
	everyPlan(t, 1, func(where string, o chorus.Request, p planner.Proposal) {
		l := listener{o.Chart, o.Instrument, p.Line.Events}
		landed, _, changes := l.landings()
		assert.Equal(t, changes, landed, where)
		implied, chords := l.impliedChords()
		assert.GreaterOrEqual(t, 4*implied, 3*chords, "%s: chords have their 3rd or 7th", where)
		for n, e := range p.Line.Events {
			assert.True(t, l.isChordTone(o.Chart.ChordAt(e.Tick), e) || l.isChordTone(l.chordUnder(e), e), "%s: note %d", where, n+1)
		}
	})
}

// With blend 0 every note is in the box.
func TestPlansOfTheBoxAloneStayInIt(t *testing.T) {
	everyPlan(t, 0, func(where string, o chorus.Request, p planner.Proposal) {
		box, err := o.Chart.Key.Box(o.Chart.Box)
		require.NoError(t, err)
		for n, e := range p.Line.Events {
			_, boxed := box.Tone(e.Sounding(o.Instrument).Class())
			assert.True(t, boxed, "%s: note %d is in the box", where, n+1)
		}
	})
}
