// Package document is Undaris's own JSON: how charts and licks stand in files,
// in requests and in the database. It turns documents into what the core
// computes with and back, and says which field is at fault.
package document

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
)

// Key is the key of a chart.
type Key struct {
	Tonic string `json:"tonic" doc:"The home note, a letter with at most one b or #" example:"C"`
	Mode  string `json:"mode" doc:"dominant (a blues), major or minor" example:"dominant"`
}

// Span is one chord of a bar.
type Span struct {
	Chord string `json:"chord" doc:"The chord's symbol; empty for silence of the band, or, imagined, for the chord as written" example:"C7"`
	Beats int    `json:"beats" doc:"How many counted beats it lasts"`
}

// Bar is one bar of a chart.
type Bar struct {
	Section    string `json:"section,omitempty" doc:"The label of the section that begins here"`
	Chords     []Span `json:"chords" doc:"What the band plays; the beats add up to the meter's"`
	Imagined   []Span `json:"imagined,omitempty" doc:"What the soloist thinks of instead, in the same beats"`
	RepeatFrom bool   `json:"repeatFrom,omitempty" doc:"A repeat starts here"`
	RepeatTo   int    `json:"repeatTo,omitempty" doc:"A repeat ends here and is played so many times"`
	Ending     int    `json:"ending,omitempty" doc:"1: played every time but the last; 2: the last time"`
}

// Chart is a tune: its key, time and bars.
type Chart struct {
	Title     string   `json:"title" doc:"1 to 120 characters"`
	Tags      []string `json:"tags,omitempty" doc:"The player's own words to find it by"`
	Key       Key      `json:"key"`
	Box       string   `json:"box,omitempty" doc:"The player's box; left out for the key's own"`
	Meter     string   `json:"meter" doc:"4/4, 3/4, 6/8 or 12/8"`
	Tempo     int      `json:"tempo" doc:"Counted beats a minute, 20 to 400"`
	Feel      string   `json:"feel" doc:"straight, shuffle or slow 12/8"`
	Swing     float64  `json:"swing" doc:"In a shuffle, the long eighth over the short, 1 to 3"`
	Capo      int      `json:"capo,omitempty" doc:"The capo's fret; chords are named as they sound"`
	Imagining bool     `json:"imagining,omitempty" doc:"The soloist follows the imagined chords"`
	Bars      []Bar    `json:"bars"`
}

// ChartOf writes a chart as a document.
func ChartOf(c chart.Chart) Chart {
	d := Chart{
		Title: c.Title, Tags: c.Tags, Key: Key{Tonic: c.Key.Tonic.String(), Mode: string(c.Key.Mode)}, Box: string(c.Box),
		Meter: c.Meter.String(), Tempo: c.Tempo, Feel: string(c.Feel), Swing: c.Swing, Capo: c.Capo, Imagining: c.Imagining,
		Bars: make([]Bar, len(c.Bars)),
	}
	for b, bar := range c.Bars {
		d.Bars[b] = Bar{
			Section: bar.Section, Chords: spansOf(bar.Spans), Imagined: spansOf(bar.Imagined),
			RepeatFrom: bar.RepeatFrom, RepeatTo: bar.RepeatTo, Ending: bar.Ending,
		}
	}
	return d
}

func spansOf(spans []chart.Span) []Span {
	var all []Span
	for _, span := range spans {
		symbol := ""
		if !span.Empty() {
			symbol = span.Chord.Symbol()
		}
		all = append(all, Span{Chord: symbol, Beats: span.Beats})
	}
	return all
}

func coreSpans(spans []Span, b int, field string) ([]chart.Span, error) {
	var all []chart.Span
	for s, span := range spans {
		one := chart.Span{Beats: span.Beats}
		if span.Chord != "" {
			chord, err := harmony.ParseChord(span.Chord)
			if err != nil {
				return nil, &chart.FieldError{
					Field: fmt.Sprintf("bars[%d].%s[%d].chord", b, field, s), Detail: fmt.Sprintf("bar %d: %s", b+1, err),
				}
			}
			one.Chord = chord
		}
		all = append(all, one)
	}
	return all, nil
}

// Core reads the key. Its error is a *chart.FieldError below "key".
func (k Key) Core() (harmony.Key, error) {
	if _, err := harmony.ParseKey(k.Tonic, harmony.DominantMode); err != nil {
		return harmony.Key{}, &chart.FieldError{Field: "key.tonic", Detail: err.Error()}
	}
	key, err := harmony.ParseKey(k.Tonic, harmony.Mode(k.Mode))
	if err != nil {
		return harmony.Key{}, &chart.FieldError{Field: "key.mode", Detail: err.Error()}
	}
	return key, nil
}

// Core reads the chart and checks it whole. Its error is a *chart.FieldError.
func (d Chart) Core() (chart.Chart, error) {
	key, err := d.Key.Core()
	if err != nil {
		return chart.Chart{}, err
	}
	meter, err := chart.ParseMeter(d.Meter)
	if err != nil {
		return chart.Chart{}, err
	}
	feel, err := chart.ParseFeel(d.Feel)
	if err != nil {
		return chart.Chart{}, err
	}
	c := chart.Chart{
		Title: d.Title, Tags: d.Tags, Key: key, Box: harmony.BoxKind(d.Box), Meter: meter, Tempo: d.Tempo, Feel: feel, Swing: d.Swing,
		Capo: d.Capo, Imagining: d.Imagining,
	}
	if len(d.Bars) > chart.MaxBars {
		return chart.Chart{}, &chart.FieldError{Field: "bars", Detail: fmt.Sprintf("there are %d bars; a chart has 1 to %d", len(d.Bars), chart.MaxBars)}
	}
	for b, bar := range d.Bars {
		one := chart.Bar{Section: bar.Section, RepeatFrom: bar.RepeatFrom, RepeatTo: bar.RepeatTo, Ending: bar.Ending}
		if one.Spans, err = coreSpans(bar.Chords, b, "chords"); err != nil {
			return chart.Chart{}, err
		}
		if one.Imagined, err = coreSpans(bar.Imagined, b, "imagined"); err != nil {
			return chart.Chart{}, err
		}
		c.Bars = append(c.Bars, one)
	}
	return c, c.Check()
}
