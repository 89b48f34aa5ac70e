package musicxml

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"fmt"
	"strconv"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
)

const doctype = `<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">` + "\n"

// Of signs and changes the sound elements carry what a program plays, the words what is read.

// divisions is how many ticks of the file a quarter note has; 2 lets a dotted
// quarter be a whole number.
const divisions = 2

// The names of the miscellaneous fields that hold what the format has no
// element for.
const (
	fieldKey       = "undaris-key"
	fieldBox       = "undaris-box"
	fieldFeel      = "undaris-feel"
	fieldSwing     = "undaris-swing"
	fieldCapo      = "undaris-capo"
	fieldTags      = "undaris-tags"
	fieldImagining = "undaris-imagining"
	fieldKeys      = "undaris-keys"
	fieldFeels     = "undaris-feels"
	fieldScales    = "undaris-scales"
	fieldPickup    = "undaris-pickup"
)

const imaginedPart = "Imagined"

// Write writes the chart as plain MusicXML.
func Write(c chart.Chart) []byte {
	s := score{
		Version: "4.0", Work: &work{Title: c.Title},
		Identification: &ident{Encoding: &encoding{Software: "Undaris"}, Miscellaneous: &miscellaneous{Fields: fields(c)}},
		PartList:       partList{Parts: []scorePart{{ID: "P1", Name: "Chords"}}},
		Parts:          []part{{ID: "P1", Measures: measures(c, false)}},
	}
	for _, bar := range c.Bars {
		if len(bar.Imagined) > 0 {
			s.PartList.Parts = append(s.PartList.Parts, scorePart{ID: "P2", Name: imaginedPart})
			s.Parts = append(s.Parts, part{ID: "P2", Measures: measures(c, true)})
			break
		}
	}
	return s.encode()
}

func (s score) encode() []byte {
	out := &bytes.Buffer{}
	out.WriteString(xml.Header + doctype)
	encoder := xml.NewEncoder(out)
	encoder.Indent("", "  ")
	if err := encoder.Encode(s); err != nil {
		panic("a score can always be written: " + err.Error())
	}
	out.WriteString("\n")
	return out.Bytes()
}

// WriteCompressed writes the chart as a compressed archive (.mxl).
func WriteCompressed(c chart.Chart) []byte {
	const container = `<?xml version="1.0" encoding="UTF-8"?>` + "\n" +
		`<container><rootfiles><rootfile full-path="chart.musicxml" media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>` + "\n"
	out := &bytes.Buffer{}
	archive := zip.NewWriter(out)
	for _, file := range []struct {
		name string
		data []byte
	}{{containerFile, []byte(container)}, {"chart.musicxml", Write(c)}} {
		w, err := archive.Create(file.name)
		if err == nil {
			_, err = w.Write(file.data)
		}
		if err != nil {
			panic("memory can always be written: " + err.Error())
		}
	}
	if err := archive.Close(); err != nil {
		panic("memory can always be written: " + err.Error())
	}
	return out.Bytes()
}

func fields(c chart.Chart) []field {
	all := []field{
		{fieldKey, c.Key.Tonic.String() + " " + string(c.Key.Mode)}, {fieldFeel, string(c.Feel)},
		{fieldSwing, strconv.FormatFloat(c.Swing, 'g', -1, 64)},
	}
	optional := func(name, value string, there bool) {
		if there {
			all = append(all, field{name, value})
		}
	}
	optional(fieldBox, string(c.Box), c.Box != "")
	optional(fieldCapo, strconv.Itoa(c.Capo), c.Capo > 0)
	optional(fieldTags, strings.Join(c.Tags, ", "), len(c.Tags) > 0)
	optional(fieldImagining, "yes", c.Imagining)
	keys, feels, scales := []string{}, []string{}, []string{}
	for b, bar := range c.Bars {
		if k := bar.Change.Key; k.Mode != "" {
			keys = append(keys, fmt.Sprintf("%d %s %s", b+1, k.Tonic, k.Mode))
		}
		if bar.Change.Feel != "" {
			feels = append(feels, fmt.Sprintf("%d %s", b+1, bar.Change.Feel))
		}
	}
	for _, choice := range c.Scales {
		scales = append(scales, choice.Name()+" "+choice.Scale)
	}
	optional(fieldKeys, strings.Join(keys, "; "), len(keys) > 0)
	optional(fieldFeels, strings.Join(feels, "; "), len(feels) > 0)
	optional(fieldScales, strings.Join(scales, "; "), len(scales) > 0)
	optional(fieldPickup, chart.PickupText(c.Pickup), len(c.Pickup) > 0)
	return all
}

