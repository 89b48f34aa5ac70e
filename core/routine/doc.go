// Package routine says what is played through, one after the other: segments of some
// choruses, bars or minutes, each with its tempo, key, parts and view, and with what
// changes when it is played again. A routine is walked pass by pass (Next), so that an
// hour of it needs no more memory than a chorus.
package routine
