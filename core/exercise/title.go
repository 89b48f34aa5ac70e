package exercise

import (
	"fmt"
	"strings"
)

// Title says what the exercise is in a few words, as in "scale of the chord, in thirds, along the strings 1 to 2".
func (e Exercise) Title() string {
	tones := string(e.Tones)
	if tones == "" {
		tones = string(ChordTones)
	}
	for _, extension := range e.Extensions {
		tones += fmt.Sprintf(" with %d", extension)
	}
	if e.Tones == SuperimposedOver && e.Superimposed > 0 {
		tones += fmt.Sprintf(" on the %d", e.Superimposed)
	}
	parts := []string{tones}
	add := func(text, plain string) {
		if text != "" && text != plain {
			parts = append(parts, text)
		}
	}
	figure := string(e.Order.Figure)
	if e.Order.Figure == OwnFigure {
		figure = strings.Trim(fmt.Sprint(e.Order.Numbers), "[]")
	}
	add(figure, string(OneAfterAnother))
	add(string(e.Order.Direction), string(UpAndDown))
	add(e.Where.text(), "")
	if e.Order.Start != "" && e.Order.Start != NearestTone {
		parts = append(parts, "from the "+strings.TrimPrefix(string(e.Order.Start), "the "))
	}
	add(string(e.Into), string(Directly))
	if e.Ornaments.Before != "" {
		parts = append(parts, string(e.Ornaments.Before))
	}
	add(string(e.Ornaments.Tail), "")
	add(string(e.Time.Pattern), string(Through))
	switch {
	case e.Over.Kind == OneChord && e.Over.Chord != nil:
		parts = append(parts, "over "+e.Over.Chord.SignedSymbol())
	case e.Over.Kind != "" && e.Over.Kind != TheTune:
		parts = append(parts, "over "+string(e.Over.Kind))
	}
	return strings.Join(parts, ", ")
}

// text says where on the neck, in a few words; nothing for the whole position.
func (w Where) text() string {
	text := string(w.Kind)
	switch w.Kind {
	case "", InPosition:
		text = ""
	case SomeFrets:
		text = fmt.Sprintf("frets %d to %d", w.LowFret, w.HighFret)
	case NotesPerString:
		count := w.PerString
		if count == 0 {
			count = 3
		}
		text = fmt.Sprintf("%d a string", count)
	}
	switch {
	case w.LowString == 0:
		return text
	case w.LowString == w.HighString && text == string(AlongStrings):
		return fmt.Sprintf("along string %d", w.LowString)
	case w.Kind == AlongStrings:
		return fmt.Sprintf("along strings %d to %d", w.LowString, w.HighString)
	}
	return strings.TrimPrefix(fmt.Sprintf("%s, strings %d to %d", text, w.LowString, w.HighString), ", ")
}
