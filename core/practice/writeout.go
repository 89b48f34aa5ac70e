package practice

import (
	"fmt"
	"strings"

	"undaris/core/neck"
)

// writeOut asks for the names of the notes of two strings under the hand.
func (a maker) writeOut() Question {
	first := 1 + a.r.IntN(len(a.Instrument.Open))
	second := 1 + a.r.IntN(len(a.Instrument.Open)-1)
	if second >= first {
		second++
	}
	q := Question{Form: Written, Title: "write out the neck", NeedsPlace: true}
	q.Detail = fmt.Sprintf("the notes of strings %d and %d, frets %d to %d", min(first, second), max(first, second), a.at.Core, a.at.CoreEnd)
	said := []string{}
	for _, s := range []int{min(first, second), max(first, second)} {
		names := []string{}
		for fret := a.at.Core; fret <= min(a.at.CoreEnd, a.Instrument.Frets); fret++ {
			p := neck.Place{String: s, Fret: fret}
			note := a.card.Key.Spell(a.Instrument.Pitch(p).Class())
			q.Cells = append(q.Cells, p)
			q.parts = append(q.parts, part{label: note.String(), note: note, places: []neck.Place{p}})
			names = append(names, signed(note.String()))
		}
		said = append(said, fmt.Sprintf("string %d has %s", s, strings.Join(names, " ")))
	}
	q.Hint = fmt.Sprintf("string %d is open %s", q.Cells[0].String, signed(a.Instrument.OpenNames()[q.Cells[0].String-1]))
	q.Text = upperFirst(strings.Join(said, "; ")) + "."
	return q
}
