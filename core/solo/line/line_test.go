package line

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
	"undaris/core/pitch"
)

// call is eight even eighths in the first box of C.
func call() lick.Lick {
	l := lick.Lick{Name: "Call", Phrase: phrase.Phrase{Meter: chart.FourFour}}
	for n, place := range [][2]int{{3, 8}, {3, 10}, {2, 8}, {2, 11}, {1, 8}, {2, 11}, {2, 8}, {3, 10}} {
		l.Phrase.Events = append(l.Phrase.Events, phrase.Event{Tick: n * 240, Ticks: 240, Fingered: neck.Fingered{Place: neck.Place{String: place[0], Fret: place[1]}}})
	}
	return l
}

func order(t testing.TB, changeIndex int, approach, subdivision string, target *neck.Place) Request {
	t.Helper()
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	c := chart.Chart{Title: "A test", Key: key, Meter: chart.FourFour, Tempo: 112, Feel: chart.Shuffle, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
	position, err := neck.FindPosition(phrasetest.Guitar, 0, "E-7")
	require.NoError(t, err)
	a, err := change.FindApproachKind(approach)
	require.NoError(t, err)
	s, err := c.Meter.Subdivision(subdivision)
	require.NoError(t, err)
	return Request{Chart: c, Instrument: phrasetest.Guitar, Position: position, Change: c.Changes()[changeIndex], Lick: call(), Target: target, Strategy: change.ThirdsFirst, Approach: a, Subdivision: s}
}

func written(l Line) string {
	notes := []string{}
	for n, e := range l.Phrase.Events {
		notes = append(notes, fmt.Sprintf("%d@%d:%d %s %s", e.Tick, e.String, e.Fret, l.Labels[n].Degree, l.Roles[n]))
	}
	return strings.Join(notes, ", ")
}

func TestALineFromBarFourToFive(t *testing.T) {
	line, err := order(t, 2, "half step below", "eighth", nil).Write()
	require.NoError(t, err)
	assert.Equal(t, "0@3:8 b3 lick, 240@3:10 11 lick, 480@2:8 5 lick, 720@2:11 b7 lick, 960@1:8 R lick, 1200@2:11 b7 lick, "+
		"1440@2:8 5 lick, 1680@2:9 b13 approach, 1920@2:10 3 target", written(line))
	assert.Equal(t, 3*1920, line.Start)
	assert.Equal(t, []string{
		`7 of the 8 notes of "Call" stand as written.`,
		"The run into A has 2 notes in eighths: it starts on the and of beat 4 of bar 4 and lands on beat 1 of bar 5.",
	}, line.Notes)
	assert.Equal(t, "Approach: a half step from below into A, the 3 of F7. Ab is the b13 of C7: pass through it, never rest on it.", line.Why[7])
	assert.Equal(t, "Target: A, the 3 of F7. A is the 3 of F7: a chord tone, rest on it.", line.Why[8])
}

// The run into a target in each of the four subdivisions: the approach of two
// notes starts two subdivisions before the downbeat.
func TestTheRunIsCountedBack(t *testing.T) {
	for subdivision, want := range map[string]int{"quarter": 960, "eighth": 1440, "triplet": 1600, "sixteenth": 1680} {
		line, err := order(t, 2, "enclosure", subdivision, nil).Write()
		require.NoError(t, err, subdivision)
		first := 0
		for line.Roles[first] != RoleApproach {
			first++
		}
		assert.Equal(t, want, line.Phrase.Events[first].Tick, subdivision)
		assert.Equal(t, 1920, line.Phrase.Events[len(line.Phrase.Events)-1].Tick)
	}
}

func TestAChosenTargetIsLandedOn(t *testing.T) {
	for _, target := range [][2]int{{2, 10}, {1, 8}, {3, 8}, {3, 10}} {
		target := neck.Place{String: target[0], Fret: target[1]}
		line, err := order(t, 2, "half step above", "eighth", &target).Write()
		require.NoError(t, err)
		assert.Equal(t, target, line.Phrase.Events[len(line.Phrase.Events)-1].Place)
	}
}

func TestATargetOutOfReachOffersTheNearest(t *testing.T) {
	// The lowest F7 tone, two octaves below the lick, with only quarters to get there.
	_, err := order(t, 2, "enclosure", "quarter", &neck.Place{String: 6, Fret: 8}).Write()
	var targetError *TargetError
	require.ErrorAs(t, err, &targetError)
	assert.ErrorContains(t, err, "C, the 5, on string 6 fret 8 cannot be reached in time")
	require.NotEmpty(t, targetError.Nearest)
	for _, near := range targetError.Nearest {
		_, err := order(t, 2, "enclosure", "quarter", &near.Place).Write()
		assert.NoError(t, err, "what is offered can be had")
	}
	_, err = order(t, 2, "", "eighth", &neck.Place{String: 5, Fret: 7}).Write()
	assert.ErrorContains(t, err, "string 5 fret 7 is not a placed tone of F7")
}

func TestWhereNoTargetCanBeReachedAFinerRunIsOffered(t *testing.T) {
	o := order(t, 2, "two half steps below", "quarter", &neck.Place{String: 2, Fret: 10})
	o.Lick.Phrase.Events = o.Lick.Phrase.Events[:2]
	o.Lick.Phrase.Events[0].Tick, o.Lick.Phrase.Events[1].Tick = 1200, 1440
	_, err := o.Write()
	assert.ErrorContains(t, err, "; in eighths it can")
	o.Target = nil
	_, err = o.Write()
	assert.ErrorContains(t, err, "no tone of F7 can be reached in time by two half steps from below in quarters; in eighths it can")
}

func TestASlideIsPlayedOnOneString(t *testing.T) {
	line, err := order(t, 2, "slide", "eighth", &neck.Place{String: 2, Fret: 10}).Write()
	require.NoError(t, err)
	n := len(line.Phrase.Events)
	assert.Equal(t, neck.Place{String: 2, Fret: 9}, line.Phrase.Events[n-2].Place)
	assert.Equal(t, 9, line.Phrase.Events[n-1].SlideFrom)
}

func TestTheLastChangeLeadsIntoTheNextChorus(t *testing.T) {
	o := order(t, 8, "half step below", "eighth", nil)
	line, err := o.Write()
	require.NoError(t, err)
	assert.Equal(t, o.Chart.Ticks(), line.Arrival)
	assert.Equal(t, "C7", line.Labels[len(line.Labels)-1].Chord.Symbol())
	assert.Contains(t, line.Notes[1], "lands on beat 1 of bar 1 of the next chorus")
}

func TestALongLickOverTheFirstChangeBeginsInTheChorusBefore(t *testing.T) {
	o := order(t, 0, "half step below", "eighth", nil)
	for n, e := range o.Lick.Phrase.Events {
		e.Tick = 1920 + n*240
		o.Lick.Phrase.Events = append(o.Lick.Phrase.Events, e)
	}
	o.Lick.Phrase.Events = o.Lick.Phrase.Events[:16]
	line, err := o.Write()
	require.NoError(t, err)
	assert.Equal(t, 11*1920, line.Start, "the last bar of the chorus")
	assert.Equal(t, o.Chart.Ticks()+1920, line.Arrival)
	first, count := line.Phrase.Span(o.Chart.Timeline(), line.Start)
	assert.Equal(t, [2]int{11, 3}, [2]int{first, count})
	assert.Equal(t, "G7", line.Labels[0].Chord.Symbol())
	assert.Contains(t, line.Notes[1], "lands on beat 1 of bar 2 of the next chorus")
}

func TestAChangeInTheMiddleOfABar(t *testing.T) {
	o := order(t, 0, "half step below", "eighth", nil)
	f7 := o.Chart.Bars[1].Spans[0].Chord
	o.Chart.Bars[2].Spans = []chart.Span{{Chord: o.Chart.Bars[2].Spans[0].Chord, Beats: 2}, {Chord: f7, Beats: 2}}
	for _, ch := range o.Chart.Changes() {
		if ch.Tick == 2*1920+960 {
			o.Change = ch
		}
	}
	line, err := o.Write()
	require.NoError(t, err)
	assert.Equal(t, 2*1920+960, line.Arrival)
	assert.Contains(t, line.Notes[1], "lands on beat 3 of bar 3")
	first, count := line.Phrase.Span(o.Chart.Timeline(), line.Start)
	assert.Equal(t, [2]int{1, 2}, [2]int{first, count})
	last := line.Phrase.Events[len(line.Phrase.Events)-1]
	assert.Equal(t, 960, last.Ticks, "the target rings no longer than its chord")
}

// price is what a tail costs, told from its notes alone.
func price(w tailPaths, start pitch.MIDI, tail []int) (int, bool) {
	goal := len(w.pitches) - 1
	all := append([]int{-1}, append(tail, goal)...)
	at := func(n int) pitch.MIDI {
		if all[n] < 0 {
			return start
		}
		return w.pitches[all[n]]
	}
	total := 0
	for n := 1; n < len(all); n++ {
		step, ok := stepCost(at(n-1), at(n))
		if !ok {
			return 0, false
		}
		total += step
		if n < len(all)-1 {
			total += w.class[all[n]]
		}
		if n > 1 && at(n) == at(n-2) {
			total += costTurnBack
		}
	}
	return total, true
}

// The cheapest tail equals the best of all tails, for every start, goal and
// length up to three notes.
func TestTailsEqualExhaustiveSearch(t *testing.T) {
	o := order(t, 2, "", "eighth", nil)
	pool, err := o.pool()
	require.NoError(t, err)
	size := len(pool.Tones)
	tried := 0
	for goal := pitch.MIDI(47); goal <= 76; goal += 3 {
		w := o.pathsTo(pool, goal, 3)
		for start := pitch.MIDI(48); start <= 75; start += 2 {
			for count := 0; count <= 3; count++ {
				best, found := 0, false
				combinations := 1
				for range count {
					combinations *= size
				}
				for c := range combinations {
					tail := make([]int, count)
					for n := range tail {
						tail[n] = c % size
						c /= size
					}
					if cost, ok := price(w, start, tail); ok && (!found || cost < best) {
						best, found = cost, true
					}
				}
				pitches, cost, ok := w.from(start, count)
				require.Equal(t, found, ok)
				if ok {
					require.Equal(t, best, cost, "%d notes from %d to %d", count, start, goal)
					require.Len(t, pitches, count)
				}
				tried++
			}
		}
	}
	t.Logf("%d tails compared", tried)
}

func BenchmarkLine(b *testing.B) {
	o := order(b, 2, "enclosure", "eighth", nil)
	b.ReportAllocs()
	for b.Loop() {
		if _, err := o.Write(); err != nil {
			b.Fatal(err)
		}
	}
}

// Whatever the approach, a line that can be written sounds its target on the tick of
// the change; and every approach can be written somewhere.
func TestEveryApproachEndsALine(t *testing.T) {
	written := map[string]int{}
	for _, approach := range change.ApproachKinds {
		for _, subdivision := range []string{"eighth", "sixteenth"} {
			o := order(t, 2, approach.Name, subdivision, nil)
			for _, target := range neck.PlaceTones(phrasetest.Guitar, o.Position.Window, o.Change.Arriving.Chord.Tones()).Tones {
				o.Target = &target.Place
				line, err := o.Write()
				if err != nil {
					continue
				}
				last := line.Phrase.Events[len(line.Phrase.Events)-1]
				assert.Equal(t, o.Change.Tick, line.Start+last.Tick, approach.Name)
				assert.Equal(t, target.Pitch, last.Sounding(phrasetest.Guitar), approach.Name)
				assert.Equal(t, harmony.ChordTone, line.Labels[len(line.Labels)-1].Class)
				written[approach.Name]++
			}
		}
	}
	assert.Len(t, written, len(change.ApproachKinds), "%v", written)
}
