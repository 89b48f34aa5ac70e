package chart

import (
	"fmt"
	"slices"
	"strings"
)

// Every edit leaves the chart it is given alone and returns another. Bars are
// the written ones and count from 0. Errors are *FieldError, or *TextError for
// a text that cannot be read.

// Write writes text in the bar notation over the bar. Bars apart by | go on over
// the bars after it, new ones at the end where there are no more.
func (c Chart) Write(bar int, text string) (Chart, error) {
	if bar < 0 || bar > len(c.Bars) {
		return c, fail("bar", "bar %d is not there; the chart has %d", bar+1, len(c.Bars))
	}
	bars := append([]Bar(nil), c.Bars...)
	at := 1
	parts := strings.Split(text, "|")
	for n, one := range parts {
		// A bar line at the very start or end of several encloses no bar.
		if len(parts) > 1 && strings.TrimSpace(one) == "" && (n == 0 || n == len(parts)-1) {
			at += len([]rune(one)) + 1
			continue
		}
		if bar >= MaxBars {
			return c, fail("bars", "that would be more than %d bars", MaxBars)
		}
		before := []Span(nil)
		if bar > 0 {
			before = bars[bar-1].Spans
		}
		in := c.SettingOf(bar)
		spans, err := ReadBar(one, in.Key, in.Meter, before)
		if err != nil {
			err.(*TextError).At += at - 1
			return c, err
		}
		if bar == len(bars) {
			bars = append(bars, Bar{})
		}
		bars[bar].Spans, bars[bar].Unread = spans, ""
		bar++
		at += len([]rune(one)) + 1
	}
	c.Bars = bars
	return c, nil
}

// Imagine writes text over the bar's imagined layer; an empty text takes it
// away. A chart in which something is imagined follows it from then on.
func (c Chart) Imagine(bar int, text string) (Chart, error) {
	if err := c.holds(bar, 1); err != nil {
		return c, err
	}
	in := c.SettingOf(bar)
	spans, err := ReadImagined(text, in.Key, in.Meter)
	if err != nil {
		return c, err
	}
	c.Bars = append([]Bar(nil), c.Bars...)
	c.Bars[bar].Imagined = spans
	c.Imagining = c.Imagining || len(spans) > 0
	return c, nil
}

// Split gives the bar 2, 3 or 4 chords: those it has, the last one again until
// there are enough, evenly spread.
func (c Chart) Split(bar, parts int) (Chart, error) {
	if err := c.holds(bar, 1); err != nil {
		return c, err
	}
	spans, meter := append([]Span(nil), c.Bars[bar].Spans...), c.SettingOf(bar).Meter
	switch {
	case parts < 2 || parts > 4:
		return c, fail("parts", "a bar splits into 2, 3 or 4, not %d", parts)
	case parts > meter.Beats():
		return c, fail("parts", "a bar of %s has %d beats and does not split into %d; a chord lasts at least a beat", meter, meter.Beats(), parts)
	case parts < len(spans):
		return c, fail("parts", "bar %d has %d chords already; write over it to have fewer", bar+1, len(spans))
	}
	for len(spans) < parts {
		spans = append(spans, spans[len(spans)-1])
	}
	for n, beats := range spread(parts, meter.Beats()) {
		spans[n].Beats = beats
	}
	return c.withSpans(bar, spans), nil
}

// Lengths sets how many beats each chord of the bar lasts; they must add up to
// the meter's.
func (c Chart) Lengths(bar int, beats []int) (Chart, error) {
	if err := c.holds(bar, 1); err != nil {
		return c, err
	}
	spans := append([]Span(nil), c.Bars[bar].Spans...)
	if len(beats) != len(spans) {
		return c, fail("beats", "bar %d has %d chords and so needs as many lengths, not %d", bar+1, len(spans), len(beats))
	}
	for n := range spans {
		spans[n].Beats = beats[n]
	}
	if err := checkBeats("beats", bar, "", spans, c.SettingOf(bar).Meter); err != nil {
		return c, err
	}
	return c.withSpans(bar, spans), nil
}

func (c Chart) withSpans(bar int, spans []Span) Chart {
	c.Bars = append([]Bar(nil), c.Bars...)
	c.Bars[bar].Spans, c.Bars[bar].Unread = spans, ""
	return c
}

// Insert puts so many empty bars before the bar; the one after the last is the
// end of the chart. They are in the key and meter of the bar before them.
func (c Chart) Insert(bar, count int) (Chart, error) {
	in := c.SettingOf(max(bar-1, 0))
	return c.insert(bar, EmptyBars(max(count, 0), in.Meter), slices.Repeat([]Setting{in}, max(count, 0)))
}

