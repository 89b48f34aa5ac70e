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
		words, segno, coda := []string{}, false, false
		for _, t := range e.Types {
			for _, rehearsal := range t.Rehearsal {
				bar.Section = section(rehearsal)
			}
			words, segno, coda = append(words, t.Words...), segno || t.Segno != nil, coda || t.Coda != nil
		}
		said := r.sign(bar, words, segno, coda, e.Sound)
		said = r.feel(n, bar, words, e.Sound) || said
		for _, text := range words {
			if !said {
				r.Remark(n+1, text, "these words are not used")
			}
		}
	case *sound:
		r.sign(bar, nil, false, false, e)
		r.feel(n, bar, nil, e)
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
		default:
			bar.Ending, r.bracketed = r.ending(n, e.Number), true
		}
	}
	if line.Repeat == nil {
		return
	}
	if line.Repeat.Direction == "forward" {
		bar.RepeatFrom = true
		return
	}
	bar.RepeatTo = max(line.Repeat.Times, r.endingTimes+1, 2)
	r.endingTimes = 0
}

// ending is the number of an ending among those of its repeat: its bracket may name several times, as in
// "1, 2".
func (r *reader) ending(n int, numbers string) int {
	times := len(strings.FieldsFunc(numbers, func(c rune) bool { return c == ',' || c == ' ' || c == '.' }))
	r.endingTimes = max(min(times, chart.MaxTimes-1), 1)
	if before := len(r.Chart.Bars) - 1; before >= 0 && r.Chart.Bars[before].Ending > 0 && r.Chart.Bars[before].RepeatTo > 0 {
		if number := r.Chart.Bars[before].Ending + 1; number <= chart.MaxEndings {
			return number
		}
		r.faults = append(r.faults, reading.Fault{Line: n + 1, Symbol: numbers, Detail: fmt.Sprintf("measure %d: an ending %q; a repeat has at most %d endings", n+1, numbers, chart.MaxEndings)})
	}
	return 1
}

// sign takes signs into a bar and says whether there were any.
func (r *reader) sign(bar *chart.Bar, words []string, segno, coda bool, s *sound) bool {
	found, any := signs(words, segno, coda, s)
	at := &bar.Signs
	at.Segno, at.Coda, at.ToCoda, at.Fine = at.Segno || found.Segno, at.Coda || found.Coda, at.ToCoda || found.ToCoda, at.Fine || found.Fine
	if found.Jump != chart.NoJump {
		at.Jump = found.Jump
	}
	return any
}

// feel takes a feel into a bar and says whether there was one.
func (r *reader) feel(n int, bar *chart.Bar, words []string, s *sound) bool {
	how, ratio := feel(words, s)
	if how == "" {
		return false
	}
	if ratio > 0 {
		ratio = max(min(ratio, chart.MaxSwing), chart.MinSwing)
		if r.hasSwing && ratio != r.Chart.Swing {
			r.Remark(n+1, "", "the swing changes to %g here; the chart keeps its first, %g", ratio, r.Chart.Swing)
		} else {
			r.Chart.Swing, r.hasSwing = ratio, true
		}
	}
	r.now.Feel = how
	return true
}
