// Package formattest draws charts for the property tests of the formats: anything
// that a chart can have.
package formattest

import (
	"strings"

	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/chart/charttest"
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
	c.Bars = chart.EmptyBars(rapid.IntRange(1, 14).Draw(t, "bars"), c.Meter)
	c = charttest.Changed(t, c)
	for b := range c.Bars {
		fill(t, &c.Bars[b], c.SettingOf(b).Meter.Beats())
	}
	c = charttest.Signed(t, c)
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

func fill(t *rapid.T, bar *chart.Bar, beats int) {
	bar.Spans = charttest.Spans(t, beats, chord)
	if rapid.IntRange(0, 4).Draw(t, "section?") == 0 {
		bar.Section = rapid.SampledFrom([]string{"A", "B", "Intro", "Ending", "Verse 1", "key: x", "; odd"}).Draw(t, "section")
	}
	if rapid.IntRange(0, 3).Draw(t, "imagined?") == 0 {
		for _, span := range charttest.Spans(t, beats, chord) {
			if !span.Empty() {
				bar.Imagined = []chart.Span{{Chord: span.Chord, Beats: 1}, {Beats: beats - 1}}
			}
		}
	}
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
