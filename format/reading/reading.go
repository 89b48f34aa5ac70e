// Package reading is what the readers of open formats have in common: what they
// return, what they say of what they could not use, and how they name the place
// of what cannot be read.
package reading

import (
	"fmt"
	"strings"
	"unicode/utf8"

	"undaris/core/chart"
)

// Reading is a chart as it was read, and what was not used of the file.
type Reading struct {
	Chart chart.Chart
	// Unread are the bars of the chart that could not be read: each is marked in the chart and stays
	// silent until it is mended.
	Unread Faults
	// Voices are those of a MIDI file.
	Voices []Voice
	Remarked
}

// Remarked is what a reader says of a file beside what it read.
type Remarked struct{ Remarks []Remark }

// Remark says of one line what was not used, or what was taken for granted.
type Remark struct {
	// Line counts from 1; 0 is the file as a whole. In files without lines it is
	// the bar.
	Line int
	// Source is what the remark is about, cut short.
	Source string
	Text   string
}

// Fault is something in the file that cannot be read.
type Fault struct {
	// Line and Column count from 1, columns in characters; 0 where there is no
	// such place.
	Line, Column int
	// Symbol is the word at fault, Nearest readable ones like it.
	Symbol  string
	Detail  string
	Nearest []string
}

// Faults is every fault of a file, as one error.
type Faults []Fault

// MostFaults is how many faults are listed.
const MostFaults = 50

// Bounded is the first MostFaults of the faults and how many more there are.
func (f Faults) Bounded() Faults {
	if len(f) <= MostFaults {
		return f
	}
	return append(f[:MostFaults:MostFaults], Fault{Detail: fmt.Sprintf("and %d more that cannot be read", len(f)-MostFaults)})
}

func (f Faults) Error() string {
	said := make([]string, len(f))
	for n, fault := range f {
		said[n] = fault.Error()
	}
	return strings.Join(said, "\n")
}

func (f Fault) Error() string {
	switch {
	case f.Line == 0:
		return f.Detail
	case f.Column == 0:
		return fmt.Sprintf("line %d: %s", f.Line, f.Detail)
	}
	return fmt.Sprintf("line %d, column %d: %s", f.Line, f.Column, f.Detail)
}

// Wrong is a single fault of the file as a whole.
func Wrong(format string, args ...any) error { return Faults{{Detail: fmt.Sprintf(format, args...)}} }

// MostRemarks is how many remarks a reading keeps; files may have any number of
// lines of words.
const MostRemarks = 200

// Remark adds a remark.
func (r *Remarked) Remark(line int, text, format string, args ...any) {
	text = strings.TrimSpace(text)
	if runes := []rune(text); len(runes) > 60 {
		text = string(runes[:59]) + "…"
	}
	switch {
	case len(r.Remarks) < MostRemarks:
		r.Remarks = append(r.Remarks, Remark{Line: line, Source: text, Text: fmt.Sprintf(format, args...)})
	case len(r.Remarks) == MostRemarks:
		r.Remarks = append(r.Remarks, Remark{Text: "and more lines that were not used"})
	}
}

// MaxTextBytes is how much text is read: a chart of 512 bars has a twentieth of it, and it takes a second or
// less to be read, so that nobody who has gone leaves work behind.
const MaxTextBytes = 1 << 20

// Lines cuts a text file into its lines, whatever ends them. More than MaxTextBytes is a fault. Text that is not
// UTF-8 is a fault at its first bad byte.
func Lines(data []byte) ([]string, error) {
	if len(data) > MaxTextBytes {
		return nil, Wrong("the text has %d bytes; at most %d are read", len(data), MaxTextBytes)
	}
	text := strings.TrimPrefix(string(data), "\ufeff")
	text = strings.NewReplacer("\r\n", "\n", "\r", "\n").Replace(text)
	lines := strings.Split(text, "\n")
	for n, line := range lines {
		if utf8.ValidString(line) {
			continue
		}
		column := 1
		for rest := line; ; column++ {
			r, size := utf8.DecodeRuneInString(rest)
			if r == utf8.RuneError && size <= 1 {
				break
			}
			rest = rest[size:]
		}
		return nil, Faults{{Line: n + 1, Column: column, Detail: "the text is not UTF-8 here; save it as UTF-8 and try again"}}
	}
	return lines, nil
}

// Finish gives the chart what a file may leave out, checks it whole, and turns
// what is wrong with it into a fault.
func (r *Reading) Finish() error {
	c := &r.Chart
	if visible := chart.Visible(c.Title); visible != c.Title && strings.TrimSpace(c.Title) != "" {
		c.Title = visible
		r.Remark(0, visible, "characters of the title that cannot be seen were left out")
	}
	if strings.TrimSpace(c.Title) == "" {
		c.Title = "Untitled"
		r.Remark(0, "", "no title is given; it is called Untitled")
	}
	c.Title = strings.TrimSpace(c.Title)
	if runes := []rune(c.Title); len(runes) > chart.MaxTitle {
		c.Title = strings.TrimSpace(string(runes[:chart.MaxTitle]))
		r.Remark(0, c.Title, "the title was cut to %d characters", chart.MaxTitle)
	}
	r.Unread = r.Unread.Bounded()
	if err := c.Check(); err != nil {
		if fault, ok := err.(*chart.FieldError); ok {
			return Faults{{Detail: fault.Detail}}
		}
		return Faults{{Detail: err.Error()}}
	}
	return nil
}

// New is a reading of a chart with what a file may leave out: 4/4, straight, a
// moderate tempo.
func New() *Reading {
	return &Reading{Chart: chart.Chart{Meter: chart.FourFour, Tempo: DefaultTempo, Feel: chart.Straight, Swing: DefaultSwing}}
}

// What a chart has where a file does not say.
const (
	DefaultTempo = 100
	DefaultSwing = 2
)
