package tabtext

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/phrase"
	"undaris/format/reading"
)

// struck is what begins in one column of a system.
type struck struct {
	column int
	notes  []token
}

// span is a bar of a system: the columns between two bar lines.
type span struct{ from, to int }

// system reads a system whose first bar begins at a tick, and returns the tick at which
// the next one does.
func (r *reader) system(s system, tick int, first bool) int {
	moments := r.tokens(s)
	bars := s.bars()
	if len(bars) == 0 {
		return tick
	}
	counted := countWords(s.count)
	if len(counted) == 0 {
		r.spaced = true
	}
	meter := r.Lick.Lick.Phrase.Meter
	barred := strings.Contains(strings.Trim(s.rows[0], "| "), "|") || strings.HasSuffix(strings.TrimRight(s.rows[0], " "), "|")
	for n, bar := range bars {
		inside := within(moments, bar)
		if len(inside) == 0 && bar.to-bar.from < 2 {
			continue
		}
		var at func(column int) int
		length := meter.BarTicks()
		switch {
		case len(counted) > 0:
			marks, beats := placed(counted, bar, meter)
			if len(marks) == 0 {
				r.Remark(s.first, "", "bar %d has no count over it; its rhythm is taken from the spacing", n+1)
				r.spaced = true
				at = spaced(meter, bar, inside)
				break
			}
			at = inOrder(inside, meter, func(column int) int { return r.counted(s, marks, inside, column) })
			if beats > meter.Beats() {
				r.Remark(s.first, "", "the count goes up to %d in a bar of %s", beats, meter)
				length = beats * meter.BeatTicks()
			}
			if first && n == 0 && len(bars) > 1 && marks[0].tick > 0 {
				tick -= meter.BarTicks()
			}
		case barred:
			at = spaced(meter, bar, inside)
		default:
			at = even(meter, inside)
			for _, m := range inside {
				length = max(length, (at(m.column)/meter.BarTicks()+1)*meter.BarTicks())
			}
		}
		if len(inside) > 0 {
			if last := at(inside[len(inside)-1].column); last >= length {
				r.Remark(s.first, "", "bar %d holds more than a bar of %s", n+1, meter)
				length = (last/meter.BeatTicks() + 1) * meter.BeatTicks()
			}
		}
		r.write(inside, tick, length, at)
		r.chords(s, bar, tick, at)
		tick += length
	}
	return tick
}

// bars are the stretches between the bar lines of a system: the columns at which most of
// its strings have one.
func (s system) bars() []span {
	width := len(s.rows[0])
	lines := []int{}
	for c := range width {
		there := 0
		for _, row := range s.rows {
			if row[c] == '|' {
				there++
			}
		}
		if 2*there > len(s.rows) {
			lines = append(lines, c)
		}
	}
	start := 0
	for start < width && allBlank(s.rows, start) {
		start++
	}
	found := []span{}
	from := start
	for _, line := range append(lines, width) {
		if line > from {
			found = append(found, span{from, line})
		}
		from = line + 1
	}
	return found
}

func allBlank(rows []string, column int) bool {
	for _, row := range rows {
		if row[column] != ' ' {
			return false
		}
	}
	return true
}

func within(moments []struck, bar span) []struck {
	found := []struck{}
	for _, m := range moments {
		if m.column >= bar.from && m.column < bar.to {
			found = append(found, m)
		}
	}
	return found
}

// mark is a count at a column; tick counts from the bar's own beginning.
type mark struct {
	column, tick int
	text         string
}

var word = regexp.MustCompile(`[0-9]+|[&+eatln.]`)

// countWords are the words of a count line with their columns.
func countWords(line string) []mark {
	found := []mark{}
	for _, at := range word.FindAllStringIndex(line, -1) {
		found = append(found, mark{column: len([]rune(line[:at[0]])), text: line[at[0]:at[1]]})
	}
	return found
}

// placed gives the counts of a bar their ticks: numbers are beats; what stands between
// two of them divides the beat evenly, but e, & and a have places of their own where
// there are fewer than the beat has parts.
func placed(all []mark, bar span, m chart.Meter) (marks []mark, beats int) {
	inBar := []mark{}
	for _, one := range all {
		if one.column >= bar.from-1 && one.column < bar.to {
			inBar = append(inBar, one)
		}
	}
	beatTicks := m.BeatTicks()
	for n := 0; n < len(inBar); {
		beat, err := strconv.Atoi(inBar[n].text)
		if err != nil || beat < 1 || beat > 16 {
			n++ // what stands before the first number has no beat
			continue
		}
		end := n + 1
		for end < len(inBar) && (inBar[end].text[0] < '0' || inBar[end].text[0] > '9') {
			end++
		}
		parts := end - n
		for k := n; k < end; k++ {
			tick := (k - n) * beatTicks / parts
			if named, ok := namedPart(m, inBar[k].text, parts); ok {
				tick = named
			}
			marks = append(marks, mark{column: inBar[k].column, tick: (beat-1)*beatTicks + tick, text: inBar[k].text})
		}
		beats = max(beats, beat)
		n = end
	}
	for n := 1; n < len(marks); n++ {
		if marks[n].tick <= marks[n-1].tick {
			return marks[:n], beats // a count that goes back is not followed
		}
	}
	return marks, beats
}

