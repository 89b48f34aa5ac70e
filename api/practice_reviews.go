package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/practice"
	"undaris/core/practice/schedule"
	keptpractice "undaris/library/practice"
	"undaris/store"
)

// DeckQuery chooses what cards are drawn from.
type DeckQuery struct {
	ChartID  uint     `query:"chart" doc:"The tune; left out for all tunes"`
	EveryKey bool     `query:"everyKey" doc:"The chords of a blues in the twelve keys, whatever tunes there are"`
	Kind     string   `query:"kind" doc:"Only drills of this kind; left out for all"`
	Cards    []string `query:"cards,explode" maxItems:"64" doc:"These cards, due or not, and no others"`
	Count    int      `query:"count" minimum:"1" maximum:"200" default:"40" doc:"How many cards at most"`
	Today    string   `query:"today" doc:"The player's day, as 2026-03-01; left out for the server's"`
	Offset   int      `query:"offset" minimum:"-900" maximum:"900" doc:"How many minutes the player's clock is ahead of universal time"`
}

// Deck is what is to be asked today, the weakest first, then what is new.
type Deck struct {
	Due     int         `json:"due" doc:"How many cards are due"`
	New     int         `json:"new" doc:"How many new ones may come today"`
	Known   int         `json:"known" doc:"How many cards of the scope were asked before"`
	All     int         `json:"all" doc:"How many cards the scope has"`
	Seconds float64     `json:"seconds" doc:"How long a card takes the player, in the middle; 0 where it is not known"`
	Cards   []CardFacts `json:"cards"`
	Text    string      `json:"text" doc:"What there is to do, in one sentence"`
}

// KeepReview is an answer that counts.
type KeepReview struct {
	MarkRequest
	Hints         int `json:"hints,omitempty" minimum:"0" maximum:"20" doc:"How often help was taken"`
	TookMS        int `json:"tookMs" minimum:"0" maximum:"3600000" doc:"How long it took"`
	OffsetMinutes int `json:"offsetMinutes" minimum:"-900" maximum:"900" doc:"How far the player's clock is ahead of universal time"`
	// UID is left out by who sends an answer once.
	UID string `json:"uid,omitempty" maxLength:"64" doc:"Made up by the page: an answer that is sent again under the same counts once"`
}

// KeptReview is an answer as it was marked and kept.
type KeptReview struct {
	ID    uint       `json:"id" doc:"By which it can be taken back"`
	Mark  AnswerMark `json:"mark"`
	Grade string     `json:"grade" enum:"again,hard,good,easy"`
	Due   time.Time  `json:"due" doc:"When the card is asked again"`
	Text  string     `json:"text" doc:"When it comes again, in words"`
}

var gradeNames = map[schedule.Grade]string{schedule.Again: "again", schedule.Hard: "hard", schedule.Good: "good", schedule.Easy: "easy"}

func (s *server) registerReviews(api huma.API) {
	gets(api, "/api/practice/deck", func(ctx context.Context, in *DeckQuery) (*body[Deck], error) {
		deck, err := s.deck(ctx, *in)
		return &body[Deck]{deck}, err
	})
	posts(api, "/api/practice/reviews", func(ctx context.Context, in *body[KeepReview]) (*body[KeptReview], error) {
		a, err := in.Body.ask()
		if err != nil {
			return nil, err
		}
		mark, err := a.mark(in.Body.Answer)
		if err != nil {
			return nil, err
		}
		now := s.now()
		kept, err := s.practice.KeepAnswer(ctx, keptpractice.Answer{
			UID: in.Body.UID, Card: a.question.Card, At: now, OffsetMinutes: in.Body.OffsetMinutes, Right: mark.Right, Got: mark.Got, Of: mark.Of,
			Hints: in.Body.Hints, Took: time.Duration(in.Body.TookMS) * time.Millisecond,
		})
		if err != nil {
			return nil, err
		}
		return &body[KeptReview]{KeptReview{ID: kept.ID, Mark: mark, Grade: gradeNames[kept.Grade], Due: kept.Memory.Due, Text: againIn(kept.Memory.Due.Sub(now))}}, nil
	}, created)
	huma.Post(api, "/api/practice/reviews/{id}/takeback", func(ctx context.Context, in *byID) (*struct{}, error) {
		err := s.practice.TakeBack(ctx, in.ID)
		if errors.Is(err, store.ErrNotLast) {
			return nil, problem(http.StatusConflict, "only the last answer to a card can be taken back, and only once")
		}
		return nil, storeProblem("answer", in.ID, err)
	})
}

