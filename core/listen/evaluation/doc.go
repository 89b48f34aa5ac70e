// Package evaluation says how well package listen hears: lines with everything that is asked of it, the
// truth beside them, what a studio and a living room do to a sound, and the figures that come of it. Nothing
// here is recorded; docs/takes.md has the table.
package evaluation
