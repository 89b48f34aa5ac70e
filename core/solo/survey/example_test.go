package survey_test

import (
	"fmt"

	"undaris/core/solo/solotest"
	"undaris/core/solo/survey"
)

func Example() {
	request := solotest.BluesInC()
	planned := solotest.PlanOf(request)
	c := survey.Chorus{Chart: request.Chart, Instrument: request.Instrument, Events: planned.Phrase(request.Chart).Events}
	fmt.Println(len(c.Landings()), "changes,", len(c.Bars()), "bars")
	// Output: 9 changes, 12 bars
}
