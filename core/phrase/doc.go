// Package phrase holds what a player plays: notes on strings and frets with their times and
// techniques, and what each is over the chords.
//
// A Phrase is events in order of time, in ticks of its own (tick 0 is the downbeat of its bar
// 1, a pickup is negative), and the chords it was written over. Check holds it to what a hand
// can play. Edit changes a phrase the way a player writes one, Notate writes it as notation,
// Labels say what every note is over its chord.
package phrase
