package pitch

import "fmt"

// MIDI is a sounding pitch as a MIDI note number: 60 is middle C, one a semitone.
type MIDI int

// Class is the pitch class of the sounding pitch.
func (m MIDI) Class() Class { return ClassOf(int(m)) }

// Sounding names the pitch with its octave in the given spelling, middle C
// being C4. The octave belongs to the letter: B#3 and C4 are the same pitch.
func (m MIDI) Sounding(n Note) string {
	octave := (int(m)-n.Accidental-letterSemitones[n.Letter])/12 - 1
	return fmt.Sprintf("%s%d", n, octave)
}
