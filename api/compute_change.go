package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/neck"
)

// ChangeRequest asks how one chord gives way to the next in a position.
type ChangeRequest struct {
	PlayContext
	Position string `json:"position,omitempty" doc:"A position's id, or a form for its lowest place; left out for the E form" example:"E-7"`
	Change   int    `json:"change" doc:"The tick of the change, as the chart's reading lists it"`
	Strategy string `json:"strategy,omitempty" doc:"What to aim at; left out for thirds first"`
}

// ChangeView is one change on the neck.
type ChangeView struct {
	Change
	Position      Position     `json:"position"`
	From          []PlacedTone `json:"from" doc:"The leaving chord's tones"`
	To            []PlacedTone `json:"to" doc:"The arriving chord's tones"`
	Moves         []Move       `json:"moves" doc:"Best first"`
	DefiningTones []Tone       `json:"definingTones" doc:"Tones that announce the arriving chord by themselves"`
	Headline      string       `json:"headline"`
	Box           BoxCoverage  `json:"box" doc:"What the box has of the arriving chord"`
}

// Move is a way across.
type Move struct {
	From      Target  `json:"from"`
	To        Target  `json:"to"`
	Semitones int     `json:"semitones"`
	Kind      string  `json:"kind" enum:"held,half step,whole step,leap of a third"`
	Score     float64 `json:"score"`
	Text      string  `json:"text"`
}

// Target is a tone at a place.
type Target struct {
	Tone
	Place
	// Written is left out where no imagined chord is followed.
	Written *WrittenLabel `json:"written,omitempty" doc:"What it is over the chord the band plays below an imagined one"`
}

func (s *server) registerComputeChange(api huma.API) {
	posts(api, "/api/compute/change", func(_ context.Context, in *body[ChangeRequest]) (*body[ChangeView], error) {
		asked, err := in.Body.change(in.Body.Position, in.Body.Change, in.Body.Strategy)
		if err != nil {
			return nil, err
		}
		view, err := changeView(asked)
		if err != nil {
			return nil, invalid("chart", err)
		}
		return &body[ChangeView]{view}, nil
	})
}

// changeContext is a request about one change, read.
type changeContext struct {
	playContext
	position neck.Position
	change   chart.Change
	strategy change.TargetStrategy
}

func (o PlayContext) change(position string, tick int, strategy string) (changeContext, error) {
	read, err := o.read()
	if err != nil {
		return changeContext{}, err
	}
	if read.at == nil {
		read.at = &tick
	}
	p, err := read.position(position)
	if err != nil {
		return changeContext{}, err
	}
	sch, err := change.ParseTargetStrategy(strategy)
	if err != nil {
		return changeContext{}, invalid("strategy", err)
	}
	ch, err := read.chart.ChangeAt(tick)
	if err != nil {
		return changeContext{}, invalid("change", err)
	}
	return changeContext{playContext: read, position: p, change: ch, strategy: sch}, nil
}

func changeView(a changeContext) (ChangeView, error) {
	i := a.instrument
	box, err := a.home().Box(a.chart.Box)
	if err != nil {
		return ChangeView{}, err
	}
	leaving, arriving := a.change.Leaving.Chord, a.change.Arriving.Chord
	from, to := neck.PlaceChord(i, a.position.Window, leaving, a.swaps), neck.PlaceChord(i, a.position.Window, arriving, a.swaps)
	telling := change.DefiningTones(leaving, arriving, box)
	view := ChangeView{
		Change: changeOf(a.chart, a.change), Position: positionOf(a.position),
		From: newOverChord(a.home(), leaving).placedAll(from.Tones), To: newOverChord(a.home(), arriving).placedAll(to.Tones),
		Moves: []Move{}, DefiningTones: tonesOf(telling), Box: boxOver(arriving, box),
		Headline: change.Headline(leaving, arriving, telling),
	}
	if a.change.Stays() {
		view.Headline = fmt.Sprintf("The tune stays on %s: aim at one of its own tones on the downbeat.", arriving.Symbol())
	}
	for _, m := range change.Moves(a.strategy, leaving, arriving, from, to) {
		view.Moves = append(view.Moves, Move{
			From: a.over(a.change.Leaving, m.From), To: a.over(a.change.Arriving, m.To), Semitones: m.Semitones, Kind: string(m.Kind), Score: m.Score, Text: m.Text,
		})
	}
	return view, nil
}

func targetOf(p neck.Placed) Target { return Target{Tone: toneOf(p.Tone), Place: placeOf(p.Place)} }

// over is a tone at its place, with what it is over the written chord where an
// imagined one is followed.
func (o playContext) over(m chart.ChordSpan, p neck.Placed) Target {
	t := targetOf(p)
	if m.Imagined && !m.Written.Same(m.Chord) {
		j := o.home().Judge(m.Written, p.Pitch.Class())
		t.Written = &WrittenLabel{Chord: m.Written.Symbol(), Degree: j.Degree.String(), Class: string(j.Class)}
	}
	return t
}

func targets(all []neck.Placed) []Target {
	list := make([]Target, len(all))
	for n, p := range all {
		list[n] = targetOf(p)
	}
	return list
}
