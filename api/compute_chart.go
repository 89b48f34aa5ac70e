package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/document"
)

// ReadChart is a chart with what it says: numerals, times and changes.
type ReadChart struct {
	Chart    document.Chart `json:"chart"`
	Scheme   string         `json:"scheme" doc:"The scheme its bars follow, empty for none"`
	BarTicks int            `json:"barTicks"`
	Ticks    int            `json:"ticks" doc:"The length of a chorus"`
	BoxName  string         `json:"boxName"`
	Moments  []Moment       `json:"moments" doc:"Every chord on the time line, in order"`
	Changes  []Change       `json:"changes" doc:"Every change of a chorus, in order"`
}

// Moment is one chord on the time line.
type Moment struct {
	Chord string `json:"chord"`
	Roman string `json:"roman"`
	Bar   int    `json:"bar" doc:"From 1"`
	Beat  int    `json:"beat" doc:"From 1"`
	Beats int    `json:"beats"`
	Tick  int    `json:"tick"`
	Ticks int    `json:"ticks"`
	// Next is the change that ends the stretch of this chord.
	Next *int `json:"next,omitempty" doc:"The tick of the change that this chord is left at; none in a one-chord vamp"`
}

// Change is one chord giving way to another.
type Change struct {
	Tick     int    `json:"tick" doc:"Where the arriving chord begins"`
	Leaving  Moment `json:"leaving"`
	Arriving Moment `json:"arriving"`
	Wraps    bool   `json:"wraps" doc:"From the end of the chorus to its start"`
}

// EditChart is a chart and what is to be done to it.
type EditChart struct {
	Chart  document.Chart `json:"chart"`
	Tonic  string         `json:"tonic,omitempty" doc:"Transpose to this tonic"`
	Scheme string         `json:"scheme,omitempty" doc:"Replace the bars by this scheme"`
	Feel   string         `json:"feel,omitempty" doc:"Play with this feel"`
}

// NewChart is a chart to be made from a scheme.
type NewChart struct {
	Title  string `json:"title"`
	Tonic  string `json:"tonic"`
	Scheme string `json:"scheme"`
	Tempo  int    `json:"tempo"`
	Feel   string `json:"feel"`
}

func (s *server) registerComputeChart(api huma.API) {
	huma.Post(api, "/api/compute/chart", func(_ context.Context, in *body[EditChart]) (*body[ReadChart], error) {
		c, err := in.Body.edited()
		if err != nil {
			return nil, err
		}
		return &body[ReadChart]{readChart(c)}, nil
	})
	huma.Post(api, "/api/compute/scheme", func(_ context.Context, in *body[NewChart]) (*body[ReadChart], error) {
		c, err := in.Body.made()
		if err != nil {
			return nil, invalid("", err)
		}
		return &body[ReadChart]{readChart(c)}, nil
	})
}

// defaultSwing is triplet swing, as a new chart has it.
const defaultSwing = 2

func (n NewChart) made() (chart.Chart, error) {
	scheme, err := chart.FindScheme(n.Scheme)
	if err != nil {
		return chart.Chart{}, err
	}
	key, err := harmony.ParseKey(n.Tonic, scheme.In)
	if err != nil {
		return chart.Chart{}, &chart.FieldError{Field: "tonic", Detail: err.Error()}
	}
	feel, err := chart.ParseFeel(n.Feel)
	if err != nil {
		return chart.Chart{}, err
	}
	c := chart.Chart{
		Title: n.Title, Key: key, Meter: chart.FourFour, Tempo: n.Tempo, Swing: defaultSwing,
		Bars: scheme.Bars(key.Tonic, chart.FourFour),
	}.Felt(feel)
	return c, c.Check()
}

func (e EditChart) edited() (chart.Chart, error) {
	c, err := e.Chart.Core()
	if err != nil {
		return c, invalid("chart", err)
	}
	if e.Feel != "" {
		feel, err := chart.ParseFeel(e.Feel)
		if err != nil {
			return c, invalid("", err)
		}
		c = c.Felt(feel)
	}
	if e.Tonic != "" {
		key, err := harmony.ParseKey(e.Tonic, c.Key.Mode)
		if err != nil {
			return c, invalid("tonic", err)
		}
		c = c.Transposed(key)
	}
	if e.Scheme != "" {
		scheme, err := chart.FindScheme(e.Scheme)
		if err != nil {
			return c, invalid("", err)
		}
		c.Key.Mode = scheme.In
		c.Bars = scheme.Bars(c.Key.Tonic, c.Meter)
	}
	return c, nil
}

func readChart(c chart.Chart) ReadChart {
	r := ReadChart{
		Chart: document.ChartOf(c), Scheme: c.SchemeOf(), BarTicks: c.Meter.BarTicks(), Ticks: c.Ticks(),
		Moments: []Moment{}, Changes: []Change{},
	}
	if box, err := c.Key.Box(c.Box); err == nil {
		r.BoxName = box.Name()
	}
	changes := c.Changes()
	for _, m := range c.Moments() {
		moment := momentOf(c, m)
		for _, ch := range changes {
			if ch.Leaving.Tick >= m.Tick {
				moment.Next = &ch.Tick
				break
			}
		}
		r.Moments = append(r.Moments, moment)
	}
	for _, ch := range changes {
		r.Changes = append(r.Changes, changeOf(c, ch))
	}
	return r
}

func momentOf(c chart.Chart, m chart.Moment) Moment {
	return Moment{
		Chord: m.Chord.Symbol(), Roman: c.Key.Roman(m.Chord), Bar: m.Bar + 1, Beat: m.Beat + 1,
		Beats: m.Ticks / c.Meter.BeatTicks(), Tick: m.Tick, Ticks: m.Ticks,
	}
}

func changeOf(c chart.Chart, ch chart.Change) Change {
	return Change{Tick: ch.Tick, Leaving: momentOf(c, ch.Leaving), Arriving: momentOf(c, ch.Arriving), Wraps: ch.Wraps()}
}
