package library

import (
	"context"
	"slices"
	"time"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/practice"
	"undaris/core/practice/schedule"
	"undaris/format/document"
)

// Scope is what cards are drawn from.
type Scope struct {
	// ChartID is one tune, 0 for all.
	ChartID uint
	// EveryKey asks for the three chords of a blues in the twelve keys, whatever tunes there are.
	EveryKey bool
}

// Enrolled lists the cards of a scope, each once, in the order that a teacher would choose within
// each tune; the tunes as they were made. A tune that cannot be read enrols none.
func (l *Library) Enrolled(ctx context.Context, scope Scope) ([]practice.Card, error) {
	player, err := l.Player(ctx)
	if err != nil {
		return nil, err
	}
	if scope.EveryKey {
		i, _, _, err := player.Player.Hands.Core(0)
		if err != nil {
			return nil, err
		}
		charts := []chart.Chart{}
		for fifths := range 12 {
			tonic := harmony.TonicOf((fifths+6)%12-6, harmony.DominantMode)
			key := harmony.Key{Tonic: tonic, Mode: harmony.DominantMode}
			scheme, err := chart.FindScheme("quick change")
			if err != nil {
				return nil, err
			}
			charts = append(charts, chart.Chart{Key: key, Meter: chart.FourFour, Tempo: 100, Bars: scheme.Bars(tonic, chart.FourFour)})
		}
		cards := []practice.Card{}
		for _, c := range charts {
			cards = append(cards, schedule.Enrol(c, i)...)
		}
		return cards, nil
	}
	items, err := l.tunes(ctx, scope.ChartID)
	if err != nil {
		return nil, err
	}
	cards, known := []practice.Card{}, map[string]bool{}
	for _, item := range items {
		over, _, err := document.Playing(item.Body, &player.Player.Hands)
		if err != nil {
			continue
		}
		for _, card := range schedule.Enrol(over.Chart, over.Instrument) {
			if id := card.ID(); !known[id] {
				known[id] = true
				cards = append(cards, card)
			}
		}
	}
	return cards, nil
}

// tunes are one tune or all of them.
func (l *Library) tunes(ctx context.Context, chartID uint) ([]Item[document.Chart], error) {
	if chartID == 0 {
		return Charts.ReadAll(ctx, l, 0)
	}
	item, err := Charts.Read(ctx, l, chartID)
	return []Item[document.Chart]{item}, err
}

// PracticeWork is what there is to ask.
type PracticeWork struct {
	// Due are the weakest first, New in the order in which they should come.
	Due, New []practice.Card
	// Known is how many of the enrolled cards were asked before.
	Known int
	// Seconds is how long a card takes in the middle, 0 where it is not known.
	Seconds float64
}

// PracticeWork says what of the enrolled cards is to be asked at a time: what is due, and as many new
// ones as the day of the player's clock, which is so far ahead, has left.
func (l *Library) PracticeWork(ctx context.Context, enrolled []practice.Card, now time.Time, ahead time.Duration) (PracticeWork, error) {
	work := PracticeWork{}
	memories, err := l.Memories(ctx)
	if err != nil {
		return work, err
	}
	settings, err := l.PracticeSettings(ctx)
	if err != nil {
		return work, err
	}
	for _, known := range schedule.Due(memories, enrolled, now) {
		work.Due = append(work.Due, known.Card)
	}
	for _, card := range enrolled {
		if memories[card.ID()].Reps > 0 {
			work.Known++
		}
	}
	midnight := now.UTC().Add(ahead).Truncate(24 * time.Hour).Add(-ahead)
	today, err := l.store.CountNewSince(ctx, midnight)
	if err != nil {
		return work, err
	}
	work.New = schedule.NewCards(enrolled, memories, max(settings.Settings.NewPerDay()-today, 0))
	all, err := l.store.Reviews(ctx, "", mediansOf)
	if err != nil || len(all) == 0 {
		return work, err
	}
	took := []int{}
	for _, r := range all {
		took = append(took, r.TookMS)
	}
	slices.Sort(took)
	work.Seconds = float64(took[len(took)/2]) / 1000
	return work, nil
}
