package api

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/lick"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/core/solo/planner"
	"undaris/format/document"
)

// SoloRequest asks for a chorus to be planned.
type SoloRequest struct {
	PlayContext
	Plan  document.ChorusPlan `json:"plan"`
	Licks []document.Lick     `json:"licks,omitempty" maxItems:"500" doc:"The vocabulary"`
	Kept  []document.Block    `json:"kept,omitempty" maxItems:"4096" doc:"Blocks that stay as they are, in order of time"`
}

// WholeRequest asks for several choruses that are planned as one solo.
type WholeRequest struct {
	PlayContext
	Plan     document.ChorusPlan `json:"plan" doc:"What every chorus is planned by"`
	Licks    []document.Lick     `json:"licks,omitempty" maxItems:"500" doc:"The vocabulary"`
	Choruses int                 `json:"choruses" minimum:"2" maximum:"16"`
	Kept     [][]document.Block  `json:"kept,omitempty" maxItems:"16" doc:"Blocks of each chorus that stay as they are"`
}

// WholeSolo is the best chorus of each, in order.
type WholeSolo struct {
	Choruses    []document.Chorus `json:"choruses"`
	Concessions []Concession      `json:"concessions" doc:"What of the plan gave way"`
}

// PlannedSolo is up to three choruses, the best first.
type PlannedSolo struct {
	Best        []ChorusView `json:"best"`
	Concessions []Concession `json:"concessions" doc:"What of the plan gave way, so that a chorus could be had"`
}

// Concession is a part of a plan that gave way.
type Concession struct {
	Field string `json:"field"`
	Text  string `json:"text"`
}

// ChorusesRequest asks for the line of several choruses.
type ChorusesRequest struct {
	PlayContext
	Choruses []document.Chorus `json:"choruses" minItems:"1" maxItems:"16"`
}

// JoinedChoruses is their line, to be played.
type JoinedChoruses struct {
	Phrase document.Phrase `json:"phrase"`
	Bars   int             `json:"bars"`
}

// TransposeSolo asks for a solo as it lies after its tune or its neck has changed.
type TransposeSolo struct {
	Solo document.Solo `json:"solo"`
	From PlayContext   `json:"from" doc:"What it is over and for"`
	To   PlayContext   `json:"to" doc:"What it is to be over and for"`
}

// TransposedSolo is a solo moved along, and what could not stay.
type TransposedSolo struct {
	Solo        document.Solo    `json:"solo"`
	Concessions []SoloConcession `json:"concessions"`
}

// SoloConcession is something that could not stay as it was.
type SoloConcession struct {
	Chorus int    `json:"chorus" doc:"From 0"`
	Tick   int    `json:"tick" doc:"Of that chorus"`
	Text   string `json:"text"`
}

// planProblem is the problem for what cannot be planned; where nobody waits any more it is that.
func planProblem(err error) error {
	if errors.Is(err, errBusy) || errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	return invalid("plan", err)
}

