// Package analysis says what can be heard of a phrase over its chords: what lands on each
// change, what is rested on, what falls on strong beats, which tones each chord got, which
// chord the line alone implies, what shape and style it has, and which repair would help.
//
// Every figure comes with the notes it is counted from, never as one score. Each idea is
// defined once, here: the landing (LandingAt), the note rested on (RestsOn), the held note
// (IsHeld), silence (SilentShare), and the table of limits in thresholds.go. Planner,
// verdict, reasons and repairs all use these.
//
// Ticks are those of the phrase (480 to a quarter note, tick 0 the downbeat of its bar 1);
// notes are indices of phrase.Phrase.Events, counted from 0.
package analysis
