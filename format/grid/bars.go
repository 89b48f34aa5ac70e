package grid

import (
	"undaris/core/chart"
	"undaris/format/reading"
)

// Bars takes cells into a chart one after the other; it is what the readers of
// formats with bar lines have in common.
type Bars struct {
	*reading.Reading
	Faults reading.Faults
	// Label is a section's label that waits for its first bar.
	Label string
}

// Add reads a cell of a line as the next bar. What cannot be read is one more
// fault, and the bar stays silent. It is false where there is no room for more.
func (b *Bars) Add(line int, cell Cell) bool {
	count := len(b.Chart.Bars)
	if count == chart.MaxBars {
		b.Faults = append(b.Faults, reading.Fault{Line: line, Column: cell.Column, Detail: "there are more than 512 bars; a chart has at most 512"})
		return false
	}
	bar := chart.Bar{Section: b.Label, RepeatFrom: cell.RepeatFrom, RepeatTo: cell.RepeatTo, Ending: cell.Ending}
	var before []chart.Span
	if count > 0 {
		last := b.Chart.Bars[count-1]
		before = last.Spans
		// A first ending goes on until its repeat closes.
		if cell.Ending == 0 && last.Ending == 1 && last.RepeatTo == 0 {
			bar.Ending = 1
		}
	}
	spans, err := chart.ReadBar(cell.Text, b.Chart.Key, b.Chart.Meter, before)
	if err != nil {
		b.Fault(line, cell.Column, err)
		spans = chart.EmptyBars(1, b.Chart.Meter)[0].Spans
	}
	bar.Spans = spans
	b.Label = ""
	b.Chart.Bars = append(b.Chart.Bars, bar)
	return true
}

// Fault notes what cannot be read in a text that begins at a column.
func (b *Bars) Fault(line, column int, err error) {
	fault := reading.Fault{Line: line, Column: column, Detail: err.Error()}
	if text, ok := err.(*chart.TextError); ok {
		fault.Column, fault.Symbol, fault.Nearest = column+text.At-1, text.Symbol, text.Nearest
	}
	b.Faults = append(b.Faults, fault)
}

// Done ends the reading: every fault, or the chart checked whole. Without a key
// it is taken from the first chord.
func (b *Bars) Done(hasKey bool, none string) (*reading.Reading, error) {
	switch {
	case len(b.Faults) > 0:
		return nil, b.Faults
	case len(b.Chart.Bars) == 0:
		return nil, reading.Wrong("%s", none)
	}
	if b.Label != "" {
		b.Remark(0, b.Label, "a section without a bar was left out")
	}
	if !hasKey {
		b.Chart.Key = chart.GuessKey(b.Chart.Bars)
		b.Remark(0, "", "no key is given; %s %s is taken from the first chord", b.Chart.Key.Tonic, b.Chart.Key.Mode)
	}
	if err := b.Finish(); err != nil {
		return nil, err
	}
	return b.Reading, nil
}
