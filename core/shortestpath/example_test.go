package shortestpath_test

import (
	"fmt"

	"undaris/core/shortestpath"
)

// A hand goes from fret 5 to fret 7 the shorter way.
func Example() {
	frets := [][]int{{5}, {1, 6, 12}, {7}}
	chosen, cost := shortestpath.Choose(frets, func(int) int { return 0 }, func(_ int, from, to int) int { return max(from-to, to-from) })
	fmt.Println(frets[1][chosen[1]], cost)
	// Output: 6 2
}
