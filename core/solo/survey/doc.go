// Package survey measures planned choruses from their notes and chords alone: where phrases
// begin, what changes are landed on, how bars differ from each other, what is bent. Nothing
// of it is used by the planner, so that a figure says what a listener hears and not what the
// plan was chosen by.
package survey
