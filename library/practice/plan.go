package practice

import (
	"context"
	"time"

	"undaris/core/practice/logbook"
	"undaris/core/practice/plan"
	"undaris/library/documents"
	"undaris/store"
)

// PlanFor makes a plan of so many minutes from what is kept: the cards due, the licks, exercises and tunes with
// what the log says of them, and what the player works towards. Its error is a *plan.MinutesError
// for minutes that no plan has.
func (p *Practice) PlanFor(ctx context.Context, minutes int, now time.Time, ahead time.Duration) (blocks, others []plan.Block, err error) {
	request, err := p.planRequest(ctx, minutes, now, ahead)
	if err != nil {
		return nil, nil, err
	}
	blocks, err = plan.Make(request)
	return blocks, plan.Others(request, usualBlock, mostOthers), err
}

// What may stand in the place of a block: of so many minutes, and how many licks and tunes are listed.
const (
	usualBlock = 5
	mostOthers = 12
)

// planRequest is what a plan is made from.
func (p *Practice) planRequest(ctx context.Context, minutes int, now time.Time, ahead time.Duration) (plan.Request, error) {
	request := plan.Request{Minutes: minutes}
	enrolled, err := p.Enrolled(ctx, Scope{})
	if err != nil {
		return request, err
	}
	work, err := p.PracticeWork(ctx, enrolled, now, ahead)
	if err != nil {
		return request, err
	}
	settings, err := documents.PracticeSettings.Read(ctx, p.library)
	if err != nil {
		return request, err
	}
	goal := settings.Body
	request.Due, request.New, request.SecondsACard = len(work.Due), len(work.New), work.Seconds
	licks, err := documents.Licks.List(ctx, p.library, 0)
	if err != nil {
		return request, err
	}
	facts, err := p.store.ItemFacts(ctx, []string{string(logbook.Lick), string(logbook.Exercise), string(logbook.Tune)})
	if err != nil {
		return request, err
	}
	known := map[[2]string]store.ItemFact{}
	for _, f := range facts {
		known[[2]string{f.Kind, f.Item}] = f
	}
	day := now.UTC().Add(ahead)
	for _, lick := range licks {
		if lick.Damaged == "" {
			request.Licks = append(request.Licks, planItem(lick.Info, known[[2]string{string(logbook.Lick), lick.Name}], day, lick.ID == goal.GoalLick, goal.GoalTempo))
		}
	}
	exercises, err := documents.Exercises.List(ctx, p.library, 0)
	if err != nil {
		return request, err
	}
	for _, one := range exercises {
		if one.Damaged == "" {
			request.Exercises = append(request.Exercises, planItem(one.Info, known[[2]string{string(logbook.Exercise), one.Name}], day, false, 0))
		}
	}
	tunes, err := documents.Charts.List(ctx, p.library, 0)
	if err != nil {
		return request, err
	}
	for _, tune := range tunes {
		if tune.Damaged == "" {
			request.Tunes = append(request.Tunes, planItem(tune.Info, known[[2]string{string(logbook.Tune), tune.Name}], day, tune.ID == goal.GoalTune, goal.GoalTempo))
		}
	}
	return request, nil
}

func planItem(i documents.Info, f store.ItemFact, today time.Time, wanted bool, tempo int) plan.Item {
	item := plan.Item{ID: i.ID, Name: i.Name, Days: -1, Tempo: f.Tempo, Goal: f.Goal, Wanted: wanted}
	if wanted && tempo > 0 {
		item.Goal = tempo
	}
	if !f.LastAt.IsZero() {
		item.Days = max(int(today.Truncate(24*time.Hour).Sub(f.LastAt.Add(time.Duration(f.OffsetMinutes)*time.Minute).Truncate(24*time.Hour)).Hours()/24), 0)
	}
	return item
}
