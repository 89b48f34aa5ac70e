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
	// Label is a section's label that waits for its first bar, Waiting marks that stand in lines of
	// their own above it.
	Label   string
	Waiting Marks
	// now is what holds in the last bar.
	now chart.Setting
	// readable counts the bars of which something could be read.
	readable int
}

// Now is what holds in the bar that comes next.
func (b *Bars) Now() chart.Setting {
	in := b.now
	if len(b.Chart.Bars) == 0 {
		in = chart.Setting{Key: b.Chart.Key, Meter: b.Chart.Meter, Feel: b.Chart.Feel}
	}
	return in.After(b.Waiting.Change)
}

// Sign reads a mark that stands between two bars: what stands at the beginning of a bar is for the next one,
// what stands at its end for the last.
func (b *Bars) Sign(text string) error {
	one := Marks{}
	if err := one.ReadMark(text); err != nil {
		return err
	}
	b.markLast(one.Signs)
	b.Waiting.add(one.atBeginning())
	return nil
}

// markLast gives the last bar signs that stand at its end.
func (b *Bars) markLast(signs chart.Signs) {
	if n := len(b.Chart.Bars); n > 0 {
		last := &b.Chart.Bars[n-1].Signs
		last.ToCoda, last.Fine = last.ToCoda || signs.ToCoda, last.Fine || signs.Fine
		if signs.Jump != "" {
			last.Jump = signs.Jump
		}
	}
}

// Add reads a cell of a line as the next bar. Where its chords cannot be read the bar is marked as unread
// and stays silent; a mark in braces that is none is a fault. It is false where there is no room for more.
func (b *Bars) Add(line int, cell Cell) bool {
	count := len(b.Chart.Bars)
	if count == chart.MaxBars {
		b.Faults = append(b.Faults, reading.Fault{Line: line, Column: cell.Column, Detail: "there are more than 512 bars; a chart has at most 512"})
		return false
	}
	text, marks := braces(cell.Text)
	for _, mark := range marks {
		if err := b.Waiting.ReadMark(mark.text); err != nil {
			b.Faults = append(b.Faults, reading.Fault{Line: line, Column: cell.Column + mark.column, Symbol: mark.text, Detail: err.Error()})
		}
	}
	bar := chart.Bar{Section: b.Label, Signs: b.Waiting.Signs, RepeatFrom: cell.RepeatFrom, RepeatTo: cell.RepeatTo, Ending: cell.Ending}
	var before []chart.Span
	if count > 0 {
		last := b.Chart.Bars[count-1]
		before = last.Spans
		// A first ending goes on until its repeat closes.
		if cell.Ending == 0 && last.Ending == 1 && last.RepeatTo == 0 {
			bar.Ending = 1
		}
	}
	in := b.Now()
	switch {
	case count == 0:
		b.Chart.Key, b.Chart.Meter, b.Chart.Feel = in.Key, in.Meter, in.Feel
	default:
		bar.Change = in.Since(b.now)
	}
	b.now, b.Waiting = in, Marks{}
	spans, err := chart.ReadBar(text, in.Key, in.Meter, before)
	if err != nil {
		b.unread(line, cell, err)
		bar.Unread = chart.UnreadText(cell.Text)
		spans = chart.EmptyBars(1, in.Meter)[0].Spans
	} else {
		b.readable++
	}
	bar.Spans = spans
	b.Label = ""
	b.Chart.Bars = append(b.Chart.Bars, bar)
	return true
}

// Fault notes what cannot be read in a text that begins at a column.
func (b *Bars) Fault(line, column int, err error) {
	b.Faults = append(b.Faults, faultOf(line, column, err))
}

// unread notes a bar that cannot be read.
func (b *Bars) unread(line int, cell Cell, err error) {
	b.Unread = append(b.Unread, faultOf(line, cell.Column, err))
}

func faultOf(line, column int, err error) reading.Fault {
	fault := reading.Fault{Line: line, Column: column, Detail: err.Error()}
	if text, ok := err.(*chart.TextError); ok {
		fault.Column, fault.Symbol, fault.Nearest = column+text.At-1, text.Symbol, text.Nearest
	}
	return fault
}

// Done ends the reading: every fault, or the chart checked whole. A file of which no bar can be read is none.
// Without a key it is taken from the first chord.
func (b *Bars) Done(hasKey bool, none string) (*reading.Reading, error) {
	switch {
	case len(b.Faults) > 0:
		return nil, append(b.Faults, b.Unread...).Bounded()
	case b.readable == 0 && len(b.Unread) > 0:
		return nil, b.Unread.Bounded()
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
