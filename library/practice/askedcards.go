package practice

import (
	"context"
	"strings"
	"time"

	"undaris/core/practice/schedule"
)

// AskedCard is a card that was asked, with how it went.
type AskedCard struct {
	ID string
	// Key is the tonic, Position the name of the position, empty for none.
	Key, Position  string
	Answers, Right int
	Last           time.Time
}

// cardHistory is what is known of the cards that were asked.
type cardHistory struct {
	cards    []AskedCard
	memories map[string]schedule.Memory
}

// AskedCards lists the cards that were asked, in the order of their ids. They are distinguished by the
// parts of their ids alone: there may be thousands.
func (p *Practice) AskedCards(ctx context.Context) ([]AskedCard, error) {
	known, err := p.askedCards(ctx)
	return known.cards, err
}

func (p *Practice) askedCards(ctx context.Context) (cardHistory, error) {
	changes, err := p.store.CardChanges(ctx)
	if err != nil {
		return cardHistory{}, err
	}
	return p.remembered.cards.at(changes, func() (cardHistory, error) { return p.readAskedCards(ctx) })
}

func (p *Practice) readAskedCards(ctx context.Context) (cardHistory, error) {
	cards, err := p.store.Cards(ctx)
	known := cardHistory{cards: make([]AskedCard, 0, len(cards)), memories: make(map[string]schedule.Memory, len(cards))}
	for _, c := range cards {
		known.memories[c.ID] = memoryOf(c)
		parts := strings.SplitN(c.ID, "|", 4)
		if len(parts) < 4 || c.Reps == 0 {
			continue
		}
		tonic, _, _ := strings.Cut(parts[1], " ")
		known.cards = append(known.cards, AskedCard{ID: c.ID, Key: tonic, Position: parts[2], Answers: c.Answers, Right: c.RightAnswers, Last: c.LastReviewAt})
	}
	return known, err
}
