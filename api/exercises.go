package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/document"
	"undaris/library/documents"
)

// KeptExercise is an exercise of the library.
type KeptExercise struct {
	Kept
	Exercise document.Exercise `json:"exercise"`
	Text     string            `json:"text" doc:"What it is, in a few words"`
}

// ExerciseEntry is an exercise in the list of the deleted ones.
type ExerciseEntry struct {
	Kept
	Name string `json:"name"`
	documents.ExerciseSummary
}

// ReplaceExercise is an exercise in the place of a version.
type ReplaceExercise struct {
	Replacing
	Exercise document.Exercise `json:"exercise"`
}

func (r ReplaceExercise) content() document.Exercise { return r.Exercise }

func (s *server) registerExercises(api huma.API) {
	exercises := resource[document.Exercise, documents.ExerciseSummary, KeptExercise, ExerciseEntry]{
		path: "exercises", kind: documents.Exercises, view: keptExercise,
		entry: func(e documents.Entry[documents.ExerciseSummary]) ExerciseEntry {
			entry := ExerciseEntry{Kept: keptOf(e.Info), Name: e.Name, ExerciseSummary: e.Summary}
			entry.Damaged = e.Damaged
			if entry.Tags == nil {
				entry.Tags = []string{}
			}
			return entry
		},
		texts: func(all []documents.Revision[document.Exercise]) []string {
			return each(all, func(r documents.Revision[document.Exercise]) string { return r.Name + ": " + exerciseText(r.Body) })
		},
	}
	serve(api, s, exercises)
	serveReplace[document.Exercise, documents.ExerciseSummary, KeptExercise, ExerciseEntry, ReplaceExercise](api, s, exercises, "exercise")
	gets(api, "/api/exercises", func(ctx context.Context, _ *struct{}) (*body[[]KeptExercise], error) {
		items, faults, err := documents.Exercises.ReadAllWithDamaged(ctx, s.library, 0)
		all := make([]KeptExercise, len(items))
		for n, item := range items {
			all[n] = KeptExercise{Kept: keptOf(item.Info), Exercise: item.Body, Text: exerciseText(item.Body)}
			if fault := faults[item.ID]; fault != nil {
				all[n].Damaged, all[n].Exercise = fault.Error(), document.Exercise{Name: item.Name}
			}
		}
		return &body[[]KeptExercise]{all}, err
	}, described("exercises", "List the exercises"))
	creates(api, "/api/exercises", func(ctx context.Context, in *creation[document.Exercise]) (*tagged[KeptExercise], error) {
		item, err := documents.Exercises.CreateOnce(ctx, s.library, in.UID, in.Body, 0)
		if err != nil {
			return nil, saveProblem("exercise", "", 0, err)
		}
		view, err := keptExercise(ctx, item)
		return &tagged[KeptExercise]{ETag: etag(item.Version), Body: view}, err
	}, described("exercises", "Keep a new exercise"))
}

func keptExercise(_ context.Context, item documents.Item[document.Exercise]) (KeptExercise, error) {
	return KeptExercise{Kept: keptOf(item.Info), Exercise: item.Body, Text: exerciseText(item.Body)}, nil
}

// exerciseText says what an exercise is in a few words; nothing where it cannot be read.
func exerciseText(d document.Exercise) string {
	e, err := d.Core()
	if err != nil {
		return ""
	}
	return e.Title()
}
