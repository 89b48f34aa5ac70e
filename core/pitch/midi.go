package pitch

import "strconv"

// MIDI is a sounding pitch as a MIDI note number: 60 is middle C, one a semitone.
type MIDI int

// Class is the pitch class of the sounding pitch.
func (m MIDI) Class() Class { return ClassOf(int(m)) }

// Octave is the octave the pitch has when it is written as a note: C4 is middle C, and
// B# below it is of octave 3.
func (m MIDI) Octave(n Note) int { return (int(m)-n.Accidental)/12 - 1 }

// sharpNames are the twelve pitches as they are called where no key says otherwise (common).
var sharpNames = [12]string{"C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B"}

// Named is the pitch with its octave, where no key spells it: middle C, MIDI 60, is "C4".
func (m MIDI) Named() string {
	return sharpNames[m.Class()] + strconv.Itoa(int(m)/12-1)
}
