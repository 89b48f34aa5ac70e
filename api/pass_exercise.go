package api

import (
	"undaris/core/exercise"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/routine"
	"undaris/format/document"
)

// IdentifiedExercise is an exercise that a routine may name.
type IdentifiedExercise struct {
	ID       uint              `json:"id"`
	Exercise document.Exercise `json:"exercise"`
}

// exerciseLine is the exercise of a segment through the chords of a pass, where the hand stands; the
// nearest that can be had where it cannot be written there, and nothing where it was not sent.
func (o playContext) exerciseLine(asked PassRequest, p routine.Pass, position neck.Position) (phrase.Phrase, bool, error) {
	for _, one := range asked.Exercises {
		if one.ID != p.Segment.Exercise {
			continue
		}
		e, err := one.Exercise.Core()
		if err != nil {
			return phrase.Phrase{}, false, invalid("exercises", err)
		}
		// A routine has chords of its own.
		e.Over = exercise.Over{}
		s := exercise.Setting{Tune: p.Chart, Instrument: o.instrument, Position: position, SpanMM: o.spanMM}
		w, err := writeNearest(e, s)
		// Where nothing like it can be written it is left out: the band plays on.
		return w.Phrase, err == nil, nil
	}
	return phrase.Phrase{}, false, nil
}

// writeNearest writes an exercise, or the nearest to it that can be had there; its error is that of the
// exercise itself.
func writeNearest(e exercise.Exercise, s exercise.Setting) (exercise.Written, error) {
	w, err := e.Write(s)
	if err == nil {
		return w, nil
	}
	if nearest, ok := e.Nearest(s); ok {
		return nearest.Write(s)
	}
	return w, err
}
