package grid

import (
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/reading"
)

// reader is a grid on its way to a chart.
type reader struct {
	Bars
	hasKey bool
	// from and until are the bars of the row before, for its imagined layer.
	from, until int
	// guessed says that bars were read without bar lines, which is said once.
	guessed bool
}

// Read reads a bar grid. What it cannot read is reading.Faults, all of them at
// once; what it did not use is said in the remarks.
func Read(data []byte) (*reading.Reading, error) {
	lines, err := reading.Lines(data)
	if err != nil {
		return nil, err
	}
	r := &reader{Bars: Bars{Reading: reading.New()}}
	begun := false // a row of bars has been seen
	for n, line := range lines {
		r.header(n+1, line, begun)
		begun = begun || r.isRow(line)
	}
	if !r.hasKey {
		r.Chart.Key = harmony.Key{Mode: harmony.DominantMode}
	}
	for n, line := range lines {
		r.line(n+1, line)
	}
	return r.Done(r.hasKey, "there are no bars in it; write them as | C7 | F7 | C7 | % |")
}

// headings are the names that may stand before a colon, and what reads them.
var headings = map[string]func(r *reader, value string) string{
	"title": func(r *reader, value string) string { r.Chart.Title = value; return "" },
	"tags": func(r *reader, value string) string {
		for _, tag := range strings.Split(value, ",") {
			if tag = strings.TrimSpace(tag); tag != "" {
				r.Chart.Tags = append(r.Chart.Tags, tag)
			}
		}
		return ""
	},
	"key": func(r *reader, value string) string {
		key, err := harmony.ReadKey(value)
		if err != nil {
			return err.Error()
		}
		r.Chart.Key, r.hasKey = key, true
		return ""
	},
	"meter": readMeter, "time": readMeter,
	"tempo": func(r *reader, value string) string {
		tempo, err := strconv.Atoi(value)
		if err != nil || tempo < chart.MinTempo || tempo > chart.MaxTempo {
			return strconv.Quote(value) + " is no tempo; it is " + strconv.Itoa(chart.MinTempo) + " to " + strconv.Itoa(chart.MaxTempo) + " beats a minute"
		}
		r.Chart.Tempo = tempo
		return ""
	},
	"feel": func(r *reader, value string) string {
		feel, err := chart.ParseFeel(value)
		if err != nil {
			return detail(err)
		}
		r.Chart.Feel = feel
		if feel == chart.Slow128 {
			r.Chart.Meter = chart.TwelveEight
		}
		return ""
	},
	"swing": func(r *reader, value string) string {
		swing, err := strconv.ParseFloat(value, 64)
		if err != nil || !(swing >= chart.MinSwing && swing <= chart.MaxSwing) {
			return strconv.Quote(value) + " is no swing ratio; it is 1 to 3"
		}
		r.Chart.Swing = swing
		return ""
	},
	"capo": func(r *reader, value string) string {
		capo, err := strconv.Atoi(value)
		if err != nil || capo < 0 || capo > chart.MaxCapo {
			return strconv.Quote(value) + " is no fret for a capo; it is 0 to 12"
		}
		r.Chart.Capo = capo
		return ""
	},
	"box": func(r *reader, value string) string {
		if _, err := (harmony.Key{}).Box(harmony.BoxKind(value)); err != nil {
			return err.Error()
		}
		r.Chart.Box = harmony.BoxKind(value)
		return ""
	},
	"pickup": func(r *reader, value string) string {
		spans, err := chart.ReadPickup(value, r.Chart.Key)
		if err != nil {
			return err.Error()
		}
		r.Chart.Pickup = spans
		return ""
	},
	"scale": func(r *reader, value string) string {
		name, scale, _ := strings.Cut(value, " ")
		choice := chart.ScaleFor{Scale: strings.TrimSpace(scale)}
		if harmony.LooksRoman(name) {
			choice.Function = name
		} else {
			chord, err := harmony.ParseChord(name)
			if err != nil {
				return err.Error()
			}
			choice.Chord = chord
		}
		r.Chart.Scales = append(r.Chart.Scales, choice)
		return ""
	},
	"imagining": func(r *reader, value string) string {
		if value != "yes" && value != "no" {
			return strconv.Quote(value) + " is neither yes nor no"
		}
		r.Chart.Imagining = value == "yes"
		return ""
	},
}

