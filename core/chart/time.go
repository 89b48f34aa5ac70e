package chart

import "undaris/core/harmony"

// Moment is one chord on the time line.
type Moment struct {
	Chord harmony.Chord
	// Bar and Beat count from 0.
	Bar, Beat int
	// Tick is where the chord begins, Ticks how long it lasts.
	Tick, Ticks int
}

// Moments is the chart's time line: every written chord in order, from tick 0.
func (c Chart) Moments() []Moment {
	moments := make([]Moment, 0, len(c.Bars))
	beatTicks := c.Meter.BeatTicks()
	tick := 0
	for b, bar := range c.Bars {
		beat := 0
		for _, span := range bar.Spans {
			ticks := span.Beats * beatTicks
			moments = append(moments, Moment{Chord: span.Chord, Bar: b, Beat: beat, Tick: tick, Ticks: ticks})
			beat += span.Beats
			tick += ticks
		}
	}
	return moments
}

// Ticks is the length of one chorus.
func (c Chart) Ticks() int { return len(c.Bars) * c.Meter.BarTicks() }

// ChordAt is the chord sounding at a tick. Choruses follow one another, so
// ticks before the first bar or past the last fold into the chorus.
func (c Chart) ChordAt(tick int) harmony.Chord {
	length := c.Ticks()
	tick = ((tick % length) + length) % length
	bar := c.Bars[tick/c.Meter.BarTicks()]
	into := tick % c.Meter.BarTicks()
	for _, span := range bar.Spans {
		into -= span.Beats * c.Meter.BeatTicks()
		if into < 0 {
			return span.Chord
		}
	}
	return bar.Spans[len(bar.Spans)-1].Chord
}

// Change is the moment one chord gives way to another.
type Change struct {
	Leaving, Arriving Moment
	// Tick is where the arriving chord begins; for the change from the end of
	// one chorus to the start of the next it is the length of the chorus.
	Tick int
}

// Wraps says whether the change leads from the end of the chorus to its start.
func (ch Change) Wraps() bool { return ch.Arriving.Tick < ch.Leaving.Tick }

// Changes lists the changes of a chorus in order, the one back to the top last.
// A chord that is only repeated makes no change; a one-chord vamp has none.
func (c Chart) Changes() []Change {
	moments := c.Moments()
	changes := []Change{}
	for n, leaving := range moments {
		arriving := moments[(n+1)%len(moments)]
		if leaving.Chord.Same(arriving.Chord) {
			continue
		}
		changes = append(changes, Change{Leaving: leaving, Arriving: arriving, Tick: leaving.Tick + leaving.Ticks})
	}
	return changes
}

// Chords lists the distinct chords in the order they first sound.
func (c Chart) Chords() []harmony.Chord {
	seen := map[string]bool{}
	chords := []harmony.Chord{}
	for _, m := range c.Moments() {
		if symbol := m.Chord.Symbol(); !seen[symbol] {
			seen[symbol] = true
			chords = append(chords, m.Chord)
		}
	}
	return chords
}
