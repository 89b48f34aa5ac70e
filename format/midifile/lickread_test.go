package midifile

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/phrase"
	"undaris/format/formattest"
	"undaris/format/reading"
)

// event is a message so many ticks after the one before it.
type event struct {
	delta   int
	message []byte
}

// fileOf is a MIDI file of these tracks, in 96 ticks to a quarter, as other programs
// write them.
func fileOf(t *testing.T, tracks ...[]event) []byte {
	t.Helper()
	file := smf.NewSMF1()
	file.TimeFormat = smf.MetricTicks(96)
	for _, events := range tracks {
		track := smf.Track{}
		for _, e := range events {
			track.Add(uint32(e.delta), e.message)
		}
		track.Close(0)
		require.NoError(t, file.Add(track))
	}
	out := &bytes.Buffer{}
	_, err := file.WriteTo(out)
	require.NoError(t, err)
	return out.Bytes()
}

func on(delta int, key uint8) event  { return event{delta, midi.NoteOn(0, key, 90)} }
func off(delta int, key uint8) event { return event{delta, midi.NoteOff(0, key)} }
func bendBy(delta int, value int16) event {
	return event{delta, midi.Pitchbend(0, value)}
}

func readMIDI(t *testing.T, tracks ...[]event) *reading.Lick {
	t.Helper()
	r, err := ReadLick(fileOf(t, tracks...), box())
	require.NoError(t, err)
	return r
}

// A wheel without a range goes a whole step either way.
func TestTheWheelOfOtherPrograms(t *testing.T) {
	full := int16(wheel - 1)
	for want, events := range map[string][]event{
		"0+480 3:10 bent a whole step":                     {on(0, 65), bendBy(10, full/2), bendBy(5, full), off(81, 65)},
		"0+480 3:10 bent a half step":                      {on(0, 65), bendBy(10, full/2), off(86, 65)},
		"0+480 3:10 bent a quarter tone":                   {on(0, 65), bendBy(10, full/4), off(86, 65)},
		"0+480 3:10 bent beforehand a whole step":          {bendBy(0, full), on(0, 65), off(96, 65)},
		"0+480 3:10 bent beforehand a whole step released": {bendBy(0, full), on(0, 65), bendBy(80, full/2), bendBy(5, 0), off(11, 65)},
		"0+480 3:10 slid from fret 8":                      {bendBy(0, -full-1), on(0, 65), bendBy(8, -full/2), bendBy(4, 0), off(84, 65)},
		"0+480 3:10":                                       {bendBy(0, 12), on(0, 65), bendBy(10, -9), off(86, 65)},
		"0+480 3:10 slid away downwards":                   {on(0, 65), bendBy(84, -full/2), bendBy(6, -full), off(6, 65)},
		"0+480 3:10 with vibrato":                          {on(0, 65), bendBy(30, 600), bendBy(8, -100), bendBy(8, 600), bendBy(8, -100), bendBy(8, 600), bendBy(8, 0), off(26, 65)},
	} {
		assert.Equal(t, want, formattest.Shown(readMIDI(t, events).Lick))
	}
	// A range of an octave is read where it is set, and a wheel of another channel moves
	// nothing of this one.
	wide := readMIDI(t, []event{
		{0, midi.ControlChange(0, 101, 0)}, {0, midi.ControlChange(0, 100, 0)}, {0, midi.ControlChange(0, 6, 12)},
		on(0, 65), bendBy(10, int16(wheel/6)), {0, midi.Pitchbend(1, full)}, off(86, 65),
	})
	assert.Equal(t, "0+480 3:10 bent a whole step", formattest.Shown(wide.Lick))
}

func TestWhichTrackIsRead(t *testing.T) {
	band := []event{{0, smf.MetaTrackSequenceName("Band")}, on(0, 48), on(0, 52), on(0, 55), off(192, 48), off(0, 52), off(0, 55), on(0, 53), on(0, 57), on(0, 60), off(192, 53), off(0, 57), off(0, 60)}
	line := []event{{0, smf.MetaTrackSequenceName("Lead")}, on(0, 67), off(48, 67), on(0, 70), off(48, 70), on(0, 72), off(96, 72)}
	drum := []event{{0, midi.NoteOn(drums, 38, 90)}, {48, midi.NoteOff(drums, 38)}}
	r := readMIDI(t, band, line, drum)
	assert.Equal(t, "0+240 2:8, 240+240 2:11, 480+480 1:8", formattest.Shown(r.Lick))
	assert.Contains(t, said(r), "of 2 tracks with notes this one is read: it plays one note at a time")
	_, err := ReadLick(fileOf(t, drum), box())
	assert.EqualError(t, err, "there are no notes with a pitch in it")
	chords := readMIDI(t, band)
	assert.Len(t, chords.Lick.Phrase.Events, 6, "where nothing else plays, notes at once are read too")
	strings := map[int]bool{}
	for _, e := range chords.Lick.Phrase.Events[:3] {
		strings[e.String] = true
	}
	assert.Len(t, strings, 3, "each on a string of its own")
}