func readMeter(r *reader, value string) string {
	meter, err := chart.ParseMeter(value)
	if err != nil {
		return detail(err)
	}
	r.Chart.Meter = meter
	if meter == chart.TwelveEight {
		r.Chart.Feel = chart.Slow128
	}
	return ""
}

func detail(err error) string {
	if field, ok := err.(*chart.FieldError); ok {
		return field.Detail
	}
	return err.Error()
}

// heading cuts "name: value" where the line is one that the grid knows.
func heading(line string) (name, value string, ok bool) {
	name, value, found := strings.Cut(line, ":")
	name = strings.ToLower(strings.TrimSpace(name))
	_, known := headings[name]
	return name, strings.TrimSpace(value), found && known
}

// isRow says whether a line is one of bars.
func (r *reader) isRow(line string) bool {
	trimmed := strings.TrimSpace(line)
	if _, _, ok := heading(line); ok || trimmed == "" || trimmed[0] == ';' || strings.HasPrefix(trimmed, "# ") {
		return false
	}
	return HasBarLine(line) || chordsOnly(trimmed, harmony.Key{Mode: harmony.DominantMode})
}

// changes are the headings that change the tune from the next bar on where they stand below the
// first bars; they are never applied to the bars above them.
var changes = map[string]string{"key": "key ", "meter": "", "time": "", "feel": ""}

// once are the headings of which a tune has one.
var once = map[string]bool{"tempo": true, "swing": true, "capo": true, "pickup": true}

func (r *reader) header(number int, line string, begun bool) {
	if name, value, ok := heading(line); ok {
		if _, later := changes[name]; later && begun {
			return // it is read where it stands
		}
		if begun && once[name] {
			r.Remark(number, strings.TrimSpace(line), "this %s stands below the first bars; a tune has one, and the change is not kept", name)
			return
		}
		if wrong := headings[name](r, value); wrong != "" {
			column := strings.Index(line, ":") + 2
			r.Faults = append(r.Faults, reading.Fault{Line: number, Column: column, Symbol: value, Detail: wrong})
		}
	}
}

const imagined = "imagined:"

func (r *reader) line(number int, line string) {
	trimmed := strings.TrimSpace(line)
	if name, value, ok := heading(line); ok {
		if mark, later := changes[name]; later && len(r.Chart.Bars) > 0 {
			if err := r.Waiting.ReadMark(mark + value); err != nil {
				r.Faults = append(r.Faults, reading.Fault{Line: number, Column: strings.Index(line, ":") + 2, Symbol: value, Detail: detail(err)})
			}
		}
		return
	}
	if trimmed == "" || trimmed[0] == ';' || trimmed == "#" || strings.HasPrefix(trimmed, "# ") {
		return
	}
	if strings.HasPrefix(strings.ToLower(trimmed), imagined) {
		at := strings.Index(strings.ToLower(line), imagined) + len(imagined)
		r.imagined(number, at, line[at:])
		return
	}
	if label, rest, ok := sectionLabel(line); ok {
		if r.Label != "" {
			r.Remark(number, r.Label, "a section without a bar was left out")
		}
		r.Label = label
		if trimmed = strings.TrimSpace(rest); trimmed == "" {
			return
		}
		line = strings.Repeat(" ", len([]rune(line))-len([]rune(rest))) + rest
	}
	if text, marks := braces(line); len(marks) > 0 && strings.TrimSpace(text) == "" {
		for _, mark := range marks {
			r.markLine(number, mark)
		}
		return
	}
	switch {
	case HasBarLine(line):
		r.row(number, ReadRow(line))
	case chordsOnly(trimmed, r.Now().Key):
		if !r.guessed {
			r.Remark(number, trimmed, "there are no bar lines; each chord is read as a bar of its own")
			r.guessed = true
		}
		r.row(number, ReadRow(barred(line)))
	default:
		r.Remark(number, trimmed, "not a row of bars; not used")
	}
}

