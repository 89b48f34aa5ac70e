// Package standin is a simulated player: it plays any line over a chart, with the faults that it is given, so that
// everything that listens can be tried and tested without a guitar and without an audio interface. Its playing is
// sounded by package pluck, by the page, or sent as MIDI.
package standin
