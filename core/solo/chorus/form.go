package chorus

import (
	"fmt"
	"strings"

	"undaris/core/chart"
)

// Form is a phrase plan: a letter for each sentence of the chorus, alike where the
// sentence comes back; or question and answer. It goes round when it is shorter than the
// chorus.
type Form string

// The phrase plans that are offered; a player's own is letters with blanks between.
const (
	AAB            Form = "A A B"
	AABA           Form = "A A B A"
	QuestionAnswer Form = "question-answer"
)

// Forms lists them, the default first: the three-line stanza of the blues (common).
var Forms = []Form{AAB, AABA, QuestionAnswer}

// ParseForm reads a phrase plan; the empty one is the default. Its error says what is
// allowed.
func ParseForm(text string) (Form, error) {
	text = strings.TrimSpace(text)
	if text == "" {
		return AAB, nil
	}
	if text == string(QuestionAnswer) {
		return QuestionAnswer, nil
	}
	letters := strings.Fields(strings.ToUpper(text))
	if len(letters) > 16 {
		return "", &chart.FieldError{Field: "form", Detail: "a phrase plan has at most 16 letters"}
	}
	for _, l := range letters {
		if len(l) != 1 || l[0] < 'A' || l[0] > 'H' {
			return "", &chart.FieldError{Field: "form", Detail: fmt.Sprintf("%q is not a phrase plan; write a letter A to H for each sentence, as in A A B, or question-answer", text)}
		}
	}
	return Form(strings.Join(letters, " ")), nil
}

// Letters are the sentences of the plan.
func (f Form) Letters() []byte {
	if f == QuestionAnswer || f == "" {
		return []byte{'A'}
	}
	letters := []byte{}
	for _, l := range strings.Fields(string(f)) {
		letters = append(letters, l[0])
	}
	return letters
}