func (s *server) registerComputeSolo(api huma.API) {
	posts(api, "/api/compute/solo/transposed", func(_ context.Context, in *body[TransposeSolo]) (*body[TransposedSolo], error) {
		from, err := in.Body.From.core()
		if err != nil {
			return nil, err
		}
		to, err := in.Body.To.core()
		if err != nil {
			return nil, err
		}
		moved, conceded, err := in.Body.Solo.Transposed(from, to)
		if err != nil {
			return nil, invalid("solo", err)
		}
		out := TransposedSolo{Solo: moved, Concessions: []SoloConcession{}}
		for _, c := range conceded {
			out.Concessions = append(out.Concessions, SoloConcession{Chorus: c.Chorus, Tick: c.Tick, Text: c.Text})
		}
		return &body[TransposedSolo]{out}, nil
	})
	posts(api, "/api/compute/solo", func(ctx context.Context, in *body[SoloRequest]) (*body[PlannedSolo], error) {
		on, request, err := in.Body.order(in.Body.Plan, in.Body.Licks)
		if err != nil {
			return nil, err
		}
		if request.Kept, err = document.Blocks(in.Body.Kept, on.chart, on.instrument); err != nil {
			return nil, invalid("kept", err)
		}
		planned, err := planner.Plan(ctx, request)
		if err != nil {
			return nil, planProblem(err)
		}
		out := PlannedSolo{Concessions: []Concession{}}
		for _, p := range planned.Best {
			view, err := on.chorus(request, p.Chorus, "", nil)
			if err != nil {
				return nil, err
			}
			out.Best = append(out.Best, view)
		}
		for _, g := range planned.Concessions {
			out.Concessions = append(out.Concessions, Concession{g.Field, g.Text})
		}
		return &body[PlannedSolo]{out}, nil
	})
	posts(api, "/api/compute/solo/whole", func(ctx context.Context, in *body[WholeRequest]) (*body[WholeSolo], error) {
		plan := in.Body.Plan
		plan.Part = nil
		on, request, err := in.Body.order(plan, in.Body.Licks)
		if err != nil {
			return nil, err
		}
		kept := make([][]chorus.Block, len(in.Body.Kept))
		for n, blocks := range in.Body.Kept {
			if kept[n], err = document.Blocks(blocks, on.chart, on.instrument); err != nil {
				return nil, invalid(fmt.Sprintf("kept[%d]", n), err)
			}
		}
		planned, err := planner.PlanWhole(ctx, request, in.Body.Choruses, kept)
		if err != nil {
			return nil, planProblem(err)
		}
		out := WholeSolo{Concessions: []Concession{}}
		for n, p := range planned {
			one := plan
			one.Seed += uint64(n)
			one.Part = &document.ChorusPart{Chorus: n + 1, Of: len(planned)}
			out.Choruses = append(out.Choruses, document.Chorus{Plan: one, Blocks: document.BlocksOf(p.Best[0].Blocks)})
			for _, g := range p.Concessions {
				if said := (Concession{g.Field, g.Text}); !slices.Contains(out.Concessions, said) {
					out.Concessions = append(out.Concessions, said)
				}
			}
		}
		return &body[WholeSolo]{out}, nil
	})
	posts(api, "/api/compute/solo/chorus", func(ctx context.Context, in *body[ChorusRequest]) (*body[ChorusView], error) {
		on, request, err := in.Body.order(in.Body.Chorus.Plan, in.Body.Licks)
		if err != nil {
			return nil, err
		}
		blocks, err := document.Blocks(in.Body.Chorus.Blocks, on.chart, on.instrument)
		if err != nil {
			return nil, invalid("chorus", err)
		}
		current, remarks, block := chorus.Chorus{Blocks: blocks}, []string{}, -1
		if in.Body.Edit != nil {
			edit, err := in.Body.Edit.core(on, request)
			if err != nil {
				return nil, err
			}
			stage, err := chorus.ParseStage(in.Body.Chorus.Stage)
			if err != nil {
				return nil, invalid("chorus", err)
			}
			if edit.Note, err = request.NoteInWhole(current, stage, edit.Note); err != nil {
				return nil, invalid("", err)
			}
			edited, err := planner.Edit(ctx, request, current, edit)
			if err != nil {
				return nil, invalid("", err)
			}
			current, remarks, block = edited.Chorus, edited.Remarks, edited.Block
		}
		view, err := on.chorus(request, current, in.Body.Chorus.Stage, remarks)
		if err != nil {
			return nil, err
		}
		view.Block = block
		return &body[ChorusView]{view}, nil
	})
	posts(api, "/api/compute/solo/line", func(_ context.Context, in *body[ChorusesRequest]) (*body[JoinedChoruses], error) {
		on, line, err := in.Body.joined(in.Body.Choruses)
		if err != nil {
			return nil, err
		}
		return &body[JoinedChoruses]{JoinedChoruses{document.PhraseOf(line), len(in.Body.Choruses) * len(on.chart.PlayedBars())}}, nil
	})
}

// order reads what a chorus is planned by.
func (o PlayContext) order(plan document.ChorusPlan, licks []document.Lick) (playContext, chorus.Request, error) {
	read, err := o.read()
	if err != nil {
		return playContext{}, chorus.Request{}, err
	}
	vocabulary := make([]lick.Lick, len(licks))
	for n, l := range licks {
		if vocabulary[n], err = l.Core(); err != nil {
			return playContext{}, chorus.Request{}, invalid(indexed("licks", n), err)
		}
	}
	request, err := plan.Request(read.chart, read.instrument, read.spanMM, read.swaps, vocabulary)
	if err != nil {
		return playContext{}, chorus.Request{}, invalid("plan", err)
	}
	return read, request, nil
}

// joined is the line of several choruses over the chart, each at its stage.
func (o PlayContext) joined(docs []document.Chorus) (playContext, phrase.Phrase, error) {
	read, err := o.read()
	if err != nil {
		return playContext{}, phrase.Phrase{}, err
	}
	line, err := document.JoinedLine(docs, chorus.PlayContext{Chart: read.chart, Instrument: read.instrument, SpanMM: read.spanMM}, read.swaps)
	if err != nil {
		return playContext{}, phrase.Phrase{}, invalid("", err)
	}
	return read, line, nil
}

// core is the tune and the neck that a solo is played over and on.
func (o PlayContext) core() (chorus.PlayContext, error) {
	read, err := o.read()
	return chorus.PlayContext{Chart: read.chart, Instrument: read.instrument, SpanMM: read.spanMM}, err
}
