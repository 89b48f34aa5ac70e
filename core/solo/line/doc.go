// Package line joins a lick to a change: it re-writes the tail of the lick so that a chosen
// tone of the next chord falls on the downbeat. Which notes of the lick stay and which lead to
// the approach is an exact shortest path (tail.go).
package line
