package listen

import "math"

// Attack is how a note begins.
type Attack string

// The ways a note begins, as far as they can be heard.
const (
	Picked   Attack = "picked"
	Hammered Attack = "hammered"
	Pulled   Attack = "pulled"
	Slid     Attack = "slid"
)

// Attacks lists the ways a note begins.
var Attacks = []Attack{Picked, Hammered, Pulled, Slid}

// Note is one note that was heard.
type Note struct {
	// Onset and Length are seconds, the onset from the beginning of the take. A note that is slid into
	// begins when the finger arrives.
	Onset, Length float64
	// Pitch is the pitch it begins with, as a MIDI number with its cents as a share; Bend says where it
	// goes from there.
	Pitch float64
	// Curve is how far the pitch lies from Pitch in cents, a value every 5 ms from the onset on.
	Curve  []float32
	Attack Attack
	// SlidFrom is from how many semitones away the finger came; 0 where it did not slide.
	SlidFrom int
	Bend     *Bend
	Vibrato  *Vibrato
	// Loudness is the loudest 10 ms, in dB below full scale.
	Loudness float64
	// Confidence is 0 to 1: how sure it is that the note was played, with this pitch.
	Confidence float64
	// Together says that it sounds at once with the note before it: a double stop.
	Together bool
}

// End is when the note ends, in seconds.
func (n Note) End() float64 { return n.Onset + n.Length }

// MIDI is the semitone nearest to the pitch it begins with.
func (n Note) MIDI() int { return int(math.Round(n.Pitch)) }

// Bend is a string that is pushed or let go.
type Bend struct {
	// Cents is how far it goes, above the fretted pitch.
	Cents float64
	// Pre says that the string was bent before it was struck: the note begins at the top.
	Pre bool
	// Reached and Released are seconds after the onset: when the top is reached (0 for a bend before the
	// note), and when the string is back; Released is 0 where it does not come back.
	Reached, Released float64
}

// Vibrato is a pitch that goes to and fro.
type Vibrato struct {
	// Hertz is how often a second; Cents how far on either side of the middle; Delay when it begins, in
	// seconds after the onset.
	Hertz, Cents, Delay float64
}

// SoundingMIDI is the semitone nearest to the pitch that the ear rests on: the top of a bend.
func (n Note) SoundingMIDI() int { return int(math.Round(n.Pitch + n.steadyOffsetCents()/100)) }

func (n Note) steadyOffsetCents() float64 {
	if n.Bend == nil || n.Bend.Pre || n.Bend.Released > 0 && n.Bend.Released < n.Length/2 {
		return 0
	}
	return n.Bend.Cents
}
