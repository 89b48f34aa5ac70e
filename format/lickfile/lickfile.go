// Package lickfile knows which format a lick's file is in, and hands it to that
// format's reader or writer.
package lickfile

import (
	"bytes"
	"encoding/json"
	"path"
	"strings"

	"undaris/core/chart"
	"undaris/core/choice"
	"undaris/core/lick"
	"undaris/format/document"
	"undaris/format/midifile"
	"undaris/format/musicxml"
	"undaris/format/reading"
	"undaris/format/tabtext"
)

// Format is a format for licks.
type Format struct {
	// Name is its short name in addresses, Title the one for people.
	Name, Title string
	// Extension ends a file's name, with its dot; Type is its media type.
	Extension, Type string
	read            func([]byte, reading.Terms) (*reading.Lick, error)
	write           func(lick.Lick) []byte
}

// exportTempo is the tempo of a MIDI file, since a lick has none of its own.
const exportTempo = 100

// Formats lists every format, in the order to show it.
var Formats = []Format{
	{"tab", "Plain-text tab", ".txt", "text/plain; charset=utf-8", tabtext.Read, tabtext.Write},
	{"musicxml", "MusicXML", ".musicxml", "application/vnd.recordare.musicxml+xml", musicxml.ReadLick, musicxml.WriteLick},
	{"midi", "MIDI", ".mid", "audio/midi", midifile.ReadLick, func(l lick.Lick) []byte { return midifile.WriteLick(l, exportTempo) }},
	{"json", "Undaris lick", ".json", "application/json", readJSON, writeJSON},
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

// Write writes the lick in the format.
func (f Format) Write(l lick.Lick) []byte { return f.write(l) }

// Read reads a file of any format; its name may be empty. Errors are reading.Faults.
func Read(name string, data []byte, terms reading.Terms) (*reading.Lick, Format, error) {
	f := detect(name, data)
	l, err := f.read(data, terms)
	return l, f, err
}

// detect goes by what is in the file, and by its name only for text.
func detect(name string, data []byte) Format {
	start := bytes.TrimLeft(bytes.TrimPrefix(data, []byte("\ufeff")), " \t\r\n")
	find := func(name string) Format { f, _ := Find(name); return f }
	switch {
	case bytes.HasPrefix(data, []byte("MThd")):
		return find("midi")
	case bytes.HasPrefix(data, []byte("PK")), bytes.HasPrefix(start, []byte("<")):
		return find("musicxml")
	case bytes.HasPrefix(start, []byte("{")):
		return find("json")
	}
	switch strings.ToLower(path.Ext(name)) {
	case ".mid", ".midi":
		return find("midi")
	case ".musicxml", ".xml", ".mxl":
		return find("musicxml")
	case ".json":
		return find("json")
	}
	return find("tab")
}

func readJSON(data []byte, _ reading.Terms) (*reading.Lick, error) {
	var d document.Lick
	if err := json.Unmarshal(data, &d); err != nil {
		return nil, reading.Wrong("the JSON cannot be read: %s", err)
	}
	l, err := d.Core()
	if err != nil {
		if field, ok := err.(*chart.FieldError); ok {
			return nil, reading.Wrong("%s: %s", field.Field, field.Detail)
		}
		return nil, reading.Wrong("%s", err)
	}
	return &reading.Lick{Lick: l}, nil
}

func writeJSON(l lick.Lick) []byte {
	out, err := json.MarshalIndent(document.LickOf(l), "", "  ")
	if err != nil {
		panic("a lick can always be written: " + err.Error())
	}
	return append(out, '\n')
}
