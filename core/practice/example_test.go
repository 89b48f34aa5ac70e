package practice_test

import (
	"fmt"

	"undaris/core/change"
	"undaris/core/neck"
	"undaris/core/practice"
)

// What the box in C lacks of F7, asked and answered with nothing.
func Example() {
	card, err := practice.ParseCard("box and chord|C dominant|E|F7")
	if err != nil {
		fmt.Println(err)
		return
	}
	question, err := practice.Ask(practice.Context{Instrument: neck.Standard(), Strategy: change.ThirdsFirst}, card, 1)
	if err != nil {
		fmt.Println(err)
		return
	}
	mark, err := question.Mark(neck.Standard(), practice.Answer{})
	fmt.Println(question.Title, mark.Right, err)
	fmt.Println(mark.Text)
	// Output:
	// what does the box lack? false <nil>
	// C minor pentatonic lacks the 3 of F7: A.
}
