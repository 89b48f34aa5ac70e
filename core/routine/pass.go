package routine

import (
	"math"
	"math/rand/v2"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Place is where in a routine a pass stands.
type Place struct {
	// Segment and Time count from 0: which segment, and which time it is played. Pass is
	// which pass of that time.
	Segment, Time, Pass int
	// Chorus counts the passes of the whole routine from 0.
	Chorus int
	// Tempo and Tonic are those that the segment began with.
	Tempo int
	Tonic string
}

// Pass is one time through the tune, or through what of it a segment plays.
type Pass struct {
	Place
	Segment Segment
	// Chart is the tune as it is played: in its key, at its tempo, or a vamp on one chord.
	Chart chart.Chart
	// From is the first bar of the chart, from 0, Bars how many; they never run past its end.
	From, Bars int
	// First and Last say that a time of the segment begins or ends with it.
	First, Last bool
}

// Seconds is how long the pass lasts.
func (p Pass) Seconds() float64 {
	time := p.Chart.Timeline()
	ticks := time.Start(p.From+p.Bars) - time.Start(p.From)
	return p.Chart.Seconds(ticks)
}

// First is the first pass of a routine that Check finds nothing wrong with.
func (r Routine) First(c chart.Chart) Pass {
	return r.pass(c, r.enter(0, c.Tempo, c.Key.Tonic.String(), 0))
}

// Next is the pass after another one, or false where the routine is over. Asked to skip, it
// goes on with the next segment.
func (r Routine) Next(c chart.Chart, after Place, skip bool) (Pass, bool) {
	if after.Segment < 0 || after.Segment >= len(r.Segments) {
		return Pass{}, false
	}
	s := r.Segments[after.Segment]
	now := r.pass(c, after)
	next := after
	next.Chorus++
	if !skip {
		if !now.Last || s.Waits() && after.Time >= s.times(after.Tempo)-1 {
			next.Pass++
			return r.pass(c, next), true
		}
		if after.Time+1 < s.times(after.Tempo) {
			next.Time, next.Pass = after.Time+1, 0
			return r.pass(c, next), true
		}
	}
	if after.Segment+1 == len(r.Segments) {
		return Pass{}, false
	}
	return r.pass(c, r.enter(after.Segment+1, now.Chart.Tempo, now.Chart.Key.Tonic.String(), next.Chorus)), true
}

// PassesThatWait is how many passes of a segment that goes on until the player asks are played
// where nobody can ask: in a file (our choice: enough to hear it go round).
const PassesThatWait = 2

// NextInFile is Next where nobody can ask for the next segment: one that waits is left after
// PassesThatWait passes of its last time.
func (r Routine) NextInFile(c chart.Chart, after Place) (Pass, bool) {
	leave := false
	if after.Segment >= 0 && after.Segment < len(r.Segments) {
		s := r.Segments[after.Segment]
		lastTime := after.Time >= s.times(after.Tempo)-1
		leave = s.Waits() && lastTime && r.pass(c, after).Last && after.Pass+1 >= PassesThatWait
	}
	return r.Next(c, after, leave)
}

// enter is the place where a segment begins.
func (r Routine) enter(segment, tempo int, tonic string, chorus int) Place {
	s := r.Segments[segment]
	if s.Tempo > 0 {
		tempo = s.Tempo
	}
	if s.Key != "" {
		tonic = s.Key
	}
	return Place{Segment: segment, Chorus: chorus, Tempo: tempo, Tonic: tonic}
}

// Waits says whether the segment goes on until the player asks.
func (s Segment) Waits() bool {
	return s.End.Wait || s.Choruses == 0 && s.Bars == 0 && s.Minutes == 0
}

// times is how often the segment is played, begun at a tempo.
func (s Segment) times(tempo int) int {
	times := 1 + s.End.Again
	if s.End.TempoTo != 0 && s.End.TempoBy != 0 {
		steps := float64(s.End.TempoTo-tempo) / float64(s.End.TempoBy)
		times = max(times, 1+int(math.Ceil(steps)))
	}
	return times
}

// tempoAt is the tempo of a time of the segment, never past its goal or what can be played.
func (s Segment) tempoAt(tempo, time int) int {
	at := tempo + time*s.End.TempoBy
	if s.End.TempoTo != 0 {
		if s.End.TempoBy > 0 {
			at = min(at, max(s.End.TempoTo, tempo))
		} else {
			at = max(at, min(s.End.TempoTo, tempo))
		}
	}
	return min(max(at, chart.MinTempo), chart.MaxTempo)
}

// keyAt is the key of a time of a segment.
func (r Routine) keyAt(s Segment, from harmony.Key, time int) harmony.Key {
	const keys = 12
	class := int(from.Tonic.Class())
	switch s.End.KeyBy {
	case SameKey:
		return from
	case Fourths:
		class += 5 * time
	case HalfSteps:
		class += time
	case RandomKeys:
		// Every key once in each dozen, the first one first.
		dice := rand.New(rand.NewPCG(r.Seed, uint64(time/keys)))
		class += append([]int{0}, shifted(dice.Perm(keys-1))...)[time%keys]
	}
	return tonicOf(pitch.ClassOf(class), from)
}

func shifted(order []int) []int {
	for n := range order {
		order[n]++
	}
	return order
}

// tonicOf is the key on a pitch class in the mode of another, in its plainest spelling.
func tonicOf(class pitch.Class, like harmony.Key) harmony.Key {
	if class == like.Tonic.Class() {
		return like
	}
	for _, name := range like.Mode.Tonics() {
		key, err := harmony.ParseKey(name, like.Mode)
		if err == nil && key.Tonic.Class() == class {
			return key.Plain()
		}
	}
	return like
}

// pass lays out the pass of a place.
func (r Routine) pass(c chart.Chart, at Place) Pass {
	s := r.Segments[at.Segment]
	p := Pass{Place: at, Segment: s, Chart: c, First: at.Pass == 0}
	from, err := harmony.ParseKey(at.Tonic, c.Key.Mode)
	if err != nil {
		from = c.Key
	}
	if key := r.keyAt(s, from, at.Time); key.Tonic != c.Key.Tonic {
		p.Chart = c.Transposed(key)
	}
	p.Chart.Tempo = s.tempoAt(at.Tempo, at.Time)
	if s.Chord > 0 {
		p.Chart = vamp(p.Chart, s)
	}
	passes := max(s.Choruses, 1)
	p.From, p.Bars = 0, p.Chart.Timeline().Bars()
	switch {
	case s.Bars > 0:
		stretches := s.stretches(p.Bars)
		passes = len(stretches)
		one := stretches[at.Pass%passes]
		p.From, p.Bars = one[0], one[1]
	case s.Minutes > 0:
		passes = max(int(math.Ceil(s.Minutes*60/p.Chart.Seconds(p.Chart.Ticks()))), 1)
	}
	p.First = at.Pass%passes == 0
	p.Last = at.Pass%passes == passes-1
	return p
}

// stretches cuts the bars of a segment where the tune ends: the first bar and the count of
// each. After its end they go on from the top.
func (s Segment) stretches(chorus int) [][2]int {
	all := [][2]int{}
	for first, left := s.From%chorus, s.Bars; left > 0; first = 0 {
		count := min(left, chorus-first)
		all = append(all, [2]int{first, count})
		left -= count
	}
	return all
}

// vampBars is how long a vamp is where the segment does not say.
const vampBars = 8

// vamp is the chart of one chord of the tune, going round.
func vamp(c chart.Chart, s Segment) chart.Chart {
	chord := c.Chords()[s.Chord-1]
	bars := s.Bars
	if bars == 0 {
		bars = vampBars
	}
	c.Key = chord.Context(c.Key).Key
	c.Bars, c.Imagining, c.Pickup = make([]chart.Bar, bars), false, nil
	for n := range c.Bars {
		c.Bars[n] = chart.Bar{Spans: []chart.Span{{Chord: chord, Beats: c.Meter.Beats()}}}
	}
	return c
}

// At is the pass that stands at a place of the routine.
func (r Routine) At(c chart.Chart, at Place) Pass { return r.pass(c, at) }
