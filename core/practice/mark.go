package practice

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/neck"
	"undaris/core/pitch"
)

// Given is one part of an answer: a place of the neck, a pitch from an instrument that is
// connected, or the name of a note. A written answer gives a place and a note.
type Given struct {
	Place *neck.Place
	Pitch *pitch.MIDI
	Note  *pitch.Note
}

// Answer is what a player gives: parts in the order that they came, or one of the choices.
type Answer struct {
	Given  []Given
	Choice string
}

// PartState is how a part of an answer was.
type PartState string

// The states of a part.
const (
	Right   PartState = "right"
	Wrong   PartState = "wrong"
	Missing PartState = "missing"
	// Misnamed is the right sound under another name.
	Misnamed PartState = "misnamed"
)

// PartMark is how one part was answered: of the right answer, or a part given that is none of it.
type PartMark struct {
	State PartState
	// Label is what it is: a degree or a note.
	Label string
	// Given is the index of the part of the answer, -1 where none was given.
	Given int
	// Place is where it lies or was given; nil where it has no place.
	Place *neck.Place
	// Text says what is wrong with it.
	Text string
}

// Mark is an answer marked.
type Mark struct {
	Right bool
	// Got is how many parts were right, of how many there are with those too many.
	Got, Of int
	Parts   []PartMark
	// Text says in one sentence what is right.
	Text string
	// Neck is where the right answer lies.
	Neck []LitPlace
}

// Mark marks an answer. Its error is a *CardError for an answer of another form.
func (q Question) Mark(i neck.Instrument, answer Answer) (Mark, error) {
	if q.Form == Chosen {
		return q.markChoice(answer)
	}
	if answer.Choice != "" {
		return Mark{}, &CardError{fmt.Sprintf("%s is answered with notes or places, not with a choice", q.Card.Kind)}
	}
	for n, g := range answer.Given {
		switch {
		case q.Form == Written && (g.Place == nil || g.Note == nil):
			return Mark{}, &CardError{fmt.Sprintf("part %d: each place is given with the name of its note", n+1)}
		case q.NeedsPlace && g.Place == nil:
			return Mark{}, &CardError{fmt.Sprintf("part %d: this is asked for by place, and a pitch can lie in several: click it, type string and fret, or send each string on its own channel", n+1)}
		case g.Place != nil && !i.Has(*g.Place):
			return Mark{}, &CardError{fmt.Sprintf("part %d: string %d fret %d is not on the neck", n+1, g.Place.String, g.Place.Fret)}
		}
	}
	if q.Form == InOrder {
		return q.markOrder(i, answer), nil
	}
	return q.markSet(i, answer), nil
}

func (q Question) markChoice(answer Answer) (Mark, error) {
	if answer.Choice != "" && !slices.Contains(q.Choices, answer.Choice) {
		return Mark{}, &CardError{fmt.Sprintf("%q is none of the choices: %s", answer.Choice, strings.Join(q.Choices, ", "))}
	}
	m := Mark{Right: slices.Contains(q.right, answer.Choice), Of: 1, Text: q.Text, Neck: q.lit()}
	state := Wrong
	if m.Right {
		m.Got, state = 1, Right
	}
	if answer.Choice == "" {
		state = Missing
	}
	m.Parts = []PartMark{{State: state, Label: q.right[0], Given: -1}}
	return m, nil
}

// markSet marks parts in any order: each part of the answer is matched with one of the right ones.
func (q Question) markSet(i neck.Instrument, answer Answer) Mark {
	m := Mark{Text: q.Text, Neck: q.lit()}
	taken := make([]bool, len(q.parts))
	any := q.Form == OneOfThem
	for n, g := range answer.Given {
		state, at := q.match(i, g, taken, any)
		mark := PartMark{State: state, Given: n, Place: g.Place}
		if at >= 0 {
			taken[at] = true
			mark.Label = q.parts[at].label
			if state == Misnamed {
				mark.Text = fmt.Sprintf("the sound is right; here it is called %s", signed(q.parts[at].note.String()))
			}
		} else {
			mark.Label, mark.Text = q.wrong(i, g)
		}
		m.Parts = append(m.Parts, mark)
		m.Of++
		if state == Right {
			m.Got++
		}
	}
	if any && m.Got > 0 {
		m.Right = m.Got == m.Of
		return m
	}
	for n, p := range q.parts {
		if taken[n] || p.optional || any && n > 0 {
			continue
		}
		mark := PartMark{State: Missing, Label: p.label, Given: -1}
		if at := p.lies(); len(at) > 0 {
			mark.Place = &at[0]
		}
		m.Parts = append(m.Parts, mark)
		m.Of++
	}
	m.Right = m.Got == m.Of && m.Of > 0
	return m
}

