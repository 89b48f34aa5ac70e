package phrase

import (
	"sort"

	"undaris/core/chart"
	"undaris/core/harmony"
)

// WithDefaultChord is the phrase over a chord, where it does not know its own.
func (p Phrase) WithDefaultChord(c harmony.Chord) Phrase {
	if len(p.Chords) == 0 {
		p.Chords = []PhraseChord{{Chord: c}}
	}
	return p
}

// StartAtChord is the tick of a chart at which the phrase's tick 0 stands so that it is
// heard over a chord: the downbeat of the first bar that begins with it, or else that
// it is in; where a pickup would begin before bar 1, a chorus later.
func (p Phrase) StartAtChord(c chart.Chart, chord harmony.Chord) int {
	t := c.Timeline()
	start := -1
	for _, m := range c.ChordSpans() {
		if m.Chord.Same(chord) && (start < 0 || m.Beat == 0) {
			start = t.Start(m.Bar)
			if m.Beat == 0 {
				break
			}
		}
	}
	if start = max(start, 0); start+p.Events[0].Tick < 0 {
		start += t.Ticks()
	}
	return start
}

// WithChordsOf is the phrase with the chords of a chart under it and the bar lines of the chart, its
// own tick 0 standing at the chart's tick start.
func (p Phrase) WithChordsOf(c chart.Chart, start int) Phrase {
	if len(p.Events) == 0 {
		return p
	}
	last := p.Events[len(p.Events)-1]
	t := c.Timeline()
	p.Chords = nil
	if !c.IsEven() {
		p.Meter, p.MeterChanges = t.MeterAt(t.BarAt(start)), t.MeterChanges(start, start+last.End())
	}
	length := t.Ticks()
	chorus := 0
	for chorus*length > start+p.Events[0].Tick {
		chorus--
	}
	spans := c.ChordSpans()
	for ; chorus*length < start+last.End(); chorus++ {
		for _, m := range spans {
			tick := chorus*length + m.Tick - start
			if tick+m.Ticks <= p.Events[0].Tick || tick >= last.End() {
				continue
			}
			from := PhraseChord{Tick: tick, Chord: m.Chord}
			if m.Imagined && !m.Written.Same(m.Chord) {
				from.Written = &m.Written
			}
			if n := len(p.Chords); n == 0 || !p.Chords[n-1].Same(from) {
				p.Chords = append(p.Chords, from)
			}
		}
	}
	return p
}

// Same says whether both are the same chords and judged alike.
func (f PhraseChord) Same(other PhraseChord) bool {
	if (f.Written == nil) != (other.Written == nil) {
		return false
	}
	return f.Chord.Same(other.Chord) && f.Chord.SameContext(other.Chord, harmony.Key{}) && (f.Written == nil || f.Written.Same(*other.Written))
}

// ChordAt is the chord the phrase was written over at its own tick; none where
// no chords are known.
func (p Phrase) ChordAt(tick int) (harmony.Chord, bool) {
	if len(p.Chords) == 0 {
		return harmony.Chord{}, false
	}
	return p.PhraseChordAt(tick).Chord, true
}

// PhraseChordAt is the last of the chords that has begun, or the first of all.
func (p Phrase) PhraseChordAt(tick int) PhraseChord {
	over := p.Chords[0]
	for _, from := range p.Chords[1:] {
		if from.Tick > tick {
			break
		}
		over = from
	}
	return over
}

// PhraseChord is a chord that is followed and the phrase's tick from which it holds.
type PhraseChord struct {
	// Written is what the band plays below an imagined chord; nil where the chord
	// is the written one.
	Written *harmony.Chord
	Tick    int
	Chord   harmony.Chord
}

// PushTicks is how long before a change a note may start and still belong to the chord that
// arrives, if it rings through the change: an eighth (common: a push).
const PushTicks = chart.TicksPerQuarter / 2

// ChordIndexOf is the index in Chords of the chord that an event belongs to: the one that
// holds when it starts, or the next where the event pushes it; -1 where no chords are known.
func (p Phrase) ChordIndexOf(e Event) int {
	if len(p.Chords) == 0 {
		return -1
	}
	next := sort.Search(len(p.Chords), func(n int) bool { return p.Chords[n].Tick > e.Tick })
	for next < len(p.Chords) && p.Chords[next].Tick <= e.Tick+PushTicks && e.End() > p.Chords[next].Tick {
		next++
	}
	return max(next-1, 0)
}
