// Package pitch holds what every other rule counts in: pitch classes (0 to 11, C is 0),
// spelled notes (a letter with an accidental), sounding pitches (MIDI numbers, 60 is the C
// of piano and guitar notation's middle) and the degrees that name an interval over a root.
//
// A class says which key of a piano is meant, a note how it is written: F# and Gb are one
// class and two notes. Rules that compare sounds use classes; rules that write for a reader
// use notes.
package pitch
