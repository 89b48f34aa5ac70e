package listen

import (
	"testing"

	"undaris/core/listen/pluck"
)

// BenchmarkHearing says how many times faster than it sounds a minute of notes is heard, on one core.
func BenchmarkHearing(b *testing.B) {
	notes := []pluck.Played{}
	for n := range 240 {
		notes = append(notes, pluck.Played{Onset: 0.25 * float64(n), Length: 0.24, Pitch: float64(45 + n*7%30), String: 1, Attack: pluck.Picked, Loudness: 0.4})
	}
	sound := pluck.Render(notes, pluck.CleanNeck, 48000, 60, 1)
	for b.Loop() {
		if _, err := NotesOf(sound, 48000); err != nil {
			b.Fatal(err)
		}
	}
	b.ReportMetric(60*float64(b.N)/b.Elapsed().Seconds(), "×real-time")
}
