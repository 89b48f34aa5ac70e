package api

import (
	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/routine"
)

// StageSpan is a chord as the soloist follows it: the imagined one where the tune imagines, else what the band plays.
type StageSpan struct {
	Tick   int    `json:"tick" doc:"In the performance, from which it holds"`
	At     int    `json:"at" doc:"The chart's tick in its chorus"`
	Chord  string `json:"chord"`
	Roman  string `json:"roman"`
	Silent bool   `json:"silent,omitempty" doc:"The band rests"`
	// Written is left out where it is the chord itself.
	Written string `json:"written,omitempty" doc:"What the band plays, where this chord is imagined"`
	// Next is left out where nothing follows.
	Next *StageNext `json:"next,omitempty"`
}

// StageNext is what comes after a chord: of what will sound, loop, segment, key and imagined chords counted in.
type StageNext struct {
	Tick    int         `json:"tick" doc:"In the performance, when it comes; its end for what comes after the pass"`
	At      int         `json:"at" doc:"The tick of its chorus at which it comes"`
	Chord   string      `json:"chord" doc:"N.C. where the band rests"`
	Roman   string      `json:"roman"`
	Key     string      `json:"key,omitempty" doc:"The key that it comes in, where that is another"`
	Box     string      `json:"box,omitempty" doc:"The box of that key"`
	Bar     int         `json:"bar" doc:"The bar that it comes in, from 1"`
	Lasts   bool        `json:"lasts,omitempty" doc:"It is the same chord still, which is landed on anew"`
	Landing *PathTarget `json:"landing,omitempty" doc:"What to land on; left out where the band rests, and where there is no tone in reach"`
}

// noChord is what a rest of the band is called.
const noChord = "N.C."

// following is the pass that comes after one; false where nothing does.
func following(r routine.Routine, c chart.Chart, p routine.Pass, asked PassRequest) (routine.Pass, bool) {
	switch {
	case asked.Ending:
		return routine.Pass{}, false
	case asked.Loop != nil && !asked.Once:
		return p, true
	}
	return r.Next(c, p.Place, false)
}

// stage lists the chords of a pass with what comes after each, and the landing into it.
func (o playContext) stage(a arranged, home neck.Position, next routine.Pass, goesOn bool, asked PassRequest) ([]StageSpan, error) {
	p, t := a.pass, a.pass.Chart.Timeline()
	start, end := t.Start(p.From), t.Start(p.From+p.Bars)
	spans := []chart.ChordSpan{}
	for _, span := range p.Chart.ChordSpans() {
		if span.Tick+span.Ticks > start && span.Tick < end {
			spans = append(spans, span)
		}
	}
	// Where in the performance a tick of the chorus is heard: on the beat that is counted there.
	sounds := map[int]int{}
	for _, beat := range a.out.Performance.Beats {
		if beat.Bar >= 1 {
			sounds[beat.At] = beat.Tick
		}
	}
	heardAt := func(tick int) int {
		if at, ok := sounds[tick]; ok {
			return at
		}
		return a.out.Performance.CountIn + tick - start
	}
	landings := map[int]*PathTarget{}
	for n := range a.out.Landings {
		landings[a.out.Landings[n].Change] = &a.out.Landings[n]
	}
	out := make([]StageSpan, len(spans))
	for n, span := range spans {
		one := StageSpan{Tick: heardAt(max(span.Tick, start)), At: max(span.Tick, start), Chord: span.Chord.Symbol(), Roman: span.Key.Roman(span.Chord), Silent: span.Silent}
		if span.Imagined {
			one.Written = span.Written.Symbol()
		}
		for _, later := range spans[n+1:] {
			if later.Silent == span.Silent && later.Chord.Same(span.Chord) {
				continue
			}
			one.Next = stageNext(later, later.Chord.Same(span.Chord), heardAt(later.Tick))
			if later.Key != span.Key {
				one.Next.Key, one.Next.Box = keyAndBox(a.out.Hand, later.Tick)
			}
			if !later.Silent {
				one.Next.Landing = landings[later.Tick]
			}
			break
		}
		out[n] = one
	}
	if len(spans) == 0 || !goesOn {
		return out, nil
	}
	exit, err := o.exit(a, home, spans[len(spans)-1], next, asked)
	if err != nil {
		return nil, err
	}
	for n := range out {
		if out[n].Next == nil {
			out[n].Next = exit
		}
	}
	return out, nil
}

