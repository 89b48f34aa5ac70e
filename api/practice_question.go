package api

import (
	"context"
	"errors"
	"fmt"
	"math"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/practice"
	"undaris/format/document"
)

// QuestionRequest asks for a question about a card. The same request gets the same question.
type QuestionRequest struct {
	Hands    *document.Hands `json:"hands,omitempty" doc:"Left out for a guitar in standard tuning"`
	Capo     int             `json:"capo,omitempty" minimum:"0" maximum:"12" doc:"The fret of the capo; places count from it"`
	Card     string          `json:"card" maxLength:"600" doc:"Its id: kind|key|position|chords" example:"find it|C dominant|E|C7"`
	Seed     uint32          `json:"seed" doc:"The same seed asks the same"`
	Strategy string          `json:"strategy,omitempty" doc:"What the player aims at; left out for thirds first"`
	Meter    string          `json:"meter,omitempty" doc:"For what is asked in time; left out for 4/4"`
}

// CardFacts say what a card is about.
type CardFacts struct {
	ID       string `json:"id"`
	Kind     string `json:"kind"`
	Text     string `json:"text" doc:"What is asked, in a few words"`
	Subject  string `json:"subject" doc:"The chord or the change it is about"`
	Key      string `json:"key" doc:"The tonic of its key"`
	Position string `json:"position" doc:"The name of its position; empty where it has none"`
}

func cardFacts(card practice.Card) CardFacts {
	facts, _ := practice.FindKind(string(card.Kind))
	return CardFacts{ID: card.ID(), Kind: string(card.Kind), Text: facts.Text, Subject: card.Subject(), Key: card.Key.Tonic.String(), Position: card.Position}
}

// LitPlace is a place that is lit, with what stands on it.
type LitPlace struct {
	Place
	Label string `json:"label" doc:"A degree; empty for none, ? where it is asked for"`
}

// HeardChord is what is heard at once.
type HeardChord struct {
	Places []Place `json:"places"`
	Beats  int     `json:"beats"`
}

// Question is one question, without its answer.
type Question struct {
	Card       CardFacts    `json:"card"`
	Form       string       `json:"form" enum:"all of them,in order,one of them,written,chosen" doc:"How it is answered"`
	Chord      string       `json:"chord" doc:"The symbol it is over; empty for none"`
	Title      string       `json:"title" doc:"What is asked"`
	Detail     string       `json:"detail"`
	Position   *FretSpan    `json:"position,omitempty" doc:"Where the hand stands; left out where the neck is not needed"`
	Label      string       `json:"label" doc:"The position as it is called"`
	NeedsPlace bool         `json:"needsPlace" doc:"A pitch or a name alone is no answer"`
	ByNote     bool         `json:"byNote" doc:"It is answered with the names of notes"`
	Shown      []LitPlace   `json:"shown" doc:"What is lit on the neck"`
	Cells      []Place      `json:"cells" doc:"The places that are to be named"`
	Parts      int          `json:"parts" doc:"How many parts its answer has, as far as that is told; 0 where it is not"`
	Choices    []string     `json:"choices"`
	Heard      []HeardChord `json:"heard" doc:"What is to be listened to, one after the other"`
	Band       *HeardBars   `json:"band,omitempty" doc:"What the band plays in place of what is heard; left out where it does not"`
	Hint       string       `json:"hint" doc:"What helps; it costs"`
	Strings    []string     `json:"strings" doc:"The open strings, string 1 first"`
	Open       []int        `json:"open" doc:"What they sound, as MIDI numbers"`
	Frets      int          `json:"frets"`
}

// HeardBars are bars of a form that the band plays.
type HeardBars struct {
	Chords []string     `json:"chords" doc:"The whole form, a bar for each"`
	Key    document.Key `json:"key"`
	From   int          `json:"from" doc:"The first bar that is heard, from 1"`
	Bars   int          `json:"bars"`
}

// FretSpan is the frets of a position.
type FretSpan struct {
	Low     int `json:"low"`
	High    int `json:"high"`
	Core    int `json:"core"`
	CoreEnd int `json:"coreEnd"`
}

// GivenPart is one part of an answer: a place, a note, or a pitch.
type GivenPart struct {
	Place *Place  `json:"place,omitempty"`
	Note  *string `json:"note,omitempty" doc:"The name of a note"`
	MIDI  *int    `json:"midi,omitempty" minimum:"0" maximum:"127"`
}

// GivenAnswer is an answer.
type GivenAnswer struct {
	Given  []GivenPart `json:"given,omitempty" maxItems:"200"`
	Choice string      `json:"choice,omitempty"`
}

// MarkRequest is an answer to a question.
type MarkRequest struct {
	QuestionRequest
	Answer GivenAnswer `json:"answer"`
}

// AnswerMark is an answer, marked.
type AnswerMark struct {
	Right bool         `json:"right"`
	Got   int          `json:"got" doc:"How many parts were right"`
	Of    int          `json:"of"`
	Parts []MarkedPart `json:"parts"`
	Text  string       `json:"text" doc:"What is right, in one sentence"`
	Neck  []LitPlace   `json:"neck" doc:"Where the right answer lies"`
}

// MarkedPart is how one part was answered.
type MarkedPart struct {
	State string `json:"state" enum:"right,wrong,missing,misnamed"`
	Label string `json:"label" doc:"What it is"`
	Given int    `json:"given" doc:"The part of the answer, by its index; -1 where none was given"`
	Place *Place `json:"place,omitempty"`
	Text  string `json:"text,omitempty" doc:"What is wrong with it"`
}

