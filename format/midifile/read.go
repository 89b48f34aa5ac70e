package midifile

import (
	"encoding/binary"
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/reading"
)

// note is one sounding note, in ticks of 480 to a quarter.
type note struct{ tick, end, key int }

// voice is the notes of one channel of one track.
type voice struct {
	id    reading.VoiceID
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
func Read(data []byte) (*reading.Reading, error) { return ReadVoices(data, nil) }

// ReadVoices is Read of the voices that a player chose; without any the reader chooses.
func ReadVoices(data []byte, chosen []reading.VoiceID) (r *reading.Reading, err error) {
	defer tripped(&err)
	file, scale, err := open(data)
	if err != nil {
		return nil, err
	}
	m := &reader{Reading: reading.New(), scale: scale, chosen: chosen}
	for n, track := range file.Tracks {
		m.track(n+1, track)
	}
	if said := int(binary.BigEndian.Uint16(data[10:])); said != len(file.Tracks) {
		m.Remark(0, "", "the file says it has %d tracks and has %d; all of them are read", said, len(file.Tracks))
	}
	return m.finish()
}

type reader struct {
	*reading.Reading
	scale    float64
	voices   []voice
	sections map[int]string
	// meters, keys and tempos are those of the file in order of time; tempos count quarters.
	meters []chart.MeterChange
	keys   []keyChange
	tempos []tempoChange
	hasKey bool
	count  int
	faults reading.Faults
	// chosen are the voices that the player chose.
	chosen []reading.VoiceID
	// clamped says that times past what is read were cut.
	clamped bool
	// lines are the bar lines of the file.
	lines chart.BarLines
}

type keyChange struct {
	tick int
	key  harmony.Key
}

type tempoChange struct {
	tick    int
	quarter float64
}

// lastTick is the last tick that is read: no chart is as long.
const lastTick = 1 << 30

func (r *reader) track(number int, track smf.Track) {
	tick := 0.0
	name := ""
	channels := map[uint8]*voice{}
	order := []uint8{}
	sounding := map[[2]uint8]int{}
	for _, event := range track {
		tick += float64(event.Delta) * r.scale
		now := int(math.Min(math.Round(tick), lastTick))
		r.clamped = r.clamped || tick > lastTick
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
		v := *channels[channel]
		v.name = strings.TrimSpace(name)
		v.id = reading.VoiceID{Track: number, Channel: int(channel) + 1}
		listed := v.listed()
		listed.Used = r.uses(v.id)
		r.Voices = append(r.Voices, listed)
		if channel == drums {
			r.Remark(0, name, "the drum track is not used")
			continue
		}
		if listed.Used {
			r.voices = append(r.voices, v)
		}
	}
}

// uses says whether a voice is read.
func (r *reader) uses(id reading.VoiceID) bool {
	return id.Channel-1 != drums && (len(r.chosen) == 0 || slices.Contains(r.chosen, id))
}

// listed is the voice as the player sees it.
func (v voice) listed() reading.Voice {
	one := reading.Voice{Track: v.id.Track, Channel: v.id.Channel, Name: v.name, Notes: len(v.notes), Low: 127, Plays: reading.PlaysLine}
	for _, n := range v.notes {
		one.Low, one.High = min(one.Low, n.key), max(one.High, n.key)
	}
	switch {
	case v.id.Channel-1 == drums:
		one.Plays = reading.PlaysDrums
	case polyphony(v.notes) >= 0.5:
		one.Plays = reading.PlaysChords
	}
	return one
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
	if key, ok := keyOf(m); ok {
		r.keys, r.hasKey = append(r.keys, keyChange{tick, key}), true
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
		default:
			r.meters = append(r.meters, chart.MeterChange{Tick: tick, Meter: meter})
		}
	case m.GetMetaTempo(&tempo):
		if tempo > 0 {
			r.tempos = append(r.tempos, tempoChange{tick, math.Min(tempo, 1e6)})
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
		return nil, r.faults.Bounded()
	case len(r.voices) == 0 && len(r.chosen) > 0:
		return nil, reading.Wrong("there are no notes with a pitch in the tracks that were chosen; it has %s", r.voiceNames())
	case len(r.voices) == 0:
		return nil, reading.Wrong("there are no notes with a pitch in it")
	case r.count > maxNotes:
		return nil, reading.Wrong("there are %d notes in it; at most %d are read", r.count, maxNotes)
	}
	if r.clamped {
		r.Remark(0, "", "what comes later than any chart can be long is not read")
	}
	if r.meters == nil {
		r.Remark(0, "", "no meter is given; it is read as 4/4")
	}
	slices.SortStableFunc(r.meters, func(a, b chart.MeterChange) int { return a.Tick - b.Tick })
	slices.SortStableFunc(r.keys, func(a, b keyChange) int { return a.tick - b.tick })
	slices.SortStableFunc(r.tempos, func(a, b tempoChange) int { return a.tick - b.tick })
	first := r.Chart.Meter
	for len(r.meters) > 0 && r.meters[0].Tick == 0 {
		first, r.meters = r.meters[0].Meter, r.meters[1:]
	}
	r.lines = chart.BarLinesIn(first, r.meters)
	if err := r.infer(); err != nil {
		return nil, err
	}
	if err := r.Finish(); err != nil {
		return nil, err
	}
	return r.Reading, nil
}

// voiceNames lists the voices of the file by their IDs.
func (r *reader) voiceNames() string {
	names := []string{}
	for _, v := range r.Voices {
		names = append(names, v.ID().String())
	}
	return strings.Join(names, ", ")
}

// setTempo takes the tempo of the file for the chart's, in counted beats; where it changes between two ticks,
// its average over the time between.
func (r *reader) setTempo(from, to int) {
	if len(r.tempos) == 0 {
		r.Remark(0, "", "no tempo is given; it is set to %d", r.Chart.Tempo)
		return
	}
	quarters, minutes := 0.0, 0.0
	slowest, fastest := math.Inf(1), 0.0
	for n, t := range r.tempos {
		until := to
		if n+1 < len(r.tempos) {
			until = min(r.tempos[n+1].tick, to)
		}
		begin := max(t.tick, from)
		if n == 0 {
			begin = from
		}
		if long := float64(until-begin) / chart.TicksPerQuarter; long > 0 {
			quarters, minutes = quarters+long, minutes+long/t.quarter
			slowest, fastest = math.Min(slowest, t.quarter), math.Max(fastest, t.quarter)
		}
	}
	mean := r.tempos[0].quarter
	if minutes > 0 {
		mean = quarters / minutes
	}
	beats := func(quarter float64) float64 {
		return math.Round(quarter * chart.TicksPerQuarter / float64(r.Chart.Meter.BeatTicks()))
	}
	r.Chart.Tempo = int(beats(mean))
	if minutes > 0 && beats(slowest) != beats(fastest) {
		r.Remark(0, "", "the tempo goes from %g to %g; the chart keeps the average, %d", beats(slowest), beats(fastest), r.Chart.Tempo)
	}
}

// keyAt is the key that the file says at a tick.
func (r *reader) keyAt(tick int) harmony.Key {
	now := r.keys[0].key
	for _, k := range r.keys {
		if k.tick <= tick {
			now = k.key
		}
	}
	return now
}
