package logbook_test

import (
	"fmt"
	"time"

	"undaris/core/practice/logbook"
)

// How a lick comes along.
func Example() {
	began := time.Date(2026, 3, 2, 19, 0, 0, 0, time.UTC)
	entries := []logbook.Entry{
		{Began: began, Seconds: 300, Kind: logbook.Lick, Item: "Low lamp", Tempo: 60, Goal: 80, Went: logbook.Clean},
		{Began: began.AddDate(0, 0, 2), Seconds: 300, Kind: logbook.Lick, Item: "Low lamp", Tempo: 66, Goal: 80, Went: logbook.Clean},
	}
	for _, p := range logbook.ProgressOf(entries) {
		fmt.Println(p.Item, p.Points, "of", p.Goal)
	}
	// Output: Low lamp [{2026-03-02 60} {2026-03-04 66}] of 80
}
