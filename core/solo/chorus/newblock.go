package chorus

import (
	"fmt"
	"slices"

	"undaris/core/analysis"
	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// newBlock puts a new block at a place.
func (pc *Context) newBlock(c Chorus, e Edit) (Edited, error) {
	tick := pc.Time.BarStart(e.Tick) + pc.snapped(e.Tick-pc.Time.BarStart(e.Tick), e.Tick)
	switch e.BlockKind {
	case LickBlock:
		if e.Lick == nil {
			return Edited{}, &chart.FieldError{Field: "edit.lick", Detail: "choose a lick to lay"}
		}
		b, err := pc.lickBlock(*e.Lick, tick, pc.Chart.Ticks())
		if err != nil {
			return Edited{}, err
		}
		return pc.insertBlock(c, b)
	case ApproachBlock:
		return pc.addApproach(c, e, tick)
	case ConnectorBlock:
		return pc.addConnector(c, tick)
	case RestBlock:
		return pc.insertBlock(c, Block{Kind: RestBlock, Name: "rest", Start: tick, Ticks: max(pc.snapped(e.Ticks, tick), pc.StepAt(tick))})
	case FreeBlock:
		over := pc.Chords[pc.ChordAt(tick)].Chord
		tone := neck.PlaceChord(pc.Instrument, pc.PositionAt(tick).Window, over, pc.Swaps).Tones
		if len(tone) == 0 {
			return Edited{}, &chart.FieldError{Field: "edit.tick", Detail: fmt.Sprintf("no tone of %s lies in the position", over.Symbol())}
		}
		note := phrase.Event{Tick: tick, Ticks: pc.Time.BeatTicksAt(tick), Fingered: tone[len(tone)/2].Fingered}
		note.Ticks = min(note.Ticks, pc.Chart.Ticks()-tick)
		return pc.insertBlock(c, Block{Kind: FreeBlock, Name: "free notes", Start: tick, Ticks: note.Ticks, Notes: []phrase.Event{note}})
	}
	return Edited{}, &chart.FieldError{Field: "edit.blockKind", Detail: fmt.Sprintf("%q is no kind of block; choose lick, approach, connector, free notes or rest", e.BlockKind)}
}

// addApproach leads into the next landing by an approach.
func (pc *Context) addApproach(c Chorus, e Edit, tick int) (Edited, error) {
	line := c.Phrase(pc.Chart)
	for _, a := range pc.Targets {
		at := a.Tick
		if at < tick {
			continue
		}
		step := pc.StepAt(at)
		target := pc.Landing(line, a)
		if target.Index >= 0 {
			at = line.Events[target.Index].Tick
		}
		for _, tone := range a.Places {
			if target.Index >= 0 && line.Events[target.Index].Sounding(pc.Instrument) != tone.Pitch {
				continue
			}
			for _, led := range a.Approaches[tone.Place] {
				if e.Approach != nil && led.Name != e.Approach.Name || len(led.Notes) < 2 {
					continue
				}
				b := Block{Kind: ApproachBlock, Name: led.Short, Start: at - (len(led.Notes)-1)*step}
				b.Ticks = at - b.Start
				fingered, _, err := neck.FingerPhrase(pc.Instrument, a.Window, led.Notes)
				if err != nil {
					continue
				}
				for n, f := range fingered[:len(led.Notes)-1] {
					b.Notes = append(b.Notes, phrase.Event{Tick: b.Start + n*step, Ticks: step, Fingered: f})
				}
				return pc.insertBlock(c, b)
			}
		}
	}
	return Edited{}, &chart.FieldError{Field: "edit.tick", Detail: fmt.Sprintf("no landing after %s can be led into that way; land on a chord tone first, or choose another approach", pc.Time.CountedInBar(tick))}
}

// addConnector runs on from a tick between two tones of the chord there, as many notes as
// there is time for in two beats.
func (pc *Context) addConnector(c Chorus, tick int) (Edited, error) {
	step, classes := pc.StepAt(tick), pc.Chords[pc.ChordAt(tick)]
	over := classes.Chord
	at := pc.PositionAt(tick)
	notes := min(2*pc.Time.BeatTicksAt(tick), pc.Chart.Ticks()-tick)/step + 1
	for _, tone := range neck.PlaceChord(pc.Instrument, at.Window, over, pc.Swaps).Tones {
		fit, _ := change.ChromaticRuns(change.Goal{Instrument: pc.Instrument, Window: at.Window, Key: classes.Key, Box: classes.Box, Leaving: over, Arriving: over, Target: tone.Place}, notes)
		for _, run := range fit {
			b := Block{Kind: ConnectorBlock, Name: run.Short(), Start: tick}
			for n, f := range run.Fingering {
				if tick+n*step < pc.Chart.Ticks() {
					b.Notes = append(b.Notes, phrase.Event{Tick: tick + n*step, Ticks: step, Fingered: f})
				}
			}
			b.Ticks = len(b.Notes) * step
			return pc.insertBlock(c, b)
		}
	}
	return Edited{}, &chart.FieldError{Field: "edit.tick", Detail: fmt.Sprintf("no run between two tones of %s fits %d notes in the position", over.Symbol(), notes)}
}

// roomFrom is where the room of a block ends: at the next block that is no rest.
func (pc *Context) roomFrom(c Chorus, at int) int {
	for _, b := range c.Blocks[at+1:] {
		if b.Kind != RestBlock || b.Locked {
			return b.Start
		}
	}
	return pc.Chart.Ticks()
}

// lickBlock lays a lick from a tick of the chorus on, in the phase of the bar that it was
// written in, up to where its room ends. A landing in its way is kept: the note there
// becomes the tone aimed at.
func (pc *Context) lickBlock(l lick.Lick, start, until int) (Block, error) {
	window := pc.PositionAt(start).Window
	in := pc.Time.At(pc.Time.BarAt(start))
	setting, err := l.PlaceIn(pc.Instrument, in.Key.Tonic.Class(), window)
	if err != nil {
		return Block{}, &chart.FieldError{Field: "edit.lick", Detail: err.Error()}
	}
	set, err := setting.Phrase.InMeter(in.Meter)
	if err != nil {
		return Block{}, &chart.FieldError{Field: "edit.lick", Detail: err.Error()}
	}
	bar := in.Meter.BarTicks()
	offset := pc.Time.BarStart(start)
	first := set.Events[0].Tick
	for offset+first < start {
		offset += bar
	}
	if offset+first-start >= bar/2 { // nearer by starting at once than by keeping its beat
		offset = start - first
	}
	b := Block{Kind: LickBlock, Name: l.Name, Start: start}
	for _, e := range set.Events {
		e.Tick += offset
		if e.Tick >= until {
			break
		}
		e.Ticks = min(e.Ticks, until-e.Tick)
		b.Notes = append(b.Notes, e)
	}
	if len(b.Notes) == 0 {
		return Block{}, &chart.FieldError{Field: "edit.lick", Detail: fmt.Sprintf("%q has no note that fits before %s", l.Name, pc.Time.CountedInBar(until))}
	}
	b.Ticks = b.Notes[len(b.Notes)-1].End() - b.Start
	for _, a := range pc.Targets {
		if a.Tick >= b.Start && a.Tick < b.End() {
			b.Notes = pc.withTarget(b.Notes, a)
		}
	}
	b.Ticks = max(b.Ticks, b.Notes[len(b.Notes)-1].End()-b.Start)
	return b, pc.Finger(b.Notes)
}

// withTarget makes the note at an arrival the tone aimed at, in the octave nearest to what was
// there; one that rings over it is cut and another put in.
func (pc *Context) withTarget(notes []phrase.Event, a PlannedTarget) []phrase.Event {
	at := len(notes)
	for n, e := range notes {
		if e.Tick >= a.Tick {
			at = n
			break
		}
	}
	was := notes[max(at-1, 0)].Sounding(pc.Instrument)
	tone := a.Places[0]
	for _, other := range a.Places {
		if max(other.Pitch-was, was-other.Pitch) < max(tone.Pitch-was, was-tone.Pitch) {
			tone = other
		}
	}
	landing := phrase.Event{Tick: a.Tick, Ticks: pc.Time.BeatTicksAt(a.Tick), Fingered: neck.Fingered{Place: tone.Place}}
	switch {
	case at < len(notes) && notes[at].Tick-a.Tick <= analysis.EarlyTicks:
		landing.Tick, landing.Ticks = notes[at].Tick, notes[at].Ticks
		notes[at] = landing
	default:
		if at < len(notes) {
			landing.Ticks = min(landing.Ticks, notes[at].Tick-a.Tick)
		}
		notes = slices.Insert(notes, at, landing)
	}
	if at > 0 {
		notes[at-1].Ticks = min(notes[at-1].Ticks, a.Tick-notes[at-1].Tick)
		if notes[at-1].Ticks < 1 {
			notes = slices.Delete(notes, at-1, at)
		}
	}
	return notes
}
