package choice_test

import (
	"errors"
	"fmt"

	"undaris/core/choice"
)

func Example() {
	_, err := choice.FindText("a feel", []string{"straight", "shuffle"}, "shuffel")
	fmt.Println(err)
	var unknown *choice.Error
	if errors.As(err, &unknown) {
		fmt.Println(unknown.Nearest())
	}
	// Output:
	// "shuffel" is not a feel; choose one of: straight, shuffle
	// shuffle
}
