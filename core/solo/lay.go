package solo

import (
	"fmt"
	"slices"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// layBlock puts a new block at a place.
func (g *ground) layBlock(c Chorus, e ChorusEdit) (Chorus, []string, error) {
	tick := g.Chart.Meter.Downbeat(e.Tick) + g.snapped(e.Tick-g.Chart.Meter.Downbeat(e.Tick))
	switch e.Kind {
	case LickBlock:
		if e.Lick == nil {
			return c, nil, &chart.FieldError{Field: "edit.lick", Detail: "choose a lick to lay"}
		}
		b, err := g.asBlock(*e.Lick, tick, g.Chart.Ticks())
		if err != nil {
			return c, nil, err
		}
		return g.put(c, b)
	case ApproachBlock:
		return g.layApproach(c, e, tick)
	case ConnectorBlock:
		return g.layConnector(c, tick)
	case RestBlock:
		return g.put(c, Block{Kind: RestBlock, Name: "rest", Start: tick, Ticks: max(g.snapped(e.Ticks), g.Subdivision.Ticks(g.Chart.Meter))})
	case FreeBlock:
		over := g.chords[g.chordAt(tick)].chord
		tone := neck.LayChord(g.Instrument, g.PositionAt(tick).Window, over, g.Swaps).Tones
		if len(tone) == 0 {
			return c, nil, &chart.FieldError{Field: "edit.tick", Detail: fmt.Sprintf("no tone of %s lies in the position", over.Symbol())}
		}
		note := phrase.Event{Tick: tick, Ticks: g.Chart.Meter.BeatTicks(), Fingered: tone[len(tone)/2].Fingered}
		note.Ticks = min(note.Ticks, g.Chart.Ticks()-tick)
		return g.put(c, Block{Kind: FreeBlock, Name: "free notes", Start: tick, Ticks: note.Ticks, Notes: []phrase.Event{note}})
	}
	return c, nil, &chart.FieldError{Field: "edit.kind", Detail: fmt.Sprintf("%q is no kind of block; choose lick, approach, connector, free notes or rest", e.Kind)}
}

// layApproach leads into the next landing by an approach.
func (g *ground) layApproach(c Chorus, e ChorusEdit, tick int) (Chorus, []string, error) {
	step := g.Subdivision.Ticks(g.Chart.Meter)
	line := c.Heard(g.Chart)
	for _, a := range g.arrivals {
		at := a.tick
		if at < tick {
			continue
		}
		target := g.target(line, a)
		if target.Index >= 0 {
			at = line.Events[target.Index].Tick
		}
		for _, tone := range a.placed {
			if target.Index >= 0 && line.Events[target.Index].Sounding(g.Instrument) != tone.Pitch {
				continue
			}
			for _, led := range a.leads[tone.Place] {
				if e.Approach != nil && led.Name != e.Approach.Name || len(led.Notes) < 2 {
					continue
				}
				b := Block{Kind: ApproachBlock, Name: led.Short, Start: at - (len(led.Notes)-1)*step}
				b.Ticks = at - b.Start
				fingered, _, err := neck.FingerPhrase(g.Instrument, a.window, led.Notes)
				if err != nil {
					continue
				}
				for n, f := range fingered[:len(led.Notes)-1] {
					b.Notes = append(b.Notes, phrase.Event{Tick: b.Start + n*step, Ticks: step, Fingered: f})
				}
				return g.put(c, b)
			}
		}
	}
	return c, nil, &chart.FieldError{Field: "edit.tick", Detail: fmt.Sprintf("no landing after %s can be led into that way; land on a chord tone first, or choose another approach", g.Chart.Meter.CountedInBar(tick))}
}

// layConnector runs on from a tick between two tones of the chord there, as many notes as
// there is time for in two beats.
func (g *ground) layConnector(c Chorus, tick int) (Chorus, []string, error) {
	m := g.Chart.Meter
	step := g.Subdivision.Ticks(m)
	box, err := g.box()
	if err != nil {
		return c, nil, err
	}
	over := g.chords[g.chordAt(tick)].chord
	at := g.PositionAt(tick)
	notes := min(2*m.BeatTicks(), g.Chart.Ticks()-tick)/step + 1
	for _, tone := range neck.LayChord(g.Instrument, at.Window, over, g.Swaps).Tones {
		fit, _ := change.Connections(change.Goal{Instrument: g.Instrument, Window: at.Window, Key: g.Chart.Key, Box: box, Leaving: over, Arriving: over, Target: tone.Place}, notes)
		for _, run := range fit {
			b := Block{Kind: ConnectorBlock, Name: run.Short(), Start: tick}
			for n, f := range run.Fingering {
				if tick+n*step < g.Chart.Ticks() {
					b.Notes = append(b.Notes, phrase.Event{Tick: tick + n*step, Ticks: step, Fingered: f})
				}
			}
			b.Ticks = len(b.Notes) * step
			return g.put(c, b)
		}
	}
	return c, nil, &chart.FieldError{Field: "edit.tick", Detail: fmt.Sprintf("no run between two tones of %s fits %d notes in the position", over.Symbol(), notes)}
}

// roomFrom is where the room of a block ends: at the next block that is no rest.
func (g *ground) roomFrom(c Chorus, at int) int {
	for _, b := range c.Blocks[at+1:] {
		if b.Kind != RestBlock || b.Locked {
			return b.Start
		}
	}
	return g.Chart.Ticks()
}

// asBlock lays a lick from a tick of the chorus on, in the phase of the bar that it was
// written in, up to where its room ends. A landing in its way is kept: the note there
// becomes the tone aimed at.
func (g *ground) asBlock(l phrase.Lick, start, until int) (Block, error) {
	window := g.PositionAt(start).Window
	setting, err := l.Set(g.Instrument, g.Chart.Key.Tonic.Class(), window)
	if err != nil {
		return Block{}, &chart.FieldError{Field: "edit.lick", Detail: err.Error()}
	}
	set, err := setting.Phrase.In(g.Chart.Meter)
	if err != nil {
		return Block{}, &chart.FieldError{Field: "edit.lick", Detail: err.Error()}
	}
	bar := g.Chart.Meter.BarTicks()
	offset := g.Chart.Meter.Downbeat(start)
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
		return Block{}, &chart.FieldError{Field: "edit.lick", Detail: fmt.Sprintf("%q has no note that fits before %s", l.Name, g.Chart.Meter.CountedInBar(until))}
	}
	b.Ticks = b.Notes[len(b.Notes)-1].End() - b.Start
	for _, a := range g.arrivals {
		if a.tick >= b.Start && a.tick < b.End() {
			b.Notes = g.landIn(b.Notes, a)
		}
	}
	b.Ticks = max(b.Ticks, b.Notes[len(b.Notes)-1].End()-b.Start)
	return b, g.finger(b.Notes)
}