// sectionLabel reads "[A]", or "Verse:" alone on its line, and what follows it.
func sectionLabel(line string) (label, rest string, ok bool) {
	trimmed := strings.TrimSpace(line)
	if strings.HasPrefix(trimmed, "[") && !strings.HasPrefix(trimmed, "[|") {
		label, rest, ok = strings.Cut(trimmed[1:], "]")
		label = strings.TrimSpace(label)
	} else if strings.HasSuffix(trimmed, ":") && !strings.ContainsAny(trimmed, "|") {
		label, ok = strings.TrimSpace(strings.TrimSuffix(trimmed, ":")), true
	}
	if runes := []rune(label); len(runes) > chart.MaxSection {
		label = strings.TrimSpace(string(runes[:chart.MaxSection]))
	}
	return label, rest, ok && label != "" && !strings.ContainsAny(label, "[]|")
}

// chordsOnly says whether every word of a line can be read as a chord.
func chordsOnly(line string, key harmony.Key) bool {
	for _, word := range strings.Fields(line) {
		if _, err := chart.ReadBar(word, key, chart.FourFour, []chart.Span{{Beats: 4}}); err != nil {
			return false
		}
	}
	return true
}

// barred puts a bar line before each word, in the place of a blank where there
// is one, so that columns stay.
func barred(line string) string {
	runes := []rune(line)
	for n := range runes {
		if runes[n] == ' ' || runes[n] == '\t' {
			runes[n] = '|'
		}
	}
	return string(runes)
}

// markLine reads a mark on a line of its own: what stands at the beginning of a bar is for the next one, what
// stands at its end for the last.
func (r *reader) markLine(number int, mark braced) {
	if err := r.Sign(mark.text); err != nil {
		r.Faults = append(r.Faults, reading.Fault{Line: number, Column: mark.column + 1, Symbol: mark.text, Detail: err.Error()})
	}
}

func (r *reader) row(number int, row Row) {
	r.from = len(r.Chart.Bars)
	for n, cell := range row.Cells {
		if n > 0 && n == len(row.Cells)-1 && isRemark(cell.Text) {
			r.Remark(number, cell.Text, "this remark is not used")
			break
		}
		if !r.hasKey {
			r.numeral(number, cell)
		}
		if !r.Add(number, cell) {
			break
		}
	}
	r.until = len(r.Chart.Bars)
}

// isRemark says whether the text behind the last bar line is a remark in brackets, and no chord in
// brackets: "(twice)".
func isRemark(text string) bool {
	if !strings.HasPrefix(text, "(") || !strings.HasSuffix(text, ")") {
		return false
	}
	_, err := harmony.ParseChord(text)
	return err != nil
}

// numeral refuses a numeral in a grid without a key: it has no sound.
func (r *reader) numeral(number int, cell Cell) {
	column := cell.Column
	for _, word := range strings.Split(cell.Text, " ") {
		if word != "" && harmony.LooksRoman(word) {
			r.Faults = append(r.Faults, reading.Fault{Line: number, Column: column, Symbol: word, Detail: "a numeral needs a key; put a line such as “key: C dominant” above"})
		}
		column += len([]rune(word)) + 1
	}
}

// imagined lays a row of imagined chords over the bars of the row before.
func (r *reader) imagined(number, at int, text string) {
	bar := r.from
	for _, cell := range layerCells(text) {
		if bar >= r.until {
			r.Faults = append(r.Faults, reading.Fault{Line: number, Column: at + cell.Column, Detail: "there are more imagined bars than the row above has"})
			return
		}
		in := r.Chart.SettingOf(bar)
		spans, err := chart.ReadImagined(cell.Text, in.Key, in.Meter)
		if err != nil {
			r.Fault(number, at+cell.Column, err)
		}
		r.Chart.Bars[bar].Imagined = spans
		bar++
	}
}

// layerCells cuts a row of the imagined layer at its plain bar lines; every cell
// is a bar, blank ones too.
func layerCells(text string) []Cell {
	parts := strings.Split(text, "|")
	cells := []Cell{}
	column := 1
	for n, part := range parts {
		blank := strings.TrimSpace(part) == ""
		if !(blank && (n == 0 || n == len(parts)-1)) {
			lead := len([]rune(part)) - len([]rune(strings.TrimLeft(part, " \t")))
			cells = append(cells, Cell{Text: strings.TrimSpace(part), Column: column + lead})
		}
		column += len([]rune(part)) + 1
	}
	return cells
}
