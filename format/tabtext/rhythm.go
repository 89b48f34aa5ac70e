package tabtext

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

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
