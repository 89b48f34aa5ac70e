package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/routine"
	"undaris/format/document"
)

// RoutinesRequest asks what routines a tune has.
type RoutinesRequest struct {
	PlayContext
	Own []document.Routine `json:"own,omitempty" maxItems:"100" doc:"The player's own"`
}

// Routines are those that a tune has: the ready-made ones, then the player's own.
type Routines struct {
	Routines []RoutineView `json:"routines"`
}

// RoutineView is a routine over a tune.
type RoutineView struct {
	Routine document.Routine `json:"routine"`
	Own     bool             `json:"own" doc:"It is the player's; the others are ready-made"`
	Text    string           `json:"text" doc:"How long it takes and where it ends"`
	Seconds float64          `json:"seconds" doc:"Its length; of one that goes on until the player asks, the length of what it has played through once"`
	Waits   bool             `json:"waits" doc:"It goes on until the player asks"`
	// Fault is left out where it can be played.
	Fault    string        `json:"fault,omitempty" doc:"Why it cannot be played over the tune as it is"`
	Segments []SegmentView `json:"segments"`
}

// SegmentView is a segment of a routine in words.
type SegmentView struct {
	Text    string  `json:"text" doc:"How long it is and what changes"`
	Seconds float64 `json:"seconds"`
}

func (s *server) registerComputeRoutines(api huma.API) {
	posts(api, "/api/compute/band/routines", func(_ context.Context, in *body[RoutinesRequest]) (*body[Routines], error) {
		on, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		out := Routines{Routines: []RoutineView{}}
		for _, r := range routine.Ready(on.chart) {
			out.Routines = append(out.Routines, on.routineView(document.RoutineOf(r), false))
		}
		for _, r := range in.Body.Own {
			out.Routines = append(out.Routines, on.routineView(r, true))
		}
		return &body[Routines]{out}, nil
	})
}

func (o playContext) routineView(d document.Routine, own bool) RoutineView {
	view := RoutineView{Routine: d, Own: own, Segments: make([]SegmentView, len(d.Segments))}
	r, err := d.Core(o.chart)
	for n, s := range r.Segments {
		view.Segments[n].Text = s.Text()
	}
	if err != nil {
		view.Fault = err.Error()
		return view
	}
	outline := r.Outline(o.chart)
	view.Text = outline.Text(o.chart.Tempo, o.chart.Key.Tonic.String())
	view.Seconds, view.Waits = outline.Seconds, outline.Waits
	for n, seconds := range outline.Segments {
		view.Segments[n].Seconds = seconds
	}
	return view
}