func measures(c chart.Chart, imagined bool) []measure {
	all := make([]measure, len(c.Bars), len(c.Bars)+1)
	for b, bar := range c.Bars {
		in := c.SettingOf(b)
		m := measure{Number: strconv.Itoa(b + 1)}
		add := func(element any) { m.Elements = append(m.Elements, element) }
		if left := leftLine(c.Bars, b); left != nil && !imagined {
			add(left)
		}
		if b == 0 && len(c.Pickup) == 0 {
			add(opening(c))
			if !imagined {
				add(tempoMark(c))
			}
		} else if change := settingAttributes(bar.Change); change != nil {
			add(change)
		}
		if !imagined {
			for _, mark := range feelMark(bar.Change.Feel, c.Swing) {
				add(mark)
			}
			for _, sign := range signsBefore(bar.Signs) {
				add(sign)
			}
		}
		if bar.Section != "" && !imagined {
			add(&direction{Placement: "above", Types: []directionType{{Rehearsal: []string{bar.Section}}}})
		}
		spans := bar.Spans
		if imagined {
			spans = bar.Imagined
		}
		for _, span := range spans {
			switch {
			case !span.Empty():
				add(mark(span.Chord))
			default:
				add(noChord())
			}
			add(restFor(in.Meter, span.Beats))
		}
		if len(spans) == 0 {
			add(&note{Rest: &rest{Measure: "yes"}, Duration: float64(in.Meter.BarTicks() * divisions / chart.TicksPerQuarter), Voice: "1"})
		}
		if !imagined {
			for _, sign := range signsAfter(bar.Signs) {
				add(sign)
			}
		}
		if right := rightLine(c.Bars, b); right != nil && !imagined {
			add(right)
		}
		all[b] = m
	}
	if len(c.Pickup) > 0 {
		all = append([]measure{pickupMeasure(c, imagined)}, all...)
	}
	return all
}

// pickupMeasure is the bar before bar 1, which is not counted.
func pickupMeasure(c chart.Chart, imagined bool) measure {
	m := measure{Number: "0", Implicit: true, Elements: []any{opening(c)}}
	if !imagined {
		m.Elements = append(m.Elements, tempoMark(c))
	}
	for _, span := range c.Pickup {
		switch {
		case span.Empty() || imagined:
			m.Elements = append(m.Elements, noChord())
		default:
			m.Elements = append(m.Elements, mark(span.Chord))
		}
		m.Elements = append(m.Elements, restFor(c.Meter, span.Beats))
	}
	return m
}

func opening(c chart.Chart) *attributes {
	return &attributes{Divisions: divisions, Key: keyOf(c.Key), Time: timeOf(c.Meter), Clefs: []clef{{Sign: "G", Line: 2}}}
}

func keyOf(k harmony.Key) *keyMark {
	mode := "major"
	if k.Mode == harmony.MinorMode {
		mode = "minor"
	}
	return &keyMark{Fifths: k.Fifths(), Mode: mode}
}

func timeOf(m chart.Meter) *timeMark {
	return &timeMark{Beats: strconv.Itoa(m.Count), BeatType: strconv.Itoa(m.Unit)}
}

// settingAttributes is what a bar writes of a change of key and meter; nil for none.
func settingAttributes(ch chart.SettingChange) *attributes {
	a := &attributes{}
	if ch.Key.Mode != "" {
		a.Key = keyOf(ch.Key)
	}
	if ch.Meter != (chart.Meter{}) {
		a.Time = timeOf(ch.Meter)
	}
	if a.Key == nil && a.Time == nil {
		return nil
	}
	return a
}

// feelMark says a change of feel in words and as sound.
func feelMark(feel chart.Feel, ratio float64) []any {
	mark := &swingMark{Straight: &struct{}{}}
	switch feel {
	case "":
		return nil
	case chart.Shuffle:
		mark = &swingMark{First: ratio, Second: 1, Type: "eighth"}
	}
	return []any{&direction{Placement: "above", Types: []directionType{{Words: []string{string(feel)}}}, Sound: &sound{Swing: mark}}}
}

