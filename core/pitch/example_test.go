package pitch_test

import (
	"fmt"

	"undaris/core/pitch"
)

// The b7 over C is a Bb, ten half steps above it.
func Example() {
	c, _ := pitch.ParseNote("C")
	seventh := pitch.MustDegree("b7")
	fmt.Println(seventh.Over(c), seventh.Semitones(), seventh.Over(c).Class())
	// Output: Bb 10 10
}
