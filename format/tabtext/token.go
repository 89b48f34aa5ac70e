package tabtext

import (
	"fmt"
	"sort"
	"strconv"

	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/format/reading"
)

// token is one note as it stands in a string's line.
type token struct {
	line, column, str int
	fret              int
	dead, held, grace bool
	// lead is what leads into it: h, p, / or \.
	lead byte
	// bend is in quarter tones.
	bend                      int
	preBend, release, vibrato bool
	slideOut                  int
	// trill is how many half steps above lies the note that it is trilled with.
	trill int
}

// tokens reads the frets and signs of every string and gathers them by column.
func (r *reader) tokens(s system) []struck {
	by := map[int][]token{}
	for n, row := range s.rows {
		line := &lineReader{reader: r, row: row, line: s.first + n, str: n + 1}
		for _, t := range line.read() {
			by[t.column] = append(by[t.column], t)
		}
	}
	moments := make([]struck, 0, len(by))
	for column, notes := range by {
		moments = append(moments, struck{column, notes})
	}
	sort.Slice(moments, func(a, b int) bool { return moments[a].column < moments[b].column })
	return moments
}

// lineReader goes through one string's line from the left.
type lineReader struct {
	*reader
	row       string
	line, str int
	at        int
}

func (l *lineReader) read() []token {
	found := []token{}
	lead := byte(0)
	grace, held := false, false
	for l.at < len(l.row) {
		c := l.row[l.at]
		switch {
		case c >= '0' && c <= '9', c == 'x':
			t := token{line: l.line, column: l.at, str: l.str, lead: lead, grace: grace, held: held}
			if c == 'x' {
				t.dead = true
				l.at++
			} else if t.fret = l.fret(); t.fret < 0 {
				continue
			}
			l.trail(&t)
			found = append(found, t)
			lead, grace, held = 0, false, false
		case c == 'h' || c == 'p' || c == '/' || c == '\\':
			lead = c
			l.at++
		case c == 'g':
			grace = true
			l.at++
		case c == '(':
			held = true
			l.at++
		case c == '|':
			lead = 0
			l.at++
		case c == '-' || c == ' ' || c == ')' || c == '.' || c == '~':
			l.at++
		default:
			l.Remark(l.line, string(c), "column %d: this sign is not read", l.at+1)
			l.at++
		}
	}
	return found
}

// fret reads a fret of one or two figures; one that no neck has is a fault.
func (l *lineReader) fret() int {
	start := l.at
	for l.at < len(l.row) && l.row[l.at] >= '0' && l.row[l.at] <= '9' && l.at-start < 2 {
		l.at++
	}
	fret, _ := strconv.Atoi(l.row[start:l.at])
	if fret > l.instrument.Frets {
		l.faults = append(l.faults, reading.Fault{
			Line: l.line, Column: start + 1, Symbol: l.row[start:l.at],
			Detail:  fmt.Sprintf("fret %d is not on the neck; its frets are 0 to %d", fret, l.instrument.Frets),
			Nearest: []string{l.row[start : start+1], strconv.Itoa(l.instrument.Frets)},
		})
		return -1
	}
	return fret
}

// trail reads what is done to a note: b with the fret it sounds like, r, ~, a slide out.
func (l *lineReader) trail(t *token) {
	for l.at < len(l.row) {
		switch l.row[l.at] {
		case 'p':
			if l.at+1 >= len(l.row) || l.row[l.at+1] != 'b' {
				return
			}
			t.preBend = true
			l.at++
		case 'b':
			l.at++
			l.bend(t)
		case 't':
			if l.at+1 >= len(l.row) || l.row[l.at+1] != 'r' {
				return
			}
			l.at += 2
			l.trill(t)
		case 'r':
			l.at++
			t.release = true
			for l.at < len(l.row) && l.row[l.at] >= '0' && l.row[l.at] <= '9' {
				l.at++
			}
		case '~':
			t.vibrato = true
			l.at++
		case ')':
			l.at++
		case '/', '\\':
			if l.at+1 < len(l.row) && (l.row[l.at+1] >= '0' && l.row[l.at+1] <= '9') {
				return // it leads into the next note
			}
			t.slideOut = map[byte]int{'/': 1, '\\': -1}[l.row[l.at]]
			l.at++
		default:
			return
		}
	}
}

