package chart

import (
	"slices"

	"undaris/core/harmony"
)

// Timeline says where the bars and beats of a chart lie, and which key and meter
// hold there. Bars are counted from 0 as they are played, repeats played out, and
// ticks from the first bar; choruses follow one another, so that bars and ticks before
// the first or past the last are those of the choruses before and after.
type Timeline struct {
	meter Meter
	key   harmony.Key
	// starts are the ticks at which the bars of a chorus begin, and then where it ends.
	starts []int
}

// Timeline is the time of the chart.
func (c Chart) Timeline() Timeline {
	t := Timeline{meter: c.Meter, key: c.Key, starts: make([]int, 1, c.barCount()+1)}
	for bar := range c.barCount() {
		t.starts = append(t.starts, t.starts[bar]+t.MeterAt(bar).BarTicks())
	}
	return t
}

// Bars is how many bars a chorus has.
func (t Timeline) Bars() int { return len(t.starts) - 1 }

// Ticks is how long a chorus is.
func (t Timeline) Ticks() int { return t.starts[t.Bars()] }

// Chorus is which chorus a bar is in, from 0, and which of its bars it is.
func (t Timeline) Chorus(bar int) (chorus, inChorus int) {
	return floorDivide(bar, t.Bars())
}

// Start is the tick at which a bar begins.
func (t Timeline) Start(bar int) int {
	chorus, in := t.Chorus(bar)
	return chorus*t.Ticks() + t.starts[in]
}

// BarAt is the bar that a tick lies in.
func (t Timeline) BarAt(tick int) int {
	chorus, in := floorDivide(tick, t.Ticks())
	bar, begins := slices.BinarySearch(t.starts, in)
	if !begins {
		bar--
	}
	return chorus*t.Bars() + bar
}

// Place is the bar and the counted beat that a tick lies in, both from 0, and how many
// ticks into the beat it is.
func (t Timeline) Place(tick int) (bar, beat, into int) {
	bar = t.BarAt(tick)
	beat, into = floorDivide(tick-t.Start(bar), t.MeterAt(bar).BeatTicks())
	return bar, beat, into
}

// IsStrong says whether a tick falls on a strong beat of its bar (see Meter.Strong).
func (t Timeline) IsStrong(tick int) bool {
	bar := t.BarAt(tick)
	return t.MeterAt(bar).IsStrong(tick - t.Start(bar))
}

// MeterAt is the meter of a bar.
func (t Timeline) MeterAt(int) Meter { return t.meter }

// KeyAt is the key that holds in a bar.
func (t Timeline) KeyAt(int) harmony.Key { return t.key }

// floorDivide divides so that the rest is never negative.
func floorDivide(number, by int) (quotient, rest int) {
	rest = ((number % by) + by) % by
	return (number - rest) / by, rest
}
