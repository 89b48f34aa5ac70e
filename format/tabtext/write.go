// Package tabtext reads and writes licks as plain-text tab: a line for each string,
// a count line and the chords above.
package tabtext

import (
	"fmt"
	"sort"
	"strings"

	"undaris/core/chart"
	"undaris/core/lick"
	"undaris/core/phrase"
)

// Write writes the lick as tab, two bars a row, with a count line above that says the
// rhythm. What text has no sign for is named below.
func Write(l lick.Lick) []byte {
	out := &strings.Builder{}
	head := func(name, value string) {
		if value != "" {
			fmt.Fprintf(out, "%s: %s\n", name, value)
		}
	}
	head("title", l.Name)
	head("about", l.About)
	head("key", l.Tonic.String())
	head("meter", l.Phrase.Meter.String())
	head("tags", strings.Join(l.Tags, ", "))
	if l.Instrument != nil {
		head("tuning", l.Instrument.Tuning())
	}
	w := writer{Lick: l, names: l.WrittenFor().OpenNames()}
	bar := l.Phrase.Meter.BarTicks()
	first := 0
	if l.Phrase.Events[0].Tick < 0 {
		first = (l.Phrase.Events[0].Tick - bar + 1) / bar
	}
	for from, end := first, l.Phrase.Bars(); from < end; from += barsARow {
		w.row(out, from, min(from+barsARow, end))
	}
	for _, remark := range w.unwritten() {
		fmt.Fprintf(out, "\n; %s", remark)
	}
	if text := out.String(); !strings.HasSuffix(text, "\n") {
		out.WriteString("\n")
	}
	return []byte(out.String())
}

const barsARow = 2

type writer struct {
	lick.Lick
	names []string
}

// column is one moment of a row: its count, a chord that begins, and the notes struck.
type column struct {
	tick         int
	count, chord string
	bar          bool
	tokens       map[int]string
}

// row writes some bars as one system.
func (w writer) row(out *strings.Builder, from, to int) {
	columns := []column{}
	for b := from; b < to; b++ {
		columns = append(columns, column{bar: true})
		columns = append(columns, w.bar(b)...)
	}
	columns = append(columns, column{bar: true})
	lines := make([]string, len(w.names)+2)
	width := 0
	for _, name := range w.names {
		width = max(width, len(name))
	}
	lines[0], lines[1] = strings.Repeat(" ", width), strings.Repeat(" ", width)
	for s, name := range w.names {
		lines[s+2] = name + strings.Repeat(" ", width-len(name))
	}
	pad := func(line int, text, filler string, to int) {
		lines[line] += text + strings.Repeat(filler, max(to-len([]rune(text)), 0))
	}
	for _, c := range columns {
		if c.bar {
			pad(0, "", " ", 2)
			pad(1, "", " ", 2)
			for s := range w.names {
				pad(s+2, "|", "-", 2)
			}
			continue
		}
		// What leads into a note stands before its figure, so that figures and count
		// stand in one column.
		before, after := 0, len(c.count)
		for _, token := range c.tokens {
			lead := len(token) - len(strings.TrimLeft(token, leads))
			before, after = max(before, lead), max(after, len([]rune(token))-lead)
		}
		pad(0, strings.Repeat(" ", before)+c.chord, " ", before+after+1)
		pad(1, strings.Repeat(" ", before)+c.count, " ", before+after+1)
		for s := range w.names {
			token := c.tokens[s+1]
			lead := len(token) - len(strings.TrimLeft(token, leads))
			pad(s+2, strings.Repeat("-", before-lead)+token, "-", before+after+1)
		}
	}
	out.WriteString("\n")
	for n, line := range lines {
		if n >= 2 {
			line = strings.TrimSuffix(line, "-")
		}
		if line = strings.TrimRight(line, " "); line != "" {
			out.WriteString(line + "\n")
		}
	}
}

// leads are the signs that stand before a figure.
const leads = `hp/\(g`

// bar is the columns of a bar: those of its beats' subdivisions, and of what begins
// between them.
func (w writer) bar(b int) []column {
	meter := w.Phrase.Meter
	at := map[int]*column{}
	place := func(tick int) *column {
		if at[tick] == nil {
			at[tick] = &column{tick: tick, tokens: map[int]string{}}
		}
		return at[tick]
	}
	start := b * meter.BarTicks()
	for beat := range meter.Beats() {
		from := start + beat*meter.BeatTicks()
		if b < 0 && w.Phrase.Events[0].Tick >= from+meter.BeatTicks() {
			continue // a pickup is counted from the beat it begins in
		}
		names := counts(meter, w.starts(from, from+meter.BeatTicks()), beat+1)
		for n, name := range names {
			place(from + n*meter.BeatTicks()/len(names)).count = name
		}
	}
	for n, e := range w.Phrase.Events {
		if e.Tick >= start && e.Tick < start+meter.BarTicks() {
			place(e.Tick).tokens[e.String] = w.token(n)
		}
	}
	for _, from := range w.Phrase.Chords {
		tick := from.Tick
		if b < 0 && tick == 0 && w.Phrase.Chords[0].Tick == 0 {
			continue
		}
		if tick >= start && tick < start+meter.BarTicks() {
			place(tick).chord = from.Chord.Symbol()
		}
	}
	columns := make([]column, 0, len(at))
	for _, c := range at {
		columns = append(columns, *c)
	}
	sort.Slice(columns, func(a, b int) bool { return columns[a].tick < columns[b].tick })
	return columns
}