func TestMeterKeyAndChordsOfAMIDIFile(t *testing.T) {
	head := []event{{0, smf.MetaTrackSequenceName("A tune")}, {0, smf.MetaMeter(12, 8)}, {0, smf.MetaKey(0, true, 2, true)}, {0, smf.MetaCuepoint("Bb7")}, {576, smf.MetaCuepoint("Eb7")}, {10, smf.MetaCuepoint("verse")}}
	r := readMIDI(t, head, []event{on(576, 65), off(48, 65), on(0, 68), off(48, 68), on(0, 70), off(48, 70), on(0, 72), off(144, 72)})
	l := r.Lick
	assert.Equal(t, "A tune, Bb, 12/8", l.Name+", "+l.Tonic.String()+", "+l.Phrase.Meter.String())
	assert.Equal(t, "0+240 3:10, 240+240 2:9, 480+240 2:11, 720+720 1:8", formattest.Shown(l))
	require.Len(t, l.Phrase.Chords, 1)
	assert.Equal(t, "Eb7", l.Phrase.Chords[0].Chord.Symbol(), "what holds where the notes begin")
	assert.Contains(t, said(r), "the first 1 bar before the first note are left out")
	assert.Contains(t, said(r), "the rhythm is moved to beats and eighths")
	changing := readMIDI(t, []event{{0, smf.MetaMeter(4, 4)}, {96, smf.MetaMeter(3, 4)}, on(0, 60), off(96, 60)})
	assert.Contains(t, said(changing), "the meter changes from 4/4 to 3/4; a lick has one meter, and its bars go on in the first")
	_, err := ReadLick(fileOf(t, []event{{0, smf.MetaMeter(7, 8)}, on(0, 60), off(96, 60)}), box())
	assert.ErrorContains(t, err, "7/8")
}

// The player chooses what is read of a file with several tracks.
func TestChosenTracksOfALick(t *testing.T) {
	data := fileOf(t, []event{on(0, 60), off(96, 60), on(0, 62), off(96, 62)}, []event{on(0, 70), off(96, 70)})
	first, err := ReadLick(data, box())
	require.NoError(t, err)
	require.Len(t, first.Lick.Phrase.Events, 2)
	terms := box()
	terms.Voices = []reading.VoiceID{{Track: 2, Channel: 1}}
	chosen, err := ReadLick(data, terms)
	require.NoError(t, err)
	require.Len(t, chosen.Lick.Phrase.Events, 1)
	require.Len(t, chosen.Voices, 2)
	assert.Equal(t, []bool{false, true}, []bool{chosen.Voices[0].Used, chosen.Voices[1].Used})
}

func TestNotesThatTheInstrumentDoesNotHave(t *testing.T) {
	r := readMIDI(t, []event{on(0, 67), off(96, 67), on(0, 20), off(96, 20), on(0, 70), off(96, 70)})
	assert.Equal(t, "0+480 2:8, 960+480 2:11", formattest.Shown(r.Lick))
	assert.Contains(t, said(r), "note 2 has no place on the instrument and is left out")
	far := readMIDI(t, []event{on(0, 41), off(96, 41), on(0, 43), off(96, 43)})
	assert.Equal(t, "0+480 6:1, 480+480 6:3", formattest.Shown(far.Lick))
	assert.Contains(t, said(far), "fingered on frets 1 to 6", "the hand goes where the notes are")
}

// A note that is never let go, or let go twice, does no harm.
func TestMIDIThatIsUntidy(t *testing.T) {
	r := readMIDI(t, []event{on(0, 67), on(48, 70), off(48, 70), off(0, 70), off(0, 90)})
	require.Len(t, r.Lick.Phrase.Events, 2)
	for _, e := range r.Lick.Phrase.Events {
		assert.Positive(t, e.Ticks)
	}
	cut := fileOf(t, []event{on(0, 67), off(96, 67)})
	_, err := ReadLick(cut[:len(cut)-6], box())
	var faults reading.Faults
	require.ErrorAs(t, err, &faults)
	assert.Contains(t, err.Error(), "the MIDI file cannot be read")
}

// Each string of a lick has the channel that a guitar with eight has, none that of drums.
func TestStringsHaveTheirChannels(t *testing.T) {
	seen := map[uint8]bool{}
	for s := 1; s <= 12; s++ {
		channel := stringChannel(s, 0)
		assert.NotEqual(t, uint8(drums), channel)
		assert.False(t, seen[channel])
		seen[channel] = true
	}
	assert.LessOrEqual(t, phrase.MaxBend/2, bendRange)
}
