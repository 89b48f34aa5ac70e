package chorus

import (
	"fmt"
	"slices"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/phrase"
)

// EditKind is what an edit does to a chorus.
type EditKind string

// The edits of a chorus.
const (
	Lock   EditKind = "lock"
	Unlock EditKind = "unlock"
	Mute   EditKind = "mute"
	Unmute EditKind = "unmute"
	// Move shifts a block by Ticks, Stretch moves its end by Ticks.
	Move    EditKind = "move"
	Stretch EditKind = "stretch"
	// MakeRest makes a block a rest.
	MakeRest EditKind = "makeRest"
	// SwapLick puts a lick in the place of a block.
	SwapLick EditKind = "swapLick"
	// AddBlock puts a new block at Tick: a lick, an approach into the next landing, a connector
	// from the landing before, or a free note.
	AddBlock EditKind = "addBlock"
	// WriteNotes gives a block other notes.
	WriteNotes EditKind = "writeNotes"
	// AlterNote puts a note in the place of note Note of the line, or between the others.
	AlterNote EditKind = "alterNote"
	// Reroll plans blocks, or bars, or all that is not locked, anew.
	Reroll EditKind = "reroll"
)

// EditKinds lists them.
var EditKinds = []EditKind{Lock, Unlock, Mute, Unmute, Move, Stretch, MakeRest, SwapLick, AddBlock, WriteNotes, AlterNote, Reroll}

// Edited is a chorus with one change made.
type Edited struct {
	Chorus
	// Remarks say what gave way.
	Remarks []string
	// Block is the block that the edit was about, by its index now; -1 for none.
	Block int
}

// Edit is one change that a player makes to a chorus.
type Edit struct {
	Kind EditKind
	// Blocks are those that it is done to, by index.
	Blocks []int
	// Tick and Ticks are a place on the chorus and a length or distance; they are snapped to
	// the subdivision.
	Tick, Ticks int
	// Bars are the first bar, from 0, and the number of bars that Reroll is for; of no
	// bars and no blocks it is for all.
	Bar, Bars int
	Lick      *lick.Lick
	Approach  *change.ApproachKind
	BlockKind Kind
	// Notes are those of Write; the first is that of Alter.
	Notes []phrase.Event
	// Note is the event of the line that Alter replaces, -1 for one more.
	Note int
	Seed uint64
}

// Apply is the chorus with one change made, and what had to give way. Its error is a
// *chart.FieldError; then nothing has changed. Rerolling is planning: see Edit.
func (o Request) Apply(c Chorus, e Edit) (Edited, error) {
	if err := e.CheckBlocks(c); err != nil {
		return Edited{}, err
	}
	pc, err := o.NewContext()
	if err != nil {
		return Edited{}, err
	}
	edited := Chorus{Blocks: slices.Clone(c.Blocks)}
	switch e.Kind {
	case Lock, Unlock, Mute, Unmute:
		if err := e.needsBlocks(); err != nil {
			return Edited{}, err
		}
		for _, at := range e.Blocks {
			b := &edited.Blocks[at]
			switch e.Kind {
			case Lock, Unlock:
				b.Locked = e.Kind == Lock
			default:
				b.Muted = e.Kind == Mute
			}
		}
		return Edited{Chorus: edited, Block: e.Blocks[0]}, nil
	case AlterNote:
		return pc.alter(c, e)
	case AddBlock:
		return pc.newBlock(c, e)
	case Move, Stretch, MakeRest, SwapLick, WriteNotes:
		return pc.reshape(c, e)
	}
	return Edited{}, &chart.FieldError{Field: "edit.kind", Detail: fmt.Sprintf("%q is no edit of a chorus", e.Kind)}
}

// CheckBlocks says which of the blocks the chorus does not have.
func (e Edit) CheckBlocks(c Chorus) error {
	for n, at := range e.Blocks {
		if at < 0 || at >= len(c.Blocks) {
			return &chart.FieldError{Field: fmt.Sprintf("edit.blocks[%d]", n), Detail: fmt.Sprintf("there is no block %d; the chorus has %d", at+1, len(c.Blocks))}
		}
	}
	return nil
}

func (e Edit) needsBlocks() error {
	if len(e.Blocks) == 0 {
		return &chart.FieldError{Field: "edit.blocks", Detail: fmt.Sprintf("choose a block to %s", e.Kind)}
	}
	return nil
}

