// Package solofile writes a solo in the open formats.
package solofile

import (
	"undaris/core/chart"
	"undaris/core/choice"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/format/midifile"
	"undaris/format/musicxml"
	"undaris/format/sheet"
	"undaris/format/tabtext"
)

// Solo is a line of one or more choruses over a chart.
type Solo struct {
	Name       string
	Chart      chart.Chart
	Instrument neck.Instrument
	// Line has its tick 0 at the start of the first chorus.
	Line     phrase.Phrase
	Choruses int
	// Shapes draws the places over each chord on necks below the notes of a PDF.
	Shapes bool
}

// lick is the solo as one long lick, which the writers of licks write.
func (s Solo) lick() lick.Lick {
	return lick.Lick{Name: s.Name, About: "Over " + s.Chart.Title, Tonic: s.Chart.Key.Tonic, Phrase: s.Line, Instrument: &s.Instrument}
}

// Format is a format that solos are written in.
type Format struct {
	// Name is its short name in addresses, Title the one for people.
	Name, Title string
	// Extension ends a file's name, with its dot; Type is its media type.
	Extension, Type string
	write           func(Solo) []byte
}

// Formats lists every format, in the order to show it.
var Formats = []Format{
	{"pdf", "Tab and staff, PDF", ".pdf", "application/pdf", func(s Solo) []byte {
		return sheet.Score{Title: s.Name, Chart: s.Chart, Instrument: s.Instrument, Line: s.Line, Shapes: s.Shapes}.PDF()
	}},
	{"tab", "Plain-text tab", ".txt", "text/plain; charset=utf-8", func(s Solo) []byte { return tabtext.Write(s.lick()) }},
	{"musicxml", "MusicXML", ".musicxml", "application/vnd.recordare.musicxml+xml", func(s Solo) []byte { return musicxml.WriteLick(s.lick()) }},
	{"midi", "MIDI: line, bass, chords, click", ".mid", "audio/midi", func(s Solo) []byte {
		return midifile.WriteSolo(s.Chart, s.Instrument, s.Line, s.Choruses)
	}},
}

// Find finds a format by its short name; its error is a *choice.Error.
func Find(name string) (Format, error) {
	return choice.Find("a format", Formats, func(f Format) string { return f.Name }, name)
}

// Names lists their short names.
func Names() []string {
	names := make([]string, len(Formats))
	for n, f := range Formats {
		names[n] = f.Name
	}
	return names
}

// Write writes the solo in the format.
func (f Format) Write(s Solo) []byte { return f.write(s) }
