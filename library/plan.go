package library

import (
	"context"
	"time"

	"undaris/core/practice/logbook"
	"undaris/core/practice/plan"
)

// PlanFor makes a plan of so many minutes from what is kept: the cards due, the licks and tunes with
// what the log says of them, and what the player works towards. Its error is a *plan.MinutesError
// for minutes that no plan has.
func (l *Library) PlanFor(ctx context.Context, minutes int, now time.Time, ahead time.Duration) ([]plan.Block, error) {
	enrolled, err := l.Enrolled(ctx, Scope{})
	if err != nil {
		return nil, err
	}
	work, err := l.PracticeWork(ctx, enrolled, now, ahead)
	if err != nil {
		return nil, err
	}
	entries, err := l.Log(ctx)
	if err != nil {
		return nil, err
	}
	settings, err := l.PracticeSettings(ctx)
	if err != nil {
		return nil, err
	}
	goal := settings.Settings
	request := plan.Request{Minutes: minutes, Due: len(work.Due), New: len(work.New), SecondsACard: work.Seconds}
	licks, err := Licks.List(ctx, l, 0)
	if err != nil {
		return nil, err
	}
	progress := progressByName(entries)
	day := now.UTC().Add(ahead)
	for _, lick := range licks {
		if lick.Damaged == "" {
			request.Licks = append(request.Licks, planItem(lick.Info, progress[logbook.Lick][lick.Name], day, lick.ID == goal.GoalLick, goal.GoalTempo))
		}
	}
	tunes, err := Charts.List(ctx, l, 0)
	if err != nil {
		return nil, err
	}
	for _, tune := range tunes {
		if tune.Damaged == "" {
			request.Tunes = append(request.Tunes, planItem(tune.Info, progress[logbook.Tune][tune.Name], day, tune.ID == goal.GoalTune, goal.GoalTempo))
		}
	}
	return plan.Make(request)
}

// progressByName is how licks and tunes come along, by kind and name.
func progressByName(entries []LogEntry) map[logbook.Kind]map[string]logbook.Progress {
	all := map[logbook.Kind]map[string]logbook.Progress{logbook.Lick: {}, logbook.Tune: {}}
	for _, p := range logbook.ProgressOf(plainEntries(entries)) {
		all[p.Kind][p.Item] = p
	}
	return all
}

func plainEntries(entries []LogEntry) []logbook.Entry {
	all := make([]logbook.Entry, len(entries))
	for n, e := range entries {
		all[n] = e.Entry
	}
	return all
}

func planItem(i Info, p logbook.Progress, today time.Time, wanted bool, tempo int) plan.Item {
	item := plan.Item{ID: i.ID, Name: i.Name, Days: -1, Tempo: p.CleanTempo(), Goal: p.Goal, Wanted: wanted}
	if wanted && tempo > 0 {
		item.Goal = tempo
	}
	if last, err := time.Parse(time.DateOnly, p.LastDay); err == nil {
		item.Days = max(int(today.Sub(last).Hours()/24), 0)
	}
	return item
}