// askedQuestion is a question request, read.
type askedQuestion struct {
	question   practice.Question
	instrument neck.Instrument
}

func (r QuestionRequest) ask() (askedQuestion, error) {
	i, _, swaps, err := r.Hands.Core(r.Capo)
	if err != nil {
		return askedQuestion{}, invalid("hands", err)
	}
	strategy := change.ThirdsFirst
	if r.Strategy != "" {
		if strategy, err = change.ParseTargetStrategy(r.Strategy); err != nil {
			return askedQuestion{}, invalid("strategy", err)
		}
	}
	meter := chart.FourFour
	if r.Meter != "" {
		if meter, err = chart.ParseMeter(r.Meter); err != nil {
			return askedQuestion{}, invalid("meter", err)
		}
	}
	card, err := practice.ParseCard(r.Card)
	if err != nil {
		return askedQuestion{}, invalid("card", err)
	}
	q, err := practice.Ask(practice.Context{Instrument: i, Swaps: swaps, Strategy: strategy, Meter: meter}, card, uint64(r.Seed))
	if err != nil {
		return askedQuestion{}, invalid("card", err)
	}
	return askedQuestion{q, i}, nil
}

func (a askedQuestion) view() Question {
	q := a.question
	v := Question{
		Card: cardFacts(q.Card), Form: string(q.Form), Chord: q.Chord, Title: q.Title, Detail: q.Detail, NeedsPlace: q.NeedsPlace,
		ByNote: q.ByNote(), Shown: litPlaces(q.Shown), Cells: places(q.Cells), Parts: q.Parts, Choices: append([]string{}, q.Choices...), Heard: []HeardChord{}, Hint: q.Hint,
		Strings: a.instrument.OpenNames(), Frets: a.instrument.Frets,
		Open: each(a.instrument.Open, func(p pitch.MIDI) int { return int(p) }),
	}
	for _, h := range q.Heard {
		v.Heard = append(v.Heard, HeardChord{places(h.Places), h.Beats})
	}
	if q.HeardBars.Bars > 0 {
		key := q.Card.Key
		v.Band = &HeardBars{Key: document.Key{Tonic: key.Tonic.String(), Mode: string(key.Mode)}, From: q.HeardBars.From + 1, Bars: q.HeardBars.Bars}
		for _, chord := range q.Card.Chords {
			v.Band.Chords = append(v.Band.Chords, chord.Symbol())
		}
	}
	if p := q.Position; p.CoreEnd > 0 {
		v.Position = &FretSpan{Low: p.Low, High: p.High, Core: p.Core, CoreEnd: p.CoreEnd}
		if q.Card.Position != "" && p.Form != "" {
			v.Label = fmt.Sprintf("%s, %d–%d", p.Label(), p.Core, p.CoreEnd)
		}
	}
	return v
}

func places(all []neck.Place) []Place {
	return each(all, func(p neck.Place) Place { return Place{String: p.String, Fret: p.Fret} })
}

func litPlaces(all []practice.LitPlace) []LitPlace {
	return each(all, func(p practice.LitPlace) LitPlace {
		return LitPlace{Place{String: p.String, Fret: p.Fret}, p.Label}
	})
}

func (a askedQuestion) mark(answer GivenAnswer) (AnswerMark, error) {
	given := practice.Answer{Choice: answer.Choice}
	for n, g := range answer.Given {
		part := practice.Given{}
		if g.Place != nil {
			part.Place = &neck.Place{String: g.Place.String, Fret: g.Place.Fret}
		}
		if g.Note != nil {
			note, err := pitch.ParseNote(*g.Note)
			if err != nil {
				return AnswerMark{}, invalid(fmt.Sprintf("answer.given[%d].note", n), err)
			}
			part.Note = &note
		}
		if g.MIDI != nil {
			sounds := pitch.MIDI(*g.MIDI)
			part.Pitch = &sounds
		}
		if part == (practice.Given{}) {
			return AnswerMark{}, invalid(fmt.Sprintf("answer.given[%d]", n), errors.New("a part of an answer is a place, a note or a pitch"))
		}
		given.Given = append(given.Given, part)
	}
	m, err := a.question.Mark(a.instrument, given)
	if err != nil {
		return AnswerMark{}, invalid("answer", err)
	}
	v := AnswerMark{Right: m.Right, Got: m.Got, Of: m.Of, Text: m.Text, Neck: litPlaces(m.Neck), Parts: []MarkedPart{}}
	for _, p := range m.Parts {
		part := MarkedPart{State: string(p.State), Label: p.Label, Given: p.Given, Text: p.Text}
		if p.Place != nil {
			part.Place = &Place{String: p.Place.String, Fret: p.Place.Fret}
		}
		v.Parts = append(v.Parts, part)
	}
	return v, nil
}

func (s *server) registerComputeQuestion(api huma.API) {
	posts(api, "/api/compute/practice/question", func(_ context.Context, in *body[QuestionRequest]) (*body[Question], error) {
		a, err := in.Body.ask()
		if err != nil {
			return nil, err
		}
		return &body[Question]{a.view()}, nil
	})
	posts(api, "/api/compute/practice/mark", func(_ context.Context, in *body[MarkRequest]) (*body[AnswerMark], error) {
		a, err := in.Body.ask()
		if err != nil {
			return nil, err
		}
		m, err := a.mark(in.Body.Answer)
		return &body[AnswerMark]{m}, err
	})
}

// roundedShare is a share to two digits, so that answers are short.
func roundedShare(part, whole int) float64 {
	if whole == 0 {
		return 0
	}
	return math.Round(100*float64(part)/float64(whole)) / 100
}
