package phrase

import (
	"fmt"

	"undaris/core/chart"
)

// InMeter is the phrase written in another meter: shuffled eighths of 4/4 are the outer two
// of the three eighths of a 12/8 beat, and its triplets are those eighths themselves;
// eighths of 12/8 are triplets of 4/4. Between other meters there is no such way.
func (p Phrase) InMeter(meter chart.Meter) (Phrase, error) {
	if p.Meter == meter {
		return p, nil
	}
	var feel chart.Chart
	switch [2]chart.Meter{p.Meter, meter} {
	case [2]chart.Meter{chart.FourFour, chart.TwelveEight}:
		feel = chart.Chart{Meter: p.Meter, Feel: chart.Shuffle, Swing: 2}
	case [2]chart.Meter{chart.TwelveEight, chart.FourFour}:
		feel = chart.Chart{Meter: p.Meter, Feel: chart.Slow128}
	default:
		return Phrase{}, fmt.Errorf("a phrase in %s cannot be played in %s", p.Meter, meter)
	}
	written := func(tick int) int {
		return feel.SwungTick(tick) * meter.BeatTicks() / p.Meter.BeatTicks()
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

// Bars is how many bars the phrase fills from its bar 1 on.
func (p Phrase) Bars() int {
	end := 0
	for _, e := range p.Events {
		end = max(end, e.End())
	}
	return max((end+p.Meter.BarTicks()-1)/p.Meter.BarTicks(), 1)
}

// Span is where the phrase lies in a chart when its tick 0 stands at a tick of it:
// its first bar, from 0, and how many bars it touches, its pickup included.
func (p Phrase) Span(start int) (first, count int) {
	begin, end := start, start
	if len(p.Events) > 0 {
		begin += min(p.Events[0].Tick, 0)
	}
	for _, e := range p.Events {
		end = max(end, start+e.End())
	}
	bar := p.Meter.BarTicks()
	first = begin / bar
	return first, (end+bar-1)/bar - first
}

// End is the tick at which the last note stops.
func (p Phrase) End() int {
	end := 0
	for _, e := range p.Events {
		end = max(end, e.End())
	}
	return end
}
