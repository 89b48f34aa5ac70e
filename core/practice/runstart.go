package practice

import (
	"fmt"
	"slices"

	"undaris/core/chart"
)

// runStart asks when a run of so many notes must begin so that its last note lands on a beat.
func (a maker) runStart() (Question, error) {
	m := a.Meter
	if m == (chart.Meter{}) {
		m = chart.FourFour
	}
	subdivision := pick(a.r, m.CommonSubdivisions())
	notes := 3 + a.r.IntN(6)
	beat := a.r.IntN(m.Beats())
	arrival := beat * m.BeatTicks()
	tick := chart.RunStart(arrival, notes, subdivision, m)
	q := Question{
		Form: Chosen, Title: fmt.Sprintf("%d notes in %ss", notes, subdivision),
		Detail: fmt.Sprintf("the last lands on beat %d: when does the first one come?", beat+1),
		Hint:   fmt.Sprintf("there are %d to a beat", subdivision.PerBeat),
	}
	right := countedBefore(m, tick)
	q.right = []string{right}
	q.Choices = []string{right}
	step := subdivision.Ticks(m)
	for _, off := range a.r.Perm(7) {
		other := tick + (off-3)*step
		if len(q.Choices) == 4 {
			continue
		}
		if text := countedBefore(m, other); !slices.Contains(q.Choices, text) {
			q.Choices = append(q.Choices, text)
		}
	}
	slices.Sort(q.Choices)
	q.Text = fmt.Sprintf("%d notes take %d steps of a %s before the last: the first comes on %s.", notes, notes-1, subdivision, right)
	return q, nil
}

// countedBefore says a tick, counted from the bar that a run lands in, and how many bars before that it
// lies.
func countedBefore(m chart.Meter, tick int) string {
	counted := m.Counted(tick)
	switch bars := -chart.BarLinesIn(m, nil).BarAt(tick); {
	case bars <= 0:
		return counted
	case bars == 1:
		return counted + ", the bar before"
	default:
		return fmt.Sprintf("%s, %d bars before", counted, bars)
	}
}
