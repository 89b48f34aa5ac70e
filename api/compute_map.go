package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// MapRequest asks for every chord of a chart in every position.
type MapRequest struct {
	PlayContext
}

// PositionRequest asks for the position that is meant, though it may have been kept for
// another instrument or another key.
type PositionRequest struct {
	PlayContext
	Position string `json:"position" example:"A-12"`
}

// Map is a chart laid on the neck.
type Map struct {
	Instrument      Neck          `json:"instrument"`
	Sounding        string        `json:"sounding" doc:"Its open strings as they sound above the capo, from the lowest up" example:"E2 A2 D3 G3 B3 E4"`
	BoxName         string        `json:"boxName"`
	Chords          []MapChord    `json:"chords" doc:"The distinct chords in the order they first sound"`
	Positions       []MapPosition `json:"positions" doc:"Lowest first"`
	DefaultPosition string        `json:"defaultPosition" doc:"The id of the position to begin in"`
}

// Neck is the instrument that the map is drawn on.
type Neck struct {
	Name          string   `json:"name"`
	Frets         int      `json:"frets" doc:"Above the capo, where there is one"`
	HasNamedForms bool     `json:"hasNamedForms" doc:"The five forms lie on it; else positions are plain windows"`
	Strings       []string `json:"strings" doc:"The open notes, string 1 first"`
}

// MapChord is what holds of a chord wherever it is played.
type MapChord struct {
	Chord      string      `json:"chord"`
	Roman      string      `json:"roman"`
	Box        BoxCoverage `json:"box"`
	Judgements []Judgement `json:"judgements" doc:"What each of the twelve notes is over the chord, from its root"`
}

// BoxCoverage is what the box has of a chord and what it lacks.
type BoxCoverage struct {
	Text    string        `json:"text"`
	Has     []Tone        `json:"has"`
	Missing []MissingTone `json:"missing"`
}

// MissingTone is a chord tone the box has not.
type MissingTone struct {
	Tone
	Needed bool   `json:"needed" doc:"Among the fewest notes that are enough to say the chord"`
	Where  string `json:"where" example:"one fret above its Eb"`
	Text   string `json:"text"`
}

// MapPosition is one position of the key.
type MapPosition struct {
	Position
	Name   string  `json:"name" doc:"How it is kept: by its form, which means the same in every key" example:"E+1"`
	Shapes []Shape `json:"shapes" doc:"One for each of the chords, in their order"`
}

// Position is one place of the key on the neck.
type Position struct {
	ID      string `json:"id" example:"E-7"`
	Form    string `json:"form" doc:"The form that the tonic makes; empty for a plain window"`
	Label   string `json:"label" doc:"What it is called" example:"E form"`
	Core    int    `json:"core" doc:"The lowest of the four core frets"`
	CoreEnd int    `json:"coreEnd"`
	Low     int    `json:"low" doc:"The lowest fret within reach"`
	High    int    `json:"high"`
}

// Shape is a chord in a position.
type Shape struct {
	Chord     string       `json:"chord"`
	Form      string       `json:"form" doc:"The form that the chord makes there; empty where forms are not named"`
	Sign      string       `json:"sign" doc:"The chord quality's sign"`
	Tones     []PlacedTone `json:"tones" doc:"From the lowest pitch up"`
	Beyond    []PlacedTone `json:"beyond" doc:"Tones that only a reach below the core would give"`
	Box       []PlacedTone `json:"box" doc:"The box in the position, as degrees of the chord"`
	StretchMM float64      `json:"stretchMm"`
	Caution   string       `json:"caution,omitempty"`
}

func (s *server) registerComputeMap(api huma.API) {
	posts(api, "/api/compute/chart/position", func(_ context.Context, in *body[PositionRequest]) (*body[Position], error) {
		on, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		return &body[Position]{positionOf(neck.NearestPosition(on.instrument, on.home().Tonic.Class(), in.Body.Position))}, nil
	})
	posts(api, "/api/compute/chart/map", func(_ context.Context, in *body[MapRequest]) (*body[Map], error) {
		on, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		m, err := mapOf(on)
		if err != nil {
			return nil, invalid("chart", err)
		}
		return &body[Map]{m}, nil
	})
}

func mapOf(o playContext) (Map, error) {
	c, i, key := o.chart, o.instrument, o.home()
	box, err := key.Box(c.Box)
	if err != nil {
		return Map{}, err
	}
	home, err := neck.FindPosition(i, key.Tonic.Class(), "")
	if err != nil {
		return Map{}, err
	}
	m := Map{DefaultPosition: home.ID(), Instrument: neckOf(i), Sounding: i.Tuning(), BoxName: box.Name(), Chords: []MapChord{}, Positions: []MapPosition{}}
	chords := c.Chords()
	over := make([]*overChord, len(chords))
	for n, chord := range chords {
		over[n] = newOverChord(key, chord)
		m.Chords = append(m.Chords, MapChord{
			Chord: chord.Symbol(), Roman: key.Roman(chord), Box: boxOver(chord, box), Judgements: judgements(key, chord),
		})
	}
	positions := neck.Positions(i, key.Tonic.Class())
	for _, p := range positions {
		position := MapPosition{Position: positionOf(p), Name: p.Name(positions)}
		boxShape := neck.PlaceTones(i, p.Window, box.Tones)
		for n, chord := range chords {
			position.Shapes = append(position.Shapes, o.shape(chord, over[n], p, boxShape))
		}
		m.Positions = append(m.Positions, position)
	}
	return m, nil
}

func (o playContext) shape(chord harmony.Chord, over *overChord, p neck.Position, box neck.Shape) Shape {
	form := neck.FormAt(o.instrument, chord.Root.Class(), p.Window)
	shape := neck.PlaceChord(o.instrument, p.Window, chord, o.swaps)
	return Shape{
		Chord: chord.Symbol(), Form: string(form), Sign: chord.Quality.Sign,
		Tones: over.placedAll(shape.Tones), Beyond: over.placedAll(shape.Beyond),
		Box: over.placedAll(box.Tones), StretchMM: shape.StretchMM, Caution: shape.Caution(o.spanMM),
	}
}

func boxOver(chord harmony.Chord, box harmony.Box) BoxCoverage {
	holding := change.CoverageOf(chord, box)
	over := BoxCoverage{Text: holding.Text, Has: tonesOf(holding.Has), Missing: []MissingTone{}}
	for _, lack := range holding.Missing {
		over.Missing = append(over.Missing, MissingTone{Tone: toneOf(lack.Tone), Needed: lack.Needed, Where: lack.Where, Text: lack.Text})
	}
	return over
}

func positionOf(p neck.Position) Position {
	return Position{ID: p.ID(), Form: string(p.Form), Label: p.Label(), Core: p.Core, CoreEnd: p.CoreEnd, Low: p.Low, High: p.High}
}

func neckOf(i neck.Instrument) Neck {
	return Neck{Name: i.Name, Frets: i.Frets, HasNamedForms: i.HasNamedForms(), Strings: i.OpenNames()}
}
