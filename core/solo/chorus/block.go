package chorus

import (
	"fmt"
	"slices"
	"sort"

	"undaris/core/chart"
	"undaris/core/phrase"
)

// Kind is what a block of a chorus is.
type Kind string

// The kinds of block.
const (
	// LickBlock is notes of a kept lick.
	LickBlock Kind = "lick"
	// ApproachBlock is the notes that lead into a landing.
	ApproachBlock Kind = "approach"
	// ConnectorBlock is a run that joins two others.
	ConnectorBlock Kind = "connector"
	// FreeBlock is notes of no kept lick.
	FreeBlock Kind = "free notes"
	// RestBlock is silence that is meant.
	RestBlock Kind = "rest"
)

// Kinds lists them.
var Kinds = []Kind{LickBlock, ApproachBlock, ConnectorBlock, FreeBlock, RestBlock}

// Block is a part of a chorus on its time line.
type Block struct {
	Kind Kind
	// Name is what it is called: that of its lick, or what it does.
	Name string
	// Start is a tick of the chorus, negative in its pickup; Ticks is its length.
	Start, Ticks int
	// Locked keeps it when the chorus is planned again, Muted silences it.
	Locked, Muted bool
	// Notes are its events, in ticks of the chorus.
	Notes []phrase.Event
}

// End is the tick at which the block is over.
func (b Block) End() int { return b.Start + b.Ticks }

func (b Block) Title() string {
	if b.Name == "" {
		return "a " + string(b.Kind)
	}
	return fmt.Sprintf("%q", b.Name)
}

// MaxPickupBeats is how many beats a chorus may begin before its bar 1.
const MaxPickupBeats = 4

// FirstTick is the first tick at which a chorus may begin, before its bar 1.
func FirstTick(t chart.Timeline) int { return -MaxPickupBeats * t.MeterAt(0).BeatTicks() }

// Check says what is wrong with the block in a chorus of a tune.
func (b Block) Check(t chart.Timeline) error {
	switch {
	case !slices.Contains(Kinds, b.Kind):
		return fmt.Errorf("%q is no kind of block; choose lick, approach, connector, free notes or rest", b.Kind)
	case b.Ticks < 1:
		return fmt.Errorf("%s has no length", b.Title())
	case b.Start < FirstTick(t) || b.End() > t.Ticks():
		return fmt.Errorf("%s lies outside the chorus, which runs from %d beats before bar 1 to the end of bar %d", b.Title(), MaxPickupBeats, t.Bars())
	case b.Kind == RestBlock && len(b.Notes) > 0:
		return fmt.Errorf("%s is a rest and has notes", b.Title())
	}
	for n, e := range b.Notes {
		if e.Tick < b.Start || e.End() > b.End() {
			return fmt.Errorf("note %d of %s lies outside it", n+1, b.Title())
		}
	}
	return nil
}

// Chorus is one time through a chart.
type Chorus struct {
	// Blocks are in order of time and do not overlap.
	Blocks []Block
}

// Check returns a *chart.FieldError for the first block that is out of place.
func (c Chorus) Check(t chart.Timeline) error {
	for n, b := range c.Blocks {
		if err := b.Check(t); err != nil {
			return &chart.FieldError{Field: fmt.Sprintf("blocks[%d]", n), Detail: err.Error()}
		}
		if n > 0 && c.Blocks[n-1].End() > b.Start {
			return &chart.FieldError{Field: fmt.Sprintf("blocks[%d]", n), Detail: fmt.Sprintf("%s begins before %s is over", b.Title(), c.Blocks[n-1].Title())}
		}
	}
	return nil
}

// Phrase is what is heard of the chorus: the notes of its blocks that are not muted, over
// the chords of the chart, its tick 0 the chart's.
func (c Chorus) Phrase(over chart.Chart) phrase.Phrase {
	p := phrase.Phrase{Meter: over.Meter, Events: []phrase.Event{}}
	for _, b := range c.Blocks {
		if !b.Muted {
			p.Events = append(p.Events, b.Notes...)
		}
	}
	p, _ = p.Playable()
	return p.WithChordsOf(over, 0)
}

// JoinLines is the line of several choruses, one after the other.
func JoinLines(choruses []Chorus, over chart.Chart) phrase.Phrase {
	p := phrase.Phrase{Meter: over.Meter, Events: []phrase.Event{}}
	for n, c := range choruses {
		for _, e := range c.Phrase(over).Events {
			e.Tick += n * over.Ticks()
			p.Events = append(p.Events, e)
		}
	}
	sort.SliceStable(p.Events, func(a, b int) bool { return p.Events[a].Tick < p.Events[b].Tick })
	p, _ = p.Playable()
	return p.WithChordsOf(over, 0)
}