func stageNext(span chart.ChordSpan, lasts bool, tick int) *StageNext {
	next := &StageNext{Tick: tick, At: span.Tick, Chord: span.Chord.Symbol(), Roman: span.Key.Roman(span.Chord), Bar: span.Bar + 1, Lasts: lasts}
	if span.Silent {
		next.Chord, next.Roman = noChord, ""
	}
	return next
}

// exit is what comes after the last chord of a pass: the first of what follows it, in its key, under the hand as it stands
// there, with the aim of its segment.
func (o playContext) exit(a arranged, home neck.Position, leaving chart.ChordSpan, next routine.Pass, asked PassRequest) (*StageNext, error) {
	t := next.Chart.Timeline()
	first := t.Start(next.From)
	var arriving chart.ChordSpan
	for _, span := range next.Chart.ChordSpans() {
		if span.Tick <= first {
			arriving = span
		}
	}
	out := stageNext(arriving, leaving.Chord.Same(arriving.Chord), a.out.Performance.End)
	out.At = first
	there := o.withChart(next.Chart)
	position := home
	if next.Chart.Key.Tonic != o.chart.Key.Tonic {
		position = home.Follow(o.instrument, o.chart.Key.Tonic.Class(), o.instrument, next.Chart.Key.Tonic.Class())
	}
	hand := change.HandPlaces(t, o.instrument, position)
	if key := t.KeyAt(next.From); key != leaving.Key {
		places, err := there.hand(hand)
		if err != nil {
			return nil, err
		}
		out.Key, out.Box = keyAndBox(places, first)
	}
	if arriving.Silent {
		return out, nil
	}
	strategy, err := change.ParseTargetStrategy(asked.Strategy)
	if err != nil {
		return nil, invalid("strategy", err)
	}
	// The hand goes where the next chord is played; the chord that is left is looked for there too.
	standing := hand[0]
	for _, place := range hand {
		if place.Tick <= first {
			standing = place
		}
	}
	standing.Tick = 0
	request := change.PathRequest{
		Strategy: strategy, Instrument: o.instrument, Hand: []change.HandPlace{standing}, Swaps: o.swaps,
		Changes: []chart.Change{{Leaving: leaving, Arriving: arriving, Tick: leaving.Tick + leaving.Ticks}}, OnlyDegree: next.Segment.Aim,
	}
	path, err := request.Find()
	if err != nil {
		return nil, err
	}
	if landings := there.path(strategy, path).Landings; len(landings) > 0 {
		out.Landing = &landings[0]
		// The chorus as a whole may land elsewhere, where it is left as it is written.
		if same := a.landingOfTheWrap(next); same != nil {
			out.Landing = same
		}
	}
	return out, nil
}

// keyAndBox are those that hold at a tick of a chorus.
func keyAndBox(places []HandPlace, tick int) (key, box string) {
	for _, place := range places {
		if place.Tick <= tick {
			key, box = place.Key, place.Box
		}
	}
	return key, box
}

// landingOfTheWrap is the landing of the whole chorus into its own top, where a pass is followed by the top of the same
// chart under the same aim; nil where it is not.
func (a arranged) landingOfTheWrap(next routine.Pass) *PathTarget {
	p := a.pass
	bars := p.Chart.Timeline().Bars()
	same := next.From == 0 && p.From+p.Bars == bars && p.Chart.Key == next.Chart.Key && p.Segment.Aim == next.Segment.Aim && bars == next.Chart.Timeline().Bars()
	if !same {
		return nil
	}
	for n := range a.out.Landings {
		if l := &a.out.Landings[n]; l.Change == p.Chart.Timeline().Start(bars) {
			return l
		}
	}
	return nil
}
