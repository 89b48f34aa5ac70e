package tabtext

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/format/reading"
)

// Read reads plain-text tab: systems of as many lines as there are strings, highest
// first, with or without bar lines. The rhythm is that of a count line over or under a
// system, else it is taken from the spacing, and said to be. Errors are reading.Faults.
func Read(data []byte, terms reading.Terms) (*reading.Lick, error) {
	lines, err := reading.Lines(data)
	if err != nil {
		return nil, err
	}
	if len(data) > maxBytes {
		return nil, reading.Wrong("the text has %d bytes; tab of a lick has at most %d", len(data), maxBytes)
	}
	r := &reader{Lick: &reading.Lick{}, terms: terms, instrument: terms.Instrument}
	r.Lick.Lick = lick.Lick{Tonic: terms.Tonic, Phrase: phrase.Phrase{Meter: terms.Meter}}
	systems := r.systems(lines)
	if len(r.faults) > 0 {
		return nil, r.faults
	}
	if len(systems) == 0 {
		return nil, reading.Wrong("there is no tab in it: a system is a line of dashes and frets for each string, the highest first, as in E|--8--10--|")
	}
	tick := 0
	for n, s := range systems {
		tick = r.system(s, tick, n == 0)
	}
	if len(r.faults) > 0 {
		return nil, r.faults
	}
	return r.finish()
}

// maxBytes is how much text is read; a lick of 64 bars is far smaller.
const maxBytes = 256 << 10

type reader struct {
	*reading.Lick
	terms      reading.Terms
	instrument neck.Instrument
	faults     reading.Faults
	hasKey     bool
	hasTuning  bool
	hasMeter   bool
	spaced     bool
}

// system is the lines of one row of tab: a string each, and what stands around them.
type system struct {
	// first is the number of its first line, from 1; names and rows are those of its
	// strings, a row as wide as its line.
	first int
	names []string
	rows  []string
	// count and chords are the lines around it, as long as they stand in the file.
	count, chords string
}

var (
	// tabLine is a string of tab: a name, perhaps, and then dashes, frets and signs.
	tabLine = regexp.MustCompile(`^(\s*)([A-Ga-g][#b♯♭]?[0-9]?)?(\s*)([|:‖]?[-–—0-9hpbrstgxX/\\~()|:.+^v*=<>‖_ ]*)$`)
	heading = regexp.MustCompile(`^\s*(title|about|key|meter|tags|tuning|capo|tempo)\s*:\s*(.*)$`)
	counted = regexp.MustCompile(`^[\s|]*([0-9]{1,2}|[&+eatln.])([\s|]+([0-9]{1,2}|[&+eatln.]))*[\s|]*$`)
)

// isTab says whether a line is a string of tab: at least three dashes, and nothing else
// than tab has.
func isTab(line string) bool {
	return strings.Count(line, "-")+strings.Count(line, "–")+strings.Count(line, "—") >= 3 && tabLine.MatchString(line)
}

// systems cuts the text into rows of tab, reads the headings, and remarks on the rest.
func (r *reader) systems(lines []string) []system {
	found := []system{}
	used := make([]bool, len(lines))
	for n := 0; n < len(lines); n++ {
		if m := heading.FindStringSubmatch(strings.ToLower(lines[n])); m != nil && !isTab(lines[n]) {
			r.head(n+1, m[1], strings.TrimSpace(lines[n][strings.Index(lines[n], ":")+1:]))
			used[n] = true
		} else if name, value := plainHeading(lines[n]); name != "" {
			r.head(n+1, name, value)
			used[n] = true
		}
	}
	for n := 0; n < len(lines); n++ {
		if !isTab(lines[n]) {
			continue
		}
		s := system{first: n + 1}
		for ; n < len(lines) && isTab(lines[n]); n++ {
			used[n] = true
			m := tabLine.FindStringSubmatch(lines[n])
			s.names = append(s.names, m[2])
			s.rows = append(s.rows, plain(strings.Repeat(" ", len(m[1]))+strings.Repeat(" ", len([]rune(m[2])))+m[3]+m[4]))
		}
		r.around(&s, lines, used, n)
		r.numbered(&s)
		if r.check(&s) {
			found = append(found, s)
		}
	}
	for n, line := range lines {
		if text := strings.TrimSpace(line); !used[n] && text != "" && !strings.HasPrefix(text, ";") {
			r.Remark(n+1, text, "this line is not used")
		}
	}
	return found
}

// numbered takes the numbers of strings that stand before the lines of a system out of it, so that they are not
// read as frets. Where the sixth stands highest the lines are turned over.
func (r *reader) numbered(s *system) {
	count := len(s.rows)
	if count < neck.MinStrings {
		return
	}
	falling := false
	labels := make([]string, count)
	for n, row := range s.rows {
		text := strings.TrimLeft(row, " ")
		digits := text[:len(text)-len(strings.TrimLeft(text, "0123456789"))]
		number, err := strconv.Atoi(digits)
		if n == 0 {
			falling = number == count
		}
		want := n + 1
		if falling {
			want = count - n
		}
		if err != nil || number != want || s.names[n] != "" {
			return
		}
		labels[n] = digits
	}
	for n, row := range s.rows {
		s.rows[n] = strings.Replace(row, labels[n], strings.Repeat(" ", len(labels[n])), 1)
	}
	if falling {
		slices.Reverse(s.rows)
		r.Remark(s.first, "", "the lines are numbered from the lowest string; they were turned over")
	}
}

