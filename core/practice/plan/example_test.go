package plan_test

import (
	"fmt"

	"undaris/core/practice/plan"
)

// Twenty minutes with fourteen cards due, a lick and a tune.
func Example() {
	blocks, err := plan.Make(plan.Request{
		Minutes: 20, Due: 14,
		Licks: []plan.Item{{ID: 1, Name: "Rope and cleat", Days: 3, Tempo: 84, Goal: 112}},
		Tunes: []plan.Item{{ID: 2, Name: "Tin Roof Ferry", Days: 8}},
	})
	if err != nil {
		fmt.Println(err)
		return
	}
	for _, b := range blocks {
		fmt.Printf("%d min %s, %s: %s\n", b.Minutes, b.Title, b.Detail, b.Why)
	}
	// Output:
	// 2 min Warm up, slowly, nothing wide: cold hands are slow, and easily hurt by wide stretches
	// 5 min Due today, 14 cards: the weakest first: what is about to be forgotten
	// 6 min Rope and cleat, in parts, 84 → 112: 84 of 112 reached
	// 6 min Tin Roof Ferry, a routine over the band: it was left alone for 8 days
	// 1 min Note down, how it went: what is written down can be compared
}
