// Package logcsv writes the practice log as CSV (RFC 4180) and reads it back: one line an entry,
// with a heading. Times are RFC 3339 with the offset of where it was played.
package logcsv

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"

	"undaris/core/practice/logbook"
)

// Line is an entry with what names it, so that a file that is read twice is kept once. The name of
// a line that was written elsewhere may be empty.
type Line struct {
	ID string
	logbook.Entry
}

// Fault is a line that could not be read.
type Fault struct {
	// Line counts from 1, the heading among them; Column is the name of the column, empty where the
	// whole line is meant.
	Line   int
	Column string
	Text   string
}

// columns are those of the file in their order; id, began and kind must be there.
var columns = []string{"id", "began", "seconds", "kind", "item", "key", "position", "tempo", "goal", "right", "of", "went", "note"}

// needed are the columns that a file cannot be read without.
var needed = []string{"began", "kind"}

// MaxLines is how many entries a file has at most.
const MaxLines = 100_000

// Write writes entries.
func Write(w io.Writer, lines []Line) error {
	out := csv.NewWriter(w)
	if err := out.Write(columns); err != nil {
		return err
	}
	for _, l := range lines {
		if err := out.Write([]string{
			l.ID, l.Began.Format(time.RFC3339), strconv.Itoa(l.Seconds), string(l.Kind), plainText(l.Item), l.Key, l.Position,
			number(l.Tempo), number(l.Goal), number(l.Right), number(l.Of), string(l.Went), plainText(l.Note),
		}); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}

func number(n int) string {
	if n == 0 {
		return ""
	}
	return strconv.Itoa(n)
}

// plainText keeps a text from being taken for a formula by a spreadsheet: an apostrophe comes before
// what begins with =, +, - or @, as spreadsheets have it, and is taken away when it is read.
func plainText(text string) string {
	if text != "" && strings.ContainsRune("=+-@'\t", rune(text[0])) {
		return "'" + text
	}
	return text
}

// Read reads entries. What cannot be read is named line by line, and the rest is read. Its error is
// for a file that is no such table at all.
func Read(text []byte) ([]Line, []Fault, error) {
	text = bytes.TrimPrefix(text, []byte("\ufeff"))
	in := csv.NewReader(bytes.NewReader(text))
	in.FieldsPerRecord = -1
	in.ReuseRecord = true
	if first, _, _ := bytes.Cut(text, []byte("\n")); bytes.Count(first, []byte(";")) > bytes.Count(first, []byte(",")) {
		in.Comma = ';' // as spreadsheets write it where the comma is for decimals
	}
	heading, err := in.Read()
	if err != nil {
		return nil, nil, errors.New("this is no table: its first line must name the columns " + strings.Join(columns, ", "))
	}
	at := map[string]int{}
	faults := []Fault{}
	for n, name := range heading {
		name = strings.ToLower(strings.TrimSpace(name))
		if slices.Contains(columns, name) {
			at[name] = n
		} else {
			faults = append(faults, Fault{1, name, fmt.Sprintf("the column %q is not read; those that are: %s", name, strings.Join(columns, ", "))})
		}
	}
	for _, name := range needed {
		if _, ok := at[name]; !ok {
			return nil, nil, fmt.Errorf("the column %q is missing; the first line must name the columns %s", name, strings.Join(columns, ", "))
		}
	}
	lines := []Line{}
	for {
		record, err := in.Read()
		if errors.Is(err, io.EOF) {
			return lines, faults, nil
		}
		var parse *csv.ParseError
		if errors.As(err, &parse) {
			faults = append(faults, Fault{parse.StartLine, "", parse.Err.Error()})
			continue
		}
		if err != nil {
			return nil, nil, err
		}
		number, _ := in.FieldPos(0)
		if len(lines) == MaxLines {
			return lines, append(faults, Fault{number, "", fmt.Sprintf("a file has at most %d entries; from here on it is not read", MaxLines)}), nil
		}
		line, fault := readLine(at, record)
		if fault != nil {
			fault.Line = number
			faults = append(faults, *fault)
			continue
		}
		lines = append(lines, line)
	}
}

func readLine(at map[string]int, record []string) (Line, *Fault) {
	cell := func(name string) string {
		if n, ok := at[name]; ok && n < len(record) {
			return strings.TrimSpace(record[n])
		}
		return ""
	}
	l := Line{ID: cell("id")}
	began, err := time.Parse(time.RFC3339, cell("began"))
	if err != nil {
		return l, &Fault{Column: "began", Text: fmt.Sprintf("%q is no time; one is written as 2026-03-01T19:00:00+01:00", cell("began"))}
	}
	l.Entry = logbook.Entry{
		Began: began, Kind: logbook.Kind(strings.ToLower(cell("kind"))), Item: strings.TrimPrefix(cell("item"), "'"), Key: cell("key"), Position: cell("position"),
		Went: logbook.Went(strings.ToLower(cell("went"))), Note: strings.TrimPrefix(cell("note"), "'"),
	}
	for name, into := range map[string]*int{"seconds": &l.Seconds, "tempo": &l.Tempo, "goal": &l.Goal, "right": &l.Right, "of": &l.Of} {
		if cell(name) == "" {
			continue
		}
		if *into, err = strconv.Atoi(cell(name)); err != nil {
			return l, &Fault{Column: name, Text: fmt.Sprintf("%q is no whole number", cell(name))}
		}
	}
	var field *logbook.FieldError
	if err := l.Check(); errors.As(err, &field) {
		return l, &Fault{Column: field.Field, Text: field.Detail}
	}
	if len([]rune(l.ID)) > MaxID {
		return l, &Fault{Column: "id", Text: fmt.Sprintf("an id has at most %d characters", MaxID)}
	}
	return l, nil
}

// MaxID is how many characters the name of a line has at most.
const MaxID = 64