// trill reads the fret that a note is trilled with, or a whole step where nothing is said.
func (l *lineReader) trill(t *token) {
	start := l.at
	for l.at < len(l.row) && l.row[l.at] >= '0' && l.row[l.at] <= '9' && l.at-start < 2 {
		l.at++
	}
	fret, err := strconv.Atoi(l.row[start:l.at])
	t.trill = fret - t.fret
	switch {
	case err != nil:
		t.trill = 2
		l.Remark(l.line, "", "column %d: a trill without its fret is read as a whole step", t.column+1)
	case t.trill < 1 || t.trill > phrase.MaxTrill || fret > l.instrument.Frets:
		t.trill = 0
		l.Remark(l.line, l.row[start:l.at], "column %d: a trill with fret %d is not one a hand makes; it is left out", t.column+1, fret)
	}
}

// wholeStep is what a bend without a goal is read as, in quarter tones.
const wholeStep = 4

// bend reads how far a bend goes: the fret it sounds like, + for a quarter tone more, or
// a whole step where nothing is said.
func (l *lineReader) bend(t *token) {
	start := l.at
	for l.at < len(l.row) && (l.row[l.at] >= '0' && l.row[l.at] <= '9' || l.row[l.at] == '(') && l.at-start < 3 {
		l.at++
	}
	digits := l.row[start:l.at]
	for len(digits) > 0 && digits[0] == '(' {
		digits = digits[1:]
	}
	quarter := 0
	if l.at < len(l.row) && l.row[l.at] == '+' {
		quarter = 1
		l.at++
	}
	goal, err := strconv.Atoi(digits)
	t.bend = 2*(goal-t.fret) + quarter
	if err != nil {
		if t.bend = quarter; quarter == 0 {
			t.bend = wholeStep
			l.Remark(l.line, "", "column %d: a bend without its goal is read as a whole step", t.column+1)
		}
	}
	if t.bend < 1 || t.bend > phrase.MaxBend {
		l.Remark(l.line, l.row[t.column:l.at], "column %d: a bend to fret %d is not one a hand makes; read as a whole step", t.column+1, goal)
		t.bend = wholeStep
	}
}

// add writes a note; a technique that its string or neighbours do not allow is left out
// and said.
func (r *reader) add(t token, tick, ticks int) {
	p := &r.Lick.Lick.Phrase
	e := phrase.Event{Tick: tick, Ticks: ticks, Fingered: neck.Fingered{Place: neck.Place{String: t.str, Fret: t.fret}}}
	e.Grace = t.grace
	var before *phrase.Event
	for n := range p.Events {
		if p.Events[n].String == t.str {
			before = &p.Events[n]
		}
	}
	if t.dead {
		e.Mute = true
		if before != nil {
			e.Fret = before.Fret
		}
	}
	out := func(what string) {
		r.Remark(t.line, "", "column %d: the %s is left out: %s", t.column+1, what, "its string does not allow it")
	}
	switch t.lead {
	case 'h':
		if before != nil && before.Fret < e.Fret {
			e.HammerOn = true
		} else {
			out("hammer-on")
		}
	case 'p':
		if before != nil && before.Fret > e.Fret {
			e.PullOff = true
		} else {
			out("pull-off")
		}
	case '/', '\\':
		r.slide(t, &e, before, out)
	}
	if t.held && before != nil && before.Place == e.Place && before.End() == e.Tick {
		e.Tied = true
	} else if t.held {
		e.Ghost = true // a note in brackets that is tied to nothing
	}
	if e.Trill = t.trill; e.Trill > 0 && (t.dead || t.bend > 0 || e.Fret+e.Trill > r.instrument.Frets) {
		e.Trill = 0
		out("trill")
	}
	if t.bend > 0 {
		if e.Fret == 0 {
			out("bend")
		} else {
			e.Bend, e.PreBend, e.Release = t.bend, t.preBend, t.release
		}
	}
	if t.vibrato && e.Fret > 0 {
		e.Vibrato = true
	}
	if t.slideOut != 0 && e.Fret > 0 {
		e.SlideOut = t.slideOut
	}
	p.Events = append(p.Events, e)
}

// slide slides into a note from the one before on its string, or from two frets away.
func (r *reader) slide(t token, e, before *phrase.Event, out func(string)) {
	up := t.lead == '/'
	switch {
	case e.Fret == 0:
		out("slide")
	case before != nil && before.Fret > 0 && before.End() == e.Tick && (before.Fret < e.Fret) == up && before.Fret != e.Fret:
		e.SlideFrom = before.Fret
	default:
		e.SlideFrom = e.Fret + 2
		if up && e.Fret > 2 {
			e.SlideFrom = e.Fret - 2
		} else if up || e.SlideFrom > r.instrument.Frets {
			e.SlideFrom = max(e.Fret-1, 1)
		}
		if e.SlideFrom == e.Fret {
			e.SlideFrom = 0
			out("slide")
			return
		}
		r.Remark(t.line, "", "column %d: the slide has no start; it is read from fret %d", t.column+1, e.SlideFrom)
	}
}
