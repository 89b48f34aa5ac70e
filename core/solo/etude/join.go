package etude

import (
	"slices"
	"sort"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
	"undaris/core/solo/chorus"
)

// joinNotes is how many notes of a chromatic run lead into a block (ours: three are heard as a run, and
// leave the block before most of its time).
const joinNotes = 3

// join leads into each block after the first by a chromatic run in eighths, which takes the end of the
// block before.
func (w *writer) join() {
	joined := []block{}
	step := chart.TicksPerQuarter / 2
	for n, one := range w.blocks {
		if n > 0 {
			last := &joined[len(joined)-1]
			from := one.start - joinNotes*step
			first := one.notes[0]
			if first.Tick == one.start && from > last.start {
				before := slices.DeleteFunc(slices.Clone(last.notes), func(e phrase.Event) bool { return e.Tick >= from })
				if run := w.runInto(first, before, from, step); run != nil && len(before) > 0 {
					last.notes, last.end = cutAt(before, from), from
					joined = append(joined, block{kind: chorus.ConnectorBlock, name: "chromatic run", start: from, end: one.start, notes: run})
				}
			}
		}
		joined = append(joined, one)
	}
	w.blocks = joined
}

// cutAt ends notes at a tick at the latest.
func cutAt(notes []phrase.Event, tick int) []phrase.Event {
	for n := range notes {
		notes[n].Ticks = min(notes[n].Ticks, tick-notes[n].Tick)
	}
	return notes
}

// runInto are half steps into a note, from the side that the notes before come from; from the other
// where that has no room, nothing where neither has.
func (w *writer) runInto(goal phrase.Event, before []phrase.Event, from, step int) []phrase.Event {
	target := w.Instrument.Pitch(goal.Place)
	side := pitch.MIDI(-1)
	if len(before) > 0 && w.Instrument.Pitch(before[len(before)-1].Place) > target {
		side = 1
	}
	for _, way := range []pitch.MIDI{side, -side} {
		wanted := []neck.NoteWithPlaces{}
		for k := joinNotes; k > 0; k-- {
			p := target + way*pitch.MIDI(k)
			if places := w.near(p, goal.Place); len(places) > 0 {
				wanted = append(wanted, neck.NoteWithPlaces{Pitch: p, Places: places})
			}
		}
		if len(wanted) < joinNotes {
			continue
		}
		wanted = append(wanted, neck.NoteWithPlaces{Pitch: target, Places: []neck.Place{goal.Place}})
		fingering, _ := neck.FingerMovingHand(w.Instrument, wanted)
		run := make([]phrase.Event, joinNotes)
		for n := range run {
			run[n] = phrase.Event{Tick: from + n*step, Ticks: step, Fingered: fingering[n]}
		}
		return run
	}
	return nil
}

// nearReach is how many frets away from a place the notes that lead into it lie at most.
const nearReach = 5

// near are the places of a pitch near a place, but for the open strings.
func (w *writer) near(p pitch.MIDI, at neck.Place) []neck.Place {
	low, high := max(at.Fret-nearReach, 1), min(at.Fret+nearReach, w.Instrument.Frets)
	return w.Instrument.PlacesOf(neck.Window{Low: low, High: high}, p)
}

// endingBeats is how many beats before the end of the form the last note begins.
const endingBeats = 2

// end ends the last chorus: its last notes give way to one that is held, led into from the fifth where
// that is wished.
func (w *writer) end() {
	time := w.Tune.Timeline()
	m := time.MeterAt(time.Bars() - 1)
	last := w.blocks[len(w.blocks)-1]
	at := last.end - min(endingBeats, m.Beats())*m.BeatTicks()
	chord := w.Tune.ChordAt(at)
	lead := 0
	if w.Ending == FifthToRoot {
		lead = m.BeatTicks()
	}
	kept := []block{}
	var heard *phrase.Event
	for _, b := range w.blocks {
		if b.start >= at-lead {
			continue
		}
		if b.end > at-lead {
			b.notes = cutAt(slices.DeleteFunc(slices.Clone(b.notes), func(e phrase.Event) bool { return e.Tick >= at-lead }), at-lead)
			b.end = at - lead
		}
		if len(b.notes) > 0 {
			heard = &b.notes[len(b.notes)-1]
		}
		kept = append(kept, b)
	}
	ending := block{kind: chorus.FreeBlock, name: "ending", start: at - lead, end: last.end}
	number := 1
	if w.Ending == OnTheThird {
		number = 3
	}
	if lead > 0 {
		ending.notes = append(ending.notes, phrase.Event{Tick: at - lead, Ticks: lead, Fingered: neck.Fingered{Place: w.nearestTone(chord, 5, heard)}})
		heard = &ending.notes[0]
	}
	ending.notes = append(ending.notes, phrase.Event{Tick: at, Ticks: last.end - at, Fingered: neck.Fingered{Place: w.nearestTone(chord, number, heard)}})
	ending.notes = w.placed(ending.notes)
	w.blocks = append(kept, ending)
}

// nearestTone is the place of a chord's tone of a degree that is nearest to the last note, in the position
// or else anywhere; a suspended tone stands for a missing third, the root for any other.
func (w *writer) nearestTone(c harmony.Chord, number int, heard *phrase.Event) neck.Place {
	tone := c.Tones()[0]
	for _, wanted := range map[int][]int{1: {1}, 3: {3, 4, 2}, 5: {5}}[number] {
		for _, t := range c.Tones() {
			if t.Degree.Number == wanted {
				tone, wanted = t, 0
			}
		}
		if wanted == 0 {
			break
		}
	}
	from := w.Instrument.Open[0]
	if heard != nil {
		from = w.Instrument.Pitch(heard.Place)
	}
	best, least := neck.Place{String: 1}, -1
	for _, window := range []neck.Window{w.Position.Window, {Low: 0, High: w.Instrument.Frets}} {
		for p := w.Instrument.Open[len(w.Instrument.Open)-1]; p <= w.Instrument.Open[0]+pitch.MIDI(w.Instrument.Frets); p++ {
			if p.Class() != tone.Note.Class() {
				continue
			}
			for _, place := range w.Instrument.PlacesOf(window, p) {
				if away := int(max(p-from, from-p)); least < 0 || away < least {
					best, least = place, away
				}
			}
		}
		if least >= 0 {
			break
		}
	}
	return best
}

// etude cuts the blocks into choruses.
func (w *writer) etude() (Etude, error) {
	out := Etude{Names: w.names, Concessions: w.concessions, Choruses: make([]chorus.Chorus, w.Choruses)}
	length := w.Tune.Ticks()
	for _, b := range w.blocks {
		n := min(b.start/length, w.Choruses-1)
		one := chorus.Block{Kind: b.kind, Name: b.name, Start: b.start - n*length, Ticks: b.end - b.start}
		for _, e := range b.notes {
			e.Tick -= n * length
			one.Notes = append(one.Notes, e)
		}
		sort.SliceStable(one.Notes, func(a, c int) bool { return one.Notes[a].Tick < one.Notes[c].Tick })
		out.Choruses[n].Blocks = append(out.Choruses[n].Blocks, one)
	}
	for _, c := range out.Choruses {
		if err := c.Check(w.Tune.Timeline()); err != nil {
			return Etude{}, err
		}
	}
	return out, nil
}
