package musicxml

import (
	"math"

	"undaris/core/phrase"
)

// sounded is what one voice plays at one moment: notes that begin and end together, and
// the grace notes before them. Ticks are as written: what grace notes took from the
// notes before them is theirs again.
type sounded struct {
	tick, ticks int
	events      []int
	graces      []int
	// steals says that the grace notes took their time from what the voice played before.
	steals bool
}

func (s sounded) end() int { return s.tick + s.ticks }

// voices lays the events of a phrase into voices, in each of which nothing overlaps: as
// few as there must be, the first taken first.
func voices(p phrase.Phrase) [][]sounded {
	all := [][]sounded{}
	graces := []int{}
	tick, above := math.MinInt, 0
	for n := 0; n < len(p.Events); {
		e := p.Events[n]
		if e.Grace {
			graces = append(graces, n)
			n++
			continue
		}
		s := sounded{tick: e.Tick, ticks: e.Ticks, graces: graces}
		for ; n < len(p.Events) && p.Events[n].Tick == e.Tick && p.Events[n].Ticks == e.Ticks && !p.Events[n].Grace; n++ {
			s.events = append(s.events, n)
		}
		graces = nil
		begin := s.tick - len(s.graces)*phrase.GraceTicks
		v := 0
		if s.tick == tick {
			v = above // what begins at once stays in its order
		}
		for v < len(all) && all[v][len(all[v])-1].end() > begin {
			v++
		}
		if v == len(all) {
			all = append(all, nil)
		}
		if before := len(all[v]) - 1; before >= 0 && len(s.graces) > 0 && all[v][before].end() == begin {
			all[v][before].ticks, s.steals = s.tick-all[v][before].tick, true
		}
		all[v] = append(all[v], s)
		tick, above = s.tick, v+1
	}
	return all
}

// piece is a part of a note's time that one sign can stand for.
type piece struct {
	ticks int
	kind  string
	dots  int
	// tripled says that three stand in the time of two.
	tripled bool
}

// signs are the lengths that have a sign of their own, longest first.
var signs = []piece{
	{2880, "whole", 1, false}, {1920, "whole", 0, false}, {1440, "half", 1, false}, {960, "half", 0, false}, {720, "quarter", 1, false}, {640, "half", 0, true},
	{480, "quarter", 0, false}, {360, "eighth", 1, false}, {320, "quarter", 0, true}, {240, "eighth", 0, false}, {180, "16th", 1, false}, {160, "eighth", 0, true},
	{120, "16th", 0, false}, {90, "32nd", 1, false}, {80, "16th", 0, true}, {60, "32nd", 0, false}, {40, "32nd", 0, true}, {30, "64th", 0, false},
}

// pieces cuts a time from a tick on into parts that signs stand for, at bar lines
// first, and those at beats where a part begins off them. A time that no signs make up
// is one part without a sign: its duration alone says it.
func pieces(tick, ticks, bar, beat int) []piece {
	all := []piece{}
	for ticks > 0 {
		inBar := ((tick % bar) + bar) % bar
		here := min(ticks, bar-inBar)
		all = append(all, signed(inBar, here, beat)...)
		tick, ticks = tick+here, ticks-here
	}
	return all
}

func signed(at, ticks, beat int) []piece {
	parts := []piece{}
	for left := ticks; left > 0; {
		if len(parts) == 4 {
			return []piece{{ticks: ticks}}
		}
		room := left
		if off := at % beat; off > 0 && left > beat-off && len(parts) == 0 {
			room = beat - off
		}
		found := false
		for _, s := range signs {
			if s.ticks <= room && (s.ticks == left || !s.tripled) {
				parts = append(parts, s)
				left, at, found = left-s.ticks, at+s.ticks, true
				break
			}
		}
		if !found {
			return []piece{{ticks: ticks}}
		}
	}
	return parts
}
