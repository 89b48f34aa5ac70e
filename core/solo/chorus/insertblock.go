package chorus

import (
	"fmt"
	"slices"

	"undaris/core/analysis"
	"undaris/core/chart"
)

// insertBlock lays a block among others: what lies under it gives way, unless it is locked.
func (pc *Context) insertBlock(c Chorus, b Block) (Edited, error) {
	if err := b.Check(pc.Time); err != nil {
		return Edited{}, &chart.FieldError{Field: "edit", Detail: err.Error()}
	}
	all, remarks := []Block{}, []string{}
	for _, other := range c.Blocks {
		if other.End() <= b.Start || other.Start >= b.End() {
			all = append(all, other)
			continue
		}
		if other.Locked {
			return Edited{}, &chart.FieldError{Field: "edit", Detail: fmt.Sprintf("%s would lie over %s, which is locked: unlock that one, or end before %s",
				b.Title(), other.Title(), pc.Time.CountedInBar(other.Start))}
		}
		left, right := other.Split(b.Start, b.End())
		lost := len(other.Notes) - len(left.Notes) - len(right.Notes)
		if lost > 0 {
			remarks = append(remarks, fmt.Sprintf("%s of %s gave way", analysis.Counted(lost, "note"), other.Title()))
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
	done := Chorus{Blocks: WithRests(WithoutRests(all), pc.Chart)}
	if p := done.Phrase(pc.Chart); len(p.Events) > 0 {
		if err := p.Check(pc.Instrument); err != nil {
			return Edited{}, &chart.FieldError{Field: "edit.notes", Detail: err.Error()}
		}
	}
	at := slices.IndexFunc(done.Blocks, func(other Block) bool { return other.Start <= b.Start && b.Start < other.End() })
	return Edited{Chorus: done, Remarks: remarks, Block: at}, nil
}

// Split is what is left of a block before and behind a stretch of time.
func (b Block) Split(from, to int) (left, right Block) {
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

// WithoutRests are the blocks without the rests that nobody locked.
func WithoutRests(blocks []Block) []Block {
	return slices.DeleteFunc(slices.Clone(blocks), func(b Block) bool { return b.Kind == RestBlock && !b.Locked })
}

// WithRests fills the gaps between blocks with rests, from bar 1 to the end.
func WithRests(blocks []Block, c chart.Chart) []Block {
	all := []Block{}
	at := 0
	for _, b := range blocks {
		if b.Start > at {
			all = append(all, Block{Kind: RestBlock, Name: "rest", Start: at, Ticks: b.Start - at})
		}
		all = append(all, b)
		at = max(at, b.End())
	}
	if at < c.Ticks() {
		all = append(all, Block{Kind: RestBlock, Name: "rest", Start: at, Ticks: c.Ticks() - at})
	}
	return all
}
