// Package harmony spells chords and scales and says what a note is over a chord.
//
// A Chord is a root with a Quality (C7, F#m7b5), a Key a tonic with one of the modes of blues
// and rock. Key.Judge gives the class of any note over any chord in a key: a chord tone, a
// colour, a blue note, a suspension or outside, with where it wants to go and why; the table
// behind it is in judge.go. Key.ChordScale is the scale that a chord's tones belong to,
// Key.Box the pentatonic or blues box of the key.
//
// The rules are common theory unless a comment says otherwise.
package harmony
