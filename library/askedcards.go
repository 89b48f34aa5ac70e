package library

import (
	"context"
	"strings"
	"time"
)

// AskedCard is a card that was asked, with how it went.
type AskedCard struct {
	ID string
	// Key is the tonic, Position the name of the position, empty for none.
	Key, Position  string
	Answers, Right int
	Last           time.Time
}

// AskedCards lists the cards that were asked, in the order of their ids. They are told apart by the
// parts of their ids alone: there may be thousands.
func (l *Library) AskedCards(ctx context.Context) ([]AskedCard, error) {
	cards, err := l.store.Cards(ctx)
	all := make([]AskedCard, 0, len(cards))
	for _, c := range cards {
		parts := strings.SplitN(c.ID, "|", 4)
		if len(parts) < 4 || c.Reps == 0 {
			continue
		}
		tonic, _, _ := strings.Cut(parts[1], " ")
		all = append(all, AskedCard{ID: c.ID, Key: tonic, Position: parts[2], Answers: c.Answers, Right: c.RightAnswers, Last: c.LastReviewAt})
	}
	return all, err
}
