package planner_test

import (
	"context"
	"fmt"

	"undaris/core/solo/planner"
	"undaris/core/solo/solotest"
)

// A chorus over a blues in C, planned from a seed.
func Example() {
	planned, err := planner.Plan(context.Background(), solotest.BluesInC())
	if err != nil {
		fmt.Println(err)
		return
	}
	best := planned.Best[0]
	landed := 0
	for _, landing := range best.Verdict.Landings {
		if landing.Index >= 0 {
			landed++
		}
	}
	fmt.Printf("%d alternatives; %d of %d changes landed on\n", len(planned.Best), landed, len(best.Verdict.Landings))
	// Output:
	// 3 alternatives; 8 of 9 changes landed on
}
