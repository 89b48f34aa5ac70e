package api

import (
	"context"
	"fmt"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/exercise"
	"undaris/core/solo/etude"
	"undaris/format/document"
)

// EtudeRequest asks for etudes: parts joined over the form of a tune, several at a time.
type EtudeRequest struct {
	PlayContext
	Position string      `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Parts    []EtudePart `json:"parts" minItems:"1" maxItems:"24"`
	PartBars int         `json:"partBars,omitempty" minimum:"0" maximum:"64" doc:"How many bars a part has; left out for 2"`
	Choruses int         `json:"choruses,omitempty" minimum:"0" maximum:"8" doc:"Left out for 1"`
	Ending   string      `json:"ending,omitempty" doc:"Left out for on the root"`
	Seed     uint32      `json:"seed,omitempty" doc:"The same seed gives the same etudes"`
	Count    int         `json:"count,omitempty" minimum:"0" maximum:"6" doc:"How many etudes at most, few parts have few orders; left out for 3"`
}

// EtudePart is a lick or an exercise; one of the two is given.
type EtudePart struct {
	Exercise *document.Exercise `json:"exercise,omitempty"`
	Lick     *document.Lick     `json:"lick,omitempty"`
}

// Etude is one of those that were made.
type Etude struct {
	Names       []string          `json:"names" doc:"The parts in the order in which they come"`
	Concessions []string          `json:"concessions" doc:"The parts that could not be had, and why"`
	Choruses    []document.Chorus `json:"choruses" doc:"As they are kept in a solo"`
}

// Etudes are those that were made.
type Etudes struct {
	Etudes []Etude `json:"etudes"`
}

// What an etude has where nothing else is asked for, and how many are made at once.
const (
	etudePartBars = 2
	etudesAtOnce  = 3
	// So many seeds are tried for each: few parts have few orders.
	triesPerEtude = 6
)

func (s *server) registerComputeEtude(api huma.API) {
	posts(api, "/api/compute/solo/etude", func(ctx context.Context, in *body[EtudeRequest]) (*body[Etudes], error) {
		on, err := in.Body.PlayContext.read()
		if err != nil {
			return nil, err
		}
		position, err := on.position(in.Body.Position)
		if err != nil {
			return nil, err
		}
		parts, err := in.Body.parts()
		if err != nil {
			return nil, err
		}
		order := etude.Request{
			Setting:  exercise.Setting{Tune: on.chart, Instrument: on.instrument, Position: position, SpanMM: on.spanMM},
			Parts:    parts,
			PartBars: max(in.Body.PartBars, 0), Choruses: max(in.Body.Choruses, 1), Ending: etude.Ending(in.Body.Ending), Seed: uint64(in.Body.Seed),
		}
		if order.PartBars == 0 {
			order.PartBars = min(etudePartBars, len(on.chart.PlayedBars()))
		}
		if order.Ending == "" {
			order.Ending = etude.OnTheRoot
		}
		count := in.Body.Count
		if count == 0 {
			count = etudesAtOnce
		}
		out := Etudes{Etudes: []Etude{}}
		for range triesPerEtude * count {
			if len(out.Etudes) == count {
				break
			}
			if err := ctx.Err(); err != nil {
				return nil, err
			}
			made, err := etude.Compose(order)
			if err != nil {
				return nil, invalid("", err)
			}
			order.Seed++
			if slices.ContainsFunc(out.Etudes, func(e Etude) bool { return slices.Equal(e.Names, made.Names) }) {
				continue // two with the same parts in the same order are one
			}
			one := Etude{Names: made.Names, Concessions: append([]string{}, made.Concessions...), Choruses: []document.Chorus{}}
			for _, c := range made.Choruses {
				one.Choruses = append(one.Choruses, document.Chorus{Plan: document.ChorusPlan{Position: position.ID()}, Blocks: document.BlocksOf(c.Blocks)})
			}
			out.Etudes = append(out.Etudes, one)
		}
		return &body[Etudes]{out}, nil
	})
}

func (r EtudeRequest) parts() ([]etude.Part, error) {
	parts := make([]etude.Part, len(r.Parts))
	for n, p := range r.Parts {
		field := fmt.Sprintf("parts[%d]", n)
		switch {
		case p.Exercise != nil && p.Lick == nil:
			e, err := p.Exercise.Core()
			if err != nil {
				return nil, invalid(field+".exercise", err)
			}
			parts[n] = etude.Part{Name: p.Exercise.Name, Exercise: &e}
			if parts[n].Name == "" {
				parts[n].Name = e.Title()
			}
		case p.Lick != nil && p.Exercise == nil:
			l, err := p.Lick.Core()
			if err != nil {
				return nil, invalid(field+".lick", err)
			}
			parts[n] = etude.Part{Name: l.Name, Lick: &l}
		default:
			return nil, invalid("", &chart.FieldError{Field: field, Detail: "a part is a lick or an exercise; give one of the two"})
		}
		if name := []rune(parts[n].Name); len(name) > 60 {
			parts[n].Name = string(name[:60])
		}
	}
	return parts, nil
}
