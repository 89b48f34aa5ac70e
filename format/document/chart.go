// Package document is Undaris's own JSON: how charts and licks stand in files,
// in requests and in the database. It turns documents into what the core
// computes with and back, and says which field is at fault.
package document

import (
	"errors"
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
	Ending     int    `json:"ending,omitempty" doc:"The number of the ending over the bar, 1 to 4: one that closes with a repeat sign is played as often as that goes back, the last one the last time"`
	Key        *Key   `json:"key,omitempty" doc:"The key from here on"`
	Meter      string `json:"meter,omitempty" doc:"The meter from here on"`
	Feel       string `json:"feel,omitempty" doc:"The feel from here on"`
	Segno      bool   `json:"segno,omitempty" doc:"D.S. goes back to here"`
	Coda       bool   `json:"coda,omitempty" doc:"The coda begins here"`
	ToCoda     bool   `json:"toCoda,omitempty" doc:"After the jump the coda is left for at the end of the bar"`
	Fine       bool   `json:"fine,omitempty" doc:"After the jump the tune ends with the bar"`
	Unread     string `json:"unread,omitempty" doc:"What a file has here that could not be read; the bar is silent until it is written over"`
	Jump       string `json:"jump,omitempty" enum:"D.C.,D.S.,D.C. al fine,D.S. al fine,D.C. al coda,D.S. al coda" doc:"Where the bar sends back to"`
}

// ScaleFor is the scale that the player chose for a chord or for a function.
type ScaleFor struct {
	Chord    string `json:"chord,omitempty" doc:"The chord it is for; left out where it is for a function" example:"A7"`
	Function string `json:"function,omitempty" doc:"The numeral and sign it is for, in whatever key" example:"VI7"`
	Scale    string `json:"scale" example:"altered"`
}

// Chart is a tune: its key, time and bars.
type Chart struct {
	Title     string     `json:"title" doc:"1 to 120 characters"`
	Tags      []string   `json:"tags,omitempty" doc:"The player's own words to find it by"`
	Key       Key        `json:"key"`
	Box       string     `json:"box,omitempty" doc:"The player's box; left out for the key's own"`
	Meter     string     `json:"meter" doc:"The meter of bar 1: 4/4, 12/8, 3/4, 6/8, 2/4, 5/4, 6/4 or 9/8"`
	Tempo     int        `json:"tempo" doc:"Counted beats a minute, 20 to 400"`
	Feel      string     `json:"feel" doc:"straight, shuffle or slow 12/8"`
	Swing     float64    `json:"swing" doc:"In a shuffle, the long eighth over the short, 1 to 3"`
	Capo      int        `json:"capo,omitempty" doc:"The capo's fret; chords are named as they sound"`
	Imagining bool       `json:"imagining,omitempty" doc:"The soloist follows the imagined chords"`
	Scales    []ScaleFor `json:"scales,omitempty" doc:"The scales the player chose for dominants"`
	Pickup    []Span     `json:"pickup,omitempty" doc:"What the band plays in the unfinished bar before bar 1, once"`
	Bars      []Bar      `json:"bars"`
}

