// Package schedule says when a card is asked again, and which cards are new today. The intervals
// are those of FSRS (Free Spaced Repetition Scheduler, by the open-spaced-repetition project, in
// its Go library); time is passed in.
package schedule
