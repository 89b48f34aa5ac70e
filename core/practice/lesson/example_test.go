package lesson_test

import (
	"fmt"

	"undaris/core/practice/lesson"
)

// The tempos that lead to 60.
func Example() {
	fmt.Println(lesson.Ladder(60))
	// Output: [30 33 36 39 42 45 48 51 54 57 60]
}
