// Package practice asks a player about the neck and marks what he answers: what a chord is spelled
// with, where its tones lie, which degree a note is, how an arpeggio goes down from its third.
//
// A Card is what is asked about: a kind of drill, a key, a position and one chord or several. It
// belongs to no tune. Ask makes a question of a card from a seed; a Question knows every right
// answer, marks an answer part by part, and says in one sentence what is right.
package practice
