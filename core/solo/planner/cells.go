package planner

import (
	"strings"

	"undaris/core/chart"
)

// cell is a rhythm of one beat or more in equal parts: x a note begins, r the same pitch is
// struck again, - it goes on, . silence.
type cell struct {
	beats  int
	parts  string
	weight float64
}

// The cells that lines are made of, by how many parts a beat has (our choice, for what players
// do: pairs, ties over the beat, the charleston, three against two, one pitch struck again,
// a flurry and a hold).
var (
	quarterCells = []cell{{1, "x", 4}, {1, "-", 1}, {2, "xx", 3}, {2, "x-", 3}, {2, "-x", 1}, {2, "x.", 0.5}, {3, "x--", 1}, {2, "xr", 0.5}}
	eighthCells  = []cell{
		{1, "xx", 3}, {1, "x-", 2}, {1, "-x", 2}, {1, ".x", 0.5},
		{2, "xxxx", 2}, {2, "x-xx", 3}, {2, "xx-x", 3}, {2, "xxx-", 2}, {2, "xx--", 2}, {2, "x--x", 3.5}, {2, "-xx-", 2}, {2, "-x-x", 2.5},
		{2, "-xxx", 2}, {2, "x-x-", 1.5}, {2, ".xxx", 0.75}, {2, ".x-x", 1}, {2, ".xx-", 0.75}, {2, "xx.x", 0.75}, {2, "x-.x", 0.75}, {2, "x.x-", 0.5},
		{2, "x---", 1}, {2, "xr-x", 0.6}, {2, "x-rx", 0.4},
		{3, "x--x--", 1.5}, {3, "xx-xx-", 1.5}, {3, "x-x--x", 1.5}, {3, "-x--x-", 1}, {3, "xxx---", 1},
		{4, "xx-xx-xx", 1}, {4, "x--x--x-", 1.2}, {4, "-x--x--x", 0.8}, {4, "xxx-----", 0.8},
	}
	// tripletCells are those of triplets; in a shuffle eighths have them as well.
	tripletCells = []cell{
		{1, "x-x", 4}, {1, "xxx", 2}, {1, "x--", 2}, {1, "--x", 2}, {1, "..x", 0.5},
		{2, "x-xx-x", 2}, {2, "xxxx--", 2}, {2, "xxx--x", 2}, {2, "x-x--x", 2.5}, {2, "--xx-x", 2}, {2, "x-xxxx", 1.5}, {2, "x-x-x-", 1},
		{2, "xrrx--", 0.6}, {2, "xrrxxx", 0.4}, {2, "xxx---", 1.5}, {2, "..xx-x", 0.75}, {2, "..x--x", 0.5}, {2, "x----x", 1.5}, {2, "-xx-xx", 0.8}, {2, "xxxxxx", 0.8},
		{3, "x-x--x--x", 1}, {3, "x---x---x", 0.6},
	}
	sixteenthCells = []cell{
		{1, "x-x-", 3}, {1, "x-xx", 3}, {1, "xxxx", 1}, {1, "x---", 2}, {1, "--x-", 2}, {1, "x--x", 2}, {1, "..x-", 0.5}, {1, "-xx-", 1},
		{2, "x-x-xxxx", 1.5}, {2, "xxxxx---", 1.5}, {2, "x--x--x-", 2.5}, {2, "x-xx-xx-", 2}, {2, "--x-x-x-", 2}, {2, "x--xx-x-", 2}, {2, "xxxx----", 1.5},
		{2, "x.x.x-xx", 0.5}, {2, "..x-x-xx", 1}, {2, "-xx--xx-", 1}, {2, "x---x--x", 2}, {2, "x-rrx---", 0.6}, {2, "..xxx---", 0.75}, {2, "x--x-x--", 2},
		{3, "x--x--x--x--", 1}, {3, "x-x-x---xxxx", 0.8},
	}
	// sextupletCells are those of compound beats in six parts.
	sextupletCells = []cell{
		{1, "x---x-", 3}, {1, "x-x-x-", 3}, {1, "x-xxxx", 1}, {1, "x-----", 2}, {1, "----x-", 2}, {1, "x-xxx-", 1}, {1, "..x-x-", 0.5},
		{2, "x---x-----x-", 1.5}, {2, "x-x-x-x-----", 2}, {2, "----x-x---x-", 1.5}, {2, "xxxxxxx-----", 1}, {2, "x-----x-xxxx", 1},
	}
	compoundCells = []cell{{1, "x", 4}, {1, "-", 1}, {2, "xx", 3}, {2, "x-", 3}, {2, "-x", 1}}
)

// The cells of simple and of compound beats, by how many parts a beat has.
var (
	simpleCellsOf = map[int][]cell{
		1: quarterCells, 2: eighthCells, 3: tripletCells, 4: sixteenthCells,
		5: withEven(eighthCells, 5), 6: withEven(tripletCells, 6), 8: withEven(sixteenthCells, 8),
	}
	compoundCellsOf = map[int][]cell{
		1: compoundCells, 2: withEven(compoundCells, 2), 3: tripletCells, 4: withEven(compoundCells, 4),
		6: sextupletCells, 12: withEven(sextupletCells, 12),
	}
)

// withEven is cells and, as likely as all of them, a beat of so many even notes: what is seldom played
// for long (our choice).
func withEven(cells []cell, notes int) []cell {
	even := cell{parts: strings.Repeat("x", notes), beats: 1}
	for _, c := range cells {
		even.weight += c.weight
	}
	return append(append([]cell{}, cells...), even)
}

// subdivisionIn is the request's subdivision, or in another meter than the first the nearest it has.
func (pc *planContext) subdivisionIn(m chart.Meter) chart.Subdivision {
	if m.Compound() == pc.Chart.Meter.Compound() {
		return pc.Subdivision
	}
	s, _ := m.NearestSubdivision(pc.Subdivision.Name)
	return s
}

// cells are those of the request's subdivision in the meter of the slot.
func (d *rhythmDraw) cells() []cell {
	notes := d.subdivisionIn(d.slot.in.Meter).PerBeat
	if d.slot.in.Meter.Compound() {
		return compoundCellsOf[notes]
	}
	found := simpleCellsOf[notes]
	if notes == 2 && d.slot.in.Feel != chart.Straight {
		return shuffleCells
	}
	return found
}

// shuffleCells are eighths, with a triplet among them now and then.
var shuffleCells = func() []cell {
	all := append([]cell{}, eighthCells...)
	for _, c := range tripletCells {
		if c.beats > 1 {
			c.weight *= 0.4
			all = append(all, c)
		}
	}
	return all
}()

// offBeat is how far into a beat its off-beat lies, on the notes that the subdivision has: half of it, the
// last third, or three fifths.
func (d *rhythmDraw) offBeat() int {
	beat, meter := d.slot.beat, d.slot.in.Meter
	perBeat := d.subdivisionIn(meter).PerBeat
	switch {
	case perBeat%3 == 0 && (perBeat%2 == 1 || meter.Compound()):
		return 2 * beat / 3
	case perBeat%2 == 0:
		return beat / 2
	}
	return beat * ((perBeat + 1) / 2) / max(perBeat, 1)
}
