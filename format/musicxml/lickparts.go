package musicxml

import (
	"strings"

	"undaris/core/pitch"
	"undaris/format/reading"
)

// choosePart is the part with the most notes on strings, or else the most notes.
func (r *lickReader) choosePart(s *score) *part {
	var best *part
	most, with := 0, 0
	for n := range s.Parts {
		count := 0
		for _, m := range s.Parts[n].Measures {
			for _, element := range m.Elements {
				note, ok := element.(played)
				if !ok || note.rest || note.note == nil {
					continue
				}
				count++
				if fretted(note.note) != nil {
					count += 1000
				}
			}
		}
		if count > 0 {
			with++
		}
		if count > most {
			best, most = &s.Parts[n], count
		}
	}
	if with > 1 {
		r.Remark(0, "", "of %d parts with notes only one is read: the one with tab, or the most notes", with)
	}
	return best
}

// fretted is the technical of a note with string and fret; nil for none.
func fretted(n *note) *technical {
	if n.Notations == nil || n.Notations.Technical == nil || n.Notations.Technical.Fret == nil || n.Notations.Technical.String < 1 {
		return nil
	}
	return n.Notations.Technical
}

// chooseStaff is the staff that is read where there are several: the one with a TAB
// clef, or the first with strings and frets.
func (r *lickReader) chooseStaff(p *part) {
	staves, tab, with := 1, 0, 0
	for _, m := range p.Measures {
		for _, element := range m.Elements {
			switch e := element.(type) {
			case *attributes:
				staves = max(staves, e.Staves)
				for _, c := range e.Clefs {
					if strings.TrimSpace(c.Sign) == "TAB" {
						tab = max(c.Number, 1)
					}
				}
			case played:
				if e.note != nil && with == 0 && fretted(e.note) != nil {
					with = max(e.Staff, 1)
				}
			}
		}
	}
	switch {
	case staves < 2:
		r.staff = 0
	case with > 0:
		r.staff = with
	default:
		r.staff = max(tab, 1)
	}
}

// tuning reads the open strings of a tab staff.
func (r *lickReader) tuning(number int, s *staff) {
	open := make([]pitch.MIDI, len(s.Tuning))
	for _, one := range s.Tuning {
		note, err := noteOf(one.Step, one.Alter)
		if err != nil || one.Line < 1 || one.Line > len(open) || one.Octave < -1 || one.Octave > 9 {
			r.Remark(number, "", "the tuning of the tab staff is not read")
			return
		}
		natural := int(pitch.Note{Letter: note.Letter}.Class())
		open[len(open)-one.Line] = pitch.MIDI(12*(one.Octave+1) + natural + note.Accidental)
	}
	i := r.on
	i.Open, i.Name = open, "score"
	if err := i.Check(); err != nil {
		r.fault(reading.Fault{Line: number, Detail: "the strings of the tab staff: " + err.Error()})
		return
	}
	r.on = i
}
