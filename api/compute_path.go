package api

import (
	"context"
	"errors"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/neck"
)

// PathRequest asks for a landing at every change of the chorus, by one target strategy or
// several.
type PathRequest struct {
	PlayContext
	Position   string   `json:"position,omitempty" doc:"A position's id or form; left out for the home position"`
	Strategies []string `json:"strategies,omitempty" maxItems:"8" doc:"Left out for every strategy"`
	Pins       []Pin    `json:"pins,omitempty" maxItems:"512" doc:"Landings held to a place; the rest is planned around them"`
}

// Pin holds one landing to a place.
type Pin struct {
	Change int `json:"change" doc:"The tick of the change"`
	Place
}

// Paths is a landing at every change, by each of the schools asked for.
type Paths struct {
	Paths []Path `json:"paths"`
}

// Path is the best landing at every change by one target strategy.
type Path struct {
	Strategy string       `json:"strategy"`
	Landings []PathTarget `json:"landings" doc:"In the order of the changes"`
	Frets    int          `json:"frets" doc:"How many frets the hand goes in all"`
	Strings  int          `json:"strings" doc:"How many strings it changes in all"`
	Cost     int          `json:"cost" doc:"What it was chosen by, in thousandths"`
}

// PathTarget is one landing of a path.
type PathTarget struct {
	Target
	Change  int     `json:"change" doc:"The tick of the change"`
	Bar     int     `json:"bar" doc:"From 1"`
	Beat    int     `json:"beat" doc:"From 1"`
	Chord   string  `json:"chord"`
	Score   float64 `json:"score" doc:"That of the best move into it"`
	Text    string  `json:"text" doc:"The best move into it"`
	Frets   int     `json:"frets" doc:"From the landing before"`
	Strings int     `json:"strings"`
	Pinned  bool    `json:"pinned"`
}

func (s *server) registerComputePath(api huma.API) {
	posts(api, "/api/compute/change/path", func(_ context.Context, in *body[PathRequest]) (*body[Paths], error) {
		on, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		position, err := on.position(in.Body.Position)
		if err != nil {
			return nil, err
		}
		request := change.PathRequest{Instrument: on.instrument, Hand: change.HandPlaces(on.chart.Timeline(), on.instrument, position), Swaps: on.swaps, Changes: on.chart.TargetChanges(), Pins: map[int]neck.Place{}}
		pinOf := map[int]int{} // which pin holds a change
		for n, pin := range in.Body.Pins {
			at, err := request.IndexAt(pin.Change)
			if err != nil {
				return nil, invalid(fmt.Sprintf("pins[%d].change", n), err)
			}
			request.Pins[at], pinOf[at] = neck.Place{String: pin.String, Fret: pin.Fret}, n
		}
		schools := in.Body.Strategies
		if len(schools) == 0 {
			schools = names(change.TargetStrategies)
		}
		out := Paths{Paths: []Path{}}
		for n, name := range schools {
			if request.Strategy, err = change.ParseTargetStrategy(name); err != nil {
				return nil, invalid(fmt.Sprintf("strategies[%d]", n), err)
			}
			path, err := request.Find()
			if err != nil {
				var pin *change.PinError
				if errors.As(err, &pin) {
					return nil, invalid(fmt.Sprintf("pins[%d]", pinOf[pin.Index]), err)
				}
				return nil, err
			}
			out.Paths = append(out.Paths, on.path(request.Strategy, path))
		}
		return &body[Paths]{out}, nil
	})
}

func (o playContext) path(strategy change.TargetStrategy, p change.Path) Path {
	out := Path{Strategy: string(strategy), Landings: []PathTarget{}, Frets: p.Frets, Strings: p.Strings, Cost: p.Cost}
	for _, l := range p.Targets {
		at := l.Change.Arriving
		target := PathTarget{
			Target: o.over(at, l.Placed), Change: l.Change.Tick, Bar: at.Bar + 1, Beat: at.Beat + 1, Chord: at.Chord.Symbol(),
			Score: l.Score, Frets: l.Frets, Strings: l.Strings, Pinned: l.Pinned,
			Text: "no tone of the chord before lies near it: reach for it",
		}
		if l.Move != nil {
			target.Text = l.Move.Text
		}
		out.Landings = append(out.Landings, target)
	}
	return out
}
