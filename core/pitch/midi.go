package pitch

// MIDI is a sounding pitch as a MIDI note number: 60 is middle C, one a semitone.
type MIDI int

// Class is the pitch class of the sounding pitch.
func (m MIDI) Class() Class { return ClassOf(int(m)) }

// Octave is the octave the pitch has when it is written as a note: C4 is middle C, and
// B# below it is of octave 3.
func (m MIDI) Octave(n Note) int { return (int(m)-n.Accidental)/12 - 1 }
