package api

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/exercise"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/solo/etude"
	"undaris/format/document"
	"undaris/format/solofile"
)

// ExerciseRequest asks for an exercise to be written out over a tune.
type ExerciseRequest struct {
	PlayContext
	Exercise document.Exercise `json:"exercise"`
	Position string            `json:"position,omitempty" doc:"Where the hand stands in the tune's key, a position's id or form; left out for the exercise's own, or else the home position"`
	Tonic    string            `json:"tonic,omitempty" doc:"Another tonic that the tune is moved to first, the hand in the same form; left out for its own"`
}

// WrittenExercise is an exercise as it is played.
type WrittenExercise struct {
	Text string `json:"text" doc:"What it is, in a few words"`
	// Chart is left out where the tune itself is walked through.
	Chart     *document.Chart `json:"chart,omitempty" doc:"The chart that it goes through, where that is not the tune"`
	Position  Position        `json:"position"`
	Tab       Tab             `json:"tab"`
	FirstBar  int             `json:"firstBar" doc:"The first bar it is played over, from 1"`
	Bars      int             `json:"bars"`
	StretchMM float64         `json:"stretchMm" doc:"The widest that one hand is spread; 0 where notes come one by one"`
	Caution   string          `json:"caution,omitempty"`
	// Easier is left out where the exercise is within the player's span.
	Easier      *EasierExercise `json:"easier,omitempty"`
	Concessions []string        `json:"concessions" doc:"What could not be had over a chord, and what is played instead"`
	Shapes      []ExerciseShape `json:"shapes" doc:"The places that are played over each chord, in the order in which they come"`
}

// EasierExercise is a placing within the player's span.
type EasierExercise struct {
	Exercise  document.Exercise `json:"exercise"`
	Position  string            `json:"position"`
	StretchMM float64           `json:"stretchMm"`
	Text      string            `json:"text"`
}

// ExerciseShape is what is played over a chord.
type ExerciseShape struct {
	Tick  int          `json:"tick" doc:"The chart's tick at which the chord begins"`
	Chord string       `json:"chord"`
	Tones []PlacedTone `json:"tones"`
}

func (s *server) registerComputeExercise(api huma.API) {
	posts(api, "/api/compute/exercise", func(_ context.Context, in *body[ExerciseRequest]) (*body[WrittenExercise], error) {
		on, e, setting, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		w, err := e.Write(setting)
		if err != nil {
			return nil, inTheWay(e, setting, in.Body.Exercise, err)
		}
		return &body[WrittenExercise]{on.writtenExercise(e, setting, w, in.Body.Exercise, in.Body.Tonic != "")}, nil
	})
	huma.Post(api, "/api/compute/exercise/file/{format}", func(_ context.Context, in *struct {
		Format string `path:"format" doc:"One of the formats that solos are exported in"`
		Body   ExerciseRequest
	}) (*file, error) {
		format, err := solofile.Find(in.Format)
		if err != nil {
			return nil, invalidAt("path.format", err)
		}
		on, e, setting, err := in.Body.read()
		if err != nil {
			return nil, err
		}
		w, err := e.Write(setting)
		if err != nil {
			return nil, inTheWay(e, setting, in.Body.Exercise, err)
		}
		name := in.Body.Exercise.Name
		if name == "" {
			name = e.Title()
		}
		out := solofile.Solo{Name: name, Chart: w.Chart.Excerpt(w.Chart.Timeline().BarAt(w.Start), w.Bars), Instrument: on.instrument, Line: w.Phrase, Choruses: 1, Shapes: true}
		return &file{Type: format.Type, Disposition: attached(name + format.Extension), Body: format.Write(out)}, nil
	})
}

// read reads the exercise and what it is written for.
func (r ExerciseRequest) read() (playContext, exercise.Exercise, exercise.Setting, error) {
	on, err := r.PlayContext.read()
	if err != nil {
		return on, exercise.Exercise{}, exercise.Setting{}, err
	}
	e, err := r.Exercise.Core()
	if err != nil {
		return on, e, exercise.Setting{}, invalid("exercise", err)
	}
	tonic := on.chart.Key.Tonic.Class()
	position := neck.NearestPosition(on.instrument, tonic, r.Exercise.Position)
	if r.Position != "" {
		if position, err = on.position(r.Position); err != nil {
			return on, e, exercise.Setting{}, err
		}
	}
	if r.Tonic != "" {
		key, err := harmony.ParseKey(r.Tonic, on.chart.Key.Mode)
		if err != nil {
			return on, e, exercise.Setting{}, invalid("", chart.InField("tonic", err))
		}
		name := position.Name(neck.Positions(on.instrument, tonic))
		on.chart = on.chart.Transposed(key)
		position = neck.NearestPosition(on.instrument, key.Tonic.Class(), name)
	}
	return on, e, exercise.Setting{Tune: on.chart, Instrument: on.instrument, Position: position, SpanMM: on.spanMM}, nil
}

