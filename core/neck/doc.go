// Package neck lays tones on the strings and frets of an instrument: where the positions of a
// key lie, where each tone is placed in one, and which finger takes it.
//
// Strings count from 1, the highest sounding, as players count; frets from 0, the open
// string. A Window is four core frets and one fret of reach on either side; a Position is a
// window named by the open chord form (C, A, G, E or D) that the tonic makes there. Placing
// and fingering are exact shortest paths over the cost table in finger.go.
package neck