// signsBefore are the signs at the beginning of a bar, signsAfter those at its end.
func signsBefore(s chart.Signs) []any {
	all := []any{}
	if s.Segno {
		all = append(all, &direction{Placement: "above", Types: []directionType{{Segno: &struct{}{}}}, Sound: &sound{Segno: "segno"}})
	}
	if s.Coda {
		all = append(all, &direction{Placement: "above", Types: []directionType{{Coda: &struct{}{}}}, Sound: &sound{Coda: "coda"}})
	}
	return all
}

func signsAfter(s chart.Signs) []any {
	all := []any{}
	words := func(text string, mark sound) {
		all = append(all, &direction{Placement: "above", Types: []directionType{{Words: []string{text}}}, Sound: &mark})
	}
	if s.ToCoda {
		words("To Coda", sound{ToCoda: "coda"})
	}
	if s.Fine {
		words("Fine", sound{Fine: "yes"})
	}
	switch {
	case s.Jump.ToSegno():
		words(string(s.Jump), sound{DalSegno: "segno"})
	case s.Jump != chart.NoJump:
		words(string(s.Jump), sound{DaCapo: "yes"})
	}
	return all
}

// tempoMark is the tempo in counted beats; the sound counts quarter notes.
func tempoMark(c chart.Chart) *direction {
	m := &metronome{Unit: "quarter", PerMinute: strconv.Itoa(c.Tempo)}
	if c.Meter.Compound() {
		m.Dots = []struct{}{{}}
	}
	return &direction{
		Placement: "above", Types: []directionType{{Metronome: m}},
		Sound: &sound{Tempo: float64(c.Tempo*c.Meter.BeatTicks()) / chart.TicksPerQuarter},
	}
}

// restFor is the time that a chord lasts: a rest as long, named where one sign
// is enough.
func restFor(m chart.Meter, beats int) *note {
	ticks := beats * m.BeatTicks()
	n := &note{Rest: &rest{}, Duration: float64(ticks * divisions / chart.TicksPerQuarter), Voice: "1"}
	switch ticks {
	case 480:
		n.Type = "quarter"
	case 720:
		n.Type, n.Dots = "quarter", []dot{{}}
	case 960:
		n.Type = "half"
	case 1440:
		n.Type, n.Dots = "half", []dot{{}}
	case 1920:
		n.Type = "whole"
	case 2880:
		n.Type, n.Dots = "whole", []dot{{}}
	}
	return n
}

func leftLine(bars []chart.Bar, b int) *barline {
	line := &barline{Location: "left"}
	bar := bars[b]
	if bar.RepeatFrom {
		line.Style, line.Repeat = "heavy-light", &repeatMark{Direction: "forward"}
	}
	if bar.Ending > 0 && (b == 0 || bars[b-1].Ending != bar.Ending || bars[b-1].RepeatTo > 0) {
		line.Ending = &endingMark{Number: strconv.Itoa(bar.Ending), Type: "start"}
	}
	if line.Repeat == nil && line.Ending == nil {
		return nil
	}
	return line
}

// endingStop is how the bracket of an ending ends: closed where it goes back.
func endingStop(bar chart.Bar) string {
	if bar.RepeatTo > 0 {
		return "stop"
	}
	return "discontinue"
}

func rightLine(bars []chart.Bar, b int) *barline {
	line := &barline{Location: "right"}
	bar := bars[b]
	if bar.Ending > 0 && (b+1 == len(bars) || bars[b+1].Ending != bar.Ending || bar.RepeatTo > 0) {
		line.Ending = &endingMark{Number: strconv.Itoa(bar.Ending), Type: endingStop(bar)}
	}
	switch {
	case bar.RepeatTo > 0:
		line.Style, line.Repeat = "light-heavy", &repeatMark{Direction: "backward", Times: bar.RepeatTo}
	case b+1 == len(bars):
		line.Style = "light-heavy"
	}
	if line.Repeat == nil && line.Ending == nil && line.Style == "" {
		return nil
	}
	return line
}
