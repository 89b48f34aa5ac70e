package document

import (
	"errors"
	"fmt"
	"math"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Instrument is a neck: its strings, frets and size.
type Instrument struct {
	Name    string  `json:"name" doc:"1 to 40 characters"`
	Tuning  string  `json:"tuning" doc:"The open strings from the lowest up; octaves may be left out" example:"E2 A2 D3 G3 B3 E4"`
	Frets   int     `json:"frets" doc:"12 to 27"`
	ScaleMM float64 `json:"scaleMm" doc:"From nut to saddle, 300 to 900 mm"`
}

// Swap is a player's choice of the other place for a tone of a shape.
type Swap struct {
	Sign   string `json:"sign" doc:"The chord quality's sign, empty for a major triad"`
	Form   string `json:"form" doc:"The form it makes; empty where forms are not named"`
	Degree string `json:"degree"`
	From   int    `json:"from" minimum:"1" maximum:"8" doc:"The string it would lie on"`
	To     int    `json:"to" minimum:"1" maximum:"8" doc:"The string it is wanted on"`
}

// Hands is what a player plays with: the instrument, how far a hand spans, and
// which places it prefers.
type Hands struct {
	Instrument *Instrument `json:"instrument,omitempty" doc:"Left out for a guitar in standard tuning with 22 frets"`
	SpanMM     float64     `json:"spanMm,omitempty" doc:"A comfortable stretch, 50 to 200 mm; left out for 100"`
	Swaps      []Swap      `json:"swaps,omitempty" maxItems:"500" doc:"Tones wanted at their other place"`
}

// InstrumentOf writes an instrument as a document.
func InstrumentOf(i neck.Instrument) Instrument {
	return Instrument{Name: i.Name, Tuning: i.Tuning(), Frets: i.Frets, ScaleMM: i.ScaleMM}
}

// Core reads the instrument. Its error is a *chart.FieldError or a
// *neck.InstrumentError, which names the nearest that works.
func (d Instrument) Core() (neck.Instrument, error) {
	open, err := neck.ReadTuning(d.Tuning)
	if err != nil {
		return neck.Instrument{}, &chart.FieldError{Field: "tuning", Detail: err.Error()}
	}
	i := neck.Instrument{Name: seenName(d.Name), Open: open, Frets: d.Frets, ScaleMM: d.ScaleMM}
	return i, i.Check()
}

// Core reads the hands, with the instrument as it is above a capo, the span and
// the swaps.
func (d *Hands) Core(capo int) (i neck.Instrument, spanMM float64, swaps []neck.Swap, err error) {
	i, spanMM = neck.Standard(), neck.ComfortableSpanMM
	if d == nil {
		i, err = i.WithCapo(capo)
		return i, spanMM, nil, err
	}
	if d.Instrument != nil {
		if i, err = d.Instrument.Core(); err != nil {
			return neck.Instrument{}, 0, nil, below("instrument", err)
		}
	}
	if i, err = i.WithCapo(capo); err != nil {
		return neck.Instrument{}, 0, nil, below("instrument", err)
	}
	if d.SpanMM != 0 {
		if !(d.SpanMM >= neck.MinSpanMM && d.SpanMM <= neck.MaxSpanMM) || math.IsNaN(d.SpanMM) {
			return neck.Instrument{}, 0, nil, &chart.FieldError{
				Field: "spanMm", Detail: fmt.Sprintf("a span of %.0f mm is not one; %d to %d mm", d.SpanMM, neck.MinSpanMM, neck.MaxSpanMM),
			}
		}
		spanMM = d.SpanMM
	}
	for n, s := range d.Swaps {
		if _, err := pitch.ParseDegree(s.Degree); err != nil {
			return neck.Instrument{}, 0, nil, &chart.FieldError{Field: fmt.Sprintf("swaps[%d].degree", n), Detail: err.Error()}
		}
		swaps = append(swaps, neck.Swap{Sign: s.Sign, Form: neck.Form(s.Form), Degree: s.Degree, From: s.From, To: s.To})
	}
	return i, spanMM, swaps, nil
}

// below puts an error's field below another.
func below(field string, err error) error {
	var named *chart.FieldError
	if errors.As(err, &named) {
		return &chart.FieldError{Field: field + "." + named.Field, Detail: named.Detail}
	}
	var instrument *neck.InstrumentError
	if errors.As(err, &instrument) {
		moved := *instrument
		moved.Field = field + "." + moved.Field
		return &moved
	}
	return err
}
