// Package chordpro reads and writes charts as ChordPro: a text with chords in
// brackets above its words, or in a grid environment. Bars are only in grids;
// words are not kept.
package chordpro

import (
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/grid"
	"undaris/format/reading"
)

type reader struct {
	grid.Bars
	hasKey bool
	// hasOwnKey says that the file has our own directive of the key, which knows a blues.
	hasOwnKey bool
	// hasGrid says that there are grids, and so that chords over words are not
	// the bars.
	hasGrid bool
	// inside is the environment the line is in.
	inside string
	// said says that bars were read from words, which is said once.
	said bool
}

// Read reads a ChordPro file. Chords of grid environments are its bars; in a
// file without one each chord over the words is a bar of its own, and the
// remarks say so. What it cannot read is reading.Faults.
func Read(data []byte) (*reading.Reading, error) {
	lines, err := reading.Lines(data)
	if err != nil {
		return nil, err
	}
	r := &reader{Bars: grid.Bars{Reading: reading.New()}}
	begun, inside := false, ""
	for n, line := range lines {
		name, value, column, ok := directive(line)
		switch {
		case !ok:
			begun = begun || inside == "grid" && grid.HasBarLine(line) || inside != "tab" && strings.Contains(line, "[")
		case strings.HasPrefix(name, "start_of_"):
			inside = strings.TrimPrefix(name, "start_of_")
			r.hasGrid = r.hasGrid || inside == "grid"
		case strings.HasPrefix(name, "end_of_"):
			inside = ""
		case !begun || !changes[name]:
			r.heading(n+1, column, name, value)
		}
	}
	for n, line := range lines {
		r.line(n+1, line)
	}
	if r.hasKey && !r.hasOwnKey && r.Chart.IsEven() && len(r.Chart.Bars) > 0 && chart.IsBluesKey(r.Chart.Key, r.Chart.Bars) {
		r.Chart.Key.Mode = harmony.DominantMode
		r.Remark(0, "", "home is a dominant seventh; the key is taken for that of a blues")
	}
	return r.Done(r.hasKey, "there are no chords in it; ChordPro holds them in brackets, [C7], or in a grid")
}

// short names are the format's own abbreviations.
var short = map[string]string{
	"t": "title", "sog": "start_of_grid", "eog": "end_of_grid", "soc": "start_of_chorus", "eoc": "end_of_chorus",
	"sov": "start_of_verse", "eov": "end_of_verse", "sob": "start_of_bridge", "eob": "end_of_bridge",
	"sot": "start_of_tab", "eot": "end_of_tab", "c": "comment", "ci": "comment_italic", "cb": "comment_box",
}

// directive cuts {name: value}; column is where the value begins, from 1.
func directive(line string) (name, value string, column int, ok bool) {
	trimmed := strings.TrimSpace(line)
	if !strings.HasPrefix(trimmed, "{") || !strings.HasSuffix(trimmed, "}") {
		return "", "", 0, false
	}
	inside := strings.TrimLeft(trimmed[1:len(trimmed)-1], " \t")
	blanks := len(trimmed) - 2 - len(inside)
	cut := strings.IndexAny(inside, ": \t")
	if cut < 0 {
		cut = len(inside)
	}
	name = strings.ToLower(inside[:cut])
	if long, known := short[name]; known {
		name = long
	}
	rest := strings.TrimPrefix(strings.TrimLeft(inside[cut:], " \t"), ":")
	rest = strings.TrimLeft(rest, " \t")
	column = len([]rune(line)) - len([]rune(strings.TrimLeft(line, " \t"))) + 1 + blanks + len([]rune(inside)) - len([]rune(rest)) + 1
	return name, strings.TrimSpace(rest), column, true
}

