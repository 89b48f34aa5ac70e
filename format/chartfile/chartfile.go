// Package chartfile knows which open format a file is in, and hands it to that
// format's reader or writer.
package chartfile

import (
	"bytes"
	"path"
	"regexp"
	"strings"

	"undaris/core/chart"
	"undaris/core/choice"
	"undaris/format/chordpro"
	"undaris/format/grid"
	"undaris/format/midifile"
	"undaris/format/musicxml"
	"undaris/format/reading"
)

// Format is an open format for charts.
type Format struct {
	// Name is its short name in addresses, Title the one for people.
	Name, Title string
	// Extension ends a file's name, with its dot; Type is its media type.
	Extension, Type string
	read            func([]byte) (*reading.Reading, error)
	write           func(chart.Chart) []byte
}

// Formats lists every format, in the order to show it.
var Formats = []Format{
	{"grid", "Bar grid", ".txt", "text/plain; charset=utf-8", grid.Read, grid.Write},
	{"chordpro", "ChordPro", ".cho", "text/plain; charset=utf-8", chordpro.Read, chordpro.Write},
	{"musicxml", "MusicXML", ".musicxml", "application/vnd.recordare.musicxml+xml", musicxml.Read, musicxml.Write},
	{"mxl", "MusicXML, compressed", ".mxl", "application/vnd.recordare.musicxml", musicxml.Read, musicxml.WriteCompressed},
	{"midi", "MIDI", ".mid", "audio/midi", midifile.Read, midifile.Write},
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

// Write writes the chart in the format.
func (f Format) Write(c chart.Chart) []byte { return f.write(c) }

// Read reads a file of any format; its name may be empty. Errors are
// reading.Faults.
//
// Of a MIDI file the voices are read that were chosen; without any the reader chooses.
func Read(name string, data []byte, voices []reading.VoiceID) (*reading.Reading, Format, error) {
	f := detect(name, data)
	if f.Name == "midi" && len(voices) > 0 {
		r, err := midifile.ReadVoices(data, voices)
		return r, f, err
	}
	r, err := f.read(data)
	return r, f, err
}

var (
	directive = regexp.MustCompile(`(?m)^\s*\{[^{}\n]*\}\s*$`)
	bracketed = regexp.MustCompile(`\[[A-G][^\]\n]*\]`)
)

// detect goes by what is in the file; its name only tells texts apart that could
// be either.
func detect(name string, data []byte) Format {
	start := bytes.TrimLeft(bytes.TrimPrefix(data, []byte("\ufeff")), " \t\r\n")
	find := func(name string) Format { f, _ := Find(name); return f }
	switch {
	case bytes.HasPrefix(data, []byte("MThd")):
		return find("midi")
	case bytes.HasPrefix(data, []byte("PK")):
		return find("mxl")
	case bytes.HasPrefix(start, []byte("<")):
		return find("musicxml")
	}
	switch strings.ToLower(path.Ext(name)) {
	case ".cho", ".chordpro", ".chopro", ".crd", ".pro":
		return find("chordpro")
	case ".mid", ".midi":
		return find("midi")
	case ".musicxml", ".xml":
		return find("musicxml")
	case ".mxl":
		return find("mxl")
	}
	if directive.Match(data) || (!bytes.ContainsRune(data, '|') && bracketed.Match(data)) {
		return find("chordpro")
	}
	return find("grid")
}
