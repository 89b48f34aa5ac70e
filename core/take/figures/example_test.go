package figures_test

import (
	"fmt"

	"undaris/core/take"
	"undaris/core/take/figures"
)

// A scale on a plucked string, at the neck pickup.
func Example() {
	row, err := figures.Hear(figures.Lines()[:1], figures.Plucked()[0], figures.Clean, 44100, take.NotesOf)
	if err != nil {
		panic(err)
	}
	fmt.Printf("%s, %s: F above 0.98: %t\n", row.Voice, row.Disturbance, row.Score.F() > 0.98)
	// Output:
	// neck pickup, pick, clean: F above 0.98: true
}
