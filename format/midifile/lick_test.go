package midifile

import (
	"bytes"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/format/formattest"
	"undaris/format/reading"
)

func at(tick, ticks, s, fret int, how phrase.Technique) phrase.Event {
	return phrase.Event{Tick: tick, Ticks: ticks, Fingered: neck.Fingered{Place: neck.Place{String: s, Fret: fret}}, Technique: how}
}

func said(r *reading.Lick) string {
	all := []string{}
	for _, remark := range r.Remarks {
		all = append(all, remark.Text)
	}
	return strings.Join(all, "; ")
}

// box is the terms of a hand in the first box of C.
func box() reading.Terms {
	terms := reading.Plain()
	terms.Window = terms.Instrument.WindowFrom(8)
	return terms
}

// Every bend, slide and vibrato goes out as the wheel's moves and comes back as what it
// was.
func TestBendsGoOutAndComeBack(t *testing.T) {
	c7, err := harmony.ParseChord("C7")
	require.NoError(t, err)
	f7, err := harmony.ParseChord("F7")
	require.NoError(t, err)
	l := lick.Lick{Name: "Bends", Phrase: phrase.Phrase{Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: c7}, {Tick: 1920, Chord: f7}}, Events: []phrase.Event{
		at(-480, 480, 3, 8, phrase.Technique{}),
		at(0, 480, 3, 10, phrase.Technique{Bend: 4}), at(480, 480, 3, 10, phrase.Technique{Bend: 4, PreBend: true, Release: true}),
		at(960, 480, 2, 11, phrase.Technique{Bend: 1}), at(1440, 160, 2, 8, phrase.Technique{}), at(1600, 160, 3, 10, phrase.Technique{}), at(1760, 160, 3, 8, phrase.Technique{}),
		at(1920, 960, 3, 9, phrase.Technique{SlideFrom: 8, Vibrato: true}), at(2880, 480, 2, 8, phrase.Technique{SlideOut: -1}), at(3360, 480, 1, 8, phrase.Technique{Bend: 6}),
	}}}
	r, err := ReadLick(WriteLick(l, 96), box())
	require.NoError(t, err)
	moved := l
	moved.Phrase.Events = nil
	for _, e := range l.Phrase.Events {
		e.Tick += 1920
		moved.Phrase.Events = append(moved.Phrase.Events, e)
	}
	assert.Equal(t, formattest.Shown(moved), formattest.Shown(r.Lick), "the pickup has a bar of its own in a file")
	assert.Equal(t, "the rhythm is moved to quarters and triplets; the farthest note went 0 ticks of 480 to a quarter; fingered on frets 7 to 12", said(r))
	assert.Equal(t, "Bends", r.Lick.Name)
	over := []string{}
	for _, from := range r.Lick.Phrase.Chords {
		over = append(over, fmt.Sprintf("%s@%d", from.Chord.Symbol(), from.Tick))
	}
	assert.Equal(t, "C7@0 F7@3840", strings.Join(over, " "))
}

func TestTheWheelsRangeIsSet(t *testing.T) {
	l := lick.Lick{Name: "One", Phrase: phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{at(0, 480, 3, 10, phrase.Technique{Bend: 4})}}}
	file, err := smf.ReadFrom(bytes.NewReader(WriteLick(l, 96)))
	require.NoError(t, err)
	require.Len(t, file.Tracks, 2)
	controls, wheels := map[uint8][][2]uint8{}, []int16{}
	for _, event := range file.Tracks[1] {
		var channel, control, value uint8
		var relative int16
		switch m := midi.Message(event.Message); {
		case m.GetControlChange(&channel, &control, &value):
			controls[channel] = append(controls[channel], [2]uint8{control, value})
		case m.GetPitchBend(&channel, &relative, nil):
			assert.Equal(t, uint8(2), channel, "string 3 has the third channel")
			wheels = append(wheels, relative)
		}
	}
	assert.Len(t, controls, 6, "a channel for each string")
	assert.Equal(t, [][2]uint8{{101, 0}, {100, 0}, {6, 12}, {38, 0}}, controls[2])
	assert.Equal(t, int16(0), wheels[0])
	assert.Equal(t, int16(2*8192/12), wheels[len(wheels)-1], "two half steps of an octave")
}