// heading reads what a directive says of the whole tune.
func (r *reader) heading(line, column int, name, value string) {
	wrong := ""
	switch name {
	case "title":
		r.Chart.Title = value
	case "key":
		key, err := harmony.ReadKey(value)
		if err != nil {
			wrong = err.Error()
			break
		}
		// The file's own directive says major or minor; ours may say dominant too.
		if !r.hasOwnKey {
			r.Chart.Key = key
		}
		r.hasKey = true
	case "x_undaris_key":
		if key, err := harmony.ReadKey(value); err == nil {
			r.Chart.Key, r.hasKey, r.hasOwnKey = key, true, true
		}
	case "tempo":
		tempo, err := strconv.ParseFloat(value, 64)
		if err != nil || !(tempo >= chart.MinTempo && tempo <= chart.MaxTempo) {
			wrong = strconv.Quote(value) + " is no tempo; it is 20 to 400 beats a minute"
			break
		}
		r.Chart.Tempo = int(tempo + 0.5)
	case "time":
		meter, err := chart.ParseMeter(value)
		if err != nil {
			wrong = strings.TrimPrefix(err.Error(), "meter: ")
			break
		}
		r.Chart.Meter = meter
		if meter == chart.TwelveEight {
			r.Chart.Feel = chart.Slow128
		}
	case "capo":
		capo, err := strconv.Atoi(value)
		if err != nil || capo < 0 || capo > chart.MaxCapo {
			wrong = strconv.Quote(value) + " is no fret for a capo; it is 0 to 12"
			break
		}
		r.Chart.Capo = capo
		r.Remark(line, "{capo: "+value+"}", "the chords are taken as they sound; transpose the chart if they were meant above the capo")
	case "x_undaris_pickup":
		pickup, err := chart.ReadPickup(value, r.Chart.Key)
		if err != nil {
			wrong = err.Error()
			break
		}
		r.Chart.Pickup = pickup
	case "tag":
		for _, tag := range strings.Split(value, ",") {
			tag = strings.TrimSpace(tag)
			if tag == "" || len([]rune(tag)) > chart.MaxTag || len(r.Chart.Tags) == chart.MaxTags {
				r.Remark(line, tag, "this tag is not used; one has 1 to %d characters", chart.MaxTag)
				continue
			}
			r.Chart.Tags = append(r.Chart.Tags, tag)
		}
	}
	if wrong != "" {
		r.Faults = append(r.Faults, reading.Fault{Line: line, Column: column, Symbol: value, Detail: wrong})
	}
}

// changes are the directives that change the tune from the next bar on where they stand below the first
// chords.
var changes = map[string]bool{"key": true, "time": true, "x_undaris_key": true}

// change reads a directive that stands below the first bars.
func (r *reader) change(line, column int, name, value string) {
	mark := value
	if name != "time" {
		mark = "key " + value
	}
	if err := r.Waiting.ReadMark(mark); err != nil {
		r.Faults = append(r.Faults, reading.Fault{Line: line, Column: column, Symbol: value, Detail: err.Error()})
	}
}

// used are the directives that are read, and those that only shape the page.
var used = map[string]bool{"title": true, "key": true, "x_undaris_key": true, "tempo": true, "time": true, "capo": true, "tag": true, "new_song": true, "x_undaris_pickup": true}

func (r *reader) line(number int, line string) {
	trimmed := strings.TrimSpace(line)
	if trimmed == "" || strings.HasPrefix(line, "#") {
		return
	}
	if name, value, column, ok := directive(line); ok {
		switch {
		case changes[name] && len(r.Chart.Bars) > 0:
			r.change(number, column, name, value)
		case name == "x_undaris_sign":
			if err := r.Sign(value); err != nil {
				r.Faults = append(r.Faults, reading.Fault{Line: number, Column: column, Symbol: value, Detail: err.Error()})
			}
		case name == "tempo" && len(r.Chart.Bars) > 0:
			r.Remark(number, trimmed, "a tune has one tempo; this change is not kept")
		case used[name]:
		case strings.HasPrefix(name, "start_of_"):
			r.inside = strings.TrimPrefix(name, "start_of_")
			if label := label(r.inside, value); label != "" {
				r.Label = label
			}
		case strings.HasPrefix(name, "end_of_"):
			r.inside = ""
		default:
			r.Remark(number, trimmed, "this directive is not used")
		}
		return
	}
	switch {
	case r.inside == "grid" && grid.HasBarLine(line):
		r.row(number, line)
	case r.inside == "grid", r.inside == "tab":
		r.Remark(number, trimmed, "not a row of bars; not used")
	default:
		r.words(number, line)
	}
}

