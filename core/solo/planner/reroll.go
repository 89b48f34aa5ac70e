package planner

import (
	"context"
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
)

// Edit is the chorus with one change made, as Request.Edit makes it, or with a
// part planned anew, and what had to give way. Its error is a *chart.FieldError; then nothing
// has changed.
func Edit(ctx context.Context, o chorus.Request, c chorus.Chorus, e chorus.Edit) (chorus.Edited, error) {
	if e.Kind == chorus.Reroll {
		return reroll(ctx, o, c, e)
	}
	return o.Apply(c, e)
}

// reroll plans blocks, bars, or all that is not locked, anew; the rest stays.
func reroll(ctx context.Context, o chorus.Request, c chorus.Chorus, e chorus.Edit) (chorus.Edited, error) {
	if err := o.Check(); err != nil {
		return chorus.Edited{}, err
	}
	if err := e.CheckBlocks(c); err != nil {
		return chorus.Edited{}, err
	}
	time, bar := o.Chart.Timeline(), o.Chart.Meter.BarTicks()
	from, to := time.Start(e.Bar), time.Start(e.Bar+e.Bars)
	request := o
	request.Seed, request.Kept = e.Seed, nil
	everything := len(e.Blocks) == 0 && e.Bars == 0
	anew := false
	if e.Bars < 0 || e.Bar < 0 || e.Bar+e.Bars > o.BarCount() {
		return chorus.Edited{}, &chart.FieldError{Field: "edit.bars", Detail: fmt.Sprintf("bars 1 to %d can be planned anew", o.BarCount())}
	}
	for n, b := range c.Blocks {
		wanted := everything || slices.Contains(e.Blocks, n) || (e.Bars > 0 && b.Start < to && b.End() > from)
		switch {
		case b.Locked:
			if slices.Contains(e.Blocks, n) {
				return chorus.Edited{}, chorus.LockedError(b)
			}
			request.Kept = append(request.Kept, b)
		case !wanted:
			request.Kept = append(request.Kept, b)
		case e.Bars > 0:
			anew = true
			// What of it lies outside the bars stays.
			left, right := b.Split(from, to)
			for _, half := range []chorus.Block{left, right} {
				if half.Ticks > 0 {
					request.Kept = append(request.Kept, half)
				}
			}
		default:
			anew = true
		}
	}
	if !anew && len(c.Blocks) > 0 {
		return chorus.Edited{}, &chart.FieldError{Field: "edit.blocks", Detail: "everything there is locked: unlock what is to be planned again"}
	}
	if pickup := firstStart(request.Kept); !everything && !slices.Contains(e.Blocks, 0) && (e.Bars == 0 || e.Bar > 0) && pickup > -bar {
		// Nothing is led into that was not before.
		request.Kept = append(request.Kept, chorus.Block{Kind: chorus.RestBlock, Name: "rest", Start: -bar, Ticks: pickup + bar})
	}
	slices.SortStableFunc(request.Kept, func(a, b chorus.Block) int { return a.Start - b.Start })
	planned, err := Plan(ctx, request)
	if err != nil {
		return chorus.Edited{}, err
	}
	best := planned.Best[0]
	for _, p := range planned.Best {
		if !slices.EqualFunc(p.Line.Events, c.Phrase(o.Chart).Events, func(a, b phrase.Event) bool { return a == b }) {
			best = p
			break
		}
	}
	remarks := []string{}
	for _, concession := range planned.Concessions {
		remarks = append(remarks, concession.Text)
	}
	again := chorus.Chorus{Blocks: chorus.WithRests(chorus.WithoutRests(best.Blocks), o.Chart)}
	return chorus.Edited{Chorus: again, Remarks: remarks, Block: -1}, nil
}

// firstStart is when the first of the blocks begins, the top of the chorus at the latest.
func firstStart(blocks []chorus.Block) int {
	first := 0
	for _, b := range blocks {
		first = min(first, b.Start)
	}
	return first
}
