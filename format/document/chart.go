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
	Chord string `json:"chord" doc:"The chord's symbol" example:"C7"`
	Beats int    `json:"beats" doc:"How many counted beats it lasts"`
}

// Bar is one bar of a chart.
type Bar struct {
	Chords []Span `json:"chords" doc:"The bar's chords; their beats add up to the meter's"`
}

// Chart is a tune: its key, time and bars.
type Chart struct {
	Title string  `json:"title" doc:"1 to 120 characters"`
	Key   Key     `json:"key"`
	Box   string  `json:"box,omitempty" doc:"The player's box; left out for the key's own"`
	Meter string  `json:"meter" doc:"4/4, 3/4, 6/8 or 12/8"`
	Tempo int     `json:"tempo" doc:"Counted beats a minute, 20 to 400"`
	Feel  string  `json:"feel" doc:"straight, shuffle or slow 12/8"`
	Swing float64 `json:"swing" doc:"In a shuffle, the long eighth over the short, 1 to 3"`
	Bars  []Bar   `json:"bars"`
}

// ChartOf writes a chart as a document.
func ChartOf(c chart.Chart) Chart {
	d := Chart{
		Title: c.Title, Key: Key{Tonic: c.Key.Tonic.String(), Mode: string(c.Key.Mode)}, Box: string(c.Box),
		Meter: c.Meter.String(), Tempo: c.Tempo, Feel: string(c.Feel), Swing: c.Swing, Bars: make([]Bar, len(c.Bars)),
	}
	for b, bar := range c.Bars {
		for _, span := range bar.Spans {
			d.Bars[b].Chords = append(d.Bars[b].Chords, Span{Chord: span.Chord.Symbol(), Beats: span.Beats})
		}
	}
	return d
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
		Title: d.Title, Key: key, Box: harmony.BoxKind(d.Box), Meter: meter, Tempo: d.Tempo, Feel: feel, Swing: d.Swing,
	}
	if len(d.Bars) > chart.MaxBars {
		return chart.Chart{}, &chart.FieldError{Field: "bars", Detail: fmt.Sprintf("there are %d bars; a chart has 1 to %d", len(d.Bars), chart.MaxBars)}
	}
	for b, bar := range d.Bars {
		spans := chart.Bar{}
		for s, span := range bar.Chords {
			chord, err := harmony.ParseChord(span.Chord)
			if err != nil {
				return chart.Chart{}, &chart.FieldError{
					Field: fmt.Sprintf("bars[%d].chords[%d].chord", b, s), Detail: fmt.Sprintf("bar %d: %s", b+1, err),
				}
			}
			spans.Spans = append(spans.Spans, chart.Span{Chord: chord, Beats: span.Beats})
		}
		c.Bars = append(c.Bars, spans)
	}
	return c, c.Check()
}
