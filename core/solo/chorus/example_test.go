package chorus_test

import (
	"fmt"

	"undaris/core/solo/chorus"
	"undaris/core/solo/solotest"
)

// A planned chorus: its first target, and one block locked.
func Example() {
	request := solotest.BluesInC()
	planned := solotest.PlanOf(request)
	explained, _ := request.Explain(planned)
	for _, target := range explained.Targets[:2] {
		fmt.Printf("%s at tick %d: aim at %s\n", target.Chord.Symbol(), target.Tick, target.Aim.Degree)
	}
	edited, _ := request.Apply(planned, chorus.Edit{Kind: chorus.Lock, Blocks: []int{0}})
	fmt.Println("locked:", edited.Blocks[0].Locked)
	// Output:
	// C7 at tick 0: aim at 3
	// F7 at tick 1920: aim at b7
	// locked: true
}
