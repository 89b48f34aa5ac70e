package phrase

import (
	"fmt"
	"slices"

	"undaris/core/chart"
)

// removeTime takes time out: what sounds into it is cut, what follows moves up. Chords move
// with the notes; of those that begin in the time taken out the last holds on.
func (p *Phrase) removeTime(e Edit) error {
	gone := e.To - e.From
	if gone < 1 {
		return &chart.FieldError{Field: "to", Detail: "the time that is taken out ends after it begins"}
	}
	p.Events = slices.DeleteFunc(p.Events, func(note Event) bool { return note.Tick >= e.From && note.Tick < e.To })
	for n := range p.Events {
		note := &p.Events[n]
		switch {
		case note.Tick >= e.To:
			note.Tick -= gone
		case note.End() > e.From:
			note.Ticks = e.From - note.Tick
		}
	}
	for n := range p.Chords {
		if from := &p.Chords[n]; from.Tick > e.From {
			from.Tick = max(from.Tick-gone, e.From)
		}
	}
	p.Chords = slices.CompactFunc(reversed(p.Chords), func(a, b PhraseChord) bool { return a.Tick == b.Tick })
	slices.Reverse(p.Chords)
	return nil
}

func reversed(over []PhraseChord) []PhraseChord {
	turned := slices.Clone(over)
	slices.Reverse(turned)
	return turned
}

// insertTime makes room from a tick on. A chord that begins there moves too, unless it is
// the first of all.
func (p *Phrase) insertTime(from, ticks int) error {
	if ticks < 1 {
		return &chart.FieldError{Field: "ticks", Detail: "the room that is made is at least one tick"}
	}
	for n := range p.Events {
		note := &p.Events[n]
		switch {
		case note.Tick >= from:
			note.Tick += ticks
		case note.End() > from:
			note.Ticks = from - note.Tick
		}
	}
	for n := range p.Chords {
		if p.Chords[n].Tick >= from && n > 0 {
			p.Chords[n].Tick += ticks
		}
	}
	return nil
}

// setLength sets how long the selection's notes last; the next note on the string ends
// each at the latest.
func (p *Phrase) setLength(e Edit) ([]string, error) {
	if e.Ticks < 1 {
		return nil, &chart.FieldError{Field: "ticks", Detail: "a note lasts at least one tick"}
	}
	remarks := []string{}
	err := p.forEach(e, func(note *Event) error {
		note.Ticks = e.Ticks
		if note.Grace {
			note.Ticks = GraceTicks
		}
		return nil
	})
	for n, note := range p.Events {
		for _, next := range p.Events {
			if e.selects(note) && next.Tick > note.Tick && next.Tick < note.End() && !e.selects(next) && next.String != note.String {
				remarks = append(remarks, fmt.Sprintf("note %d rings on over the next one", n+1))
				break
			}
		}
	}
	return remarks, err
}

// shift moves the selection in time; a note it comes to lie on gives way.
func (p *Phrase) shift(e Edit) error {
	moved := []Event{}
	for _, note := range p.Events {
		if e.selects(note) {
			note.Tick += e.By
			moved = append(moved, note)
		}
	}
	if len(moved) == 0 {
		return &chart.FieldError{Field: "from", Detail: "there is no note there to be moved"}
	}
	p.Events = append(slices.DeleteFunc(p.Events, e.selects), moved...)
	return nil
}

// repeat plays the selected time once more behind itself.
func (p *Phrase) repeat(e Edit) error {
	length := e.To - e.From
	if length < 1 || !slices.ContainsFunc(p.Events, e.selects) {
		return &chart.FieldError{Field: "from", Detail: "there is no note there to be played again"}
	}
	again := []Event{}
	for _, note := range p.Events {
		if e.selects(note) {
			note.Tick += length
			note.Ticks = min(note.Ticks, e.To+length-note.Tick)
			again = append(again, note)
		}
	}
	if err := p.insertTime(e.To, length); err != nil {
		return err
	}
	p.Events = append(p.Events, again...)
	return nil
}
