package analysis

import "undaris/core/phrase"

// The limits by which a line is judged, in one table. All are our choice, for what players
// and teachers say of a line that works; where common practice gives the number the entry
// says so.
const (
	// EarlyTicks is how long before a change a note may start and still belong to the chord
	// that arrives, if it rings through the change: an eighth (common: a push).
	EarlyTicks = phrase.PushTicks

	// RestBeats is how long a note sounds, in beats, to be rested on; RestGapBeats how long
	// the silence after a shorter one is that makes it so.
	RestBeats    = 1.0
	RestGapBeats = 0.5
	// HeldBeats is how long a note sounds, in beats, to be a held note.
	HeldBeats = 1.5
	// StepSemitones is the widest step by which a passing note goes on to where it wants.
	StepSemitones = 2
	// ResolveWithin is how many notes it may take to get there.
	ResolveWithin = 2

	// LongestPhraseBars is how many bars a phrase may go on without PhraseGapBeats of silence.
	LongestPhraseBars = 3
	PhraseGapBeats    = 1.0
	// LeastMotifNotes is how many notes must come back for a motif to be one.
	LeastMotifNotes = 4
	// MaxEqualLengths is how many notes of one length may follow each other.
	MaxEqualLengths = 8
	// MaxStepsOneWay is how many steps may go in one direction.
	MaxStepsOneWay = 5
	// BoxStepSemitones is the widest step between neighbours of a pentatonic scale.
	BoxStepSemitones = 3
	// WideLeapSemitones is the widest leap that need not turn back: a fifth.
	WideLeapSemitones = 7
	// LeastRangeSemitones is the least range of a chorus: a minor sixth.
	LeastRangeSemitones = 8
	// LeastTechniqueKinds is how many kinds of technique a chorus has at least.
	LeastTechniqueKinds = 2
	// LeastTouchShare is the least share of the notes that are bent, slid, slurred or shaken.
	LeastTouchShare = 0.1
	// HeldEveryBars is in how many bars a held note is expected once.
	HeldEveryBars = 4
	// ShiftFrets is how far the place of the hand moves in a shift: one fret is only a reach.
	ShiftFrets = 2

	// GoodStrongShare, GoodHeardShare and GoodSilentShare are what a good chorus has at least:
	// of strong beats that are chord tones, of chords heard without the band, of silence.
	GoodStrongShare = 0.7
	GoodHeardShare  = 0.75
	GoodSilentShare = 0.15

	// WalkMoves is how many moves in a row are a walk, by notes of WalkBeats at most; MostWalking
	// the share of them that makes an exercise, of at least LeastMoves.
	WalkMoves   = 3
	WalkBeats   = 0.5
	MostWalking = 0.65
	LeastMoves  = 8
	// LongChorusBars is how many bars a chorus has that something is to come back in.
	LongChorusBars = 8
	// MostMissedLandings is the share of the changes met by no tone of the chord that is said
	// first, MostPoorRests that of the notes rested on, MostLoosePassing that of the notes that are
	// outside and go nowhere; LeastStrongBeats how many strong beats there must be to speak of.
	MostMissedLandings = 0.34
	MostPoorRests      = 0.34
	MostLoosePassing   = 0.15
	LeastStrongBeats   = 4
)