// namedPart is where e, & and a stand in a simple beat.
func namedPart(m chart.Meter, text string, parts int) (int, bool) {
	if m.Compound() {
		return 0, false
	}
	quarter := m.BeatTicks() / 4
	switch text {
	case "e":
		return quarter, true
	case "&", "+":
		return 2 * quarter, parts < 5
	case "a":
		return 3 * quarter, true
	}
	return 0, false
}

// counted is the tick of a column under a count: that of the count over it, or one
// column beside it where nothing else stands under that count. Between two counts it is
// as far on as it stands between them, and said.
func (r *reader) counted(s system, marks []mark, inside []struck, column int) int {
	under := func(m mark) bool {
		return m.column != column && slices.ContainsFunc(inside, func(o struck) bool { return o.column == m.column })
	}
	for _, beside := range []int{0, -1, 1} {
		for _, m := range marks {
			if m.column == column+beside && !under(m) {
				return m.tick
			}
		}
	}
	meter := r.Lick.Lick.Phrase.Meter
	next := slices.IndexFunc(marks, func(m mark) bool { return m.column > column })
	switch next {
	case 0:
		return marks[0].tick
	case -1:
		last := marks[len(marks)-1]
		r.Remark(s.first, "", "column %d stands behind the last count", column+1)
		return min((last.tick/meter.BeatTicks()+1)*meter.BeatTicks()-1, last.tick+meter.BeatTicks()/2)
	}
	from, to := marks[next-1], marks[next]
	tick := from.tick + (to.tick-from.tick)*(column-from.column)/(to.column-from.column)
	fine := meter.BeatTicks() / 12 // holds sixteenths and triplets alike
	tick = min(max((tick+fine/2)/fine*fine, from.tick+1), to.tick-1)
	r.Remark(s.first, "", "column %d stands between two counts; it is read as %s", column+1, meter.Counted(tick))
	return tick
}

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

// write adds a bar's notes: each lasts until the next column, the last to the bar's end.
// Grace notes stand against the column after theirs.
func (r *reader) write(inside []struck, tick, length int, at func(int) int) {
	starts := make([]int, len(inside)+1)
	starts[len(inside)] = tick + length
	for n := len(inside) - 1; n >= 0; n-- {
		m := inside[n]
		led := n+1 < len(inside) && !slices.ContainsFunc(m.notes, func(t token) bool { return !t.grace })
		if led {
			starts[n] = starts[n+1] - phrase.GraceTicks
			continue
		}
		starts[n] = tick + at(m.column)
		for k := range m.notes {
			m.notes[k].grace = false
		}
	}
	for n, m := range inside {
		for _, t := range m.notes {
			if len(r.Lick.Lick.Phrase.Events) >= phrase.MaxEvents {
				r.faults = append(r.faults, reading.Fault{Line: t.line, Detail: fmt.Sprintf("there are more than %d notes in it", phrase.MaxEvents)})
				return
			}
			r.add(t, starts[n], max(starts[n+1]-starts[n], 1))
		}
	}
}

// chords puts the chords over a bar under its notes.
func (r *reader) chords(s system, bar span, tick int, at func(int) int) {
	p := &r.Lick.Lick.Phrase
	for _, place := range regexp.MustCompile(`[^\s|]+`).FindAllStringIndex(s.chords, -1) {
		column := len([]rune(s.chords[:place[0]]))
		if column < bar.from-1 || column >= bar.to {
			continue
		}
		c, err := harmony.ParseChord(s.chords[place[0]:place[1]])
		if err != nil {
			continue
		}
		from := tick
		if column > bar.from+2 {
			beat := p.Meter.BeatTicks()
			from += (at(column) + beat/2) / beat * beat
		}
		if last := len(p.Chords) - 1; last < 0 || p.Chords[last].Tick < from {
			p.Chords = append(p.Chords, phrase.PhraseChord{Tick: from, Chord: c})
		}
	}
}