// label is what a section is called: its own label, else what it is. A grid
// without a label is none, and its shape is no label.
func label(environment, value string) string {
	if at := strings.Index(value, "label="); at >= 0 {
		value = strings.Trim(value[at+len("label="):], `"' `)
	} else if strings.Contains(value, "shape=") || (environment == "grid" && strings.Trim(value, "0123456789x+ ") == "") {
		value = ""
	}
	if value == "" && environment != "grid" && environment != "tab" {
		value = strings.ToUpper(environment[:min(1, len(environment))]) + environment[min(1, len(environment)):]
	}
	value = strings.TrimSpace(strings.Map(func(c rune) rune {
		if strings.ContainsRune("[]|", c) || c < ' ' {
			return -1
		}
		return c
	}, value))
	if runes := []rune(value); len(runes) > chart.MaxSection {
		value = strings.TrimSpace(string(runes[:chart.MaxSection]))
	}
	return value
}

// row reads a row of a grid: cells apart by blanks, "." for a held one. What
// stands outside the bar lines is a label or a comment.
func (r *reader) row(number int, line string) {
	first, last := strings.IndexByte(line, '|'), strings.LastIndexByte(line, '|')
	start := first
	if start > 0 && line[start-1] == ':' {
		start--
	}
	if outside := strings.TrimSpace(line[:start]); outside != "" {
		r.Remark(number, outside, "what stands before the first bar line is not used")
	}
	behind := strings.TrimPrefix(line[last+1:], ".") // "|." ends the tune
	if outside := strings.TrimSpace(behind); outside != "" && !repeatCount(outside) {
		r.Remark(number, outside, "what stands behind the last bar line is not used")
		behind = ""
	}
	padded := strings.Repeat(" ", len([]rune(line[:start]))) + line[start:last+1] + behind
	for _, cell := range grid.ReadRow(padded).Cells {
		cell.Text = scaled(cell.Text, r.Now().Meter.Beats())
		if !r.Add(number, cell) {
			return
		}
	}
}

// repeatCount says that the text is how often a repeat is played: "x3".
func repeatCount(text string) bool {
	return len(text) == 2 && text[0] == 'x' && text[1] >= '2' && text[1] <= '9'
}

// scaled writes a bar whose cells are longer than a beat with held beats, and
// leaves any other as it is.
func scaled(text string, beats int) string {
	cells := strings.Fields(text)
	held := false
	for _, cell := range cells {
		held = held || cell == "." || cell == "/"
	}
	if !held || len(cells) >= beats || beats%len(cells) != 0 {
		return text
	}
	long := beats / len(cells)
	return strings.Join(cells, strings.Repeat(" .", long-1)+" ") + strings.Repeat(" .", long-1)
}

// words reads the chords over a line of words. Without a grid each is a bar.
func (r *reader) words(number int, line string) {
	lyrics := strings.Builder{}
	chords := 0
	column := 1
	for rest := line; rest != ""; {
		open := strings.IndexByte(rest, '[')
		if open < 0 {
			lyrics.WriteString(rest)
			break
		}
		lyrics.WriteString(rest[:open])
		column += len([]rune(rest[:open])) + 1
		symbol, after, closed := strings.Cut(rest[open+1:], "]")
		if !closed {
			r.Faults = append(r.Faults, reading.Fault{Line: number, Column: column - 1, Symbol: rest[open:], Detail: "a bracket is opened here and not closed"})
			return
		}
		switch {
		case strings.HasPrefix(symbol, "*"):
			r.Remark(number, "["+symbol+"]", "this annotation is not used")
		case r.hasGrid:
			chords++
		default:
			if !r.said {
				r.Remark(number, "", "there are no bars in words; each chord is read as a bar of its own")
				r.said = true
			}
			lead := len(symbol) - len(strings.TrimLeft(symbol, " "))
			if !r.Add(number, grid.Cell{Text: strings.TrimSpace(symbol), Column: column + lead}) {
				return
			}
		}
		column += len([]rune(symbol)) + 1
		rest = after
	}
	if chords > 0 {
		r.Remark(number, line, "the bars are read from the grid; the chords over the words are not used")
	} else if text := strings.TrimSpace(lyrics.String()); text != "" {
		r.Remark(number, text, "words are not kept")
	}
}
