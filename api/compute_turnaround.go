package api

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/format/document"
)

// TurnaroundsRequest asks for every turnaround in a key and meter.
type TurnaroundsRequest struct {
	Key   document.Key `json:"key"`
	Meter string       `json:"meter"`
}

// Turnaround is two bars that lead back to the top, or that end the tune.
type Turnaround struct {
	Name  string `json:"name"`
	About string `json:"about" doc:"What it does"`
	Ends  bool   `json:"ends" doc:"It ends the tune"`
	// Bars is left out where Unfit says why.
	Bars    []string `json:"bars,omitempty" doc:"Its two bars in this key, in the bar notation"`
	Refused string   `json:"refused,omitempty" doc:"Why it does not fit the meter"`
}

func (s *server) registerComputeTurnarounds(api huma.API) {
	posts(api, "/api/compute/chart/turnarounds", func(_ context.Context, in *body[TurnaroundsRequest]) (*body[[]Turnaround], error) {
		key, err := in.Body.Key.Core()
		if err != nil {
			return nil, invalid("", err)
		}
		meter, err := chart.ParseMeter(in.Body.Meter)
		if err != nil {
			return nil, invalid("", err)
		}
		all := make([]Turnaround, len(chart.Turnarounds))
		for n, t := range chart.Turnarounds {
			all[n] = Turnaround{Name: t.Name, About: t.About, Ends: t.Ends}
			bars, err := t.Bars(key, meter)
			var unfit *chart.FieldError
			if errors.As(err, &unfit) {
				all[n].Refused = unfit.Detail
				continue
			}
			for _, bar := range bars {
				all[n].Bars = append(all[n].Bars, chart.Text(bar.Spans))
			}
		}
		return &body[[]Turnaround]{all}, nil
	})
}