// Copy puts the bars once more before the bar to. A section's label, the key and the meter go along;
// repeat signs, endings and other signs stay where they were.
func (c Chart) Copy(from, count, to int) (Chart, error) {
	if err := c.holds(from, count); err != nil {
		return c, err
	}
	bars := append([]Bar(nil), c.Bars[from:from+count]...)
	for n := range bars {
		bars[n].RepeatFrom, bars[n].RepeatTo, bars[n].Ending, bars[n].Signs = false, 0, 0, Signs{}
	}
	return c.insert(to, bars, c.settings()[from:from+count])
}

func (c Chart) insert(bar int, bars []Bar, in []Setting) (Chart, error) {
	switch {
	case bar < 0 || bar > len(c.Bars):
		return c, fail("bar", "bar %d is not there; the chart has %d", bar+1, len(c.Bars))
	case len(bars) < 1:
		return c, fail("count", "at least one bar is put in")
	case len(c.Bars)+len(bars) > MaxBars:
		return c, fail("count", "that would be %d bars; a chart has at most %d", len(c.Bars)+len(bars), MaxBars)
	}
	return c.withSettings(slices.Insert(slices.Clone(c.Bars), bar, bars...), slices.Insert(c.settings(), bar, in...)).tidied(), nil
}

// Remove takes bars out; one must be left. Signs left without their
// other half go too, and a section's label moves to what is left of it. Every bar that is left keeps
// its key and meter.
func (c Chart) Remove(from, count int) (Chart, error) {
	if err := c.holds(from, count); err != nil {
		return c, err
	}
	if count == len(c.Bars) {
		return c, fail("count", "a chart has at least one bar")
	}
	label := ""
	for _, bar := range c.Bars[from : from+count] {
		if bar.Section != "" {
			label = bar.Section
		}
	}
	bars := slices.Delete(slices.Clone(c.Bars), from, from+count)
	if from < len(bars) && bars[from].Section == "" {
		bars[from].Section = label
	}
	left := c.withSettings(bars, slices.Delete(c.settings(), from, from+count))
	left.Pickup = left.fittingPickup()
	return left.tidied(), nil
}

// Section names the section that begins at the bar; an empty label joins it to
// the one before.
func (c Chart) Section(bar int, label string) (Chart, error) {
	if err := c.holds(bar, 1); err != nil {
		return c, err
	}
	c.Bars = append([]Bar(nil), c.Bars...)
	c.Bars[bar].Section = strings.TrimSpace(label)
	return c, c.checkBar(bar, c.Bars[bar], c.SettingOf(bar).Meter)
}

// Repeat puts repeat signs around the bars, to be played so many times; once
// takes the signs on them away.
func (c Chart) Repeat(from, count, times int) (Chart, error) {
	if err := c.holds(from, count); err != nil {
		return c, err
	}
	if times < 1 || times > MaxTimes {
		return c, fail("times", "bars are played 1 to %d times, not %d", MaxTimes, times)
	}
	c.Bars = append([]Bar(nil), c.Bars...)
	for n := from; n < from+count; n++ {
		c.Bars[n].RepeatFrom, c.Bars[n].RepeatTo = false, 0
		if c.Bars[n].Ending > 1 || times == 1 {
			c.Bars[n].Ending = 0
		}
	}
	if times > 1 {
		c.Bars[from].RepeatFrom, c.Bars[from+count-1].RepeatTo = true, times
	} else {
		c = c.tidied()
	}
	return c, c.checkOrder()
}

// Ending brackets the bars as an ending, the first to the fourth; 0 takes the bracket
// away. A first ending closes the repeat, which is put in where it is missing, and an ending before
// another closes it too.
func (c Chart) Ending(from, count, number int) (Chart, error) {
	if err := c.holds(from, count); err != nil {
		return c, err
	}
	if number < 0 || number > MaxEndings {
		return c, fail("number", "an ending is 1 to %d, or 0 for none, not %d", MaxEndings, number)
	}
	c.Bars = append([]Bar(nil), c.Bars...)
	last := from + count - 1
	for n := from; n <= last; n++ {
		c.Bars[n].Ending = number
		if number > 0 {
			c.Bars[n].RepeatTo = 0
		}
	}
	closes := func(bar int) {
		if c.Bars[bar].RepeatTo == 0 {
			c.Bars[bar].RepeatTo = 2
		}
	}
	switch {
	case number == 0:
		c = c.tidied()
	case number == 1 || last+1 < len(c.Bars) && c.Bars[last+1].Ending == number+1:
		closes(last)
	}
	if number > 1 && from > 0 && c.Bars[from-1].Ending == number-1 {
		closes(from - 1)
	}
	return c, c.checkOrder()
}

// holds says whether the chart has the bars.
func (c Chart) holds(from, count int) error {
	if from < 0 || count < 1 || from >= len(c.Bars) || count > len(c.Bars)-from {
		return fail("bar", "%s not there; the chart has %d", barsNamed(from, count), len(c.Bars))
	}
	return nil
}

func barsNamed(from, count int) string {
	if count == 1 {
		return fmt.Sprintf("bar %d is", from+1)
	}
	return fmt.Sprintf("bars %d to %d are", from+1, from+count)
}
