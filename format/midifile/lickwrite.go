package midifile

import (
	"bytes"
	"slices"
	"sort"

	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// bendRange is how far, in half steps, the pitch wheel of a lick's channels goes either
// way: an octave holds every slide and bend that a hand makes.
const bendRange = 12

// bendStep is how many ticks apart the points of a moving pitch are written.
const bendStep = 10

// wheel is how many steps the pitch wheel has either way.
const wheel = 8192

// cleanGuitar is the General MIDI program of an electric guitar, from 0.
const cleanGuitar = 27

// WriteLick writes a lick as it is notated, straight, in 480 ticks to a quarter: a track
// of name, tempo, meter, key and chord symbols, and one for the guitar with a channel
// for each string, as MIDI guitars have, so that a bend moves its own string alone. The
// wheel's range is set to an octave.
func WriteLick(l lick.Lick, tempo int) []byte {
	c, start := l.ToChart(tempo, chart.Straight, 2)
	if c.Feel == chart.Shuffle {
		c.Feel = chart.Straight
	}
	order := band.Order{
		Chart: c, Instrument: l.WrittenFor(), Bars: len(c.Bars), Line: l.Phrase, LineStart: start,
		Silent: []band.Part{band.Click, band.Drums, band.Bass, band.Chords},
	}
	performance := band.Perform(order)
	file := smf.NewSMF1()
	file.TimeFormat = smf.MetricTicks(chart.TicksPerQuarter)
	add := func(t *smf.Track, end int) {
		t.Close(uint32(end))
		if err := file.Add(*t); err != nil {
			panic("a track can always be added: " + err.Error())
		}
	}
	conductor, at := headOf(c, 1, 0)
	add(conductor, max(performance.End-at, 0))
	track, at := guitar(l.Phrase, order.Instrument, performance.Notes, 0)
	add(track, max(performance.End-at, 0))
	out := &bytes.Buffer{}
	if _, err := file.WriteTo(out); err != nil {
		panic("memory can always be written: " + err.Error())
	}
	return out.Bytes()
}

// guitar is the track of a phrase, a channel for each string from the first on, and the
// tick of its last event.
func guitar(p phrase.Phrase, i neck.Instrument, notes []band.Note, first uint8) (*smf.Track, int) {
	return guitarTrack(i, lickMessages(p, notes, first), first)
}

// bandChannels are those of the band, before the strings of a solo.
const bandChannels = 2

// WriteSolo writes a line of so many choruses with the band, feel applied, in 480 ticks to
// a quarter: a track of tempo, meter, key and chord symbols, one for the guitar with a
// channel for each string, and one each for chords, bass and click. A line that begins
// before bar 1 has as many bars of click before it.
func WriteSolo(c chart.Chart, i neck.Instrument, line phrase.Phrase, choruses int) []byte {
	countIn := 0
	if len(line.Events) > 0 && line.Events[0].Tick < 0 {
		countIn = 1
	}
	performance := band.Perform(band.Order{Chart: c, Instrument: i, Bars: choruses * len(c.PlayedBars()), CountIn: countIn, Line: line})
	file := smf.NewSMF1()
	file.TimeFormat = smf.MetricTicks(chart.TicksPerQuarter)
	add := func(t *smf.Track, at int) {
		t.Close(uint32(max(performance.End-at, 0)))
		if err := file.Add(*t); err != nil {
			panic("a track can always be added: " + err.Error())
		}
	}
	add(headOf(c, choruses, performance.CountIn))
	lead := slices.DeleteFunc(slices.Clone(performance.Notes), func(n band.Note) bool { return n.Part != band.Line || n.Event < 0 })
	add(guitar(line, i, lead, bandChannels))
	for _, track := range bandTracks(performance) {
		add(track.Track, track.at)
	}
	out := &bytes.Buffer{}
	if _, err := file.WriteTo(out); err != nil {
		panic("memory can always be written: " + err.Error())
	}
	return out.Bytes()
}

// stringChannel is the channel, from 0, of a string, the first string on the first; the
// drums' is left out.
func stringChannel(s int, first uint8) uint8 {
	channel := first + uint8(s-1)
	if channel >= drums {
		channel++
	}
	return channel
}

// timed is a message at a tick; at one tick ends come before bends before starts.
type timed struct {
	tick, rank int
	message    midi.Message
}

func lickMessages(p phrase.Phrase, notes []band.Note, first uint8) []timed {
	all := []timed{}
	for _, n := range notes {
		if n.Event < 0 {
			continue // a string of a rake is no note of the line
		}
		channel := stringChannel(p.Events[n.Event].String, first)
		key := uint8(n.Pitch)
		all = append(all, timed{n.Tick + n.Ticks, 0, midi.NoteOff(channel, key)}, timed{n.Tick, 2, midi.NoteOn(channel, key, uint8(n.Loudness))})
		if len(n.Curve) == 0 || p.Events[n.Event].Trill > 0 { // a trill is the note that is trilled
			all = append(all, timed{n.Tick, 1, midi.Pitchbend(channel, 0)})
			continue
		}
		last := int16(wheel - 1)
		for tick := 0; tick <= n.Ticks; tick += bendStep {
			value := int16(max(min(centsAt(n.Curve, tick)*wheel/(100*bendRange), wheel-1), -wheel))
			if value != last {
				// The last point stands before the note's end, so that it is still its own.
				all = append(all, timed{n.Tick + min(tick, n.Ticks-1), 1, midi.Pitchbend(channel, value)})
				last = value
			}
		}
	}
	sort.SliceStable(all, func(a, b int) bool {
		if all[a].tick != all[b].tick {
			return all[a].tick < all[b].tick
		}
		return all[a].rank < all[b].rank
	})
	return all
}

// centsAt is where a pitch curve stands at a tick after its note began.
func centsAt(curve []band.Point, tick int) int {
	before := band.Point{}
	for _, p := range curve {
		if p.Ticks > tick {
			if p.Ticks == before.Ticks {
				return p.Cents
			}
			return before.Cents + (p.Cents-before.Cents)*(tick-before.Ticks)/(p.Ticks-before.Ticks)
		}
		before = p
	}
	return before.Cents
}
