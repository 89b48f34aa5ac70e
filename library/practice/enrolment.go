package practice

import (
	"context"
	"errors"
	"maps"
	"slices"
	"sync"
	"time"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/practice"
	"undaris/core/practice/schedule"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/store"
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
func (p *Practice) Enrolled(ctx context.Context, scope Scope) ([]practice.Card, error) {
	player, err := documents.PlayerSettings.Read(ctx, p.library)
	if err != nil {
		return nil, err
	}
	if scope.EveryKey {
		i, _, _, err := player.Body.Hands.Core(0)
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
	tunes, err := documents.Charts.List(ctx, p.library, 0)
	if err != nil {
		return nil, err
	}
	memories, err := p.Memories(ctx)
	if err != nil {
		return nil, err
	}
	cards, known := []practice.Card{}, map[string]bool{}
	found := scope.ChartID == 0
	enrolled, fresh := 0, 0
	for _, tune := range tunes {
		if scope.ChartID != 0 && tune.ID != scope.ChartID || tune.Damaged != "" {
			continue
		}
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		found = true
		if scope.ChartID == 0 && enrolled >= leastTunes && fresh >= enoughFresh {
			break
		}
		enrolled++
		own, err := p.enrolledBy(ctx, tune.Info, player)
		if err != nil {
			return nil, err
		}
		for _, card := range own {
			if id := card.ID(); !known[id] {
				known[id] = true
				cards = append(cards, card)
				if memories[id].Reps == 0 {
					fresh++
				}
			}
		}
	}
	if !found {
		return nil, store.ErrNotFound
	}
	if scope.ChartID == 0 && enrolled < len(tunes) {
		cards = append(cards, askedBefore(tunes, memories, known)...)
	}
	return cards, nil
}

// How many tunes enrol their cards at least, and from how many new cards on no more tunes need to (our choice: a player
// meets some ten new cards a day; the tunes behind have their turn when those before them are known).
const (
	leastTunes  = 12
	enoughFresh = 400
)

// askedBefore are the cards that were asked before and belong to tunes that enrol none yet: those in the keys of tunes that
// are there, in the order of their ids.
func askedBefore(tunes []documents.Entry[documents.ChartSummary], memories map[string]schedule.Memory, known map[string]bool) []practice.Card {
	keys := map[document.Key]bool{}
	for _, tune := range tunes {
		keys[tune.Summary.Key] = true
	}
	cards := []practice.Card{}
	for _, id := range slices.Sorted(maps.Keys(memories)) {
		if known[id] || memories[id].Reps == 0 {
			continue
		}
		card, err := practice.ParseCard(id)
		if err == nil && keys[document.Key{Tonic: card.Key.Tonic.String(), Mode: string(card.Key.Mode)}] {
			cards = append(cards, card)
		}
	}
	return cards
}

// enrolment is the cards of one version of a tune, for one version of the player's hands.
type enrolment struct {
	version, player int
	cards           []practice.Card
}

// enrolments are remembered by their tunes: they take a while to list, and change only with them.
type enrolments struct {
	mutex sync.Mutex
	known map[uint]enrolment
}

func (e *enrolments) forget() {
	e.mutex.Lock()
	defer e.mutex.Unlock()
	clear(e.known)
}

// enrolledBy are the cards of a tune; none of one that cannot be played.
func (p *Practice) enrolledBy(ctx context.Context, tune documents.Info, player documents.KeptSetting[document.Player]) ([]practice.Card, error) {
	p.enrolments.mutex.Lock()
	remembered, ok := p.enrolments.known[tune.ID]
	p.enrolments.mutex.Unlock()
	if ok && remembered.version == tune.Version && remembered.player == player.Version {
		return remembered.cards, nil
	}
	item, err := documents.Charts.Read(ctx, p.library, tune.ID)
	var damaged *documents.DamagedError
	if errors.As(err, &damaged) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	over, _, err := document.PlayContextOf(item.Body, &player.Body.Hands)
	if err != nil {
		return nil, nil // on such strings it is not played
	}
	fresh := enrolment{tune.Version, player.Version, schedule.Enrol(over.Chart, over.Instrument)}
	p.enrolments.mutex.Lock()
	p.enrolments.known[tune.ID] = fresh
	p.enrolments.mutex.Unlock()
	return fresh.cards, nil
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
func (p *Practice) PracticeWork(ctx context.Context, enrolled []practice.Card, now time.Time, ahead time.Duration) (PracticeWork, error) {
	work := PracticeWork{}
	memories, err := p.Memories(ctx)
	if err != nil {
		return work, err
	}
	settings, err := documents.PracticeSettings.Read(ctx, p.library)
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
	today, err := p.store.CountNewSince(ctx, midnight)
	if err != nil {
		return work, err
	}
	work.New = schedule.NewCards(enrolled, memories, max(settings.Body.NewPerDay()-today, 0))
	all, err := p.store.Reviews(ctx, "", mediansOf)
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
