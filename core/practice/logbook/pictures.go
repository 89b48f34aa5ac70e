package logbook

import (
	"cmp"
	"slices"
	"time"
)

// DayMinutes is how long was practised on a day.
type DayMinutes struct {
	Day     string
	Minutes float64
}

// MinutesByDay are the minutes of each of so many days up to a day, the last of them; days without
// practice have none. Each entry counts for the day that it was where it was played.
func MinutesByDay(entries []Entry, last time.Time, days int) []DayMinutes {
	all := make([]DayMinutes, days)
	at := map[string]int{}
	for n := range all {
		all[n].Day = last.AddDate(0, 0, n-days+1).Format(time.DateOnly)
		at[all[n].Day] = n
	}
	for _, e := range entries {
		if n, ok := at[e.Day()]; ok {
			all[n].Minutes += float64(e.Seconds) / 60
		}
	}
	return all
}

// Streak says how many days in a row were practised up to a day, which itself may still be without,
// and how many of the last seven.
func Streak(entries []Entry, today time.Time) (days, ofSeven int) {
	practised := map[string]bool{}
	for _, e := range entries {
		practised[e.Day()] = true
	}
	for n := range 7 {
		if practised[today.AddDate(0, 0, -n).Format(time.DateOnly)] {
			ofSeven++
		}
	}
	at := today
	if !practised[at.Format(time.DateOnly)] {
		at = at.AddDate(0, 0, -1)
	}
	for ; practised[at.Format(time.DateOnly)]; at = at.AddDate(0, 0, -1) {
		days++
	}
	return days, ofSeven
}

// TempoPoint is a tempo at which a thing was clean.
type TempoPoint struct {
	Day   string
	Tempo int
}

// Progress is how a lick, an exercise or a tune comes along.
type Progress struct {
	Kind Kind
	Item string
	// Points are the best clean tempo of each day, in order of time; Goal the last one wanted.
	Points []TempoPoint
	Goal   int
	// LastDay is when it was last practised, Seconds how long in all.
	LastDay string
	Seconds int
}

// ProgressOf lists the licks, exercises and tunes of the log with their clean tempos, the one practised last
// first. A tempo counts as clean where the player said so, or where it was heard: the band playing by itself is no practice.
func ProgressOf(entries []Entry) []Progress {
	type name struct {
		kind Kind
		item string
	}
	found := map[name]*Progress{}
	for _, e := range byTime(entries) {
		if e.Item == "" || !slices.Contains([]Kind{Lick, Exercise, Tune}, e.Kind) {
			continue
		}
		key := name{e.Kind, e.Item}
		p := found[key]
		if p == nil {
			p = &Progress{Kind: e.Kind, Item: e.Item}
			found[key] = p
		}
		p.LastDay = e.Day()
		p.Seconds += e.Seconds
		if e.Goal > 0 {
			p.Goal = e.Goal
		}
		if e.Tempo == 0 || e.Went != Clean { // what nobody heard or judged was not clean
			continue
		}
		if n := len(p.Points) - 1; n >= 0 && p.Points[n].Day == p.LastDay {
			p.Points[n].Tempo = max(p.Points[n].Tempo, e.Tempo)
		} else {
			p.Points = append(p.Points, TempoPoint{p.LastDay, e.Tempo})
		}
	}
	all := make([]Progress, 0, len(found))
	for _, p := range found {
		all = append(all, *p)
	}
	slices.SortFunc(all, func(a, b Progress) int {
		return cmp.Or(cmp.Compare(b.LastDay, a.LastDay), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Item, b.Item))
	})
	return all
}

// CleanTempo is the last clean tempo, 0 for none.
func (p Progress) CleanTempo() int {
	if len(p.Points) == 0 {
		return 0
	}
	return p.Points[len(p.Points)-1].Tempo
}

// byTime are entries in order of time.
func byTime(entries []Entry) []Entry {
	all := slices.Clone(entries)
	slices.SortStableFunc(all, func(a, b Entry) int { return a.Began.Compare(b.Began) })
	return all
}
