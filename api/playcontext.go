package api

import (
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/solo/chorus"
	"undaris/format/document"
)

// PlayContext is what most computations begin with: the chart, and the hands that are to
// play it.
type PlayContext struct {
	Chart document.Chart  `json:"chart"`
	Hands *document.Hands `json:"hands,omitempty" doc:"Left out for a guitar in standard tuning"`
	At    *int            `json:"at,omitempty" doc:"A tick of the chart: positions and box are those of the key that holds there; left out for the first key"`
}

// playContext is On, read.
type playContext struct {
	chart chart.Chart
	// instrument is the neck above the chart's capo.
	instrument neck.Instrument
	spanMM     float64
	swaps      []neck.Swap
	// at is the tick that is looked at; nil for the first bar.
	at *int
}

// home is the key that is at home where the player looks.
func (o playContext) home() harmony.Key {
	if o.at == nil {
		return o.chart.Key
	}
	t := o.chart.Timeline()
	return t.KeyAt(t.BarAt(*o.at))
}

// meter is the meter that holds where the player looks.
func (o playContext) meter() chart.Meter {
	if o.at == nil {
		return o.chart.Meter
	}
	t := o.chart.Timeline()
	return t.MeterAt(t.BarAt(*o.at))
}

// withChart is the same hands over another chart, looked at from its first bar.
func (o playContext) withChart(c chart.Chart) playContext {
	o.chart, o.at = c, nil
	return o
}

func (o PlayContext) read() (playContext, error) {
	c, err := o.Chart.Core()
	if err != nil {
		return playContext{}, invalid("chart", err)
	}
	read := playContext{chart: c, at: o.At}
	if read.instrument, read.spanMM, read.swaps, err = o.Hands.Core(c.Capo); err != nil {
		return playContext{}, invalid("hands", err)
	}
	return read, nil
}

// chord reads a chord symbol as the chart has it where the player looks, or as it first has it.
func (o playContext) chord(symbol string) (harmony.Chord, error) {
	c, err := harmony.ParseChord(symbol)
	if err != nil {
		return c, err
	}
	if o.at != nil {
		if here := o.chart.ChordAt(*o.at); here.Same(c) {
			return here, nil
		}
	}
	return o.chart.InContext(c), nil
}

// position finds a position of the key that holds where the player looks; one of another key of the chart is
// followed there.
func (o playContext) position(text string) (neck.Position, error) {
	p, err := chorus.FindPosition(o.chart, o.instrument, o.home(), text)
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
	s, err := read.meter().Subdivision(subdivision)
	if err != nil {
		return playContext{}, neck.Position{}, chart.Subdivision{}, invalid("", err)
	}
	return read, p, s, nil
}
