package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/exercise"
)

// SequenceRequest asks for an exercise written out over bars of a chart.
type SequenceRequest struct {
	PlayContext
	Position    string `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Tones       string `json:"tones,omitempty" doc:"What is walked over; left out for chord tones"`
	Figure      string `json:"figure,omitempty" doc:"The figure; left out for one after another"`
	Order       string `json:"order,omitempty" doc:"Which way round; left out for as written"`
	Subdivision string `json:"subdivision,omitempty" doc:"Left out for eighths"`
	From        int    `json:"from" minimum:"1" doc:"The first bar, from 1"`
	Bars        int    `json:"bars" minimum:"1" maximum:"64"`
}

func (s *server) registerComputeSequence(api huma.API) {
	huma.Post(api, "/api/compute/exercise/sequence", func(_ context.Context, in *body[SequenceRequest]) (*body[Tab], error) {
		on, position, subdivision, err := in.Body.inTime(in.Body.Position, in.Body.Subdivision)
		if err != nil {
			return nil, err
		}
		p, err := exercise.Sequence{
			Chart: on.chart, Instrument: on.instrument, Window: position.Window, Subdivision: subdivision, From: in.Body.From - 1, Bars: in.Body.Bars,
			Tones: first(in.Body.Tones, exercise.SequenceTones), Figure: first(in.Body.Figure, exercise.SequenceFigures(exercise.BoxTones)), Order: first(in.Body.Order, exercise.SequenceOrders),
		}.Write()
		if err != nil {
			return nil, invalid("", err)
		}
		return &body[Tab]{on.tab(p, (in.Body.From-1)*on.chart.Meter.BarTicks(), "")}, nil
	})
}

// first is what was chosen, or else the first of what may be.
func first(chosen string, all []string) string {
	if chosen == "" {
		return all[0]
	}
	return chosen
}
