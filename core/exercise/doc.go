// Package exercise writes figures walked through the chords of a tune: a Sequence goes up and
// down the tones of a position, a Motif is a few fretted notes bent to follow every chord.
package exercise
