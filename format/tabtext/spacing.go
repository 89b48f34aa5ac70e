package tabtext

import (
	"math"

	"undaris/core/chart"
)

// inOrder reads the tick of each column once, and lets none stand where the one before it
// does: it comes an eighth of a beat later.
func inOrder(inside []struck, m chart.Meter, read func(int) int) func(int) int {
	ticks := map[int]int{}
	last := -1
	for _, one := range inside {
		tick := read(one.column)
		if tick <= last {
			tick = last + m.BeatTicks()/8
		}
		ticks[one.column], last = tick, tick
	}
	return func(column int) int {
		if tick, ok := ticks[column]; ok {
			return tick
		}
		return read(column)
	}
}

// grids are the parts of a beat that spacing is rounded to, coarsest first.
func grids(m chart.Meter) []int {
	if m.Compound() {
		return []int{3, 6, 12}
	}
	return []int{2, 3, 4, 6, 8}
}

// spaced takes the ticks of a bar's columns from where they stand between its bar lines,
// rounded to the coarsest grid that keeps them apart and is near enough: within a third
// of its step, on the average (ours). The first column leads by as many dashes as the
// bar begins with, two at most.
func spaced(m chart.Meter, bar span, inside []struck) func(int) int {
	lead := 0
	if len(inside) > 0 {
		lead = min(inside[0].column-bar.from, 2)
	}
	width := float64(max(bar.to-bar.from-lead, 1))
	raw := func(column int) float64 {
		return math.Max(float64(column-bar.from-lead), 0) / width * float64(m.BarTicks())
	}
	step := 0
	for _, parts := range grids(m) {
		step = m.BeatTicks() / parts
		apart, off := true, 0.0
		last := -1
		for _, one := range inside {
			tick := int(math.Round(raw(one.column)/float64(step))) * step
			off += math.Abs(raw(one.column)-float64(tick)) / float64(step)
			apart = apart && tick != last && tick < m.BarTicks()
			last = tick
		}
		if apart && off <= float64(len(inside))/3 {
			break
		}
	}
	return roundedTo(inside, step, m.BarTicks(), raw)
}

// even takes the ticks of columns without bar lines: the smallest distance between two
// of them is an eighth (ours: what most tab is written in).
func even(m chart.Meter, inside []struck) func(int) int {
	least := math.MaxInt
	for n := 1; n < len(inside); n++ {
		least = min(least, inside[n].column-inside[n-1].column)
	}
	eighth := m.BeatTicks() / 2
	if m.Compound() {
		eighth = m.BeatTicks() / 3
	}
	raw := func(column int) float64 {
		return float64(column-inside[0].column) / float64(max(least, 1)) * float64(eighth)
	}
	return roundedTo(inside, eighth, math.MaxInt32, raw)
}

// roundedTo rounds the ticks of columns to a grid, each at least one tick behind the one
// before it and all before the end.
func roundedTo(inside []struck, step, end int, raw func(int) float64) func(int) int {
	ticks := map[int]int{}
	last := -1
	for n, one := range inside {
		tick := int(math.Round(raw(one.column)/float64(step))) * step
		if tick <= last {
			tick = last + max(step/2, 1)
		}
		tick = max(min(tick, end-(len(inside)-n)), last+1)
		ticks[one.column], last = tick, tick
	}
	return func(column int) int {
		if tick, ok := ticks[column]; ok {
			return tick
		}
		return int(math.Round(math.Max(raw(column), 0)/float64(step))) * step
	}
}
