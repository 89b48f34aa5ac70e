// Package change works out how one chord gives way to the next on the neck: the moves between
// their tones, the tones that define the new chord, what the box lacks, the approaches that
// lead into a target, the targets of a whole chorus, and the arithmetic of runs.
//
// A target strategy says which degrees are aimed at (thirds first, guide tones, roots first,
// nearest tone). The path of targets over a chorus is an exact shortest path (path.go).
package change
