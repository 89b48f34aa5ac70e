// Package exercise walks figures and structures through chords: an Exercise says what is walked,
// over which chords, where on the neck, in which order, with which ornaments and when, and is
// written out as a phrase to be played. A Motif is a few fretted notes bent to follow every chord.
//
// Writing goes in four steps: Over gives the chords in time; an area of the neck gives, for each
// chord, a ladder of rungs (notes, or structures with all ways to play them); a walker
// goes over the ladders; and the rungs are placed and fingered at the least cost.
package exercise
