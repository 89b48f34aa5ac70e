package pluck_test

import (
	"fmt"
	"math"

	"undaris/core/listen/pluck"
)

// A string at A2 goes round 110 times a second.
func Example() {
	sound := pluck.Render([]pluck.Played{{Length: 1, Pitch: 45, String: 5, Attack: pluck.Picked, Loudness: 0.5}}, pluck.CleanNeck, 44000, 1, 1)
	const period = 400 // samples
	alike, all := 0.0, 0.0
	for n := 8000; n < 9000; n++ {
		alike += float64(sound[n] * sound[n+period])
		all += float64(sound[n] * sound[n])
	}
	fmt.Printf("a period later %.0f %% of it comes again\n", 100*math.Min(1, alike/all))
	// Output:
	// a period later 99 % of it comes again
}
