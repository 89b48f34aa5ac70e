package line_test

import (
	"fmt"

	"undaris/core/change"
	"undaris/core/solo/line"
	"undaris/core/solo/solotest"
)

// A lick led over the change from bar 4 to bar 5, into the 3 of F7.
func Example() {
	request := solotest.LineRequest()
	request.Approach, _ = change.FindApproachKind("half step below")
	written, err := request.Write()
	if err != nil {
		fmt.Println(err)
		return
	}
	for n, e := range written.Phrase.Events {
		if written.Roles[n] != line.RoleLick {
			fmt.Println(written.Roles[n], written.Labels[n].Note, "string", e.String, "fret", e.Fret)
		}
	}
	// Output:
	// approach Ab string 2 fret 9
	// target A string 2 fret 10
}
