package exercise

import "testing"

// BenchmarkExercise writes each ready-made exercise in sixteenths over a tune of 24 bars.
func BenchmarkExercise(b *testing.B) {
	bars := []string{}
	for range 6 {
		bars = append(bars, "C7", "F7", "C7 . A7 .", "G7")
	}
	s := bluesInC(b, bars...)
	for _, r := range append(ReadyMades, ReadyMade{Name: "Whole neck", Exercise: Exercise{Tones: ScaleOfChord, Where: Where{Kind: WholeNeck}}},
		ReadyMade{Name: "Some frets", Exercise: Exercise{Tones: ScaleOfChord, Where: Where{Kind: SomeFrets, LowFret: 3, HighFret: 12}}}) {
		e := r.Exercise
		if e.Time.Subdivision != OncePerChord {
			e.Time.Subdivision = "sixteenth"
		}
		b.Run(r.Name, func(b *testing.B) {
			for b.Loop() {
				if _, err := e.Write(s); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
