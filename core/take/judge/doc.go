// Package judge says how a take was played: against the grid and the feel, in tune or not, and against the line
// that was meant, where there is one. What the notes say of the chords is said by package analysis; here both come
// together in the verdict of a take.
package judge
