// Package etude joins licks, exercises and runs over the form of a tune: block after block, each led into
// the next by a chromatic run, with an ending of choice. What comes out are choruses like all others.
package etude
