package neck_test

import (
	"fmt"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// The tones of a C7 in the E form of C, with the finger that takes each.
func Example() {
	guitar := neck.Standard()
	chord, _ := harmony.ParseChord("C7")
	position, _ := neck.FindPosition(guitar, chord.Root.Class(), "E")
	fmt.Println(position.ID())
	for _, tone := range neck.PlaceTones(guitar, position.Window, chord.Tones()).Tones[:4] {
		fmt.Printf("%s: string %d fret %d, finger %d\n", tone.Degree, tone.String, tone.Fret, tone.Finger)
	}
	// Output:
	// E-7
	// R: string 6 fret 8, finger 2
	// 3: string 5 fret 7, finger 1
	// 5: string 5 fret 10, finger 4
	// b7: string 4 fret 8, finger 2
}
