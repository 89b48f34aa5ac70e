package phrase

import (
	"fmt"

	"undaris/core/chart"
)

// InMeter is the phrase written in another meter: shuffled eighths of 4/4 are the outer two
// of the three eighths of a 12/8 beat, and its triplets are those eighths themselves;
// eighths of 12/8 are triplets of 4/4. Where the beats are alike and one bar is some whole bars of the
// other, as 4/4 is two of 2/4, the notes stay as they are. Between other meters there is no such way.
func (p Phrase) InMeter(meter chart.Meter) (Phrase, error) {
	if p.Meter == meter {
		return p, nil
	}
	if a, b := p.Meter.BarTicks(), meter.BarTicks(); p.Meter.BeatTicks() == meter.BeatTicks() && (a%b == 0 || b%a == 0) {
		p.Meter = meter
		return p, nil
	}
	var swing float64
	feel := chart.Setting{Meter: p.Meter, Feel: chart.Straight}
	switch [2]chart.Meter{p.Meter, meter} {
	case [2]chart.Meter{chart.FourFour, chart.TwelveEight}:
		feel.Feel, swing = chart.Shuffle, 2
	case [2]chart.Meter{chart.TwelveEight, chart.FourFour}:
	default:
		return Phrase{}, fmt.Errorf("a phrase in %s cannot be played in %s", p.Meter, meter)
	}
	written := func(tick int) int {
		return feel.Swung(tick, swing) * meter.BeatTicks() / p.Meter.BeatTicks()
	}
	moved := Phrase{Meter: meter, Events: make([]Event, len(p.Events))}
	for n, e := range p.Events {
		start := written(e.Tick)
		e.Ticks = written(e.End()) - start
		e.Tick = start
		moved.Events[n] = e
	}
	// Grace notes keep their length; they stay against the note they lead to.
	for n := len(moved.Events) - 2; n >= 0; n-- {
		if e := &moved.Events[n]; e.Grace {
			e.Tick, e.Ticks = moved.Events[n+1].Tick-GraceTicks, GraceTicks
		}
	}
	for _, from := range p.Chords {
		from.Tick = written(from.Tick)
		moved.Chords = append(moved.Chords, from)
	}
	return moved, nil
}

// BarLines says where the bars of the phrase lie.
func (p Phrase) BarLines() chart.BarLines { return chart.BarLinesIn(p.Meter, p.MeterChanges) }

// Bars is how many bars the phrase fills from its bar 1 on.
func (p Phrase) Bars() int { return max(p.BarLines().BarsUntil(p.End()), 1) }

// Ticks is how long the bars are that the phrase fills.
func (p Phrase) Ticks() int { return p.BarLines().Start(p.Bars()) }

// Span is where the phrase lies in a chart when its tick 0 stands at a tick of it:
// its first bar, from 0, and how many bars it touches, its pickup included.
func (p Phrase) Span(t chart.Timeline, start int) (first, count int) {
	begin := start
	if len(p.Events) > 0 {
		begin += min(p.Events[0].Tick, 0)
	}
	first = t.BarAt(begin)
	return first, t.BarsUntil(start+max(p.End(), 0)) - first
}

// End is the tick at which the last note stops.
func (p Phrase) End() int {
	end := 0
	for _, e := range p.Events {
		end = max(end, e.End())
	}
	return end
}