// match finds the right part that a given one is, -1 for none.
func (q Question) match(i neck.Instrument, g Given, taken []bool, any bool) (PartState, int) {
	misnamed := -1
	for n, p := range q.parts {
		if taken[n] && !any {
			continue
		}
		switch p.accepts(i, g) {
		case Right:
			return Right, n
		case Misnamed:
			misnamed = n
		}
	}
	if misnamed >= 0 {
		return Misnamed, misnamed
	}
	return Wrong, -1
}

// accepts says whether a given part is this one, or what is right in its place.
func (p part) accepts(i neck.Instrument, g Given) PartState {
	for _, other := range p.others {
		if (part{note: other}).accepts(i, g) == Right {
			return Right
		}
	}
	switch {
	case g.Place != nil && g.Note != nil: // written on the neck
		if !slices.Contains(p.places, *g.Place) || g.Note.Class() != p.note.Class() {
			return Wrong
		}
	case g.Place != nil && len(p.places) > 0:
		if !slices.Contains(p.places, *g.Place) {
			return Wrong
		}
	case g.Place != nil:
		if i.Pitch(*g.Place).Class() != p.note.Class() {
			return Wrong
		}
	case g.Note != nil:
		if g.Note.Class() != p.note.Class() {
			return Wrong
		}
		if p.byNote && *g.Note != p.note {
			return Misnamed
		}
	case g.Pitch != nil:
		if len(p.places) > 0 {
			if !slices.ContainsFunc(p.places, func(at neck.Place) bool { return i.Pitch(at) == *g.Pitch }) {
				return Wrong
			}
		} else if g.Pitch.Class() != p.note.Class() {
			return Wrong
		}
	}
	return Right
}

// markOrder marks parts one after the other: what comes after a wrong one is held against it as if
// it had been right.
func (q Question) markOrder(i neck.Instrument, answer Answer) Mark {
	m := Mark{Text: q.Text, Neck: q.lit(), Of: max(len(q.parts), len(answer.Given))}
	before := []Given{}
	for n, p := range q.parts {
		if n >= len(answer.Given) {
			mark := PartMark{State: Missing, Label: p.label, Given: -1}
			if at := p.lies(); len(at) > 0 {
				mark.Place = &at[0]
			}
			m.Parts = append(m.Parts, mark)
			continue
		}
		g := answer.Given[n]
		mark := PartMark{State: p.accepts(i, g), Label: p.label, Given: n, Place: g.Place}
		switch {
		case mark.State == Wrong:
			_, mark.Text = q.wrong(i, g)
			mark.Text = strings.TrimSuffix(fmt.Sprintf("%s was asked; this is %s", signed(p.label), mark.Text), "; this is ")
		case p.after != nil && !p.after(before, g):
			mark.State, mark.Text = Wrong, fmt.Sprintf("the %s is right, but it lies the other way or too far", signed(p.label))
		case mark.State == Right:
			m.Got++
		}
		before = append(before, g)
		m.Parts = append(m.Parts, mark)
	}
	for n := len(q.parts); n < len(answer.Given); n++ {
		label, text := q.wrong(i, answer.Given[n])
		m.Parts = append(m.Parts, PartMark{State: Wrong, Label: label, Given: n, Place: answer.Given[n].Place, Text: text})
	}
	m.Right = m.Got == m.Of && m.Of > 0
	return m
}

// wrong says what a given part is that is none of the answer.
func (q Question) wrong(i neck.Instrument, g Given) (label, text string) {
	class := pitch.Class(0)
	switch {
	case g.Note != nil:
		class = g.Note.Class()
	case g.Place != nil:
		class = i.Pitch(*g.Place).Class()
	case g.Pitch != nil:
		class = g.Pitch.Class()
	}
	if len(q.Card.Chords) == 0 {
		return q.Card.Key.Spell(class).String(), ""
	}
	tone := q.Card.Key.ToneOver(q.chord(), class)
	return tone.Degree.String(), fmt.Sprintf("%s, the %s", signed(tone.Note.String()), signed(tone.Degree.String()))
}

// lit is where the right answer lies.
func (q Question) lit() []LitPlace {
	all := []LitPlace{}
	for _, p := range q.parts {
		for n, place := range p.lies() {
			if (n == 0 || q.Form == OneOfThem) && !p.optional {
				all = append(all, LitPlace{place, p.label})
			}
		}
	}
	return all
}
