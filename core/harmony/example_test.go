package harmony_test

import (
	"fmt"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// What the notes of the minor box are over the I of a blues in C.
func Example() {
	key, _ := harmony.ReadKey("C dominant")
	chord, _ := harmony.ParseChord("C7")
	box, _ := key.Box(harmony.MinorPentatonic)
	for _, tone := range box.Tones {
		judged := key.Judge(chord, tone.Note.Class())
		fmt.Println(judged.Note, judged.Degree, judged.Class)
	}
	fmt.Println(key.Judge(chord, pitch.ClassOf(3)).Reason)
	// Output:
	// C R chordTone
	// Eb b3 blue
	// F 11 suspension
	// G 5 chordTone
	// Bb b7 chordTone
	// Eb is the b3 of C7: lean on it, and bend or slide it up to E, the 3.
}
