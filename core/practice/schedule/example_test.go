package schedule_test

import (
	"fmt"
	"time"

	"undaris/core/practice/schedule"
)

// A card that is answered right twice is asked again after four days.
func Example() {
	at := time.Date(2026, 3, 2, 19, 0, 0, 0, time.UTC)
	memory := schedule.Memory{}.Review(at, schedule.Good)
	memory = memory.Review(memory.Due, schedule.Good)
	fmt.Println(memory.Interval, "days")
	// Output: 4 days
}
