package listen_test

import (
	"fmt"

	"undaris/core/listen"
	"undaris/core/listen/pluck"
)

// A string is struck, hammered on, and bent.
func Example() {
	played := []pluck.Played{
		{Onset: 0.2, Length: 0.4, Pitch: 57, String: 3, Attack: pluck.Picked, Loudness: 0.4},
		{Onset: 0.6, Length: 0.35, Pitch: 60, String: 3, Attack: pluck.Hammered, Loudness: 0.3},
		{Onset: 1.0, Length: 0.6, Pitch: 60, String: 3, Attack: pluck.Picked, Loudness: 0.4, Curve: []pluck.Point{{}, {Seconds: 0.1}, {Seconds: 0.25, Cents: 195}}},
	}
	sound := pluck.Render(played, pluck.CleanNeck, 44100, 2, 1)
	notes, err := listen.NotesOf(sound, 44100)
	if err != nil {
		panic(err)
	}
	for _, n := range notes {
		fmt.Printf("%.1f s: %d, %s", n.Onset, n.MIDI(), n.Attack)
		if n.Bend != nil {
			fmt.Printf(", bent by %.0f cents", n.Bend.Cents)
		}
		fmt.Println()
	}
	// Output:
	// 0.2 s: 57, picked
	// 0.6 s: 60, hammered
	// 1.0 s: 60, picked, bent by 195 cents
}
