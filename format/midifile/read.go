package midifile

import (
	"fmt"
	"math"
	"strings"
	"unicode/utf8"

	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/chart"
	"undaris/format/reading"
)

// note is one sounding note, in ticks of 480 to a quarter.
type note struct{ tick, end, key int }

// voice is the notes of one channel of one track.
type voice struct {
	name  string
	notes []note
}

// drums is the channel, from 0, that has no pitches.
const drums = 9

// maxNotes is how many notes are read; 512 bars of chords have far fewer.
const maxNotes = 200_000

// Read reads a MIDI file whose notes are chords: the chords are inferred bar by
// bar, and where they are a guess the remarks say so. What cannot be read is
// reading.Faults.
func Read(data []byte) (r *reading.Reading, err error) {
	defer tripped(&err)
	file, scale, err := open(data)
	if err != nil {
		return nil, err
	}
	m := &reader{Reading: reading.New(), scale: scale}
	for _, track := range file.Tracks {
		m.track(track)
	}
	return m.finish()
}

type reader struct {
	*reading.Reading
	scale    float64
	voices   []voice
	sections map[int]string
	meters   map[string]bool
	tempo    float64
	hasKey   bool
	count    int
	faults   reading.Faults
}

func (r *reader) track(track smf.Track) {
	tick := 0.0
	name := ""
	channels := map[uint8]*voice{}
	order := []uint8{}
	sounding := map[[2]uint8]int{}
	for _, event := range track {
		tick += float64(event.Delta) * r.scale
		now := int(math.Min(math.Round(tick), 1<<30))
		var channel, key, loudness uint8
		switch message := midi.Message(event.Message); {
		case event.Message.GetMetaTrackName(&name):
			r.title(name)
		case message.GetNoteOn(&channel, &key, &loudness) && loudness > 0:
			if channels[channel] == nil {
				channels[channel] = &voice{}
				order = append(order, channel)
			}
			r.count++
			v := channels[channel]
			sounding[[2]uint8{channel, key}] = len(v.notes)
			v.notes = append(v.notes, note{tick: now, end: now, key: int(key)})
		case message.GetNoteEnd(&channel, &key):
			if at, ok := sounding[[2]uint8{channel, key}]; ok {
				channels[channel].notes[at].end = now
				delete(sounding, [2]uint8{channel, key})
			}
		default:
			r.meta(event.Message, now)
		}
	}
	for _, channel := range order {
		if channel == drums {
			r.Remark(0, name, "the drum track is not used")
			continue
		}
		v := *channels[channel]
		v.name = strings.TrimSpace(name)
		r.voices = append(r.voices, v)
	}
}

// title takes the first track's name for the tune's, where there is one.
func (r *reader) title(name string) {
	name = strings.TrimSpace(strings.Map(func(c rune) rune {
		if c < ' ' || c == utf8.RuneError || c == 0x7f {
			return -1
		}
		return c
	}, name))
	if r.Chart.Title == "" && len(r.voices) == 0 {
		r.Chart.Title = name
	}
}

func (r *reader) meta(m smf.Message, tick int) {
	if key, ok := keyOf(m); ok && !r.hasKey {
		r.Chart.Key, r.hasKey = key, true
		return
	}
	var count, unit, clocks, per uint8
	var tempo float64
	var marker string
	switch {
	case m.GetMetaTimeSig(&count, &unit, &clocks, &per):
		text := fmt.Sprintf("%d/%d", count, unit)
		meter, err := chart.ParseMeter(text)
		switch {
		case err != nil:
			r.faults = append(r.faults, reading.Fault{Symbol: text, Detail: strings.TrimPrefix(err.Error(), "meter: ")})
		case r.meters == nil:
			r.Chart.Meter = meter
			r.meters = map[string]bool{text: true}
		case !r.meters[text]:
			r.faults = append(r.faults, reading.Fault{Symbol: text, Detail: fmt.Sprintf("the meter changes from %s to %s; a chart has one meter", r.Chart.Meter, text)})
		}
	case m.GetMetaTempo(&tempo):
		if r.tempo == 0 {
			r.tempo = tempo
		} else if math.Abs(tempo-r.tempo) > 0.5 {
			r.Remark(0, "", "the tempo changes; the chart keeps its first")
		}
	case m.GetMetaMarker(&marker):
		if r.sections == nil {
			r.sections = map[int]string{}
		}
		r.sections[tick] = marker
	}
}

func (r *reader) finish() (*reading.Reading, error) {
	switch {
	case len(r.faults) > 0:
		return nil, r.faults
	case len(r.voices) == 0:
		return nil, reading.Wrong("there are no notes with a pitch in it")
	case r.count > maxNotes:
		return nil, reading.Wrong("there are %d notes in it; at most %d are read", r.count, maxNotes)
	}
	if r.Chart.Meter == chart.TwelveEight {
		r.Chart.Feel = chart.Slow128
	}
	if r.meters == nil {
		r.Remark(0, "", "no meter is given; it is read as 4/4")
	}
	if r.tempo > 0 {
		r.Chart.Tempo = int(math.Round(math.Min(r.tempo, 1e6) * chart.TicksPerQuarter / float64(r.Chart.Meter.BeatTicks())))
	} else {
		r.Remark(0, "", "no tempo is given; it is set to %d", r.Chart.Tempo)
	}
	if err := r.infer(); err != nil {
		return nil, err
	}
	if err := r.Finish(); err != nil {
		return nil, err
	}
	return r.Reading, nil
}
