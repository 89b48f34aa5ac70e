package midifile

import (
	"fmt"
	"math"
	"slices"
	"sort"
	"strings"

	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/phrase"
	"undaris/format/reading"
)

// ReadLick reads the line of one track of a MIDI file: quantised, bends of the pitch
// wheel read as bends, fingered in the window of the terms. The remarks say what grid
// the rhythm was moved to. What cannot be read is reading.Faults.
func ReadLick(data []byte, terms reading.Terms) (l *reading.Lick, err error) {
	defer tripped(&err)
	file, scale, err := open(data)
	if err != nil {
		return nil, err
	}
	r := &lickReader{Lick: &reading.Lick{}, terms: terms, scale: scale}
	r.Lick.Lick.Phrase.Meter, r.Lick.Lick.Tonic = terms.Meter, terms.Tonic
	for n, track := range file.Tracks {
		r.track(n+1, track)
	}
	return r.finish()
}

type lickReader struct {
	*reading.Lick
	terms            reading.Terms
	scale            float64
	name             string
	tracks           []lickTrack
	cues             []phrase.PhraseChord
	hasMeter, hasKey bool
	faults           reading.Faults
}

type lickTrack struct {
	number int
	name   string
	notes  []bent
}

func (r *lickReader) track(number int, track smf.Track) {
	tick := 0.0
	t := lickTrack{number: number}
	channels := map[uint8]*voice{}
	sounding := map[[2]uint8]int{}
	wheels, ranges := [16]float64{}, [16]float64{}
	selected := [16][2]uint8{}
	for n := range ranges {
		ranges[n], selected[n] = 2, [2]uint8{127, 127}
	}
	for _, event := range track {
		tick += float64(event.Delta) * r.scale
		now := int(math.Min(math.Round(tick), 1<<24))
		var channel, key, loudness, control, value uint8
		var relative int16
		switch message := midi.Message(event.Message); {
		case event.Message.GetMetaTrackName(&t.name):
			if r.name == "" && len(r.tracks) == 0 {
				r.name = t.name
			}
		case message.GetNoteOn(&channel, &key, &loudness) && loudness > 0:
			id := reading.VoiceID{Track: number, Channel: int(channel) + 1}
			if channels[channel] == nil {
				channels[channel] = &voice{id: id}
			}
			channels[channel].notes = append(channels[channel].notes, note{tick: now, end: now, key: int(key)})
			if channel == drums || len(r.terms.Voices) > 0 && !slices.Contains(r.terms.Voices, id) {
				continue
			}
			sounding[[2]uint8{channel, key}] = len(t.notes)
			t.notes = append(t.notes, bent{note: note{tick: now, end: now, key: int(key)}, channel: channel, moves: []wheelMove{{now, wheels[channel]}}})
		case message.GetNoteEnd(&channel, &key):
			if at, ok := sounding[[2]uint8{channel, key}]; ok {
				t.notes[at].end = now
				delete(sounding, [2]uint8{channel, key})
			}
		case message.GetPitchBend(&channel, &relative, nil):
			wheels[channel] = float64(relative) / wheel * ranges[channel] * 100
			for id, at := range sounding {
				if n := &t.notes[at]; id[0] == channel && len(n.moves) < maxMoves {
					n.moves = append(n.moves, wheelMove{now, wheels[channel]})
				}
			}
		case message.GetControlChange(&channel, &control, &value):
			switch control {
			case 101:
				selected[channel][0] = value
			case 100:
				selected[channel][1] = value
			case 6:
				if selected[channel] == [2]uint8{} && value >= 1 && value <= 48 {
					ranges[channel] = float64(value)
				}
			}
		default:
			r.meta(event.Message, now)
		}
	}
	for channel := range uint8(16) {
		if v := channels[channel]; v != nil {
			v.name = strings.TrimSpace(t.name)
			r.Voices = append(r.Voices, v.listed())
		}
	}
	if len(t.notes) > 0 {
		r.tracks = append(r.tracks, t)
	}
}

// maxMoves is how many moves of the wheel a note keeps.
const maxMoves = 4096

func (r *lickReader) meta(m smf.Message, tick int) {
	var count, unit, clocks, per uint8
	var text string
	l := &r.Lick.Lick
	if key, ok := keyOf(m); ok && !r.hasKey {
		l.Tonic, r.hasKey = key.Tonic, true
		return
	}
	switch {
	case m.GetMetaTimeSig(&count, &unit, &clocks, &per):
		name := fmt.Sprintf("%d/%d", count, unit)
		meter, err := chart.ParseMeter(name)
		switch {
		case err != nil:
			r.faults = append(r.faults, reading.Fault{Symbol: name, Detail: strings.TrimPrefix(err.Error(), "meter: ")})
		case r.hasMeter && meter != l.Phrase.Meter:
			r.Remark(0, name, "the meter changes from %s to %s; a lick has one meter, and its bars go on in the first", l.Phrase.Meter, name)
		default:
			l.Phrase.Meter, r.hasMeter = meter, true
		}
	case m.GetMetaCuepoint(&text):
		if c, err := harmony.ParseChord(strings.TrimSpace(text)); err == nil && len(r.cues) < phrase.MaxEvents {
			r.cues = append(r.cues, phrase.PhraseChord{Tick: tick, Chord: c})
		}
	}
}

