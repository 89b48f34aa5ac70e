package api

import (
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/format/document"
)

// PlayContext is what most computations begin with: the chart, and the hands that are to
// play it.
type PlayContext struct {
	Chart document.Chart  `json:"chart"`
	Hands *document.Hands `json:"hands,omitempty" doc:"Left out for a guitar in standard tuning"`
}

// playContext is On, read.
type playContext struct {
	chart chart.Chart
	// instrument is the neck above the chart's capo.
	instrument neck.Instrument
	spanMM     float64
	swaps      []neck.Swap
}

func (o PlayContext) read() (playContext, error) {
	c, err := o.Chart.Core()
	if err != nil {
		return playContext{}, invalid("chart", err)
	}
	read := playContext{chart: c}
	if read.instrument, read.spanMM, read.swaps, err = o.Hands.Core(c.Capo); err != nil {
		return playContext{}, invalid("hands", err)
	}
	return read, nil
}

// position finds a position of the chart's key.
func (o playContext) position(text string) (neck.Position, error) {
	p, err := neck.FindPosition(o.instrument, o.chart.Key.Tonic.Class(), text)
	if err != nil {
		return neck.Position{}, invalid("position", err)
	}
	return p, nil
}

// inTime reads what is written out in time: the chart and hands, a position of its
// key and a subdivision of its meter.
func (o PlayContext) inTime(position, subdivision string) (playContext, neck.Position, chart.Subdivision, error) {
	read, err := o.read()
	if err != nil {
		return playContext{}, neck.Position{}, chart.Subdivision{}, err
	}
	p, err := read.position(position)
	if err != nil {
		return playContext{}, neck.Position{}, chart.Subdivision{}, err
	}
	s, err := read.chart.Meter.Subdivision(subdivision)
	if err != nil {
		return playContext{}, neck.Position{}, chart.Subdivision{}, invalid("", err)
	}
	return read, p, s, nil
}
