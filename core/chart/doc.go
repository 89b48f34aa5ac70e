// Package chart holds the bars of a tune with their chords, its time line in ticks (480 to a
// quarter note), and the schemes that a blues is built on.
//
// A Chart is written bars with repeats and endings; ChordSpans plays the repeats out and says
// which chord sounds when, Changes where one gives way to another. Bars count from 0 in code.
// Edits return a new chart and leave the old one as it is.
package chart
