package judge_test

import (
	"fmt"

	"undaris/core/listen"
	"undaris/core/take/judge"
)

// A bend to the whole step that stops 30 cents short, on a guitar in tune.
func Example() {
	notes := []listen.Note{
		{Onset: 0, Length: 0.4, Pitch: 60.01, Confidence: 1},
		{Onset: 0.5, Length: 0.4, Pitch: 62, Confidence: 1},
		{Onset: 1, Length: 0.8, Pitch: 67, Confidence: 1, Bend: &listen.Bend{Cents: 170, Reached: 0.2}},
	}
	for _, b := range judge.IntonationOf(notes).Bends {
		fmt.Printf("to %d half steps, %.0f cents: %s\n", b.Target, b.Cents, b.Judgement)
	}
	// Output:
	// to 2 half steps, -30 cents: flat
}
