package exercise

import (
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Exercise is a figure or structure walked through chords: what is walked, over which
// chords, where on the neck, in which order, with which ornaments and in which time. The zero
// value of every choice is the plain one, so that an exercise needs to name only what it wants
// otherwise. Degrees are counted over the chord; strings and frets as players count them.
type Exercise struct {
	Tones Tones
	// Extensions are the 9, 11 and 13 that are added to arpeggios, as the chord's scale has them.
	Extensions []int
	// Superimposed is the degree of the chord on which a superimposed arpeggio stands: 3, 5, 7
	// or 9; 0 for the best of all.
	Superimposed int
	// Broken plays the notes of a structure one after the other, in place of together.
	Broken bool
	Over   Over
	Where  Where
	Order  Order
	// Into says how each chord is led into the next.
	Into      Into
	Ornaments Ornaments
	Time      Time
}

// Over is the chords that are walked through.
type Over struct {
	Kind OverKind
	// From is the first bar of the tune, from 0, and Bars how many; 0 bars for all up to
	// MaxBars. One chord lasts so many bars too.
	From, Bars int
	// Chord is the one chord; nil for the chord of the tune's tonic.
	Chord *harmony.Chord
	// Text is the progression in bar notation, as in "| Am7 | D7 | % |".
	Text string
}

// Where is where on the neck the notes lie.
type Where struct {
	Kind WhereKind
	// LowString and HighString bound the strings by number, the highest sounding (1) first: 1
	// and 2 are the top two. Both 0 for all.
	LowString, HighString int
	// LowFret and HighFret bound the frets of SomeFrets.
	LowFret, HighFret int
	// PerString is how many notes lie on a string, 2 to 4, of NotesPerString and
	// CellOnStrings; 0 for 3 and for 2.
	PerString int
}

// Order is the order in which the tones are played.
type Order struct {
	Direction Direction
	Start     Start
	Figure    Figure
	// Numbers is the player's own figure: steps of the tones that are walked, from 1.
	Numbers []int
	Turn    FigureTurn
}

// Ornaments are notes and techniques added to a walk.
type Ornaments struct {
	// Before is what leads into the tones of the degrees To; no degrees for the 5.
	Before Approach
	To     []int
	Tail   Tail
	// Slurs hammers on and pulls off what lies on one string under one hand; the first note
	// on a string is picked. Slides slides where the hand moves along a string.
	Slurs, Slides bool
	// Trill trills notes of a beat or more.
	Trill bool
	// SkipStrings leaves a string out between every two.
	SkipStrings bool
}

// Time is when the notes are played.
type Time struct {
	// Subdivision is a meter's, in any other the nearest that it has; empty for eighths, OncePerChord for one note or
	// structure a chord.
	Subdivision string
	Pattern     Pattern
	// Notes is how many notes CountedBack plays into each change, the landing counted; 0 for 5.
	Notes int
	// Accent accents every so many-th note; 0 for none.
	Accent int
	// Play and Rest are how many notes are played and then left out, again and again; 0 for no rests.
	Play, Rest int
	// NoEnding leaves out the held last note.
	NoEnding bool
}

// OncePerChord is the subdivision of exercises that play once a chord.
const OncePerChord = "once a chord"

// MaxBars is how many bars an exercise is written over at most.
const MaxBars = 64

// strings are the numbers of the strings that are played, the highest sounding first.
func (w Where) strings(i neck.Instrument) (low, high int) {
	if w.LowString == 0 && w.HighString == 0 {
		return 1, len(i.Open)
	}
	return w.LowString, w.HighString
}

// onString says whether a string is played.
func (w Where) onString(i neck.Instrument, s int) bool {
	low, high := w.strings(i)
	return s >= low && s <= high
}