// A line without rests comes back with its times, its pitches and its long bends.
func TestALineComesBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := formattest.Line(t)
		for n := range l.Phrase.Events {
			e := &l.Phrase.Events[n]
			e.Mute, e.Staccato, e.Tied, e.SlideOut, e.Release, e.Vibrato = false, false, false, 0, false, false
			if e.Ticks < 480 || e.SlideFrom > 0 {
				e.Bend, e.PreBend = 0, false
			}
		}
		require.NoError(t, l.Check())
		r, err := ReadLick(WriteLick(l, 100), box())
		require.NoError(t, err)
		require.Len(t, r.Lick.Phrase.Events, len(l.Phrase.Events))
		for n, want := range l.Phrase.Events {
			got := r.Lick.Phrase.Events[n]
			require.Equal(t, want.Tick, got.Tick)
			require.Equal(t, want.Sounding(neck.Standard()), got.Sounding(neck.Standard()), "note %d of %s as %s", n+1, formattest.Shown(l), formattest.Shown(r.Lick))
			if want.Ticks >= 480 && got.Fret > 0 {
				require.Equal(t, want.Bend, got.Bend)
				require.Equal(t, want.PreBend, got.PreBend)
			}
		}
		require.Equal(t, l.Phrase.Meter, r.Lick.Phrase.Meter)
	})
}

// track is a file of one track with so many notes, step ticks of 480 apart.
func track(notes, step int, jitter func(n int) int) []byte {
	file := smf.NewSMF1()
	file.TimeFormat = smf.MetricTicks(480)
	t := smf.Track{}
	at := 0
	for n := range notes {
		start := max(n*step+jitter(n), at)
		t.Add(uint32(start-at), midi.NoteOn(0, uint8(60+n%12), 90))
		at = start + step/2
		t.Add(uint32(step/2), midi.NoteOff(0, uint8(60+n%12)))
	}
	t.Close(0)
	if err := file.Add(t); err != nil {
		panic(err)
	}
	out := &bytes.Buffer{}
	if _, err := file.WriteTo(out); err != nil {
		panic(err)
	}
	return out.Bytes()
}

func TestALoosePlayerIsQuantised(t *testing.T) {
	r, err := ReadLick(track(6, 160, func(n int) int { return []int{3, -8, 12, 5, 0, 9}[n] }), box())
	require.NoError(t, err)
	ticks := []int{}
	for _, e := range r.Lick.Phrase.Events {
		ticks = append(ticks, e.Tick)
	}
	assert.Equal(t, []int{0, 160, 320, 480, 640, 800}, ticks)
	assert.Contains(t, said(r), "the rhythm is moved to triplets; the farthest note went 12 ticks of 480 to a quarter")
}

func TestMIDIThatIsTooLong(t *testing.T) {
	long, err := ReadLick(track(100_000, 240, func(int) int { return 0 }), box())
	require.NoError(t, err)
	assert.Contains(t, said(long), "from bar 65 on nothing is kept: a lick has at most 64 bars; 99488 notes are left out")
	assert.Len(t, long.Lick.Phrase.Events, 512)
	_, err = ReadLick(track(100_000, 2, func(int) int { return 0 }), box())
	assert.EqualError(t, err, "there are 61430 notes in its first 64 bars; a lick has at most 4096")
	_, err = ReadLick([]byte("MThd"), box())
	assert.EqualError(t, err, "the MIDI file cannot be read: it does not begin as a MIDI file does")
	high := track(3, 240, func(int) int { return 0 })
	terms := box()
	terms.Instrument.Open = terms.Instrument.Open[:4]
	for n := range terms.Instrument.Open {
		terms.Instrument.Open[n] -= 40
	}
	_, err = ReadLick(high, terms)
	assert.EqualError(t, err, "none of its notes has a place on the instrument")
}

// Whatever bytes are given: faults, or a lick that can be kept.
func FuzzReadLick(f *testing.F) {
	f.Add(track(4, 240, func(int) int { return 0 }))
	f.Add(WriteLick(lick.Lick{Name: "One", Phrase: phrase.Phrase{Meter: chart.TwelveEight, Events: []phrase.Event{at(0, 480, 3, 10, phrase.Technique{Bend: 4, Vibrato: true})}}}, 60))
	f.Fuzz(func(t *testing.T, data []byte) {
		r, err := ReadLick(data, box())
		if err != nil {
			require.IsType(t, reading.Faults{}, err)
			return
		}
		require.NoError(t, r.Lick.Check())
	})
}