// reshape changes one block in its place or moves it to another.
func (pc *Context) reshape(c Chorus, e Edit) (Edited, error) {
	if err := e.needsBlocks(); err != nil {
		return Edited{}, err
	}
	at := e.Blocks[0]
	b := c.Blocks[at]
	if b.Locked {
		return Edited{}, LockedError(b)
	}
	if b.Kind == RestBlock && e.Kind != MakeRest && e.Kind != WriteNotes {
		return Edited{}, &chart.FieldError{Field: "edit.blocks[0]", Detail: "a rest cannot be changed; lay a block there, or change its neighbour"}
	}
	b.Notes = slices.Clone(b.Notes)
	switch e.Kind {
	case MakeRest:
		b = Block{Kind: RestBlock, Name: "rest", Start: b.Start, Ticks: b.Ticks}
	case Move:
		by := pc.snapped(e.Ticks, b.Start)
		by = min(max(by, FirstTick(pc.Time)-b.Start), pc.Chart.Ticks()-b.End())
		b.Start += by
		for n := range b.Notes {
			b.Notes[n].Tick += by
		}
	case Stretch:
		b = pc.stretched(b, pc.snapped(e.Ticks, b.Start))
	case SwapLick:
		if e.Lick == nil {
			return Edited{}, &chart.FieldError{Field: "edit.lick", Detail: "choose a lick to put in the block's place"}
		}
		swapped, err := pc.lickBlock(*e.Lick, b.Start, pc.roomFrom(c, at))
		if err != nil {
			return Edited{}, err
		}
		b = swapped
	case WriteNotes:
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
	return pc.insertBlock(rest, b)
}

func LockedError(b Block) error {
	return &chart.FieldError{Field: "edit.blocks[0]", Detail: fmt.Sprintf("%s is locked: unlock it first", b.Title())}
}

// StepAt is how long a note of the subdivision is at a tick; in a meter that has not got it that of the
// nearest it has.
func (pc *Context) StepAt(tick int) int {
	m := pc.Time.MeterAt(pc.Time.BarAt(tick))
	if s, err := m.NearestSubdivision(pc.Subdivision.Name); err == nil {
		return s.Ticks(m)
	}
	return pc.Subdivision.Ticks(m)
}

// snapped rounds a distance to the subdivision at a tick.
func (pc *Context) snapped(ticks, at int) int {
	step := pc.StepAt(at)
	if ticks < 0 {
		return -pc.snapped(-ticks, at)
	}
	return (ticks + step/2) / step * step
}

// stretched moves the end of a block: its last note rings longer, or what lies behind the
// end is cut.
func (pc *Context) stretched(b Block, by int) Block {
	step := pc.StepAt(b.Start)
	end := min(max(b.End()+by, b.Start+step), pc.Chart.Ticks())
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

// alter replaces a note of the line, or puts one more between the others.
func (pc *Context) alter(c Chorus, e Edit) (Edited, error) {
	if len(e.Notes) != 1 {
		return Edited{}, &chart.FieldError{Field: "edit.notes", Detail: "one note is altered at a time"}
	}
	note := e.Notes[0]
	line := c.Phrase(pc.Chart)
	if e.Note >= len(line.Events) {
		return Edited{}, &chart.FieldError{Field: "edit.note", Detail: fmt.Sprintf("there is no note %d; the line has %d", e.Note+1, len(line.Events))}
	}
	if e.Note >= 0 {
		at := c.blockOf(line.Events[e.Note])
		b := c.Blocks[at]
		if b.Locked {
			return Edited{}, LockedError(b)
		}
		b.Notes = slices.Clone(b.Notes)
		for n := range b.Notes {
			if b.Notes[n].Tick == line.Events[e.Note].Tick && b.Notes[n].String == line.Events[e.Note].String {
				b.Notes[n] = note
			}
		}
		b.Ticks = max(b.End(), note.End()) - b.Start
		return pc.insertBlock(Chorus{Blocks: slices.Delete(slices.Clone(c.Blocks), at, at+1)}, b)
	}
	return pc.insertBlock(c, Block{Kind: FreeBlock, Name: "landing", Start: note.Tick, Ticks: note.Ticks, Notes: []phrase.Event{note}})
}