// choose is the track that is read: the one with most notes among those that play one
// note at a time for most of it, else the one with most notes.
func (r *lickReader) choose() lickTrack {
	best, bestWorth := r.tracks[0], -1
	for _, t := range r.tracks {
		alone := 0
		for n := 1; n < len(t.notes); n++ {
			if t.notes[n].tick > t.notes[n-1].tick {
				alone++
			}
		}
		worth := len(t.notes)
		if 3*alone >= 2*(len(t.notes)-1) {
			worth += maxNotes
		}
		if worth > bestWorth {
			best, bestWorth = t, worth
		}
	}
	for n := range r.Voices {
		v := &r.Voices[n]
		v.Used = v.Plays != reading.PlaysDrums && (v.Track == best.number || len(r.terms.Voices) > 0) && (len(r.terms.Voices) == 0 || slices.Contains(r.terms.Voices, v.ID()))
	}
	if len(r.tracks) > 1 && len(r.terms.Voices) > 0 {
		for _, t := range r.tracks {
			if t.number != best.number {
				best.notes = append(best.notes, t.notes...)
			}
		}
	} else if len(r.tracks) > 1 {
		r.Remark(0, best.name, "of %d tracks with notes this one is read: it plays one note at a time", len(r.tracks))
	}
	return best
}

func (r *lickReader) finish() (*reading.Lick, error) {
	switch {
	case len(r.faults) > 0:
		return nil, r.faults
	case len(r.tracks) == 0:
		return nil, reading.Wrong("there are no notes with a pitch in it")
	}
	l := &r.Lick.Lick
	l.Name = r.name
	notes := r.choose().notes
	sort.SliceStable(notes, func(a, b int) bool { return notes[a].tick < notes[b].tick })
	bar := l.Phrase.Meter.BarTicks()
	// A bar of pickup stands before bar 1 where the first note comes late in its bar.
	first := (notes[0].tick + bar/96) / bar * bar
	if first > 0 {
		r.Remark(0, "", "the first %s before the first note are left out", reading.Counted(first/bar, "bar", "bars"))
	}
	most := lick.MaxLickBars * bar
	if cut := slices.IndexFunc(notes, func(n bent) bool { return n.tick-first >= most-bar/96 }); cut >= 0 {
		r.Remark(lick.MaxLickBars+1, "", "from bar %d on nothing is kept: a lick has at most %d bars; %d notes are left out", lick.MaxLickBars+1, lick.MaxLickBars, len(notes)-cut)
		notes = notes[:cut]
	}
	if len(notes) > phrase.MaxEvents {
		return nil, reading.Wrong("there are %d notes in its first %d bars; a lick has at most %d", len(notes), lick.MaxLickBars, phrase.MaxEvents)
	}
	for n := range notes {
		notes[n].tick, notes[n].end = notes[n].tick-first, notes[n].end-first
		for m := range notes[n].moves {
			notes[n].moves[m].tick -= first
		}
	}
	r.quantise(notes, most)
	if len(r.cues) > 0 {
		r.chords(first, most)
	}
	if !r.hasMeter {
		r.Remark(0, "", "no meter is given; it is read as %s", l.Phrase.Meter)
	}
	if !r.hasKey {
		r.Remark(0, "", "no key is given; it is taken to be in %s", l.Tonic)
	}
	*l = l.WithInstrument(r.terms.Instrument)
	if len(l.Phrase.Events) == 0 {
		return nil, reading.Wrong("none of its notes has a place on the instrument")
	}
	if err := r.Finish(); err != nil {
		return nil, err
	}
	return r.Lick, nil
}

// chords are the cue points that are chord symbols: that which holds at bar 1, and those
// after it.
func (r *lickReader) chords(first, most int) {
	sort.SliceStable(r.cues, func(a, b int) bool { return r.cues[a].Tick < r.cues[b].Tick })
	over := &r.Lick.Lick.Phrase.Chords
	for _, from := range r.cues {
		if from.Tick = max(from.Tick-first, 0); from.Tick >= most {
			break
		}
		if last := len(*over) - 1; last >= 0 && (*over)[last].Tick == from.Tick {
			(*over)[last] = from
			continue
		}
		*over = append(*over, from)
	}
}

// slide gives the notes that the wheel slid in the fret they came from.
func (r *lickReader) slide(placed phrase.Assigned, sorted []phrase.PitchedNote, order, slides []int) {
	for n, one := range sorted {
		half := slides[order[n]]
		if half == 0 {
			continue
		}
		for k := range placed.Events {
			e := &placed.Events[k]
			if e.Tick == one.Tick && r.terms.Instrument.Pitch(e.Place) == one.Pitch && e.Fret > 0 && e.Fret+half >= 1 && e.Fret+half <= r.terms.Instrument.Frets {
				e.SlideFrom = e.Fret + half
			}
		}
	}
}

// How the wheel is read, in cents (ours, from what bends and slides look like as MIDI):
// a quarter tone is 50; what rests within less of the pitch is no bend.
const (
	quarterTone = 50
	atPitch     = 30
	slidOut     = 150
	moved       = 1
)
