package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/exercise"
	"undaris/core/neck"
	"undaris/format/sheet"
	"undaris/library/documents"
)

// lessonRequest names what of a kept tune is put on paper.
type lessonRequest struct {
	ID        uint   `path:"id"`
	As        string `query:"as" enum:"pdf,svg" default:"pdf"`
	Paper     string `query:"paper" enum:"A4,Letter" default:"A4"`
	Large     bool   `query:"large" doc:"In large print"`
	Chart     bool   `query:"chart" doc:"The bars, four in a row"`
	Maps      bool   `query:"maps" doc:"Every chord in five positions"`
	Strategy  string `query:"strategy" doc:"Where to land at each change, by this target strategy; left out for no path"`
	Position  string `query:"position" doc:"Where the hand stands for the path and the exercises; left out for the home position"`
	Licks     []uint `query:"licks" maxItems:"50"`
	Exercises []uint `query:"exercises" maxItems:"50"`
	Solos     []uint `query:"solos" maxItems:"20"`
}

func (s *server) registerLesson(api huma.API) {
	huma.Get(api, "/api/charts/{id}/lesson", func(ctx context.Context, in *lessonRequest) (*file, error) {
		item, err := documents.Charts.Read(ctx, s.library, in.ID)
		if err != nil {
			return nil, storeProblem("chart", in.ID, err)
		}
		kept, err := documents.PlayerSettings.Read(ctx, s.library)
		if err != nil {
			return nil, err
		}
		on, err := PlayContext{Chart: item.Body, Hands: &kept.Body.Hands}.read()
		if err != nil {
			return nil, err
		}
		paper, err := sheet.FindPaper(in.Paper)
		if err != nil {
			return nil, invalid("", err)
		}
		lesson := sheet.Lesson{
			Order: sheet.Order{Chart: on.chart, Instrument: on.instrument, Paper: paper, SpanMM: on.spanMM, Swaps: on.swaps},
			Large: in.Large, WithChart: in.Chart, WithMaps: in.Maps,
		}
		position, err := on.position(in.Position)
		if err != nil {
			return nil, err
		}
		if in.Strategy != "" {
			if lesson.Landings, err = on.lessonPath(in.Strategy, position); err != nil {
				return nil, err
			}
			lesson.Strategy = in.Strategy
		}
		if lesson.Lines, err = s.lessonLines(ctx, *in, on, position); err != nil {
			return nil, err
		}
		out := &file{Type: "application/pdf", Disposition: attached("Lesson, " + on.chart.Title + "." + in.As)}
		if in.As == "svg" {
			out.Type, out.Body = "image/svg+xml", lesson.Drawing().SVG()
		} else {
			out.Body = lesson.Drawing().PDF()
		}
		return out, nil
	})
}

// lessonPath is a path through the changes as a lesson shows it.
func (o playContext) lessonPath(strategy string, position neck.Position) ([]sheet.Landing, error) {
	school, err := change.ParseTargetStrategy(strategy)
	if err != nil {
		return nil, invalidAt("query.strategy", err)
	}
	path, err := change.PathRequest{
		Strategy: school, Instrument: o.instrument, Hand: change.HandPlaces(o.chart.Timeline(), o.instrument, position),
		Swaps: o.swaps, Changes: o.chart.TargetChanges(),
	}.Find()
	if err != nil {
		return nil, err
	}
	rows := []sheet.Landing{}
	for n, row := range o.path(school, path).Landings {
		target := path.Targets[n]
		rows = append(rows, sheet.Landing{
			Bar: row.Bar, Beat: row.Beat, Leaving: target.Change.Leaving.Chord, Over: target.Change.Arriving.Chord, Placed: target.Placed, Text: row.Text,
		})
	}
	return rows, nil
}

// lessonLines are the licks, exercises and solos that were chosen, in this order. What cannot be
// read, or written where the hand stands, is an error that names it.
func (s *server) lessonLines(ctx context.Context, in lessonRequest, on playContext, position neck.Position) ([]sheet.Score, error) {
	lines := []sheet.Score{}
	for n, id := range in.Licks {
		item, err := documents.Licks.Read(ctx, s.library, id)
		if err != nil {
			return nil, storeProblem("lick", id, err)
		}
		l, err := item.Body.Core()
		if err != nil {
			return nil, invalidAt(fmt.Sprintf("query.licks[%d]", n), err)
		}
		own, start := l.ToChart(on.chart.Tempo, on.chart.Feel, on.chart.Swing)
		lines = append(lines, sheet.Score{Title: l.Name, Chart: own, Instrument: l.WrittenFor(), Line: l.Phrase.Delayed(start).WithChordsOf(own, 0)})
	}
	for n, id := range in.Exercises {
		item, err := documents.Exercises.Read(ctx, s.library, id)
		if err != nil {
			return nil, storeProblem("exercise", id, err)
		}
		e, err := item.Body.Core()
		if err != nil {
			return nil, invalidAt(fmt.Sprintf("query.exercises[%d]", n), err)
		}
		setting := exercise.Setting{Tune: on.chart, Instrument: on.instrument, Position: position, SpanMM: on.spanMM}
		w, err := writeNearest(e, setting)
		if err != nil {
			return nil, invalidAt(fmt.Sprintf("query.exercises[%d]", n), err)
		}
		name := item.Body.Name
		if name == "" {
			name = e.Title()
		}
		lines = append(lines, sheet.Score{Title: name, Chart: w.Chart.Excerpt(w.Chart.Timeline().BarAt(w.Start), w.Bars), Instrument: on.instrument, Line: w.Phrase})
	}
	for n, id := range in.Solos {
		item, err := documents.Solos.Read(ctx, s.library, id)
		if err != nil {
			return nil, storeProblem("solo", id, err)
		}
		kept, err := s.library.SoloNow(ctx, item)
		if err != nil {
			return nil, invalidAt(fmt.Sprintf("query.solos[%d]", n), err)
		}
		over, line, err := PlayContext{Chart: kept.Chart, Hands: kept.Hands}.joined(kept.Solo.Choruses)
		if err != nil {
			return nil, err
		}
		lines = append(lines, sheet.Score{Title: kept.Solo.Name, Chart: over.chart, Instrument: over.instrument, Line: line})
	}
	return lines, nil
}