// inTheWay says which choice is in the way of an exercise, and the nearest exercise that can be had.
func inTheWay(e exercise.Exercise, s exercise.Setting, d document.Exercise, err error) error {
	refused := invalid("exercise", err)
	var p *Problem
	if nearest, ok := e.Nearest(s); ok && errors.As(refused, &p) && len(p.Errors) > 0 {
		other := document.ExerciseOf(nearest, d.Name, d.About)
		other.Tags, other.Position = d.Tags, d.Position
		p.Errors[0].NearestExercise = &other
		p.Errors[0].Nearest = []string{nearest.Title()}
	}
	return refused
}

func (o playContext) writtenExercise(e exercise.Exercise, s exercise.Setting, w exercise.Written, d document.Exercise, moved bool) WrittenExercise {
	over := o.withChart(w.Chart)
	out := WrittenExercise{
		Text: e.Title(), Position: positionOf(s.Position), Tab: over.tab(w.Phrase, w.Start, ""), FirstBar: w.Chart.Timeline().BarAt(w.Start) + 1, Bars: w.Bars,
		StretchMM: w.StretchMM, Caution: w.Caution, Concessions: append([]string{}, w.Concessions...), Shapes: over.exerciseShapes(w),
	}
	if e.Over.Kind != exercise.TheTune && e.Over.Kind != "" || moved {
		own := document.ChartOf(w.Chart)
		out.Chart = &own
	}
	if easier, ok := e.Easier(s); ok {
		other := document.ExerciseOf(easier.Exercise, d.Name, d.About)
		other.Tags, other.Position = d.Tags, d.Position
		out.Easier = &EasierExercise{Exercise: other, Position: easier.Position.ID(), StretchMM: easier.Written.StretchMM, Text: easier.Text}
	}
	return out
}

// exerciseShapes are the places that an exercise plays over each of its chords.
func (o playContext) exerciseShapes(w exercise.Written) []ExerciseShape {
	shapes := []ExerciseShape{}
	for _, part := range w.Phrase.ByChord() {
		over := newOverChord(w.Chart.Key, part.Chord)
		shape := ExerciseShape{Tick: w.Start + part.Tick, Chord: part.Chord.Symbol(), Tones: []PlacedTone{}}
		for _, f := range part.Places {
			shape.Tones = append(shape.Tones, over.placed(neck.Placed{Pitch: o.instrument.Pitch(f.Place), Fingered: f}))
		}
		shapes = append(shapes, shape)
	}
	return shapes
}

// ExerciseChoices are what can be chosen of an exercise, with what each is in a line; the default of
// each comes first.
type ExerciseChoices struct {
	Tones      []ExerciseChoice `json:"tones"`
	Over       []ExerciseChoice `json:"over"`
	Where      []ExerciseChoice `json:"where"`
	Directions []ExerciseChoice `json:"directions"`
	Starts     []ExerciseChoice `json:"starts"`
	Figures    []ExerciseChoice `json:"figures"`
	Turns      []ExerciseChoice `json:"turns"`
	Into       []ExerciseChoice `json:"into"`
	Approaches []ExerciseChoice `json:"approaches"`
	Tails      []ExerciseChoice `json:"tails"`
	Patterns   []ExerciseChoice `json:"patterns"`
	// OncePerChord is a subdivision beside those of the meter.
	OncePerChord string              `json:"oncePerChord"`
	MaxBars      int                 `json:"maxBars"`
	Endings      []string            `json:"endings" doc:"How an etude can end, the default first"`
	ReadyMade    []document.Exercise `json:"readyMade" doc:"Exercises to begin with"`
}

// ExerciseChoice is something that can be chosen of an exercise.
type ExerciseChoice struct {
	Name      string `json:"name"`
	Text      string `json:"text" doc:"What it is, in a line"`
	Structure bool   `json:"structure,omitempty" doc:"Several notes, together or one after the other"`
	Arpeggio  bool   `json:"arpeggio,omitempty" doc:"The tones of a chord, to which extensions can be added"`
}

func exerciseChoices() ExerciseChoices {
	all := exercise.Choices
	plain := func(choices []exercise.Choice) []ExerciseChoice {
		return each(choices, func(c exercise.Choice) ExerciseChoice { return ExerciseChoice{Name: c.Name, Text: c.Text} })
	}
	tones := plain(all.Tones)
	for n := range tones {
		t := exercise.Tones(tones[n].Name)
		tones[n].Structure, tones[n].Arpeggio = t.IsStructure(), t.TakesExtensions()
	}
	return ExerciseChoices{
		Tones: tones, Over: plain(all.Over), Where: plain(all.Where), Directions: plain(all.Directions), Starts: plain(all.Starts),
		Figures: plain(all.Figures), Turns: plain(all.Turns), Into: plain(all.Into), Approaches: plain(all.Approaches), Tails: plain(all.Tails), Patterns: plain(all.Patterns),
		OncePerChord: exercise.OncePerChord, MaxBars: exercise.MaxBars, Endings: names(etude.Endings),
		ReadyMade: each(exercise.ReadyMades, func(r exercise.ReadyMade) document.Exercise { return document.ExerciseOf(r.Exercise, r.Name, r.About) }),
	}
}
