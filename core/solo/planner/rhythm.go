package planner

import (
	"math/rand/v2"
	"slices"

	"undaris/core/analysis"
	"undaris/core/chart"
	"undaris/core/solo/chorus"
)

// pattern is the rhythm of a motif, in ticks from the start of its slot.
type pattern struct {
	onsets []int
	// stops are the ticks at which notes stop before the next begins, by their index.
	stops map[int]int
	// held is the index of the note that the phrase ends on.
	held  int
	curve contour
}

// cell is the rhythm of one beat in equal parts: x a note begins, - it goes on, . silence.
type cell struct {
	parts  string
	weight float64
}

// The cells that beats are made of, by how many parts the beat has (ours, for what
// players do: pairs, pushes off the beat, triplets with a tie, quarters).
var (
	simpleCells = map[int][]cell{
		1: {{"x", 6}, {"-", 2}},
		2: {{"xx", 5}, {"x-", 4}, {"-x", 3.5}, {"--", 1.2}, {".x", 1.5}, {"xxx", 0.8}},
		3: {{"x-x", 5}, {"xxx", 3}, {"x--", 3}, {"--x", 2.5}, {"..x", 1}},
		4: {{"x-x-", 4}, {"x-xx", 3}, {"xxxx", 1.5}, {"x---", 2.5}, {"--x-", 2}, {"x--x", 2}, {"..x-", 1}},
	}
	compoundCells = map[int][]cell{
		1: {{"x", 6}, {"-", 2}},
		3: {{"x-x", 5}, {"xxx", 3}, {"x--", 3}, {"--x", 2.5}, {"-xx", 1.2}, {"..x", 1}},
		6: {{"x---x-", 3}, {"x-x-x-", 3}, {"x-xxxx", 1}, {"x-----", 2}, {"----x-", 2}, {"x-xxx-", 1}},
	}
	pickupCells = map[int][]cell{
		1: {{"x", 1}}, 2: {{".x", 3}, {"xx", 2}}, 3: {{"..x", 3}, {".xx", 2}, {"xxx", 1}},
		4: {{"..x-", 2}, {"..xx", 2}, {"x-x-", 2}}, 6: {{"----x-", 0}, {"..x-x-", 2}, {"....x-", 2}, {"..xxxx", 1}},
	}
)

// cells are those of the order's subdivision.
func (pc *planContext) cells() []cell {
	if pc.Chart.Meter.Compound() {
		return compoundCells[pc.Subdivision.PerBeat]
	}
	return simpleCells[pc.Subdivision.PerBeat]
}

// The longest and shortest time a phrase rests on its last note, and the least silence
// after it, in beats.
const (
	longestHold  = 2.5
	shortestHold = 1.5
	leastAir     = 1.25
	// oftenOn is how often a phrase goes on from its last landing for a beat.
	oftenOn = 0.35
)

// rhythms makes a pattern for each motif of the slots. Every slot of a motif has
// its landings on notes of the pattern, whatever of them it has itself.
func (pc *planContext) rhythms(slots []phraseSlot, arrivals []int, r *rand.Rand) map[string]pattern {
	m := pc.Chart.Meter
	beat := m.BeatTicks()
	patterns := map[string]pattern{}
	late := pc.latest(slots, arrivals)
	for _, s := range slots {
		if _, made := patterns[s.motifID]; made {
			continue
		}
		must := []int{}
		pickup := 2.0
		for n, other := range slots {
			if other.motifID != s.motifID {
				continue
			}
			for _, a := range other.arrivals {
				must = append(must, (arrivals[a]-other.start)/beat)
			}
			before := slots[(n+len(slots)-1)%len(slots)]
			room := float64(before.ticks-late[before.motifID])/float64(beat) - shortestHold - leastAir
			pickup = min(pickup, room)
		}
		slices.Sort(must)
		must = slices.Compact(must)
		best := pattern{}
		for try := range 24 {
			p := pc.rhythm(s, must, pickup, r)
			if try == 0 || p.better(best) {
				best = p
			}
			if best.held >= analysis.LeastMotifNotes && best.varied() {
				break
			}
		}
		best.curve = contours[r.IntN(len(contours))]
		patterns[s.motifID] = best
	}
	return patterns
}

// latest is when the last landing of each motif falls, in ticks of its slot.
func (pc *planContext) latest(slots []phraseSlot, arrivals []int) map[string]int {
	late := map[string]int{}
	for _, s := range slots {
		for _, a := range s.arrivals {
			late[s.motifID] = max(late[s.motifID], arrivals[a]-s.start)
		}
	}
	return late
}

// better prefers a motif long enough, then one with more than one length.
func (p pattern) better(other pattern) bool {
	if (p.held >= analysis.LeastMotifNotes) != (other.held >= analysis.LeastMotifNotes) {
		return p.held >= analysis.LeastMotifNotes
	}
	return p.varied() && !other.varied()
}

// varied says that no length is repeated too often and that there is more than one.
func (p pattern) varied() bool {
	equal, lengths := 1, map[int]bool{}
	for n := 1; n < len(p.onsets); n++ {
		length := p.onsets[n] - p.onsets[n-1]
		lengths[length] = true
		if n > 1 && length == p.onsets[n-1]-p.onsets[n-2] {
			equal++
		} else {
			equal = 1
		}
		if equal > analysis.MaxEqualLengths-1 {
			return false
		}
	}
	return len(lengths) > 1
}

