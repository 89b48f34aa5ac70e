package lick

import (
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/phrase"
)

// ToChart is a chart of the lick's own bars, over the chords it was written for, so
// that it can be labelled and heard where no tune is: in the given time. start is the
// chart's tick at which the lick's tick 0 stands; bars of pickup stand before it. A
// chord that begins off the beat stands on the beat before.
func (l Lick) ToChart(tempo int, feel chart.Feel, swing float64) (c chart.Chart, start int) {
	key := l.Key()
	c = chart.Chart{Title: l.Name, Key: key, Meter: l.Phrase.Meter, Tempo: tempo, Feel: feel, Swing: swing}
	switch {
	case c.Meter == chart.TwelveEight:
		c.Feel = chart.Slow128
	case c.Feel == chart.Slow128:
		c.Feel = chart.Shuffle
	}
	over := l.Phrase.WithDefaultChord(c.TonicChord()).Chords
	bar, beat := c.Meter.BarTicks(), c.Meter.BeatTicks()
	before := 0
	if len(l.Phrase.Events) > 0 && l.Phrase.Events[0].Tick < 0 {
		before = (bar - 1 - l.Phrase.Events[0].Tick) / bar
	}
	start = before * bar
	under := phrase.Phrase{Meter: l.Phrase.Meter, Chords: over}
	written := func(tick int) harmony.Chord {
		from := under.PhraseChordAt(tick)
		if from.Written != nil {
			return *from.Written
		}
		return from.Chord
	}
	for b := range before + l.Phrase.Bars() {
		spans := []chart.Span{}
		for n := range c.Meter.Beats() {
			// The last tick of the beat tells: what begins within it is its chord.
			chord := written((b-before)*bar + n*beat + beat - 1)
			if last := len(spans) - 1; last >= 0 && spans[last].Chord.Same(chord) {
				spans[last].Beats++
				continue
			}
			spans = append(spans, chart.Span{Chord: chord, Beats: 1})
		}
		c.Bars = append(c.Bars, chart.Bar{Spans: spans})
	}
	return c, start
}
