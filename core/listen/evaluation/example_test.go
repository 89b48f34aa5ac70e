package evaluation_test

import (
	"fmt"

	"undaris/core/listen"
	"undaris/core/listen/evaluation"
)

// A scale on a plucked string, at the neck pickup.
func Example() {
	row, err := evaluation.Hear(evaluation.Lines()[:1], evaluation.Plucked()[0], evaluation.Clean, 44100, listen.NotesOf)
	if err != nil {
		panic(err)
	}
	fmt.Printf("%s, %s: F above 0.98: %t\n", row.Voice, row.Disturbance, row.Score.F() > 0.98)
	// Output:
	// neck pickup, pick, clean: F above 0.98: true
}
