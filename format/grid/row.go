// Package grid reads and writes charts as plain bar grids: text that a player
// types, pastes from a message, or prints. docs/formats.md has its grammar.
package grid

import (
	"strings"
	"unicode"

	"undaris/core/chart"
)

// Cell is what stands between two bar lines.
type Cell struct {
	Text string
	// Column is where the text begins, in characters from 1.
	Column int
	// RepeatFrom and RepeatTo are the repeat signs before and after it, Ending
	// the number of an ending that begins with it.
	RepeatFrom bool
	RepeatTo   int
	Ending     int
}

// Row is a line of a grid: its cells, with what stands before the first bar
// line where that is no cell.
type Row struct{ Cells []Cell }

// HasBarLine says that the line has a bar line, and so is a row of a grid.
func HasBarLine(line string) bool { return strings.Contains(line, "|") }

// ReadRow cuts a line at its bar lines: | || |] [| |: :| :|: and, after one,
// "1." to "4." for an ending and "x3" for how often a repeat is played. A cell
// of nothing but blanks between two plain bar lines is an empty bar; beside any
// other sign it is none.
func ReadRow(line string) Row {
	row := Row{}
	runes := []rune(line)
	from, opened := 0, false // where the cell begins, and whether a bar line opens it
	plain, repeats := false, false
	ending := 0
	for at := 0; at <= len(runes); {
		sign := barLine(runes[at:])
		if at < len(runes) && sign == "" {
			at++
			continue
		}
		text := string(runes[from:at])
		blank := strings.TrimSpace(text) == ""
		closes := strings.HasPrefix(sign, ":")
		empty := blank && text != "" && opened && plain && sign == "|" && ending == 0
		if !blank || empty || (blank && ending > 0 && sign != "") {
			lead := len([]rune(text)) - len([]rune(strings.TrimLeftFunc(text, unicode.IsSpace)))
			cell := Cell{Text: strings.TrimSpace(text), Column: from + lead + 1, RepeatFrom: repeats, Ending: ending}
			row.Cells = append(row.Cells, cell)
			repeats, ending = false, 0
		}
		if at == len(runes) {
			break
		}
		at += len([]rune(sign))
		if closes && len(row.Cells) > 0 {
			row.Cells[len(row.Cells)-1].RepeatTo = 2
			if times, size := times(runes[at:]); times > 0 {
				row.Cells[len(row.Cells)-1].RepeatTo = times
				at += size
				sign += "x"
			}
		}
		repeats = repeats || strings.HasSuffix(sign, ":")
		if number, size := endingMark(runes[at:]); number > 0 {
			ending = number
			at += size
		}
		from, opened, plain = at, true, sign == "|"
	}
	return row
}

// barLine is the bar line that the text begins with, or nothing.
func barLine(text []rune) string {
	for _, sign := range []string{":||:", ":|:", ":||", "||:", "[|:", "|]:", ":|]", "||", "|]", "[|", "|:", ":|", "|.", "|"} {
		if strings.HasPrefix(string(text[:min(len(text), 4)]), sign) {
			if sign == "|." { // a held beat right behind a bar line is not part of it
				return "|"
			}
			return sign
		}
	}
	return ""
}

// times is how often a repeat is played, as in "x3", and how long that is
// written; 0 for none.
func times(text []rune) (count, size int) {
	n := 0
	for n < len(text) && text[n] == ' ' {
		n++
	}
	if n+1 >= len(text) || (text[n] != 'x' && text[n] != '×') || text[n+1] < '2' || text[n+1] > '9' {
		return 0, 0
	}
	if n+2 < len(text) && unicode.IsDigit(text[n+2]) {
		return 0, 0
	}
	return int(text[n+1] - '0'), n + 2
}

// endingMark is the number of an ending right behind a bar line: "1." or "2",
// before a blank.
func endingMark(text []rune) (number, size int) {
	if len(text) == 0 || text[0] < '1' || text[0] > '0'+chart.MaxEndings {
		return 0, 0
	}
	size = 1
	if len(text) > 1 && text[1] == '.' {
		size = 2
	}
	if len(text) > size && !unicode.IsSpace(text[size]) {
		return 0, 0
	}
	return int(text[0] - '0'), size
}
