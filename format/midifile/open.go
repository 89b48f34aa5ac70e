package midifile

import (
	"bytes"
	"encoding/binary"

	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/reading"
)

// open decodes a file whose lengths have been held against it. scale turns its ticks
// into ours. Errors are reading.Faults.
func open(data []byte) (file *smf.SMF, scale float64, err error) {
	tracks, err := walk(data)
	if err != nil {
		return nil, 0, reading.Wrong("the MIDI file cannot be read: %s", err)
	}
	if tracks != int(binary.BigEndian.Uint16(data[10:])) { // it has more than it says
		data = append([]byte(nil), data...)
		binary.BigEndian.PutUint16(data[10:], uint16(tracks))
	}
	file, err = smf.ReadFrom(bytes.NewReader(data))
	if err != nil {
		return nil, 0, reading.Wrong("the MIDI file cannot be read: %s", err)
	}
	return file, float64(chart.TicksPerQuarter) / float64(file.TimeFormat.(smf.MetricTicks).Resolution()), nil
}

// tripped makes a fault of what the library trips over while a file is read, so that it
// does not stop the server. It is deferred.
func tripped(err *error) {
	if broken := recover(); broken != nil {
		*err = reading.Wrong("the MIDI file cannot be read: %v", broken)
	}
}

// keyOf is the key that a key signature says; ok is false for any other message, and
// for a key with more signs than there are.
func keyOf(m smf.Message) (key harmony.Key, ok bool) {
	var count uint8
	var major, flat bool
	if !m.GetMetaKeySig(nil, &count, &major, &flat) || count > 7 {
		return key, false
	}
	fifths, mode := int(count), harmony.MajorMode
	if flat {
		fifths = -fifths
	}
	if !major {
		mode = harmony.MinorMode
	}
	key, err := harmony.ParseKey(harmony.TonicOf(fifths, mode).String(), mode)
	return key, err == nil
}