// landIn makes the note at an arrival the tone aimed at, in the octave nearest to what was
// there; one that rings over it is cut and another put in.
func (g *ground) landIn(notes []phrase.Event, a arrival) []phrase.Event {
	at := len(notes)
	for n, e := range notes {
		if e.Tick >= a.tick {
			at = n
			break
		}
	}
	was := notes[max(at-1, 0)].Sounding(g.Instrument)
	tone := a.placed[0]
	for _, other := range a.placed {
		if max(other.Pitch-was, was-other.Pitch) < max(tone.Pitch-was, was-tone.Pitch) {
			tone = other
		}
	}
	landing := phrase.Event{Tick: a.tick, Ticks: g.Chart.Meter.BeatTicks(), Fingered: neck.Fingered{Place: tone.Place}}
	switch {
	case at < len(notes) && notes[at].Tick-a.tick <= eighth:
		landing.Tick, landing.Ticks = notes[at].Tick, notes[at].Ticks
		notes[at] = landing
	default:
		if at < len(notes) {
			landing.Ticks = min(landing.Ticks, notes[at].Tick-a.tick)
		}
		notes = slices.Insert(notes, at, landing)
	}
	if at > 0 {
		notes[at-1].Ticks = min(notes[at-1].Ticks, a.tick-notes[at-1].Tick)
		if notes[at-1].Ticks < 1 {
			notes = slices.Delete(notes, at-1, at)
		}
	}
	return notes
}
