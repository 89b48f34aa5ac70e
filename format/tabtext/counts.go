package tabtext

import (
	"regexp"
	"slices"
	"strconv"

	"undaris/core/chart"
)

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
