package change_test

import (
	"fmt"

	"undaris/core/change"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// From C7 to F7: what defines the change, and the best move into it.
func Example() {
	guitar := neck.Standard()
	key, _ := harmony.ReadKey("C dominant")
	c7, _ := harmony.ParseChord("C7")
	f7, _ := harmony.ParseChord("F7")
	box, _ := key.Box(harmony.MinorPentatonic)
	fmt.Println(change.Headline(c7, f7, change.DefiningTones(c7, f7, box)))
	position, _ := neck.FindPosition(guitar, key.Tonic.Class(), "E")
	from, to := neck.PlaceTones(guitar, position.Window, c7.Tones()), neck.PlaceTones(guitar, position.Window, f7.Tones())
	fmt.Println(change.Moves(change.ThirdsFirst, c7, f7, from, to)[0].Text)
	// Output:
	// Play A, the 3 of F7: neither C7 nor your box has it, so it alone says F7.
	// Bb, the b7 of C7, down a fret to A, the 3 of F7
}