// rhythm makes one pattern: a start that is not always on the beat, cells up to the note
// that is held, landings where they must be.
func (pc *planContext) rhythm(s phraseSlot, must []int, pickup float64, r *rand.Rand) pattern {
	m := pc.Chart.Meter
	beat := m.BeatTicks()
	beats := s.ticks / beat
	hold := pc.holdAt(beats, must, r)
	start, first := startAt(must, hold, pickup, pc.Subdivision.PerBeat, r)
	wanted := (pc.Density*float64(s.ticks)/float64(m.BarTicks()) - 1) / float64(max(hold-start, 1))
	p := pattern{stops: map[int]int{}}
	for at := start; at < hold; at++ {
		parts := first
		if at > start || first == "" {
			parts = draw(pc.cells(), r, func(c cell) float64 {
				return pc.fits(c, wanted, slices.Contains(must, at) || len(p.onsets) == 0, slices.Contains(must, at+1) || at+1 == hold)
			})
		}
		p.add(parts, at*beat, beat)
	}
	p.held = len(p.onsets)
	p.onsets = append(p.onsets, hold*beat)
	return p
}

// add plays a cell from a tick on.
func (p *pattern) add(parts string, tick, beat int) {
	for n, part := range parts {
		at := tick + n*beat/len(parts)
		switch part {
		case 'x':
			p.onsets = append(p.onsets, at)
		case '.':
			if last := len(p.onsets) - 1; last >= 0 {
				if _, stopped := p.stops[last]; !stopped {
					p.stops[last] = at
				}
			}
		}
	}
}

// holdAt is the beat that the phrase comes to rest on: its last landing, or where none is
// late a beat past the middle.
func (pc *planContext) holdAt(beats int, must []int, r *rand.Rand) int {
	last := 0
	if len(must) > 0 {
		last = must[len(must)-1]
	}
	choices := []int{last}
	for _, at := range []int{beats/2 - 1, beats / 2, beats / 2, beats/2 + 1} {
		if at > last && at <= beats-3 && at >= 2 {
			choices = append(choices, at)
		}
	}
	if last >= 2 && last >= beats/2 {
		// The landing itself is held, or the line goes on from it for a beat.
		if last+1 <= beats-3 && (pc.Form == chorus.QuestionAnswer || r.Float64() < oftenOn) {
			return last + 1
		}
		return last
	}
	if len(choices) > 1 {
		choices = choices[1:]
	}
	return choices[r.IntN(len(choices))]
}

// startAt is the beat that the phrase begins in, and its first cell where that begins
// after the beat.
func startAt(must []int, hold int, pickup float64, parts int, r *rand.Rand) (at int, first string) {
	lands := len(must) > 0 && must[0] == 0
	draws := r.Float64()
	switch {
	case pickup >= 1 && draws < 0.6:
		return -1, draw(pickupCells[parts], r, func(c cell) float64 { return c.weight })
	case pickup >= 0.5 && draws < 0.75:
		return -1, upbeat[parts]
	case lands && lateCell[parts] != "" && (pickup < 0.5 && draws < 0.6 || draws > 0.95):
		return 0, lateCell[parts]
	case lands || hold <= 2:
		return 0, ""
	case draws < 0.9:
		return 0, upbeat[parts]
	}
	return min(1, hold-1), ""
}

// upbeat is one note on the last part of a beat.
var upbeat = map[int]string{1: "x", 2: ".x", 3: "..x", 4: "..x-", 6: "....x-"}

// lateCell begins a phrase after the beat that its landing is due on, by an eighth at most:
// there it still lands (common: a delayed resolution), and the beat itself is air.
var lateCell = map[int]string{2: ".x", 3: ".xx", 4: "..x-", 6: "..x-x-"}

// fits weighs a cell: how near it comes to the notes a beat that are wanted, whether it
// has a note on the beat where one must be, and leads into the landing after it.
func (pc *planContext) fits(c cell, wanted float64, onBeat, leads bool) float64 {
	if onBeat && c.parts[0] != 'x' {
		return 0
	}
	notes := 0
	for _, part := range c.parts {
		if part == 'x' {
			notes++
		}
	}
	if len(c.parts) > pc.Subdivision.PerBeat && pc.Chart.Feel == chart.Straight {
		return 0
	}
	away := float64(notes) - wanted
	weight := c.weight / (1 + 2*away*away)
	if leads {
		if off := c.parts[len(c.parts)/2:]; off != "" && (off[0] == 'x' || off[len(off)-1] == 'x') {
			weight *= 3
		}
	}
	return weight
}

// draw takes one of the cells by weight.
func draw(cells []cell, r *rand.Rand, weigh func(cell) float64) string {
	total := 0.0
	for _, c := range cells {
		total += weigh(c)
	}
	at := r.Float64() * total
	for _, c := range cells {
		if at -= weigh(c); at < 0 {
			return c.parts
		}
	}
	return cells[0].parts
}
