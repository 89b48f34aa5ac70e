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
	"undaris/core/pitch"
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
	for _, track := range file.Tracks {
		r.track(track)
	}
	return r.finish()
}

// bent is a note with what the pitch wheel did while it sounded.
type bent struct {
	note
	channel uint8
	// moves are the wheel's cents and from when they hold, the first at the note's start.
	moves []wheelMove
}

type wheelMove struct {
	tick  int
	cents float64
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
	name  string
	notes []bent
}

func (r *lickReader) track(track smf.Track) {
	tick := 0.0
	t := lickTrack{}
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
			if channel == drums {
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
			r.faults = append(r.faults, reading.Fault{Symbol: name, Detail: fmt.Sprintf("the meter changes from %s to %s; a lick has one meter", l.Phrase.Meter, name)})
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
	if len(r.tracks) > 1 {
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

// quantise moves the notes to a grid and puts them on strings.
func (r *lickReader) quantise(notes []bent, most int) {
	meter := r.Lick.Lick.Phrase.Meter
	grid, farthest := map[int]bool{}, 0
	starts := quantised(meter, notes, grid, &farthest)
	sounded := make([]phrase.PitchedNote, len(notes))
	slides := make([]int, len(notes))
	for n, note := range notes {
		fine := meter.BeatTicks() / 12
		end := (note.end + fine/2) / fine * fine
		for m := n + 1; m < len(notes); m++ {
			if starts[m] > starts[n] {
				if end > starts[m]-fine && end < starts[m]+fine {
					end = starts[m] // a finger leaves a little early or late
				}
				break
			}
		}
		sounded[n] = phrase.PitchedNote{Tick: starts[n], Ticks: max(min(end, most)-starts[n], fine), Pitch: pitch.MIDI(note.key)}
		sounded[n].Technique, slides[n] = note.technique()
		if sounded[n].Tick+sounded[n].Ticks > most {
			sounded[n].Ticks = max(most-sounded[n].Tick, 1)
		}
	}
	order := make([]int, len(sounded))
	for n := range order {
		order[n] = n
	}
	sort.SliceStable(order, func(a, b int) bool { return sounded[order[a]].Tick < sounded[order[b]].Tick })
	sorted := make([]phrase.PitchedNote, len(order))
	for n, from := range order {
		sorted[n] = sounded[from]
	}
	placed := phrase.AssignStrings(r.terms.Instrument, r.terms.Window, sorted)
	r.slide(placed, sorted, order, slides)
	r.Lick.Lick.Phrase.Events = placed.Events
	names := []string{}
	for _, parts := range divisions(meter) {
		if grid[parts.parts] {
			names = append(names, parts.name)
		}
	}
	r.Remark(0, "", "the rhythm is moved to %s; the farthest note went %d ticks of %d to a quarter", strings.Join(names, " and "), farthest, chart.TicksPerQuarter)
	r.Remark(0, "", "fingered on frets %d to %d", placed.Window.Low, placed.Window.High)
	for _, n := range placed.Dropped {
		r.Remark(0, "", "note %d has no place on the instrument and is left out", order[n]+1)
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

// division is a way to divide a beat, as it is called.
type division struct {
	parts int
	name  string
}

func divisions(m chart.Meter) []division {
	if m.Compound() {
		return []division{{1, "beats"}, {3, "eighths"}, {6, "sixteenths"}, {12, "thirty-seconds"}}
	}
	return []division{{1, "quarters"}, {2, "eighths"}, {3, "triplets"}, {4, "sixteenths"}, {6, "sextuplets"}, {8, "thirty-seconds"}}
}

// slack is how far, as a part of a beat, a played note may be from a grid that is still
// taken for its own.
const slack = 24

// quantised moves each beat's notes to the coarsest division that all of them are near,
// or else to the one that moves them least.
func quantised(m chart.Meter, notes []bent, used map[int]bool, farthest *int) []int {
	beat := m.BeatTicks()
	starts := make([]int, len(notes))
	for from := 0; from < len(notes); {
		of := (notes[from].tick + beat/slack) / beat
		to := from
		for to < len(notes) && (notes[to].tick+beat/slack)/beat == of {
			to++
		}
		chosen, least := 1, math.MaxInt
		for _, d := range divisions(m) {
			worst, sum := 0, 0
			for _, n := range notes[from:to] {
				off := n.tick - nearest(n.tick, beat/d.parts)
				worst, sum = max(worst, off, -off), sum+max(off, -off)
			}
			if worst <= beat/slack {
				chosen = d.parts
				break
			}
			if sum < least {
				chosen, least = d.parts, sum
			}
		}
		used[chosen] = true
		for n := from; n < to; n++ {
			starts[n] = nearest(notes[n].tick, beat/chosen)
			*farthest = max(*farthest, starts[n]-notes[n].tick, notes[n].tick-starts[n])
		}
		from = to
	}
	return starts
}

func nearest(tick, step int) int {
	return int(math.Floor(float64(tick)/float64(step)+0.5)) * step
}

// How the wheel is read, in cents (ours, from what bends and slides look like as MIDI):
// a quarter tone is 50; what rests within less of the pitch is no bend.
const (
	quarterTone = 50
	atPitch     = 30
	slidOut     = 150
	moved       = 1
)

// technique reads what the wheel did while the note sounded: where it rested in the
// middle is the bend; where it began and ended says how it came there. slide is where a
// note was slid from, in half steps.
func (b bent) technique() (t phrase.Technique, slide int) {
	middle := b.resting()
	begin, end := b.moves[0].cents, b.moves[len(b.moves)-1].cents
	quarters := int(math.Round(middle / quarterTone))
	if quarters >= 1 {
		t.Bend = min(quarters, phrase.MaxBend)
		t.PreBend = begin > middle-atPitch
		t.Release = end < middle-quarterTone && end > -atPitch
	} else if begin <= -2*quarterTone+atPitch || begin >= 2*quarterTone-atPitch {
		slide = int(math.Round(begin / 100))
	}
	switch {
	case end > middle+slidOut:
		t.SlideOut = 1
	case end < -slidOut && end < middle-slidOut:
		t.SlideOut = -1
	}
	t.Vibrato = b.turns(middle) >= 4
	return t, slide
}

// resting is the cents that hold for most of the middle of the note.
func (b bent) resting() float64 {
	from, to := b.tick+(b.end-b.tick)/4, b.end-(b.end-b.tick)/4
	held := map[int]int{}
	for n, m := range b.moves {
		until := b.end
		if n+1 < len(b.moves) {
			until = b.moves[n+1].tick
		}
		if time := min(until, to) - max(m.tick, from); time > 0 {
			held[int(math.Round(m.cents/quarterTone))] += time
		}
	}
	best, most := 0, 0
	for quarters, time := range held {
		if time > most || time == most && quarters < best {
			best, most = quarters, time
		}
	}
	return float64(best * quarterTone)
}

// turns counts how often the pitch turned back around where it rests.
func (b bent) turns(middle float64) int {
	count, way := 0, 0
	for n := 1; n < len(b.moves); n++ {
		if math.Abs(b.moves[n].cents-middle) > 2*quarterTone || math.Abs(b.moves[n-1].cents-middle) > 2*quarterTone {
			continue
		}
		step := b.moves[n].cents - b.moves[n-1].cents
		now := 0
		switch {
		case step > moved:
			now = 1
		case step < -moved:
			now = -1
		}
		if now != 0 && way != 0 && now != way {
			count++
		}
		if now != 0 {
			way = now
		}
	}
	return count
}
