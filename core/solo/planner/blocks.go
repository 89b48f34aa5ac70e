package planner

import (
	"fmt"
	"slices"

	"undaris/core/phrase"
	"undaris/core/solo/chorus"
)

// blocks cuts phrases into blocks: what leads into a landing is an approach, the rest a
// lick or free notes; silence between is a rest. Kept blocks stand among them.
func (pc *planContext) blocks(phrases []draftPhrase) chorus.Chorus {
	all := slices.Clone(pc.Kept)
	for n, p := range phrases {
		name := fmt.Sprintf("motif %s", p.motif)
		if p.answer {
			name = fmt.Sprintf("answer %s", p.motif)
		}
		for from := 0; from < len(p.notes); {
			to := from + 1
			kind := p.kind(from)
			for to < len(p.notes) && p.kind(to) == kind && p.onsets[to].arrival < 0 && !pc.keptBetween(p.notes[to-1].Tick, p.notes[to].Tick) {
				to++
			}
			b := chorus.Block{Kind: kind, Name: name, Start: p.begins(from), Notes: p.together(from, to)}
			switch kind {
			case chorus.ApproachBlock:
				b.Name = pc.approachName(phrases[n], to)
			case chorus.LickBlock:
				b.Name = p.lick
			}
			end := p.notes[to-1].End()
			if to < len(p.notes) && !pc.keptBetween(p.notes[to-1].Tick, p.notes[to].Tick) {
				end = p.begins(to)
			}
			b.Ticks = end - b.Start
			all = append(all, b)
			from = to
		}
	}
	slices.SortStableFunc(all, func(a, b chorus.Block) int { return a.Start - b.Start })
	return chorus.Chorus{Blocks: chorus.WithRests(all, pc.Chart)}
}

// begins is when a note begins, with its grace notes.
func (p draftPhrase) begins(n int) int {
	tick := p.notes[n].Tick
	for _, e := range p.with[n] {
		tick = min(tick, e.Tick)
	}
	return tick
}

// together are notes of the phrase with those that are played with them, in order of time.
func (p draftPhrase) together(from, to int) []phrase.Event {
	all := []phrase.Event{}
	for n := from; n < to; n++ {
		all = append(all, p.notes[n])
		all = append(all, p.with[n]...)
	}
	slices.SortStableFunc(all, func(a, b phrase.Event) int { return a.Tick - b.Tick })
	return all
}

// kind is the kind of block that a note belongs to.
func (p draftPhrase) kind(n int) chorus.Kind {
	o := p.onsets[n]
	switch {
	case p.fromLick[n], p.lick != "" && o.arrival >= 0 && n+1 < len(p.notes) && p.fromLick[n+1]:
		return chorus.LickBlock // the landing that a lick begins on is its own
	case o.leads == 1, o.leads == 2 && o.arrival < 0:
		return chorus.ApproachBlock
	case p.lick != "" && o.arrival < 0 && n > 0 && n < len(p.notes)-1 && p.fromLick[n-1]:
		return chorus.LickBlock
	}
	return chorus.FreeBlock
}

func (pc *planContext) keptBetween(from, to int) bool {
	return slices.ContainsFunc(pc.Kept, func(b chorus.Block) bool { return b.Start > from && b.Start < to })
}

// approachName says which approach leads into a note of a phrase.
func (pc *planContext) approachName(p draftPhrase, at int) string {
	if at < len(p.notes) && p.onsets[at].arrival >= 0 {
		if led := pc.ApproachUsed(p.notes[:at], p.notes[at], pc.Targets[p.onsets[at].arrival]); led != nil {
			return led.Short
		}
	}
	return "lead-in"
}
