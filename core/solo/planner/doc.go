// Package planner plans choruses: from one seed it makes candidates, judges each, and offers
// the best that differ. The same request gives the same answer.
//
// A candidate is made in stages (candidate.go): room for phrases, their rhythms, licks to
// begin with, a contour, pitches by an exact shortest path, techniques, fingers, blocks. The
// request, what all candidates share (planContext) and the phrases of one candidate
// (draftPhrase) are three types.
package planner
