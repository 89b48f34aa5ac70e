package musicxml

import (
	"fmt"
	"strings"

	"undaris/core/chart"
	"undaris/format/reading"
)

// mark reads what stands beside the chords: sections, repeats, endings.
func (r *reader) mark(n int, bar *chart.Bar, element any) {
	switch e := element.(type) {
	case *direction:
		for _, t := range e.Types {
			for _, rehearsal := range t.Rehearsal {
				bar.Section = section(rehearsal)
			}
			for _, words := range t.Words {
				r.Remark(n+1, words, "these words are not used")
			}
		}
	case *barline:
		r.barline(n, bar, e)
	case skipped:
		r.skipped[e.name]++
	}
}

func section(text string) string {
	text = strings.Join(strings.FieldsFunc(text, func(c rune) bool { return c <= ' ' || strings.ContainsRune("[]|", c) }), " ")
	if runes := []rune(text); len(runes) > chart.MaxSection {
		text = strings.TrimSpace(string(runes[:chart.MaxSection]))
	}
	return text
}

// barline reads repeats and endings. bracketed is true while an ending's
// bracket goes on.
func (r *reader) barline(n int, bar *chart.Bar, line *barline) {
	if e := line.Ending; e != nil {
		switch {
		case e.Type != "start":
			r.bracketed = false
		case strings.HasPrefix(strings.TrimSpace(e.Number), "1"):
			bar.Ending, r.bracketed = 1, true
		case strings.TrimSpace(e.Number) == "2":
			bar.Ending, r.bracketed = 2, true
		default:
			r.faults = append(r.faults, reading.Fault{Line: n + 1, Symbol: e.Number, Detail: fmt.Sprintf("measure %d: an ending %q; a chart has first and second endings", n+1, e.Number)})
		}
	}
	if line.Repeat == nil {
		return
	}
	if line.Repeat.Direction == "forward" {
		bar.RepeatFrom = true
		return
	}
	bar.RepeatTo = line.Repeat.Times
	if bar.RepeatTo == 0 {
		bar.RepeatTo = 2
	}
}