// plain writes the signs that tabs vary in as one.
func plain(row string) string {
	return strings.NewReplacer("–", "-", "—", "-", "_", "-", "‖", "|", ":", "|", "X", "x", "=", "~", "v", "~", "s", "/", "^", "b", "*", "-", "<", "-", ">", "-").Replace(row)
}

// around takes up the count and the chords: in the two lines above the system, or the
// one below it.
func (r *reader) around(s *system, lines []string, used []bool, below int) {
	for _, n := range []int{s.first - 2, s.first - 3, below} {
		if n < 0 || n >= len(lines) || used[n] {
			continue
		}
		line := strings.ReplaceAll(lines[n], "\t", "    ")
		switch {
		case s.count == "" && counted.MatchString(line):
			s.count, used[n] = line, true
		case s.chords == "" && n < below && areChords(line):
			s.chords, used[n] = line, true
		}
	}
}

func areChords(line string) bool {
	words := strings.Fields(line)
	for _, word := range words {
		if _, err := harmony.ParseChord(strings.Trim(word, "|")); err != nil && strings.Trim(word, "|") != "" {
			return false
		}
	}
	return len(words) > 0
}

// check holds a system's lines against the strings there are, and makes them equally
// long. Names of strings that are not those of the instrument are a tuning.
func (r *reader) check(s *system) bool {
	named := true
	for _, name := range s.names {
		named = named && name != ""
	}
	if named && !r.hasTuning && len(s.names) >= neck.MinStrings && len(s.names) <= neck.MaxStrings && !r.sameNames(s.names) {
		words := make([]string, len(s.names))
		for n, name := range s.names {
			words[len(s.names)-1-n] = strings.ToUpper(name[:1]) + name[1:]
		}
		r.tune(s.first, strings.Join(words, " "))
		if len(r.faults) == 0 {
			r.Remark(s.first, strings.Join(words, " "), "the strings are named so: taken for the tuning")
		}
	}
	if len(s.rows) != len(r.instrument.Open) {
		r.faults = append(r.faults, reading.Fault{
			Line:   s.first,
			Detail: fmt.Sprintf("%d lines of tab stand together here; the instrument has %d strings, a line each. Name the strings at the left, or write a tuning: line, if it is another", len(s.rows), len(r.instrument.Open)),
		})
		return false
	}
	longest := 0
	for _, row := range s.rows {
		longest = max(longest, len(row))
	}
	uneven := false
	for n, row := range s.rows {
		trimmed := strings.TrimRight(row, " ")
		uneven = uneven || len(trimmed) < longest && !strings.HasSuffix(trimmed, "|") || len(trimmed) < longest-1
		s.rows[n] = row + strings.Repeat(" ", longest-len(row))
	}
	if uneven {
		r.Remark(s.first, "", "the lines are not equally long; they are read from the left, column by column")
	}
	return true
}

// sameNames says whether strings are named as those of the instrument in hand.
func (r *reader) sameNames(names []string) bool {
	if len(names) != len(r.instrument.Open) {
		return false
	}
	for n, name := range r.instrument.OpenNames() {
		if !strings.EqualFold(name, names[n]) {
			return false
		}
	}
	return true
}

// finish gives the notes their lengths and the lick what the file does not say.
func (r *reader) finish() (*reading.Lick, error) {
	l := &r.Lick.Lick
	if len(l.Phrase.Events) == 0 {
		return nil, reading.Wrong("there is no fret in the tab")
	}
	if r.spaced {
		r.Remark(0, "", "the rhythm is taken from the spacing, which need not be meant; shift and lengthen what sounds wrong")
	}
	if !r.hasMeter {
		r.Remark(0, "", "no meter is given; it is read as %s", l.Phrase.Meter)
	}
	if !r.hasKey {
		if len(l.Phrase.Chords) > 0 {
			l.Tonic = l.Phrase.Chords[0].Chord.Root
			if l.Tonic.Accidental > 1 || l.Tonic.Accidental < -1 {
				l.Tonic = harmony.Key{Tonic: l.Tonic, Mode: harmony.DominantMode}.Plain().Tonic
			}
			r.Remark(0, "", "no key is given; %s is taken from the first chord", l.Tonic)
		} else {
			r.Remark(0, "", "no key is given; it is taken to be in %s", l.Tonic)
		}
	}
	r.Remark(0, "", "tab has no lengths: each note lasts until the next begins, or the bar ends")
	*l = l.WithInstrument(r.instrument)
	if err := r.Finish(); err != nil {
		return nil, err
	}
	return r.Lick, nil
}
