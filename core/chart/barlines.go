package chart

import (
	"sort"

	"undaris/core/floor"
)

// MeterChange is a meter and the tick of the bar line from which it holds.
type MeterChange struct {
	Tick  int
	Meter Meter
}

// BarLines says where the bars of a line of notes lie that has no form to repeat: in one meter from
// its bar 1 at tick 0, both ways without end, until changes come.
type BarLines struct {
	// meter holds until the first of spans, which are the stretches after it; bar is the first of each.
	meter Meter
	spans []meterSpan
}

type meterSpan struct {
	MeterChange
	bar int
}

// BarLinesIn is the bar lines of a meter with its changes, in order of time.
func BarLinesIn(m Meter, changes []MeterChange) BarLines {
	lines := BarLines{meter: m}
	last := meterSpan{MeterChange: MeterChange{Meter: m}}
	for _, ch := range changes {
		bars := (ch.Tick - last.Tick + last.Meter.BarTicks() - 1) / last.Meter.BarTicks()
		last = meterSpan{MeterChange: ch, bar: last.bar + bars}
		lines.spans = append(lines.spans, last)
	}
	return lines
}

// spanOf is the stretch that a tick lies in.
func (l BarLines) spanOf(tick int) meterSpan {
	if after := sort.Search(len(l.spans), func(n int) bool { return l.spans[n].Tick > tick }); after > 0 {
		return l.spans[after-1]
	}
	return meterSpan{MeterChange: MeterChange{Meter: l.meter}}
}

// BarAt is the bar of a tick, from 0; negative before the first.
func (l BarLines) BarAt(tick int) int {
	span := l.spanOf(tick)
	bars, _ := floor.Divide(tick-span.Tick, span.Meter.BarTicks())
	return span.bar + bars
}

// Start is the tick at which a bar begins.
func (l BarLines) Start(bar int) int {
	span := meterSpan{MeterChange: MeterChange{Meter: l.meter}}
	if after := sort.Search(len(l.spans), func(n int) bool { return l.spans[n].bar > bar }); after > 0 {
		span = l.spans[after-1]
	}
	return span.Tick + (bar-span.bar)*span.Meter.BarTicks()
}

// End is the tick at which a bar ends.
func (l BarLines) End(bar int) int { return l.Start(bar + 1) }

// BarStart is the tick at which the bar of a tick begins.
func (l BarLines) BarStart(tick int) int { return l.Start(l.BarAt(tick)) }

// BarsUntil is how many bars from bar 0 on it takes to reach a tick: a tick on a bar line belongs to
// the bar before it.
func (l BarLines) BarsUntil(tick int) int { return l.BarAt(tick-1) + 1 }

// MeterAt is the meter at a tick.
func (l BarLines) MeterAt(tick int) Meter { return l.spanOf(tick).Meter }

// BeatTicksAt is the length of a counted beat at a tick.
func (l BarLines) BeatTicksAt(tick int) int { return l.MeterAt(tick).BeatTicks() }

// IntoBeat is how many ticks into its counted beat a tick lies.
func (l BarLines) IntoBeat(tick int) int {
	into := floor.Mod(tick-l.BarStart(tick), l.BeatTicksAt(tick))
	return into
}

// IsStrong says whether a tick falls on a strong beat (see Meter.IsStrong).
func (l BarLines) IsStrong(tick int) bool { return l.MeterAt(tick).IsStrong(tick - l.BarStart(tick)) }

// Counted says a tick as a player counts it in its bar: see Meter.Counted.
func (l BarLines) Counted(tick int) string { return l.MeterAt(tick).Counted(tick - l.BarStart(tick)) }

// CountedInBar is Counted with the bar's number: see Timeline.CountedInBar.
func (l BarLines) CountedInBar(tick int) string {
	return countedInBar(l.Counted(tick), l.BarAt(tick))
}
