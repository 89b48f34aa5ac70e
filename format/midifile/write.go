// Package midifile writes charts as Standard MIDI files, as the band plays them,
// and reads files that carry chords as notes.
package midifile

import (
	"bytes"
	"sort"

	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// voices are the tracks beside the one of tempo and markers: part, channel from
// 0, General MIDI program from 0.
var voices = []struct {
	part             band.Part
	name             string
	channel, program uint8
}{
	{band.Chords, "Chords", 0, 26}, {band.Bass, "Bass", 1, 33}, {band.Drums, "Drums", drums, 0}, {band.Click, "Click", drums, 0},
}

// clocksPerQuarter is how many clocks MIDI has to a quarter: a metronome clicks so many times as a counted beat
// has of them.
const clocksPerQuarter = 24

// Write writes one chorus of the chart, feel applied, in 480 ticks to a quarter:
// a track of tempo, meter, key and markers (sections and chord symbols), and one
// each for chords, bass and click.
func Write(c chart.Chart) []byte {
	file := smf.NewSMF1()
	file.TimeFormat = smf.MetricTicks(chart.TicksPerQuarter)
	order := band.Order{Chart: c, Instrument: neck.Standard(), Bars: len(c.PlayedBars())}
	if len(c.Pickup) > 0 {
		order.CountIn, order.Silent = 1, []band.Part{band.Click} // the bar before bar 1 is a whole one
	}
	performance := band.Perform(order)
	add := func(t *smf.Track, end int) {
		t.Close(uint32(end))
		if err := file.Add(*t); err != nil {
			panic("a track can always be added: " + err.Error())
		}
	}
	conductor, at := headOf(c, 1, performance.CountIn)
	add(conductor, performance.End-at)
	for _, track := range bandTracks(performance) {
		add(track.Track, performance.End-track.at)
	}
	out := &bytes.Buffer{}
	if _, err := file.WriteTo(out); err != nil {
		panic("memory can always be written: " + err.Error())
	}
	return out.Bytes()
}

// bandTrack is a track of the band, and the tick of its last event.
type bandTrack struct {
	*smf.Track
	at int
}

// bandTracks are the tracks of chords, bass and click.
func bandTracks(performance band.Performance) []bandTrack {
	all := []bandTrack{}
	for _, voice := range voices {
		track := &smf.Track{}
		track.Add(0, smf.MetaTrackSequenceName(voice.name))
		if voice.channel != drums {
			track.Add(0, midi.ProgramChange(voice.channel, voice.program))
		}
		at := 0
		for _, e := range strokes(performance.Notes, voice.part) {
			message := midi.NoteOff(voice.channel, e.key)
			if e.loudness > 0 {
				message = midi.NoteOn(voice.channel, e.key, e.loudness)
			}
			track.Add(uint32(e.tick-at), message)
			at = e.tick
		}
		all = append(all, bandTrack{track, at})
	}
	return all
}

// headOf is the track without notes of so many choruses, the first of which begins at a tick, and the
// tick of its last event. Where key or meter change it says so.
func headOf(c chart.Chart, choruses, first int) (*smf.Track, int) {
	t := &smf.Track{}
	t.Add(0, smf.MetaTrackSequenceName(c.Title))
	t.Add(0, smf.MetaTempo(float64(c.Tempo*c.Meter.BeatTicks())/chart.TicksPerQuarter))
	for _, message := range changeMessages(chart.Setting{}, c.Timeline().At(0)) {
		t.Add(0, message)
	}
	at, before := 0, ""
	in, time := c.Timeline().At(0), c.Timeline()
	for chorus := range choruses {
		for _, m := range c.WithoutImagined().ChordSpans() {
			tick := first + chorus*c.Ticks() + m.Tick
			for _, message := range changeMessages(in, time.At(m.Bar)) {
				t.Add(uint32(tick-at), message)
				at = tick
			}
			in = time.At(m.Bar)
			marker := m.Written.Symbol()
			if m.Silent {
				marker = chart.NoChord
			}
			if label := c.Bars[m.Source].Section; label != "" && m.Beat == 0 {
				t.Add(uint32(tick-at), smf.MetaMarker(label))
				at = tick
			}
			if marker != before {
				t.Add(uint32(tick-at), smf.MetaCuepoint(marker))
				at, before = tick, marker
			}
		}
	}
	return t, at
}

// changeMessages are the messages of a change from one setting to another.
func changeMessages(from, to chart.Setting) []smf.Message {
	messages := []smf.Message{}
	if from.Meter != to.Meter {
		messages = append(messages, smf.MetaTimeSig(uint8(to.Meter.Count), uint8(to.Meter.Unit), uint8(to.Meter.BeatTicks()*clocksPerQuarter/chart.TicksPerQuarter), 8))
	}
	if fifths := to.Key.Fifths(); from.Key != to.Key && fifths >= -7 && fifths <= 7 { // the file has no sign for more
		messages = append(messages, smf.MetaKey(0, to.Key.Mode != harmony.MinorMode, uint8(max(fifths, -fifths)), fifths < 0))
	}
	return messages
}

// stroke is a note's start, or with loudness 0 its end.
type stroke struct {
	tick     int
	key      uint8
	loudness uint8
}

// strokes lists the starts and ends of a part in time; a note ends before the
// same one begins again.
func strokes(notes []band.Note, part band.Part) []stroke {
	all := []stroke{}
	for _, n := range notes {
		if n.Part == part {
			all = append(all, stroke{n.Tick, uint8(n.Pitch), uint8(n.Loudness)}, stroke{n.Tick + n.Ticks, uint8(n.Pitch), 0})
		}
	}
	sort.SliceStable(all, func(a, b int) bool {
		if all[a].tick != all[b].tick {
			return all[a].tick < all[b].tick
		}
		return all[a].loudness == 0 && all[b].loudness > 0
	})
	return all
}
