package floor_test

import (
	"fmt"

	"undaris/core/floor"
)

// A bar before the first lies where it would after it.
func Example() {
	bar, tick := floor.Divide(-480, 1920)
	fmt.Println(bar, tick)
	// Output: -1 1440
}
