package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/neck"
)

// ApproachesRequest asks for every way to lead into one target.
type ApproachesRequest struct {
	PlayContext
	Position    string `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Change      int    `json:"change" doc:"The tick of the change, as the chart's reading lists it"`
	Target      Place  `json:"target" doc:"A place on the neck that sounds a tone of the arriving chord"`
	Subdivision string `json:"subdivision,omitempty" doc:"Left out for eighths"`
	Beats       int    `json:"beats,omitempty" minimum:"0" maximum:"12" doc:"How many beats the connectors run; left out for half a bar"`
}

// Approaches is every way to lead into a target, and on from it.
type Approaches struct {
	Target        Target           `json:"target"`
	Lands         string           `json:"lands" doc:"When it lands, as a player counts" example:"beat 1 of bar 5"`
	Options       []ApproachOption `json:"options" doc:"Those that can be played, in the order of the list of approaches"`
	Refused       []Refused        `json:"refused" doc:"Those that cannot, and why"`
	Beats         int              `json:"beats" doc:"How many beats the connectors run"`
	MaxBeats      int              `json:"maxBeats" doc:"How many they may run while the chord sounds; 0 for none"`
	ChromaticRuns []ApproachOption `json:"chromaticRuns" doc:"Chromatic runs between two degrees of the arriving chord, from the change on"`
	RefusedRuns   []Refused        `json:"refusedRuns" doc:"Connectors that do not fit, and why"`
}

// ApproachOption is a run that can be played, written out.
type ApproachOption struct {
	Name    string `json:"name"`
	Short   string `json:"short" doc:"The name where there is little room"`
	Spoken  string `json:"spoken"`
	Length  int    `json:"length" doc:"Of an approach: notes before the target; of a connector: all of them"`
	Effort  int    `json:"effort" doc:"What it asks of the hand; less is easier"`
	Tension int    `json:"tension" doc:"What it asks of the ear over the leaving chord; more pulls harder"`
	Starts  string `json:"starts" doc:"When it starts, as a player counts"`
	Tab     Tab    `json:"tab"`
}

// Refused is a run that does not fit, and why.
type Refused struct {
	Name   string `json:"name"`
	Reason string `json:"reason"`
}

func (s *server) registerComputeApproaches(api huma.API) {
	posts(api, "/api/compute/change/approaches", func(_ context.Context, in *body[ApproachesRequest]) (*body[Approaches], error) {
		a, err := in.Body.change(in.Body.Position, in.Body.Change, "")
		if err != nil {
			return nil, err
		}
		subdivision, err := a.change.Leaving.Meter.Subdivision(in.Body.Subdivision)
		if err != nil {
			return nil, invalid("", err)
		}
		goal, err := a.goal(neck.Place{String: in.Body.Target.String, Fret: in.Body.Target.Fret})
		if err != nil {
			return nil, err
		}
		return &body[Approaches]{a.approaches(goal, subdivision, in.Body.Beats)}, nil
	})
}

// goal is the target with what lies around it, or says why it is none.
func (a changeContext) goal(target neck.Place) (change.Goal, error) {
	box, err := a.home().Box(a.chart.Box)
	if err != nil {
		return change.Goal{}, invalid("chart", err)
	}
	g := change.Goal{
		Instrument: a.instrument, Window: a.position.Window, Key: a.home(), Box: box,
		Leaving: a.change.Leaving.Chord, Arriving: a.change.Arriving.Chord, Target: target,
	}
	if err := g.Check(); err != nil {
		return change.Goal{}, invalid("target", err)
	}
	return g, nil
}

func (a changeContext) approaches(g change.Goal, s chart.Subdivision, beats int) Approaches {
	m := a.change.Leaving.Meter
	p := a.instrument.Pitch(g.Target)
	target := neck.Placed{Tone: a.home().ToneOver(g.Arriving, p.Class()), Pitch: p, Fingered: neck.Fingered{Place: g.Target}}
	out := Approaches{
		Target: a.over(a.change.Arriving, target), Lands: a.chart.CountedInChorus(a.change.Tick),
		Options: []ApproachOption{}, Refused: []Refused{}, ChromaticRuns: []ApproachOption{}, RefusedRuns: []Refused{},
	}
	ways, refused := change.ApproachOptions(g, a.chart.TicksBefore(a.change)/s.Ticks(m))
	for _, w := range ways {
		line, start := change.ApproachPhrase(a.chart, a.change, w, s)
		out.Options = append(out.Options, ApproachOption{
			Name: w.Name, Short: w.Short, Spoken: w.Description, Length: w.Length, Effort: w.Effort, Tension: w.Tension,
			Starts: a.chart.CountedInChorus(start + line.Events[0].Tick), Tab: a.tab(line, start, "approach"),
		})
	}
	out.Refused = append(out.Refused, refusedOf(refused)...)

	out.Beats, out.MaxBeats = change.RunBeats(a.change.Arriving, beats)
	if out.MaxBeats == 0 {
		for _, c := range change.ChromaticRunKinds {
			out.RefusedRuns = append(out.RefusedRuns, Refused{c.Name, fmt.Sprintf("out of time: %s lasts one beat", g.Arriving.Symbol())})
		}
		return out
	}
	fit, unfit := change.ChromaticRuns(g, out.Beats*s.PerBeat+1)
	for _, c := range fit {
		line, start := change.RunPhrase(a.chart, a.change, c, s)
		out.ChromaticRuns = append(out.ChromaticRuns, ApproachOption{
			Name: c.Name, Short: c.Short(), Spoken: c.Text(g.Arriving), Length: len(c.Pitches), Effort: c.Effort,
			Starts: a.chart.CountedInChorus(start + line.Events[0].Tick), Tab: a.tab(line, start, "approach"),
		})
	}
	out.RefusedRuns = append(out.RefusedRuns, refusedOf(unfit)...)
	return out
}

func refusedOf(all []change.Unplayable) []Refused {
	list := make([]Refused, len(all))
	for n, r := range all {
		list[n] = Refused(r)
	}
	return list
}
