// Package transcribe writes what was heard as a phrase over the chart it was played to: each note on a string
// and a fret, at its notated tick, with its technique, and how far from there it was played.
package transcribe
