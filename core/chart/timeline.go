package chart

import (
	"slices"

	"undaris/core/floor"
	"undaris/core/harmony"
)

// Timeline says where the bars and beats of a chart lie, and which key, meter and feel
// hold there. Bars are counted from 0 as they are played, repeats played out, and
// ticks from the first bar; choruses follow one another, so that bars and ticks before
// the first or past the last are those of the choruses before and after.
type Timeline struct {
	swing float64
	// starts are the ticks at which the bars of a chorus begin, and then where it ends;
	// in is what holds in each.
	starts []int
	in     []Setting
}

// Timeline is the time of the chart.
func (c Chart) Timeline() Timeline {
	order, settings := c.PlayedBars(), c.settings()
	t := Timeline{swing: c.Swing, starts: make([]int, 1, len(order)+1), in: make([]Setting, len(order))}
	for bar, source := range order {
		t.in[bar] = settings[source]
		t.starts = append(t.starts, t.starts[bar]+t.in[bar].Meter.BarTicks())
	}
	return t
}

// Bars is how many bars a chorus has.
func (t Timeline) Bars() int { return len(t.starts) - 1 }

// Ticks is how long a chorus is.
func (t Timeline) Ticks() int { return t.starts[t.Bars()] }

// Chorus is which chorus a bar is in, from 0, and which of its bars it is.
func (t Timeline) Chorus(bar int) (chorus, inChorus int) {
	return floor.Divide(bar, t.Bars())
}

// Start is the tick at which a bar begins.
func (t Timeline) Start(bar int) int {
	chorus, in := t.Chorus(bar)
	return chorus*t.Ticks() + t.starts[in]
}

// End is the tick at which a bar ends.
func (t Timeline) End(bar int) int { return t.Start(bar + 1) }

// BarAt is the bar that a tick lies in.
func (t Timeline) BarAt(tick int) int {
	chorus, in := floor.Divide(tick, t.Ticks())
	bar, begins := slices.BinarySearch(t.starts, in)
	if !begins {
		bar--
	}
	return chorus*t.Bars() + bar
}

// InChorus is where a tick lies in its chorus.
func (t Timeline) InChorus(tick int) int {
	in := floor.Mod(tick, t.Ticks())
	return in
}

// BarStart is the tick at which the bar of a tick begins.
func (t Timeline) BarStart(tick int) int { return t.Start(t.BarAt(tick)) }

// BarsUntil is how many bars from bar 0 on it takes to reach a tick: a tick on a bar line belongs to
// the bar before it.
func (t Timeline) BarsUntil(tick int) int { return t.BarAt(tick-1) + 1 }

// Place is the bar and the counted beat that a tick lies in, both from 0, and how many
// ticks into the beat it is.
func (t Timeline) Place(tick int) (bar, beat, into int) {
	bar = t.BarAt(tick)
	beat, into = floor.Divide(tick-t.Start(bar), t.MeterAt(bar).BeatTicks())
	return bar, beat, into
}

// IsStrong says whether a tick falls on a strong beat of its bar (see Meter.Strong).
func (t Timeline) IsStrong(tick int) bool {
	bar := t.BarAt(tick)
	return t.MeterAt(bar).IsStrong(tick - t.Start(bar))
}

// At is what holds in a bar.
func (t Timeline) At(bar int) Setting {
	_, in := t.Chorus(bar)
	return t.in[in]
}

// MeterAt is the meter of a bar.
func (t Timeline) MeterAt(bar int) Meter { return t.At(bar).Meter }

// KeyAt is the key that holds in a bar.
func (t Timeline) KeyAt(bar int) harmony.Key { return t.At(bar).Key }

// BeatTicksAt is the length of a counted beat at a tick.
func (t Timeline) BeatTicksAt(tick int) int { return t.MeterAt(t.BarAt(tick)).BeatTicks() }

// Swung is where a notated tick sounds by the feel of its bar (see Setting.Swung).
func (t Timeline) Swung(tick int) int {
	bar := t.BarAt(tick)
	start := t.Start(bar)
	return start + t.At(bar).Swung(tick-start, t.swing)
}

// Counted says a tick as a player counts it in its bar: see Meter.Counted.
func (t Timeline) Counted(tick int) string {
	bar := t.BarAt(tick)
	return t.MeterAt(bar).Counted(tick - t.Start(bar))
}

// CountedInBar is Counted with the bar's number, bars counting from 1; of ticks before
// the first bar it says how many bars before: "beat 4 of two bars before bar 1".
func (t Timeline) CountedInBar(tick int) string {
	return countedInBar(t.Counted(tick), t.BarAt(tick))
}

// CountedInChorus is CountedInBar where a tick past the end is of the next chorus, whose bars
// count from 1 again.
func (t Timeline) CountedInChorus(tick int) string {
	if tick >= 0 {
		tick %= t.Ticks()
	}
	return t.CountedInBar(tick)
}

// MeterChanges lists where the meter changes after a tick of a chorus and before another, their ticks
// counted from the first; nothing in a chart of one meter.
func (t Timeline) MeterChanges(from, to int) []MeterChange {
	changes := []MeterChange(nil)
	meter := t.MeterAt(t.BarAt(from))
	for bar := t.BarAt(from) + 1; t.Start(bar) < to; bar++ {
		if now := t.MeterAt(bar); now != meter {
			meter = now
			changes = append(changes, MeterChange{Tick: t.Start(bar) - from, Meter: meter})
		}
	}
	return changes
}

// SameBars says whether both have the same bars, in the same keys and meters.
func (t Timeline) SameBars(other Timeline) bool {
	return slices.EqualFunc(t.in, other.in, func(a, b Setting) bool { return a.Key == b.Key && a.Meter == b.Meter })
}
