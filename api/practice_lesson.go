package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/practice/lesson"
	"undaris/format/document"
)

// LessonRequest asks how a lick is learned in parts.
type LessonRequest struct {
	Lick document.Lick `json:"lick"`
	Cuts []int         `json:"cuts,omitempty" maxItems:"32" doc:"The ticks at which the player cuts it; left out to cut it where it breathes"`
	Goal int           `json:"goal,omitempty" doc:"The tempo that is wanted; left out for 100"`
}

// Lesson is how a lick is learned.
type Lesson struct {
	Steps  []LessonStep `json:"steps" doc:"Each by itself, then joined to those before, the whole at last"`
	Tempos []int        `json:"tempos" doc:"From half the goal up to it"`
}

// LessonStep is what is played until it is clean.
type LessonStep struct {
	Title string `json:"title"`
	From  int    `json:"from" doc:"The lick's tick of its first note"`
	To    int    `json:"to" doc:"The tick that it ends before"`
}

// usualGoal is the tempo that is wanted where nothing is said.
const usualGoal = 100

func (s *server) registerComputeLesson(api huma.API) {
	posts(api, "/api/compute/practice/lesson", func(_ context.Context, in *body[LessonRequest]) (*body[Lesson], error) {
		l, err := in.Body.Lick.Core()
		if err != nil {
			return nil, invalid("lick", err)
		}
		goal := in.Body.Goal
		if goal == 0 {
			goal = usualGoal
		}
		if goal < chart.MinTempo || goal > chart.MaxTempo {
			return nil, invalid("goal", &chart.FieldError{Field: "tempo", Detail: "a tempo is 20 to 400 beats a minute"})
		}
		return &body[Lesson]{Lesson{
			Steps:  each(lesson.Steps(l, in.Body.Cuts), func(step lesson.Step) LessonStep { return LessonStep(step) }),
			Tempos: lesson.Ladder(goal),
		}}, nil
	})
}
