// Package listen turns sound into notes.
//
// A Listener takes one channel of sound in pieces and writes Notes: when each begins and ends, its pitch and where
// that goes, how it was struck, how loud it was, and how sure it is. It makes no difference in what pieces the
// sound comes.
//
// The sound is brought to one rate (resample.go) and cut into frames of 5 ms. Each frame has the pitches it may
// have (difference.go, candidate.go: YIN with pYIN's thresholds), and the likeliest way through them all is found
// as it goes along (track.go). Where the spectrum grows there may be an onset (flux.go, onset.go); at each, what is
// new in the spectrum says which pitches were struck while other strings rang on (novelty.go). From all of that
// the notes are cut (segment.go, continuation.go, ringing.go, writenote.go), with the slurs and slides between them (move.go), and their bends
// and vibrato (vibrato.go).
//
// What lights up while it is played is known sooner: what sounds at this moment (sounding.go), and the notes that
// have just begun (stroke.go).
//
// docs/takes.md has the sources, the figures, and what the ear hears badly.
package listen
