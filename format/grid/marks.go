package grid

import (
	"fmt"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
)

// Marks are what stands in braces in a cell, or in a line of its own above it: what changes from the
// bar on, and the signs that lead to another place.
type Marks struct {
	Change chart.SettingChange
	Signs  chart.Signs
}

// ReadMark reads one mark: "segno", "coda", "to coda", "fine", a jump as in "D.C. al fine", a key as in
// "key Ab major", a meter or a feel. Its error says what there is.
func (m *Marks) ReadMark(text string) error {
	words := strings.Join(strings.Fields(text), " ")
	switch strings.ToLower(words) {
	case "segno":
		m.Signs.Segno = true
		return nil
	case "coda":
		m.Signs.Coda = true
		return nil
	case "to coda":
		m.Signs.ToCoda = true
		return nil
	case "fine":
		m.Signs.Fine = true
		return nil
	}
	for _, jump := range chart.Jumps {
		if strings.EqualFold(words, string(jump)) {
			m.Signs.Jump = jump
			return nil
		}
	}
	if len(words) > len("key ") && strings.EqualFold(words[:len("key ")], "key ") {
		key, err := harmony.ReadKey(words[len("key "):])
		m.Change.Key = key
		return err
	}
	if meter, err := chart.ParseMeter(words); err == nil {
		m.Change.Meter = meter
		return nil
	}
	if feel, err := chart.ParseFeel(strings.ToLower(words)); err == nil {
		m.Change.Feel = feel
		return nil
	}
	return fmt.Errorf("%q is no mark; in braces stand segno, coda, to coda, fine, a D.C. or D.S., a key as in {key Ab major}, a meter or a feel", words)
}

// add takes other marks in.
func (m *Marks) add(other Marks) {
	if other.Change.Key.Mode != "" {
		m.Change.Key = other.Change.Key
	}
	if other.Change.Meter != (chart.Meter{}) {
		m.Change.Meter = other.Change.Meter
	}
	if other.Change.Feel != "" {
		m.Change.Feel = other.Change.Feel
	}
	m.Signs.Segno, m.Signs.Coda = m.Signs.Segno || other.Signs.Segno, m.Signs.Coda || other.Signs.Coda
}

// atBeginning are the marks that stand at the beginning of a bar.
func (m Marks) atBeginning() Marks {
	m.Signs = chart.Signs{Segno: m.Signs.Segno, Coda: m.Signs.Coda}
	return m
}

// Text writes the marks of a bar so that ReadMark reads them one by one.
func (m Marks) Text() []string {
	texts := []string{}
	if k := m.Change.Key; k.Mode != "" {
		texts = append(texts, "key "+k.Tonic.String()+" "+string(k.Mode))
	}
	if m.Change.Meter != (chart.Meter{}) {
		texts = append(texts, m.Change.Meter.String())
	}
	if m.Change.Feel != "" {
		texts = append(texts, string(m.Change.Feel))
	}
	for _, sign := range []struct {
		name string
		set  bool
	}{{"segno", m.Signs.Segno}, {"coda", m.Signs.Coda}, {"to coda", m.Signs.ToCoda}, {"fine", m.Signs.Fine}, {string(m.Signs.Jump), m.Signs.Jump != ""}} {
		if sign.set {
			texts = append(texts, sign.name)
		}
	}
	return texts
}

// braces cuts the marks in braces out of a cell: what is left stands in its place, blanks where they
// stood. Each has its column in the cell, from 0. A brace that is not closed stays.
func braces(text string) (left string, marks []braced) {
	runes := []rune(text)
	for n := 0; n < len(runes); n++ {
		if runes[n] != '{' {
			continue
		}
		end := n
		for end < len(runes) && runes[end] != '}' {
			end++
		}
		if end == len(runes) {
			break
		}
		marks = append(marks, braced{text: string(runes[n+1 : end]), column: n})
		for ; n <= end; n++ {
			runes[n] = ' '
		}
		n--
	}
	return string(runes), marks
}

type braced struct {
	text   string
	column int
}
