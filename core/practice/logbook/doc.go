// Package logbook is the log of what was practised: its entries, and what they say when they are
// put together by days, by things and by tempo.
package logbook
