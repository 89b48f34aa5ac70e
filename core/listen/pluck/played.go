package pluck

import "slices"

// Attack is how a note begins.
type Attack string

// The ways a note begins: struck, or by the fretting hand alone on a string that sounds already.
const (
	Picked   Attack = "picked"
	Hammered Attack = "hammered"
	Pulled   Attack = "pulled"
	Slid     Attack = "slid"
)

// Point is a place of a note's pitch: seconds after its onset, and cents above its fretted pitch. Between
// points the pitch moves straight.
type Point struct {
	Seconds, Cents float64
}

// Played is one note as it is to sound.
type Played struct {
	// Onset and Length are seconds, the onset from the beginning of the sound.
	Onset, Length float64
	// Pitch is the fretted pitch as a MIDI number; a share of one is cents out of tune.
	Pitch float64
	// Curve moves the pitch; none leaves it.
	Curve []Point
	// String says on which string it lies, from 1; notes of one string end one another.
	String int
	Attack Attack
	// Loudness is the height of the wave where it is struck, 0 to 1.
	Loudness float64
	// Rings lets the note ring on after its length, until its string is struck again.
	Rings bool
}

// Cents is how far the pitch lies from the fretted one, so many seconds after the onset.
func (p Played) Cents(seconds float64) float64 {
	c := p.Curve
	if len(c) == 0 {
		return 0
	}
	n, _ := slices.BinarySearchFunc(c, seconds, func(at Point, want float64) int {
		if at.Seconds <= want {
			return -1
		}
		return 1
	})
	switch {
	case n == 0:
		return c[0].Cents
	case n == len(c):
		return c[n-1].Cents
	}
	a, b := c[n-1], c[n]
	return a.Cents + (b.Cents-a.Cents)*(seconds-a.Seconds)/(b.Seconds-a.Seconds)
}

// slideNote is how long the finger takes over one fret of a slide, in seconds (our choice, by ear).
const slideNote = 0.018

// SlideFrom is the curve of a note that is slid into over frets: each fret on the way sounds for a moment,
// and the note itself from its onset plus the time that the frets on the way take.
func SlideFrom(semitones int) []Point {
	points := []Point{}
	step := 1
	if semitones > 0 {
		step = -1
	}
	at := 0.0
	for from := semitones; from != 0; from += step {
		points = append(points, Point{at, float64(from) * 100}, Point{at + slideNote, float64(from) * 100})
		at += slideNote + 0.002
	}
	return append(points, Point{at, 0})
}
