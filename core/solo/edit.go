package solo

import (
	"fmt"
	"slices"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Deed is what an edit does to a chorus.
type Deed string

// The edits of a chorus.
const (
	Lock   Deed = "lock"
	Unlock Deed = "unlock"
	Mute   Deed = "mute"
	Unmute Deed = "unmute"
	// Move shifts a block by Ticks, Stretch moves its end by Ticks.
	Move    Deed = "move"
	Stretch Deed = "stretch"
	// Silence makes a block a rest.
	Silence Deed = "rest"
	// Swap puts a lick in the place of a block.
	Swap Deed = "swap"
	// Lay puts a new block at Tick: a lick, an approach into the next landing, a connector
	// from the landing before, or a free note.
	Lay Deed = "lay"
	// Write gives a block other notes.
	Write Deed = "write"
	// Alter puts a note in the place of note Note of the line, or between the others.
	Alter Deed = "alter"
	// Reroll plans blocks, or bars, or all that is not locked, anew.
	Reroll Deed = "re-roll"
)

// Deeds lists them.
var Deeds = []Deed{Lock, Unlock, Mute, Unmute, Move, Stretch, Silence, Swap, Lay, Write, Alter, Reroll}

// ChorusEdit is one change that a player makes to a chorus.
type ChorusEdit struct {
	Do Deed
	// Blocks are those that it is done to, by index.
	Blocks []int
	// Tick and Ticks are a place on the chorus and a length or distance; they are snapped to
	// the subdivision.
	Tick, Ticks int
	// Bars are the first bar, from 0, and the number of bars that Reroll is for; of no
	// bars and no blocks it is for all.
	Bar, Bars int
	Lick      *phrase.Lick
	Approach  *change.Approach
	Kind      Kind
	// Notes are those of Write; the first is that of Alter.
	Notes []phrase.Event
	// Note is the event of the line that Alter replaces, -1 for one more.
	Note int
	Seed uint64
}

// Edited is the chorus with one change made, and what had to give way. Its error is a
// *chart.FieldError; then nothing has changed.
func (o ChorusOrder) Edited(c Chorus, e ChorusEdit) (Chorus, []string, error) {
	for n, at := range e.Blocks {
		if at < 0 || at >= len(c.Blocks) {
			return c, nil, &chart.FieldError{Field: fmt.Sprintf("edit.blocks[%d]", n), Detail: fmt.Sprintf("there is no block %d; the chorus has %d", at+1, len(c.Blocks))}
		}
	}
	g, err := o.lay()
	if err != nil {
		return c, nil, err
	}
	edited := Chorus{Blocks: slices.Clone(c.Blocks)}
	said := []string{}
	switch e.Do {
	case Lock, Unlock, Mute, Unmute:
		if err := e.needsBlocks(); err != nil {
			return c, nil, err
		}
		for _, at := range e.Blocks {
			b := &edited.Blocks[at]
			switch e.Do {
			case Lock, Unlock:
				b.Locked = e.Do == Lock
			default:
				b.Muted = e.Do == Mute
			}
		}
		return edited, said, nil
	case Reroll:
		return g.reroll(c, e)
	case Alter:
		return g.alter(c, e)
	case Lay:
		return g.layBlock(c, e)
	case Move, Stretch, Silence, Swap, Write:
		return g.reshape(c, e)
	}
	return c, nil, &chart.FieldError{Field: "edit.do", Detail: fmt.Sprintf("%q is no edit of a chorus", e.Do)}
}

func (e ChorusEdit) needsBlocks() error {
	if len(e.Blocks) == 0 {
		return &chart.FieldError{Field: "edit.blocks", Detail: fmt.Sprintf("choose a block to %s", e.Do)}
	}
	return nil
}

// reshape changes one block in its place or moves it to another.
func (g *ground) reshape(c Chorus, e ChorusEdit) (Chorus, []string, error) {
	if err := e.needsBlocks(); err != nil {
		return c, nil, err
	}
	at := e.Blocks[0]
	b := c.Blocks[at]
	if b.Locked {
		return c, nil, locked(b)
	}
	if b.Kind == RestBlock && e.Do != Silence && e.Do != Write {
		return c, nil, &chart.FieldError{Field: "edit.blocks[0]", Detail: "a rest cannot be changed; lay a block there, or change its neighbour"}
	}
	b.Notes = slices.Clone(b.Notes)
	switch e.Do {
	case Silence:
		b = Block{Kind: RestBlock, Name: "rest", Start: b.Start, Ticks: b.Ticks}
	case Move:
		by := g.snapped(e.Ticks)
		by = min(max(by, -MostPickup*g.Chart.Meter.BeatTicks()-b.Start), g.Chart.Ticks()-b.End())
		b.Start += by
		for n := range b.Notes {
			b.Notes[n].Tick += by
		}
	case Stretch:
		b = g.stretched(b, g.snapped(e.Ticks))
	case Swap:
		if e.Lick == nil {
			return c, nil, &chart.FieldError{Field: "edit.lick", Detail: "choose a lick to put in the block's place"}
		}
		swapped, err := g.asBlock(*e.Lick, b.Start, g.roomFrom(c, at))
		if err != nil {
			return c, nil, err
		}
		b = swapped
	case Write:
		b.Notes = slices.Clone(e.Notes)
		if b.Kind == RestBlock || b.Kind == ApproachBlock {
			b.Kind, b.Name = FreeBlock, "free notes"
		}
		if len(b.Notes) == 0 {
			b = Block{Kind: RestBlock, Name: "rest", Start: b.Start, Ticks: b.Ticks}
			break
		}
		end := max(b.End(), b.Notes[len(b.Notes)-1].End())
		b.Start = min(b.Start, b.Notes[0].Tick)
		b.Ticks = end - b.Start
	}
	rest := Chorus{Blocks: slices.Delete(slices.Clone(c.Blocks), at, at+1)}
	return g.put(rest, b)
}

func locked(b Block) error {
	return &chart.FieldError{Field: "edit.blocks[0]", Detail: fmt.Sprintf("%s is locked: unlock it first", b.called())}
}

// snapped rounds a distance to the subdivision.
func (g *ground) snapped(ticks int) int {
	step := g.Subdivision.Ticks(g.Chart.Meter)
	if ticks < 0 {
		return -g.snapped(-ticks)
	}
	return (ticks + step/2) / step * step
}

// stretched moves the end of a block: its last note rings longer, or what lies behind the
// end is cut.
func (g *ground) stretched(b Block, by int) Block {
	step := g.Subdivision.Ticks(g.Chart.Meter)
	end := min(max(b.End()+by, b.Start+step), g.Chart.Ticks())
	notes := []phrase.Event{}
	for _, e := range b.Notes {
		if e.Tick >= end {
			break
		}
		e.Ticks = min(e.Ticks, end-e.Tick)
		notes = append(notes, e)
	}
	if n := len(notes); n > 0 && by > 0 {
		notes[n-1].Ticks = max(notes[n-1].Ticks, end-notes[n-1].Tick)
	}
	b.Notes, b.Ticks = notes, end-b.Start
	return b
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

// put lays a block among others: what lies under it gives way, unless it is locked.
func (g *ground) put(c Chorus, b Block) (Chorus, []string, error) {
	if err := b.check(g.Chart.Meter, g.Chart.Ticks()); err != nil {
		return c, nil, &chart.FieldError{Field: "edit", Detail: err.Error()}
	}
	all, said := []Block{}, []string{}
	for _, other := range c.Blocks {
		if other.End() <= b.Start || other.Start >= b.End() {
			all = append(all, other)
			continue
		}
		if other.Locked {
			return c, nil, &chart.FieldError{Field: "edit", Detail: fmt.Sprintf("%s would lie over %s, which is locked: unlock that one, or end before %s",
				b.called(), other.called(), g.Chart.Meter.CountedInBar(other.Start))}
		}
		left, right := other.cut(b.Start, b.End())
		lost := len(other.Notes) - len(left.Notes) - len(right.Notes)
		if lost > 0 {
			said = append(said, fmt.Sprintf("%s of %s gave way", counted(lost, "note"), other.called()))
		}
		if left.Ticks > 0 {
			all = append(all, left)
		}
		if right.Ticks > 0 {
			all = append(all, right)
		}
	}
	all = append(all, b)
	slices.SortStableFunc(all, func(a, b Block) int { return a.Start - b.Start })
	done := Chorus{Blocks: g.rested(all)}
	if p := done.Heard(g.Chart); len(p.Events) > 0 {
		if err := p.Check(g.Instrument); err != nil {
			return c, nil, &chart.FieldError{Field: "edit.notes", Detail: err.Error()}
		}
	}
	return done, said, nil
}

// cut is what is left of a block before and behind a stretch of time.
func (b Block) cut(from, to int) (left, right Block) {
	left, right = b, b
	left.Ticks, left.Notes = max(from-b.Start, 0), nil
	right.Start = max(to, b.Start)
	right.Ticks, right.Notes = max(b.End()-right.Start, 0), nil
	for _, e := range b.Notes {
		switch {
		case e.Tick < from:
			e.Ticks = min(e.Ticks, from-e.Tick)
			left.Notes = append(left.Notes, e)
		case e.Tick >= to:
			right.Notes = append(right.Notes, e)
		}
	}
	for _, half := range []*Block{&left, &right} {
		if len(half.Notes) == 0 && half.Kind != RestBlock {
			half.Kind, half.Name = RestBlock, "rest"
		}
	}
	return left, right
}

// rested joins the rests that nobody locked and fills the gaps with them.
func (g *ground) rested(blocks []Block) []Block {
	kept := slices.DeleteFunc(slices.Clone(blocks), func(b Block) bool { return b.Kind == RestBlock && !b.Locked })
	return withRests(kept, g.Chart)
}

// alter replaces a note of the line, or puts one more between the others.
func (g *ground) alter(c Chorus, e ChorusEdit) (Chorus, []string, error) {
	if len(e.Notes) != 1 {
		return c, nil, &chart.FieldError{Field: "edit.notes", Detail: "one note is altered at a time"}
	}
	note := e.Notes[0]
	line := c.Heard(g.Chart)
	if e.Note >= len(line.Events) {
		return c, nil, &chart.FieldError{Field: "edit.note", Detail: fmt.Sprintf("there is no note %d; the line has %d", e.Note+1, len(line.Events))}
	}
	if e.Note >= 0 {
		at := c.blockOf(line.Events[e.Note])
		b := c.Blocks[at]
		if b.Locked {
			return c, nil, locked(b)
		}
		b.Notes = slices.Clone(b.Notes)
		for n := range b.Notes {
			if b.Notes[n].Tick == line.Events[e.Note].Tick && b.Notes[n].String == line.Events[e.Note].String {
				b.Notes[n] = note
			}
		}
		b.Ticks = max(b.End(), note.End()) - b.Start
		return g.put(Chorus{Blocks: slices.Delete(slices.Clone(c.Blocks), at, at+1)}, b)
	}
	return g.put(c, Block{Kind: FreeBlock, Name: "landing", Start: note.Tick, Ticks: note.Ticks, Notes: []phrase.Event{note}})
}

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

// reroll plans blocks, bars, or all that is not locked, anew; the rest stays.
func (g *ground) reroll(c Chorus, e ChorusEdit) (Chorus, []string, error) {
	bar := g.Chart.Meter.BarTicks()
	order := g.ChorusOrder
	order.Seed, order.Kept = e.Seed, nil
	everything := len(e.Blocks) == 0 && e.Bars == 0
	anew := false
	if e.Bars < 0 || e.Bar < 0 || e.Bar+e.Bars > g.bars() {
		return c, nil, &chart.FieldError{Field: "edit.bars", Detail: fmt.Sprintf("bars 1 to %d can be planned anew", g.bars())}
	}
	for n, b := range c.Blocks {
		wanted := everything || slices.Contains(e.Blocks, n) || (e.Bars > 0 && b.Start < (e.Bar+e.Bars)*bar && b.End() > e.Bar*bar)
		switch {
		case b.Locked:
			if slices.Contains(e.Blocks, n) {
				return c, nil, locked(b)
			}
			order.Kept = append(order.Kept, b)
		case !wanted:
			order.Kept = append(order.Kept, b)
		case e.Bars > 0:
			anew = true
			// What of it lies outside the bars stays.
			left, right := b.cut(e.Bar*bar, (e.Bar+e.Bars)*bar)
			for _, half := range []Block{left, right} {
				if half.Ticks > 0 {
					order.Kept = append(order.Kept, half)
				}
			}
		default:
			anew = true
		}
	}
	if !anew && len(c.Blocks) > 0 {
		return c, nil, &chart.FieldError{Field: "edit.blocks", Detail: "everything there is locked: unlock what is to be planned again"}
	}
	slices.SortStableFunc(order.Kept, func(a, b Block) int { return a.Start - b.Start })
	planned, err := order.Plan()
	if err != nil {
		return c, nil, err
	}
	best := planned.Best[0]
	for _, p := range planned.Best {
		if !slices.EqualFunc(p.Line.Events, c.Heard(g.Chart).Events, func(a, b phrase.Event) bool { return a == b }) {
			best = p
			break
		}
	}
	said := []string{}
	for _, gave := range planned.Gave {
		said = append(said, gave.Sentence)
	}
	return Chorus{Blocks: g.rested(best.Blocks)}, said, nil
}
