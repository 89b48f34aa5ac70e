package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
)

// body is a response with a body and nothing else.
type body[T any] struct{ Body T }

// About says which Undaris answers.
type About struct {
	Version string `json:"version"`
	Demo    bool   `json:"demo" doc:"The data is the demo set"`
}

func (s *server) registerAbout(api huma.API) {
	huma.Get(api, "/api/about", func(context.Context, *struct{}) (*body[About], error) {
		return &body[About]{About{Version: s.version, Demo: s.demo}}, nil
	})
}

// Choices are what a player may choose from, in the order to show it.
type Choices struct {
	Tonics       []string            `json:"tonics"`
	Schemes      []string            `json:"schemes"`
	Feels        []string            `json:"feels"`
	Boxes        []string            `json:"boxes"`
	Schools      []string            `json:"schools"`
	Approaches   []string            `json:"approaches"`
	Subdivisions map[string][]string `json:"subdivisions" doc:"By meter"`
	Subdivision  string              `json:"subdivision" doc:"The one to begin with"`
	Tempo        Range               `json:"tempo"`
}

// Range is the least and most of a number.
type Range struct {
	Least int `json:"least"`
	Most  int `json:"most"`
}

func (s *server) registerChoices(api huma.API) {
	choices := Choices{
		Tonics: harmony.Tonics, Schemes: names(chart.Schemes), Feels: names(chart.Feels), Boxes: names(harmony.BoxKinds),
		Schools: names(change.Schools), Subdivisions: map[string][]string{}, Subdivision: chart.DefaultSubdivision, Tempo: Range{chart.MinTempo, chart.MaxTempo},
	}
	for _, a := range change.Approaches {
		choices.Approaches = append(choices.Approaches, a.Name)
	}
	for _, m := range chart.Meters {
		choices.Subdivisions[m.String()] = names(m.Subdivisions())
	}
	huma.Get(api, "/api/choices", func(context.Context, *struct{}) (*body[Choices], error) {
		return &body[Choices]{choices}, nil
	})
}
