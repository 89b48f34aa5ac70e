package phrase

import (
	"fmt"

	"undaris/core/chart"
)

// In is the phrase written in another meter. Only one step is needed so far:
// shuffled eighths of 4/4 are the outer two of the three eighths of a 12/8
// beat, and its triplets are those eighths themselves.
func (p Phrase) In(meter chart.Meter) (Phrase, error) {
	if p.Meter == meter {
		return p, nil
	}
	if p.Meter != chart.FourFour || meter != chart.TwelveEight {
		return Phrase{}, fmt.Errorf("a phrase in %s cannot be played in %s", p.Meter, meter)
	}
	shuffle := chart.Chart{Meter: p.Meter, Feel: chart.Shuffle, Swing: 2}
	written := func(tick int) int {
		return shuffle.Sounding(tick) * meter.BeatTicks() / p.Meter.BeatTicks()
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
	for _, from := range p.Over {
		from.Tick = written(from.Tick)
		moved.Over = append(moved.Over, from)
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
