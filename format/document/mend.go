package document

import (
	"errors"
	"fmt"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Mended is the chart with every value of its head that no rule allows brought to the
// nearest that is allowed, and what was done. Bars are not touched: what cannot be read in
// them cannot be guessed.
func (d Chart) Mended() (Chart, []string) {
	said := []string{}
	say := func(format string, args ...any) { said = append(said, fmt.Sprintf(format, args...)) }
	if plain := oneLine(d.Title); strings.TrimSpace(plain) != "" && chart.Visible(plain) != plain {
		d.Title = chart.Visible(plain)
		say("characters of its title that cannot be seen are left out")
	}
	if title := strings.TrimSpace(oneLine(d.Title)); title == "" {
		d.Title = "Untitled"
		say("it had no title")
	} else if runes := []rune(title); len(runes) > chart.MaxTitle || title != strings.TrimSpace(d.Title) {
		d.Title = strings.TrimSpace(string(runes[:min(len(runes), chart.MaxTitle)]))
		say("its title is cut to one line of %d characters", chart.MaxTitle)
	}
	if tempo := min(max(d.Tempo, chart.MinTempo), chart.MaxTempo); tempo != d.Tempo {
		say("its tempo of %d stands at %d", d.Tempo, tempo)
		d.Tempo = tempo
	}
	if !(d.Swing >= chart.MinSwing && d.Swing <= chart.MaxSwing) {
		swing := min(max(d.Swing, chart.MinSwing), chart.MaxSwing)
		say("its swing of %g stands at %g", d.Swing, swing)
		d.Swing = swing
	}
	if capo := min(max(d.Capo, 0), chart.MaxCapo); capo != d.Capo {
		say("its capo on fret %d stands at %d", d.Capo, capo)
		d.Capo = capo
	}
	if key, err := d.Key.Core(); err == nil {
		if _, err := key.Box(harmony.BoxKind(d.Box)); err != nil {
			say("its box %q is the key's own", d.Box)
			d.Box = ""
		}
	}
	feel := chart.Feel(d.Feel)
	if _, err := chart.ParseFeel(d.Feel); err != nil {
		feel = chart.Straight
	}
	if d.Meter == chart.TwelveEight.String() {
		feel = chart.Slow128
	} else if feel == chart.Slow128 {
		feel = chart.Straight
	}
	if string(feel) != d.Feel {
		say("its feel %q stands as %s", d.Feel, feel)
		d.Feel = string(feel)
	}
	tags := []string(nil)
	for _, tag := range d.Tags {
		clean := []rune(strings.TrimSpace(strings.ReplaceAll(chart.Visible(oneLine(tag)), ",", " ")))
		if len(clean) > 0 && len(tags) < chart.MaxTags {
			tags = append(tags, strings.TrimSpace(string(clean[:min(len(clean), chart.MaxTag)])))
		}
	}
	if strings.Join(tags, ",") != strings.Join(d.Tags, ",") {
		say("its tags stand as: %s", strings.Join(tags, ", "))
		d.Tags = tags
	}
	return d, said
}

// seenName is a name as it is kept: without blanks around it and without characters that nobody sees.
func seenName(name string) string { return strings.TrimSpace(chart.Visible(name)) }

func oneLine(text string) string {
	return strings.Map(func(c rune) rune {
		if c < ' ' {
			return ' '
		}
		return c
	}, text)
}

// Mended is the hands with every value that no rule allows brought to the nearest that is
// allowed, and what was done.
func (d Hands) Mended() (Hands, []string) {
	said := []string{}
	if d.Instrument != nil {
		mended, changed := d.Instrument.mended()
		if changed != "" {
			said = append(said, changed)
		}
		d.Instrument = mended
	}
	if d.SpanMM != 0 && !(d.SpanMM >= neck.MinSpanMM && d.SpanMM <= neck.MaxSpanMM) {
		span := min(max(d.SpanMM, neck.MinSpanMM), neck.MaxSpanMM)
		said = append(said, fmt.Sprintf("the span of %g mm stands at %g", d.SpanMM, span))
		d.SpanMM = span
	}
	swaps := []Swap(nil)
	for _, s := range d.Swaps {
		alone := Hands{Swaps: []Swap{s}}
		if _, _, _, err := alone.Core(0); err == nil {
			swaps = append(swaps, s)
		}
	}
	if len(swaps) != len(d.Swaps) {
		said = append(said, fmt.Sprintf("%d moved tones are put back: they cannot be read", len(d.Swaps)-len(swaps)))
		d.Swaps = swaps
	}
	return d, said
}

// mended is the nearest instrument that works, or none where its strings cannot be read.
func (d Instrument) mended() (*Instrument, string) {
	_, err := d.Core()
	if err == nil {
		return &d, ""
	}
	var near *neck.InstrumentError
	if errors.As(err, &near) {
		other := InstrumentOf(near.Nearest)
		return &other, fmt.Sprintf("the instrument %q stands as the nearest that works: %s", d.Name, near.Detail)
	}
	return nil, fmt.Sprintf("the instrument %q cannot be read and is left out: %s", d.Name, err)
}
