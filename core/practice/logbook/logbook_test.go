package logbook_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	. "undaris/core/practice/logbook"
)

func at(t *testing.T, text string) time.Time {
	t.Helper()
	when, err := time.Parse(time.RFC3339, text)
	assert.NoError(t, err)
	return when
}

func entries(t *testing.T) []Entry {
	return []Entry{
		{Began: at(t, "2026-03-01T19:00:00+01:00"), Seconds: 600, Kind: Lick, Item: "Rope and cleat", Tempo: 70, Goal: 112, Went: Clean},
		{Began: at(t, "2026-03-01T19:30:00+01:00"), Seconds: 300, Kind: Lick, Item: "Rope and cleat", Tempo: 74, Goal: 112, Went: Clean},
		{Began: at(t, "2026-03-03T00:30:00+01:00"), Seconds: 120, Kind: Cards, Right: 9, Of: 12},
		{Began: at(t, "2026-03-04T19:00:00+01:00"), Seconds: 600, Kind: Lick, Item: "Rope and cleat", Tempo: 90, Goal: 100, Went: Rough},
		{Began: at(t, "2026-03-04T20:00:00+01:00"), Seconds: 900, Kind: Tune, Item: "Tin Roof Ferry", Tempo: 112},
	}
}

func TestMinutesByDay(t *testing.T) {
	days := MinutesByDay(entries(t), at(t, "2026-03-04T23:00:00+01:00"), 4)
	assert.Equal(t, []DayMinutes{{"2026-03-01", 15}, {"2026-03-02", 0}, {"2026-03-03", 2}, {"2026-03-04", 25}}, days)
	// Half past midnight is the day that it was where it was played, though it was the day before elsewhere.
	assert.Equal(t, "2026-03-03", entries(t)[2].Day())
	// Over the change to summer time there are as many days as ever.
	berlin, err := time.LoadLocation("Europe/Berlin")
	assert.NoError(t, err)
	spring := MinutesByDay(nil, time.Date(2026, 3, 30, 0, 10, 0, 0, berlin), 4)
	assert.Equal(t, "2026-03-27", spring[0].Day)
	assert.Equal(t, "2026-03-30", spring[3].Day)
}

func TestStreaks(t *testing.T) {
	days, ofSeven := Streak(entries(t), at(t, "2026-03-04T23:00:00+01:00"))
	assert.Equal(t, [2]int{2, 3}, [2]int{days, ofSeven})
	days, _ = Streak(entries(t), at(t, "2026-03-05T08:00:00+01:00"))
	assert.Equal(t, 2, days, "a morning has not broken it yet")
	days, ofSeven = Streak(entries(t), at(t, "2026-03-12T08:00:00+01:00"))
	assert.Equal(t, [2]int{0, 0}, [2]int{days, ofSeven})
}

func TestProgress(t *testing.T) {
	all := ProgressOf(entries(t))
	assert.Equal(t, []Progress{
		{Kind: Lick, Item: "Rope and cleat", Points: []TempoPoint{{"2026-03-01", 74}}, Goal: 100, LastDay: "2026-03-04", Seconds: 1500},
		{Kind: Tune, Item: "Tin Roof Ferry", LastDay: "2026-03-04", Seconds: 900},
	}, all, "what nobody judged is not clean, nor is what was rough")
	assert.Equal(t, 74, all[0].CleanTempo())
	assert.Zero(t, Progress{}.CleanTempo())
}

func TestWhatNoEntryHas(t *testing.T) {
	good := entries(t)[0]
	assert.NoError(t, good.Check())
	for field, with := range map[string]func(*Entry){
		"began":   func(e *Entry) { e.Began = time.Time{} },
		"seconds": func(e *Entry) { e.Seconds = 100000 },
		"kind":    func(e *Entry) { e.Kind = "song" },
		"went":    func(e *Entry) { e.Went = "well" },
		"item":    func(e *Entry) { e.Item = string(make([]rune, 200)) },
		"note":    func(e *Entry) { e.Note = string(make([]rune, 3000)) },
		"tempo":   func(e *Entry) { e.Tempo = -1 },
		"right":   func(e *Entry) { e.Right = 3 },
	} {
		bad := good
		with(&bad)
		var fault *FieldError
		assert.ErrorAs(t, bad.Check(), &fault, field)
		assert.Equal(t, field, fault.Field)
	}
}
