package midifile

import (
	"bytes"
	"fmt"
	"slices"

	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Pass is one time through a tune as it was performed.
type Pass struct {
	Chart chart.Chart
	// From is the bar of the chart that it begins with, from 0.
	From        int
	Line        phrase.Phrase
	Performance band.Performance
}

// WritePasses writes passes one after the other, each in its key and at its tempo, in 480
// ticks to a quarter: a track of tempo, meter, key and chord symbols, one for the guitar with
// a channel for each string, and one for each other part that sounds.
func WritePasses(title string, i neck.Instrument, passes []Pass) []byte {
	file := smf.NewSMF1()
	file.TimeFormat = smf.MetricTicks(chart.TicksPerQuarter)
	end := 0
	conductor := &timedTrack{}
	conductor.add(0, smf.MetaTrackSequenceName(title))
	notes := []band.Note{}
	line := []timed{}
	for _, p := range passes {
		conductor.begin(end, p)
		for _, note := range p.Performance.Notes {
			if note.Part == band.Line && note.Event >= 0 {
				continue
			}
			note.Tick += end
			notes = append(notes, note)
		}
		played := slices.DeleteFunc(slices.Clone(p.Performance.Notes), func(n band.Note) bool { return n.Part != band.Line || n.Event < 0 })
		for _, m := range lickMessages(p.Line, played, bandChannels) {
			line = append(line, timed{end + m.tick, m.rank, m.message})
		}
		end += p.Performance.End
	}
	add := func(t *smf.Track, at int) {
		t.Close(uint32(max(end-at, 0)))
		if err := file.Add(*t); err != nil {
			panic("a track can always be added: " + err.Error())
		}
	}
	add(&conductor.Track, conductor.at)
	if len(line) > 0 {
		track, at := guitarTrack(i, line, bandChannels)
		add(track, at)
	}
	for _, track := range bandTracks(band.Performance{Notes: notes}) {
		add(track.Track, track.at)
	}
	out := &bytes.Buffer{}
	if _, err := file.WriteTo(out); err != nil {
		panic("memory can always be written: " + err.Error())
	}
	return out.Bytes()
}

// timedTrack is a track that is written at ticks from its start.
type timedTrack struct {
	smf.Track
	at int
	// meter is the one that holds at its end.
	meter chart.Meter
}

func (t *timedTrack) add(tick int, message []byte) {
	t.Track.Add(uint32(tick-t.at), message)
	t.at = tick
}

// begin writes what holds from a pass on: its tempo, key and chords, and its meter where that changes.
func (t *timedTrack) begin(start int, p Pass) {
	c := p.Chart
	t.add(start, smf.MetaTempo(float64(c.Tempo*c.Meter.BeatTicks())/chart.TicksPerQuarter))
	time := c.Timeline()
	in := time.At(p.From)
	before := chart.Setting{Meter: t.meter}
	for _, message := range changeMessages(before, in) {
		t.add(start, message)
	}
	t.add(start, smf.MetaMarker(fmt.Sprintf("%s, %d", c.Key.Tonic, c.Tempo)))
	said := ""
	for _, m := range p.Performance.Chords {
		if now := time.At(time.BarAt(m.At)); m.Tick >= p.Performance.CountIn && m.At >= 0 {
			for _, message := range changeMessages(in, now) {
				t.add(start+m.Tick, message)
			}
			in = now
		}
		symbol := m.Chord.Symbol()
		if m.Silent {
			symbol = chart.NoChord
		}
		if symbol != said {
			t.add(start+m.Tick, smf.MetaCuepoint(symbol))
			said = symbol
		}
	}
	t.meter = in.Meter
}

// guitarTrack is a track of messages for a guitar with a channel for each string.
func guitarTrack(i neck.Instrument, messages []timed, first uint8) (*smf.Track, int) {
	track := &smf.Track{}
	track.Add(0, smf.MetaTrackSequenceName("Guitar"))
	for s := range i.Open {
		channel := stringChannel(s+1, first)
		track.Add(0, midi.ProgramChange(channel, cleanGuitar))
		for _, control := range [][2]uint8{{101, 0}, {100, 0}, {6, bendRange}, {38, 0}} {
			track.Add(0, midi.ControlChange(channel, control[0], control[1]))
		}
	}
	at := 0
	for _, m := range messages {
		track.Add(uint32(m.tick-at), m.message)
		at = m.tick
	}
	return track, at
}