// againIn says when a card comes again.
func againIn(d time.Duration) string {
	switch days := int(d.Hours()/24 + 0.5); {
	case d < time.Hour:
		return fmt.Sprintf("again in %s", counted(max(int(d.Minutes()+0.5), 1), "minute", "minutes"))
	case days < 1:
		return "again today"
	case days == 1:
		return "again tomorrow"
	case days < 60:
		return fmt.Sprintf("again in %d days", days)
	default:
		return fmt.Sprintf("again in %d months", days/30)
	}
}

// deck is what is to be asked.
func (s *server) deck(ctx context.Context, in DeckQuery) (Deck, error) {
	deck := Deck{Cards: []CardFacts{}}
	if in.Kind != "" {
		if _, err := practice.FindKind(in.Kind); err != nil {
			return deck, invalidAt("query.kind", err)
		}
	}
	if len(in.Cards) > 0 {
		return chosenDeck(in.Cards)
	}
	now := s.now()
	enrolled, err := s.practice.Enrolled(ctx, keptpractice.Scope{ChartID: in.ChartID, EveryKey: in.EveryKey})
	if err != nil {
		return deck, storeProblem("chart", in.ChartID, err)
	}
	if in.Kind != "" {
		wanted := []practice.Card{}
		for _, card := range enrolled {
			if string(card.Kind) == in.Kind {
				wanted = append(wanted, card)
			}
		}
		enrolled = wanted
	}
	work, err := s.practice.PracticeWork(ctx, enrolled, now, time.Duration(in.Offset)*time.Minute)
	if err != nil {
		return deck, err
	}
	deck.Due, deck.New, deck.Known, deck.All, deck.Seconds = len(work.Due), len(work.New), work.Known, len(enrolled), work.Seconds
	for _, card := range append(work.Due, work.New...) {
		if len(deck.Cards) < max(in.Count, 1) {
			deck.Cards = append(deck.Cards, cardFacts(card))
		}
	}
	deck.Text = deckText(deck)
	return deck, nil
}

// chosenDeck has the cards that are asked for, each once.
func chosenDeck(ids []string) (Deck, error) {
	deck, known := Deck{Cards: []CardFacts{}}, map[string]bool{}
	for _, id := range ids {
		card, err := practice.ParseCard(id)
		if err != nil {
			return deck, invalidAt("query.cards", err)
		}
		if !known[card.ID()] {
			known[card.ID()] = true
			deck.Cards = append(deck.Cards, cardFacts(card))
		}
	}
	deck.All = len(deck.Cards)
	deck.Text = fmt.Sprintf("%s from your take.", counted(deck.All, "change", "changes"))
	return deck, nil
}

func deckText(d Deck) string {
	switch {
	case d.All == 0:
		return "No tune has cards to ask: write a chord into one."
	case d.Due == 0 && d.New == 0:
		return "Nothing is due today."
	case d.Due == 0:
		return fmt.Sprintf("Nothing is due; %s can come.", counted(d.New, "new card", "new cards"))
	case d.New == 0:
		return fmt.Sprintf("%s today.", counted(d.Due, "card is due", "cards are due"))
	}
	return fmt.Sprintf("%s today, and %s can come.", counted(d.Due, "card is due", "cards are due"), counted(d.New, "new one", "new ones"))
}