// starts lists where notes begin from a tick up to another, counted from the first.
func (w writer) starts(from, to int) []int {
	ticks := []int{}
	for _, e := range w.Phrase.Events {
		if e.Tick >= from && e.Tick < to && !e.Grace {
			ticks = append(ticks, e.Tick-from)
		}
	}
	return ticks
}

// counts names the parts of a beat in which notes begin: as few as there must be.
func counts(m chart.Meter, ticks []int, beat int) []string {
	parts := 1
	for _, p := range divisions(m) {
		parts = p
		fits := true
		for _, tick := range ticks {
			fits = fits && tick%(m.BeatTicks()/p) == 0
		}
		if fits {
			break
		}
	}
	names := make([]string, parts)
	for n := range names {
		names[n] = "."
	}
	copy(names, partNames(m, parts))
	names[0] = fmt.Sprint(beat)
	return names
}

// divisions are the numbers of parts that a beat may be counted in, fewest first; all
// divide a beat's ticks.
func divisions(m chart.Meter) []int {
	if m.Compound() {
		return []int{1, 3, 6, 12, 24}
	}
	return []int{1, 2, 3, 4, 6, 8, 12, 24}
}

// partNames are the names that players have for the parts of a beat.
func partNames(m chart.Meter, parts int) []string {
	switch {
	case m.Compound() && parts == 3:
		return []string{"", "&", "a"}
	case !m.Compound() && parts == 2:
		return []string{"", "&"}
	case !m.Compound() && parts == 4:
		return []string{"", "e", "&", "a"}
	}
	return nil
}

// token writes one note: what leads into it, its fret, and what is done to it.
func (w writer) token(n int) string {
	e := w.Phrase.Events[n]
	fret := fmt.Sprint(e.Fret)
	lead, trail := "", ""
	switch {
	case e.HammerOn:
		lead = "h"
	case e.PullOff:
		lead = "p"
	case e.SlideFrom > 0 && e.SlideFrom < e.Fret:
		lead = "/"
	case e.SlideFrom > e.Fret:
		lead = `\`
	case e.Tied, e.Ghost && !w.readsAsTied(n):
		lead, trail = "(", ")"
	case e.Grace:
		lead = "g"
	}
	if e.Mute {
		fret = "x"
	}
	if e.Trill > 0 {
		trail = fmt.Sprintf("tr%d", e.Fret+e.Trill) + trail
	}
	if e.Bend > 0 {
		sign := "b"
		if e.PreBend {
			sign = "pb"
		}
		trail = sign + bendGoal(e) + trail
	}
	if e.Release {
		trail += "r" + fmt.Sprint(e.Fret)
	}
	if e.Vibrato {
		trail += "~"
	}
	switch {
	case e.SlideOut > 0:
		trail += "/"
	case e.SlideOut < 0:
		trail += `\`
	}
	return lead + fret + trail
}

// bendGoal is the fret a bend sounds like, with a quarter more where it is one.
func bendGoal(e phrase.Event) string {
	goal := fmt.Sprint(e.Fret + e.Bend/2)
	switch {
	case e.Bend == 1:
		return "+"
	case e.Bend%2 == 1:
		return goal + "+"
	}
	return goal
}

// readsAsTied says whether the nth note in brackets would be read as tied: it follows the same
// note on its string.
func (w writer) readsAsTied(n int) bool {
	e := w.Phrase.Events[n]
	for m := n - 1; m >= 0; m-- {
		if before := w.Phrase.Events[m]; before.String == e.String {
			return before.Place == e.Place && before.End() == e.Tick
		}
	}
	return false
}

// unwritten names what text has no sign for.
func (w writer) unwritten() []string {
	all := []string{}
	for n, e := range w.Phrase.Events {
		for _, missing := range []struct {
			there bool
			name  string
		}{{e.Accent, "accented"}, {e.Staccato, "short"}, {e.Rake, "raked into"}, {e.Ghost && (w.readsAsTied(n) || e.HammerOn || e.PullOff || e.SlideFrom > 0 || e.Grace), "a ghost note"}, {e.Mute && e.Fret > 0, fmt.Sprintf("muted at fret %d", e.Fret)}} {
			if missing.there {
				all = append(all, fmt.Sprintf("note %d is %s", n+1, missing.name))
			}
		}
	}
	return all
}
