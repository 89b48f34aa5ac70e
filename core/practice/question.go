package practice

import (
	"fmt"
	"math/rand/v2"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Context is what a question is asked with, beside its card.
type Context struct {
	Instrument neck.Instrument
	Swaps      []neck.Swap
	Strategy   change.TargetStrategy
	Meter      chart.Meter
}

// AnswerForm is how a question is answered.
type AnswerForm string

// The forms of an answer.
const (
	// AllOfThem is a set of notes or places, in any order.
	AllOfThem AnswerForm = "all of them"
	// InOrder is notes or places one after the other.
	InOrder AnswerForm = "in order"
	// OneOfThem is one place or note, of several that are right.
	OneOfThem AnswerForm = "one of them"
	// Written is the name of the note of each of the given places.
	Written AnswerForm = "written"
	// Chosen is one of the choices.
	Chosen AnswerForm = "chosen"
)

// Question is one question about a card. It knows every right answer.
type Question struct {
	Card Card
	Form AnswerForm
	// Chord is the symbol that it is over, empty for none; Title says what is asked, Detail how.
	Chord, Title, Detail string
	// Position is where the hand stands; its zero value where the whole neck is meant.
	Position neck.Position
	// NeedsPlace says that a pitch alone is no answer: it must be said where it lies.
	NeedsPlace bool
	// Shown are the places that are lit, Cells those that are to be named.
	Shown []LitPlace
	Cells []neck.Place
	// Parts is how many parts the answer has; 0 where the player is not to know.
	Parts int
	// Choices are those of a chosen answer.
	Choices []string
	// Heard is what is to be listened to, one after the other.
	Heard []Sound
	// HeardBars are bars of the card's progression that the band plays in their place, one for each
	// chord, from 0; of no bars nothing is.
	HeardBars BarRange
	// Hint helps a little.
	Hint string
	// Text says in one sentence what is right.
	Text string

	parts []part
	right []string
}

// LitPlace is a place that is shown, with what stands on it.
type LitPlace struct {
	neck.Place
	Label string
}

// Sound is what is heard at once: several places strummed, or one.
type Sound struct {
	Places []neck.Place
	// Beats is how long it sounds.
	Beats int
}

// BarRange is some bars, the first of them from 0.
type BarRange struct{ From, Bars int }

// part is one part of the right answer.
type part struct {
	// label is its degree or note, note its name. Places are where it must be played, shown where
	// it lies if it may be played anywhere that sounds so.
	label         string
	note          pitch.Note
	places, shown []neck.Place
	// others are notes that are right in its place.
	others []pitch.Note
	// after says whether it may come after the notes before; nil where it may.
	after func(before []Given, g Given) bool
	// byNote says that the name must be right, not only the sound.
	byNote bool
	// optional is right where it is given, and not missed where it is not.
	optional bool
}

// maker makes the questions of a card.
type maker struct {
	Context
	card Card
	at   neck.Position
	r    *rand.Rand
}

// Ask makes a question of a card from a seed: the same seed makes the same question. Its error is
// a *CardError where the card cannot be asked on this instrument or over its chords.
func Ask(c Context, card Card, seed uint64) (Question, error) {
	facts, err := FindKind(string(card.Kind))
	if err != nil {
		return Question{}, &CardError{err.Error()}
	}
	if err := card.check(facts); err != nil {
		return Question{}, err
	}
	if facts.NeedsForms && !c.Instrument.HasNamedForms() {
		return Question{}, &CardError{fmt.Sprintf("%s needs the five forms, which lie on six strings tuned like a guitar's; %s and %s are asked on any strings", card.Kind, Find, Name)}
	}
	a := maker{Context: c, card: card, at: card.position(c.Instrument), r: rand.New(rand.NewPCG(seed, number(card.ID())))}
	q, err := a.question()
	if err != nil {
		return Question{}, err
	}
	q.Card = card
	if facts.InPosition && q.Position.CoreEnd == 0 {
		q.Position = a.at
	}
	return q, nil
}

// number makes a number of a text, so that cards asked from one seed draw apart.
func number(text string) uint64 {
	n := uint64(0)
	for _, c := range text {
		n = 31*n + uint64(c)
	}
	return n
}

func (a maker) question() (Question, error) {
	switch a.card.Kind {
	case SpellChord, SpellScale:
		return a.spell(), nil
	case Find:
		return a.find()
	case Name, NameNext:
		return a.name()
	case Arpeggio:
		return a.arpeggio()
	case ScaleFrom:
		return a.scale()
	case Landing:
		return a.landing()
	case WriteOut:
		return a.writeOut(), nil
	case WhichForm:
		return a.whichForm()
	case WhereForm:
		return a.whereForm()
	case EarDegree:
		return a.earDegree()
	case EarChord:
		return a.earChord()
	case EarBar:
		return a.earBar()
	case RunStart:
		return a.runStart()
	case BoxAndChord:
		return a.boxAndChord()
	default:
		return a.guideLine()
	}
}

// pick draws one of several.
func pick[T any](r *rand.Rand, all []T) T { return all[r.IntN(len(all))] }

// inCore says whether a place lies under the hand, without a reach; open strings count where the
// position begins at the nut.
func inCore(w neck.Window, p neck.Place) bool { return p.Fret >= w.Core && p.Fret <= w.CoreEnd }

// placesOf are the places in a window that sound a class, string 1 first.
func (a maker) placesOf(class pitch.Class, w neck.Window) []neck.Place {
	all := []neck.Place{}
	for s := range a.Instrument.Open {
		for fret := w.Low; fret <= w.High; fret++ {
			p := neck.Place{String: s + 1, Fret: fret}
			if a.Instrument.Has(p) && a.Instrument.Pitch(p).Class() == class {
				all = append(all, p)
			}
		}
	}
	return all
}

// signed are labels with signs for what is read.
func signed(text string) string { return pitch.Signed(text) }

// chord is the chord that degrees are over: that of the question, the last of its card otherwise.
func (q Question) chord() harmony.Chord {
	for _, c := range q.Card.Chords {
		if c.Symbol() == q.Chord {
			return c
		}
	}
	return q.Card.Chords[len(q.Card.Chords)-1]
}

// RightAnswer is one right answer.
func (q Question) RightAnswer() Answer {
	if q.Form == Chosen {
		return Answer{Choice: q.right[0]}
	}
	a := Answer{}
	for n, p := range q.parts {
		if p.optional || q.Form == OneOfThem && n > 0 {
			continue
		}
		given := Given{}
		if at := p.lies(); len(at) > 0 {
			given.Place = &at[0]
		}
		if given.Place == nil || q.Form == Written {
			given.Note = &p.note
		}
		a.Given = append(a.Given, given)
	}
	return a
}

// lies is where a part is played.
func (p part) lies() []neck.Place {
	if len(p.places) > 0 {
		return p.places
	}
	return p.shown
}

// ByNote says whether it is answered with the names of notes, and no place is asked for.
func (q Question) ByNote() bool {
	return q.Form == AllOfThem && !q.NeedsPlace && len(q.parts) > 0 && q.parts[0].byNote
}
