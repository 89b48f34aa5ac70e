package practice

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/neck"
)

// whichForm shows the shape of a chord and asks which of the five forms it is.
func (a maker) whichForm() (Question, error) {
	chord := a.card.Chords[0]
	shape := neck.PlaceChord(a.Instrument, a.at.Window, chord, nil)
	form := neck.FormAt(a.Instrument, chord.Root.Class(), a.at.Window)
	if form == "" || len(shape.Tones) == 0 {
		return Question{}, &CardError{fmt.Sprintf("%s makes no form on frets %d to %d", chord.SignedSymbol(), a.at.Core, a.at.CoreEnd)}
	}
	q := Question{
		Form: Chosen, Chord: chord.Symbol(), Title: "which form is it?", Detail: "the open chord whose shape this is, moved up the neck",
		Choices: []string{"C", "A", "G", "E", "D"}, right: []string{string(form)},
	}
	roots := []string{}
	for _, t := range shape.Tones {
		label := ""
		if t.Degree.Number == 1 {
			label = "R"
			roots = append(roots, fmt.Sprint(t.String))
		}
		q.Shown = append(q.Shown, LitPlace{t.Place, label})
	}
	slices.Sort(roots)
	q.Hint = fmt.Sprintf("the root lies on string %s", strings.Join(roots, " and "))
	q.Text = fmt.Sprintf("%s on frets %d to %d is the %s form: its root lies on string %s.", chord.SignedSymbol(), a.at.Core, a.at.CoreEnd, form, strings.Join(roots, " and "))
	return q, nil
}

// whereForm asks where a chord lies in one of the forms.
func (a maker) whereForm() (Question, error) {
	chord := a.card.Chords[0]
	all := neck.Positions(a.Instrument, chord.Root.Class())
	form := a.at.Form
	if form == "" {
		form = "E"
	}
	q := Question{
		Form: Chosen, Chord: chord.Symbol(), Title: fmt.Sprintf("in the %s form", form), Detail: "on which frets?",
		Position: neck.Position{Window: neck.Window{CoreEnd: min(15, a.Instrument.Frets), High: min(15, a.Instrument.Frets)}},
	}
	for _, p := range all {
		frets := fmt.Sprintf("%d–%d", p.Core, p.CoreEnd)
		if !slices.Contains(q.Choices, frets) {
			q.Choices = append(q.Choices, frets)
		}
		if p.Form == form {
			q.right = append(q.right, frets)
			if len(q.right) == 1 {
				for _, t := range neck.PlaceChord(a.Instrument, p.Window, chord, nil).Tones {
					q.parts = append(q.parts, part{label: t.Degree.String(), note: t.Note, places: []neck.Place{t.Place}})
				}
			}
		}
	}
	if len(q.right) == 0 {
		return q, &CardError{fmt.Sprintf("the %s form of %s does not fit on this neck", form, chord.SignedSymbol())}
	}
	q.Hint = map[neck.Form]string{
		"C": "its root lies on string 5, under the little finger", "A": "its root lies on string 5, under the first finger",
		"G": "its root lies on string 6, under the little finger", "E": "its root lies on string 6, under the first finger",
		"D": "its root lies on string 4, under the first finger",
	}[form]
	q.Text = fmt.Sprintf("%s in the %s form lies on frets %s.", chord.SignedSymbol(), form, strings.Join(q.right, " and "))
	return q, nil
}
