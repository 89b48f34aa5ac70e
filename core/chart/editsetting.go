package chart

import (
	"undaris/core/harmony"
)

// WithFeel is the chart played with another feel, up to the first bar that changes it. Slow 12/8
// brings its meter with it and the other feels leave 12/8 for 4/4.
func (c Chart) WithFeel(feel Feel) (Chart, error) {
	return c.ChangedFeel(0, 0, feel)
}

// WithMeter is the chart in another meter, up to the first bar that changes it: 12/8 brings the slow
// feel with it, and leaving it takes that off. Where a bar's beats change, its chords are spread
// anew; a bar with more chords than beats is an error that names it.
func (c Chart) WithMeter(meter Meter) (Chart, error) {
	return c.ChangedMeter(0, 0, meter)
}

// ChangedFeel is the chart with another feel in so many bars from one on; no count is up to the next
// bar that changes feel or meter.
func (c Chart) ChangedFeel(from, count int, feel Feel) (Chart, error) {
	count, err := c.stretch(from, count, func(ch SettingChange) bool { return ch.Feel != "" || ch.Meter != Meter{} })
	if err != nil {
		return c, err
	}
	return c.inSettings(from, count, func(s Setting) Setting {
		switch {
		case feel == Slow128 && (from == 0 || !s.Meter.Compound()):
			s.Meter = TwelveEight
		case feel != Slow128 && s.Meter == TwelveEight:
			s.Meter = FourFour
		}
		s.Feel = feel
		return s
	})
}

// ChangedMeter is the chart with another meter in so many bars from one on; no count is up to the
// next bar that changes the meter. See WithMeter.
func (c Chart) ChangedMeter(from, count int, meter Meter) (Chart, error) {
	count, err := c.stretch(from, count, func(ch SettingChange) bool { return ch.Meter != Meter{} })
	if err != nil {
		return c, err
	}
	return c.inSettings(from, count, func(s Setting) Setting {
		s.Meter = meter
		switch {
		case meter == TwelveEight:
			s.Feel = Slow128
		case s.Feel == Slow128 && (from == 0 || !meter.Compound()):
			s.Feel = Straight
		}
		return s
	})
}

// ChangedKey is the chart with another key in so many bars from one on; no count is up to the next
// bar that changes it. The chords move with the key, or stay and are read in it.
func (c Chart) ChangedKey(from, count int, key harmony.Key, move bool) (Chart, error) {
	count, err := c.stretch(from, count, func(ch SettingChange) bool { return ch.Key.Mode != "" })
	if err != nil {
		return c, err
	}
	changed, err := c.inSettings(from, count, func(s Setting) Setting {
		s.Key = key
		return s
	})
	if err != nil || !move {
		return changed, err
	}
	for n, in := range c.settings()[from : from+count] {
		bar := &changed.Bars[from+n]
		for _, layer := range []*[]Span{&bar.Spans, &bar.Imagined} {
			*layer = append([]Span(nil), *layer...)
			for at, span := range *layer {
				if !span.Empty() {
					(*layer)[at].Chord = span.Chord.Transposed(in.Key.Tonic, key.Tonic)
				}
			}
		}
	}
	return changed, nil
}

// stretch is how many bars an edit of settings is for: so many, or up to the next such change.
func (c Chart) stretch(from, count int, ends func(SettingChange) bool) (int, error) {
	if err := c.holds(from, max(count, 1)); err != nil || count > 0 {
		return count, err
	}
	for count = 1; from+count < len(c.Bars) && !ends(c.Bars[from+count].Change); {
		count++
	}
	return count, nil
}

// inSettings is the chart with other settings in some of its bars; the others keep theirs. Where a
// bar's beats change, its chords are spread anew.
func (c Chart) inSettings(from, count int, set func(Setting) Setting) (Chart, error) {
	bars, settings := append([]Bar(nil), c.Bars...), c.settings()
	for b := from; b < from+count; b++ {
		was := settings[b].Meter.Beats()
		settings[b] = set(settings[b])
		beats := settings[b].Meter.Beats()
		if beats == was {
			continue
		}
		bar := &bars[b]
		if len(bar.Spans) > beats || len(bar.Imagined) > beats {
			return c, fail(barField(b), "bar %d has more chords than %s has beats (%d); take some out first", b+1, settings[b].Meter, beats)
		}
		bar.Spans, bar.Imagined = respread(bar.Spans, beats), respread(bar.Imagined, beats)
	}
	changed := c.withSettings(bars, settings)
	changed.Pickup = changed.fittingPickup()
	return changed, nil
}

func respread(spans []Span, beats int) []Span {
	there := append([]Span(nil), spans...)
	for n, share := range spread(len(spans), beats) {
		there[n].Beats = share
	}
	return there
}

// WithPickup is the chart with a bar before bar 1 of so many beats, without a chord where it has
// none yet; 0 takes it away.
func (c Chart) WithPickup(beats int) (Chart, error) {
	c.Pickup = lastBeats(c.Pickup, beats)
	if missing := beats - beatsOf(c.Pickup); missing > 0 {
		c.Pickup = append([]Span{{Beats: missing}}, c.Pickup...)
	}
	return c, c.checkPickup()
}

// WritePickup writes text in the bar notation over the bar before bar 1.
func (c Chart) WritePickup(text string) (Chart, error) {
	beats := beatsOf(c.Pickup)
	if beats == 0 {
		return c, fail("pickup", "the chart has no bar before bar 1 to write into; say first how many beats it has")
	}
	spans, err := readBeats(text, c.Key, beats, nil, "the bar before bar 1")
	if err != nil {
		return c, err
	}
	c.Pickup = spans
	return c, nil
}

// fittingPickup is the pickup, shortened from the left where it would fill a bar.
func (c Chart) fittingPickup() []Span { return lastBeats(c.Pickup, c.Meter.Beats()-1) }

// lastBeats is the end of the spans, at most so many beats long.
func lastBeats(spans []Span, beats int) []Span {
	kept := []Span(nil)
	for n := len(spans) - 1; n >= 0 && beats > 0; n-- {
		span := spans[n]
		span.Beats = min(span.Beats, beats)
		beats -= span.Beats
		kept = append([]Span{span}, kept...)
	}
	return kept
}

func beatsOf(spans []Span) int {
	beats := 0
	for _, span := range spans {
		beats += span.Beats
	}
	return beats
}
