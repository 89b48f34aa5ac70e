package pitch

// MIDI is a sounding pitch as a MIDI note number: 60 is middle C, one a semitone.
type MIDI int

// Class is the pitch class of the sounding pitch.
func (m MIDI) Class() Class { return ClassOf(int(m)) }
