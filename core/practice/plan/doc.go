// Package plan makes a plan for the minutes that a player has: blocks of warm-up, cards that are
// due, a lick in parts, a tune, free playing, a phrase of one's own and a note on how it went. What
// is weakest, was left alone longest, or is the player's goal comes first.
package plan