// ChartOf writes a chart as a document.
func ChartOf(c chart.Chart) Chart {
	d := Chart{
		Title: c.Title, Tags: c.Tags, Key: Key{Tonic: c.Key.Tonic.String(), Mode: string(c.Key.Mode)}, Box: string(c.Box),
		Meter: c.Meter.String(), Tempo: c.Tempo, Feel: string(c.Feel), Swing: c.Swing, Capo: c.Capo, Imagining: c.Imagining,
		Pickup: spansOf(c.Pickup), Bars: make([]Bar, len(c.Bars)),
	}
	for _, choice := range c.Scales {
		one := ScaleFor{Function: choice.Function, Scale: choice.Scale}
		if choice.Function == "" {
			one.Chord = choice.Chord.Symbol()
		}
		d.Scales = append(d.Scales, one)
	}
	for b, bar := range c.Bars {
		d.Bars[b] = Bar{
			Section: bar.Section, Chords: spansOf(bar.Spans), Imagined: spansOf(bar.Imagined),
			RepeatFrom: bar.RepeatFrom, RepeatTo: bar.RepeatTo, Ending: bar.Ending,
			Feel: string(bar.Change.Feel), Segno: bar.Signs.Segno, Coda: bar.Signs.Coda, ToCoda: bar.Signs.ToCoda, Fine: bar.Signs.Fine, Jump: string(bar.Signs.Jump), Unread: bar.Unread,
		}
		if k := bar.Change.Key; k.Mode != "" {
			d.Bars[b].Key = &Key{Tonic: k.Tonic.String(), Mode: string(k.Mode)}
		}
		if bar.Change.Meter != (chart.Meter{}) {
			d.Bars[b].Meter = bar.Change.Meter.String()
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

// coreSpans reads the spans of a field, whose place errors name.
func coreSpans(spans []Span, field, place string) ([]chart.Span, error) {
	var all []chart.Span
	for s, span := range spans {
		one := chart.Span{Beats: span.Beats}
		if span.Chord != "" {
			chord, err := harmony.ParseChord(span.Chord)
			if err != nil {
				return nil, &chart.FieldError{
					Field: fmt.Sprintf("%s[%d].chord", field, s), Detail: place + ": " + err.Error(),
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
	if c.Pickup, err = coreSpans(d.Pickup, "pickup", "the bar before bar 1"); err != nil {
		return chart.Chart{}, err
	}
	for b, bar := range d.Bars {
		one, err := bar.core(b)
		if err != nil {
			return chart.Chart{}, err
		}
		c.Bars = append(c.Bars, one)
	}
	for n, choice := range d.Scales {
		one := chart.ScaleFor{Function: choice.Function, Scale: choice.Scale}
		if choice.Function == "" {
			if one.Chord, err = harmony.ParseChord(choice.Chord); err != nil {
				return chart.Chart{}, &chart.FieldError{Field: fmt.Sprintf("scales[%d].chord", n), Detail: err.Error()}
			}
		}
		c.Scales = append(c.Scales, one)
	}
	return c, c.Check()
}

// core reads the bar, the nth from 0. Its error is a *chart.FieldError.
func (d Bar) core(b int) (chart.Bar, error) {
	field, place := fmt.Sprintf("bars[%d]", b), fmt.Sprintf("bar %d", b+1)
	bar := chart.Bar{
		Section: d.Section, RepeatFrom: d.RepeatFrom, RepeatTo: d.RepeatTo, Ending: d.Ending, Unread: d.Unread,
		Signs: chart.Signs{Segno: d.Segno, Coda: d.Coda, ToCoda: d.ToCoda, Fine: d.Fine},
	}
	within := func(err error) error {
		var at *chart.FieldError
		if errors.As(err, &at) {
			return &chart.FieldError{Field: field + "." + at.Field, Detail: place + ": " + at.Detail, Cause: at.Cause}
		}
		return err
	}
	var err error
	if bar.Spans, err = coreSpans(d.Chords, field+".chords", place); err != nil {
		return bar, err
	}
	if bar.Imagined, err = coreSpans(d.Imagined, field+".imagined", place); err != nil {
		return bar, err
	}
	if d.Key != nil {
		if bar.Change.Key, err = d.Key.Core(); err != nil {
			return bar, within(err)
		}
	}
	if d.Meter != "" {
		if bar.Change.Meter, err = chart.ParseMeter(d.Meter); err != nil {
			return bar, within(err)
		}
	}
	if d.Feel != "" {
		if bar.Change.Feel, err = chart.ParseFeel(d.Feel); err != nil {
			return bar, within(err)
		}
	}
	if bar.Signs.Jump, err = chart.ParseJump(d.Jump); err != nil {
		return bar, within(err)
	}
	return bar, nil
}
