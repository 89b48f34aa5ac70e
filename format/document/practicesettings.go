package document

import (
	"fmt"
	"time"

	"undaris/core/chart"
)

// PracticeSettings is how a player practises, and what for.
type PracticeSettings struct {
	// NewCards is how many new cards come a day at most.
	NewCards *int `json:"newCards,omitempty" doc:"How many new cards come a day, 0 to 50; left out for 8"`
	// The goal is a lick or a tune, at a tempo, by a day; all of it may be left out.
	GoalLick  uint   `json:"goalLick,omitempty" doc:"The id of the lick that is worked towards"`
	GoalTune  uint   `json:"goalTune,omitempty" doc:"The id of the tune that is worked towards"`
	GoalTempo int    `json:"goalTempo,omitempty" doc:"The tempo that is wanted, 20 to 300"`
	GoalDay   string `json:"goalDay,omitempty" doc:"The day that it is wanted by, as 2026-03-01"`
	// LatencyMS is how much later than it is played a note is heard of, as it was tapped.
	LatencyMS int `json:"latencyMs,omitempty" doc:"What a tapped calibration found, 0 to 500 ms"`
}

// usualNewCards is how many new cards come a day (our choice: about ten minutes with what comes of
// them).
const usualNewCards = 8

// NewPerDay is how many new cards come a day.
func (s PracticeSettings) NewPerDay() int {
	if s.NewCards == nil {
		return usualNewCards
	}
	return *s.NewCards
}

// Check returns a *chart.FieldError for what cannot be meant.
func (s PracticeSettings) Check() error {
	if n := s.NewPerDay(); n < 0 || n > 50 {
		return &chart.FieldError{Field: "newCards", Detail: fmt.Sprintf("0 to 50 new cards come a day; %d do not", n)}
	}
	if s.GoalTempo != 0 && (s.GoalTempo < chart.MinTempo || s.GoalTempo > chart.MaxTempo) {
		return &chart.FieldError{Field: "goalTempo", Detail: fmt.Sprintf("a tempo is %d to %d; %d is not", chart.MinTempo, chart.MaxTempo, s.GoalTempo)}
	}
	if s.GoalDay != "" {
		if _, err := time.Parse(time.DateOnly, s.GoalDay); err != nil {
			return &chart.FieldError{Field: "goalDay", Detail: fmt.Sprintf("a day is written as 2026-03-01; %q is not", s.GoalDay)}
		}
	}
	if s.LatencyMS < 0 || s.LatencyMS > 500 {
		return &chart.FieldError{Field: "latencyMs", Detail: fmt.Sprintf("a latency is 0 to 500 ms; %d is not", s.LatencyMS)}
	}
	return nil
}
