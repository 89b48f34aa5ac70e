// Package drawn draws charts for the property tests of the formats: anything
// that a chart can have.
package drawn

import (
	"strings"

	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Chart draws a chart that can be kept.
func Chart(t *rapid.T) chart.Chart {
	mode := rapid.SampledFrom(harmony.Modes).Draw(t, "mode")
	key, err := harmony.ParseKey(rapid.SampledFrom(mode.Tonics()).Draw(t, "tonic"), mode)
	if err != nil {
		t.Fatal(err)
	}
	c := chart.Chart{
		Title: text(t, "title", 40), Key: key, Box: rapid.SampledFrom(append([]harmony.BoxKind{""}, harmony.BoxKinds...)).Draw(t, "box"),
		Meter: rapid.SampledFrom(chart.Meters).Draw(t, "meter"), Tempo: rapid.IntRange(chart.MinTempo, chart.MaxTempo).Draw(t, "tempo"),
		Feel:  rapid.SampledFrom([]chart.Feel{chart.Straight, chart.Shuffle}).Draw(t, "feel"),
		Swing: float64(rapid.IntRange(10, 30).Draw(t, "swing")) / 10, Capo: rapid.IntRange(0, chart.MaxCapo).Draw(t, "capo"),
		Imagining: rapid.Bool().Draw(t, "imagining"),
	}
	if c.Meter == chart.TwelveEight {
		c.Feel = chart.Slow128
	}
	for range rapid.IntRange(0, 3).Draw(t, "tags") {
		c.Tags = append(c.Tags, strings.ReplaceAll(text(t, "tag", 12), ",", "-"))
	}
	for range rapid.IntRange(1, 14).Draw(t, "bars") {
		c.Bars = append(c.Bars, bar(t, c))
	}
	for range rapid.IntRange(0, 4).Draw(t, "signs") {
		at, count := rapid.IntRange(0, len(c.Bars)-1).Draw(t, "at"), rapid.IntRange(1, 4).Draw(t, "count")
		number := rapid.IntRange(1, 4).Draw(t, "number")
		edit := rapid.SampledFrom([]func() (chart.Chart, error){
			func() (chart.Chart, error) { return c.Repeat(at, count, number) },
			func() (chart.Chart, error) { return c.Ending(at, count, 1+number%2) },
		}).Draw(t, "sign")
		if next, err := edit(); err == nil {
			c = next
		}
	}
	if err := c.Check(); err != nil {
		t.Fatal(err)
	}
	return c
}

// text draws a line that a title or a tag may be.
func text(t *rapid.T, label string, most int) string {
	drawn := strings.TrimSpace(rapid.StringMatching(`[A-Za-z0-9 .;:#|\[\]{}&<>"'éß♭–-]{1,`+string(rune('0'+most/10))+`0}`).Draw(t, label))
	if drawn == "" {
		return "x"
	}
	return drawn
}

func bar(t *rapid.T, c chart.Chart) chart.Bar {
	drawn := chart.Bar{Spans: spans(t, c)}
	if rapid.IntRange(0, 4).Draw(t, "section?") == 0 {
		drawn.Section = rapid.SampledFrom([]string{"A", "B", "Intro", "Ending", "Verse 1", "key: x", "; odd"}).Draw(t, "section")
	}
	if rapid.IntRange(0, 3).Draw(t, "imagined?") == 0 {
		for _, span := range spans(t, c) {
			if !span.Empty() {
				drawn.Imagined = []chart.Span{{Chord: span.Chord, Beats: 1}, {Beats: c.Meter.Beats() - 1}}
			}
		}
	}
	return drawn
}

func spans(t *rapid.T, c chart.Chart) []chart.Span {
	all := []chart.Span{}
	for left := c.Meter.Beats(); left > 0; {
		span := chart.Span{Beats: rapid.IntRange(1, left).Draw(t, "beats")}
		if rapid.IntRange(0, 6).Draw(t, "silent?") > 0 {
			span.Chord = chord(t)
		}
		left -= span.Beats
		all = append(all, span)
	}
	return all
}

func chord(t *rapid.T) harmony.Chord {
	note := func(label string) pitch.Note {
		return pitch.Note{Letter: pitch.Letter(rapid.IntRange(0, 6).Draw(t, label)), Accidental: rapid.IntRange(-2, 2).Draw(t, label)}
	}
	symbol := note("root").String() + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign")
	if rapid.IntRange(0, 4).Draw(t, "bass?") == 0 {
		symbol += "/" + note("bass").String()
	}
	drawn, err := harmony.ParseChord(symbol)
	if err != nil {
		t.Fatal(err)
	}
	return drawn
}
