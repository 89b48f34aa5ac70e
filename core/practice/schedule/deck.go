package schedule

import (
	"cmp"
	"slices"
	"time"

	"undaris/core/harmony"
	"undaris/core/practice"
)

// Known is a card that was asked before.
type Known struct {
	Card   practice.Card
	Memory Memory
}

// Due lists the enrolled cards that are due at a time, the weakest first: the less likely it is that
// a card is still remembered, the sooner it is asked. Memories are by the ids of their cards; a card
// that is not enrolled any more rests.
func Due(memories map[string]Memory, enrolled []practice.Card, at time.Time) []Known {
	type weighed struct {
		Known
		chance float64
	}
	due := []weighed{}
	for _, card := range enrolled {
		if m, ok := memories[card.ID()]; ok && m.Reps > 0 && !m.Due.After(at) {
			due = append(due, weighed{Known{card, m}, m.Retrievability(at)})
		}
	}
	slices.SortStableFunc(due, func(a, b weighed) int {
		return cmp.Or(cmp.Compare(a.chance, b.chance), a.Memory.Due.Compare(b.Memory.Due))
	})
	all := make([]Known, len(due))
	for n, d := range due {
		all[n] = d.Known
	}
	return all
}

// NewCards lists so many cards that were never asked, of those enrolled in a teacher's order: first
// those in keys that are known already, then in the keys nearest to them round the circle of
// fifths.
func NewCards(enrolled []practice.Card, memories map[string]Memory, count int) []practice.Card {
	keys := []harmony.Key{}
	fresh := []practice.Card{}
	for _, card := range enrolled {
		if memories[card.ID()].Reps > 0 {
			keys = append(keys, card.Key)
		} else {
			fresh = append(fresh, card)
		}
	}
	if len(keys) == 0 && len(enrolled) > 0 {
		keys = append(keys, enrolled[0].Key)
	}
	near := map[harmony.Key]int{}
	for _, card := range fresh {
		if _, done := near[card.Key]; done {
			continue
		}
		near[card.Key] = 12
		for _, key := range keys {
			near[card.Key] = min(near[card.Key], fifthsApart(key, card.Key))
		}
	}
	slices.SortStableFunc(fresh, func(a, b practice.Card) int { return cmp.Compare(near[a.Key], near[b.Key]) })
	return fresh[:min(count, len(fresh))]
}

// fifthsApart is how many fifths lie between two tonics, the shorter way round; keys of another
// mode on one tonic are one apart.
func fifthsApart(a, b harmony.Key) int {
	up := (7 * a.Tonic.Class().Above(b.Tonic.Class())) % 12
	apart := min(up, 12-up)
	if apart == 0 && a.Mode != b.Mode {
		return 1
	}
	return apart
}
