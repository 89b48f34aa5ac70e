package pitch

import (
	"fmt"
	"strings"
)

// Degree is a note's place over a root: a number 1..13 and its alteration in
// semitones against the major scale (common theory). The root is {1, 0}.
type Degree struct {
	Number int
	Alter  int
}

// majorScale is the semitones of the unaltered degrees 1..7.
var majorScale = [7]int{0, 2, 4, 5, 7, 9, 11}

// Semitones is the degree's distance above the root folded into one octave, 0..11.
func (d Degree) Semitones() int {
	return int(ClassOf(majorScale[(d.Number-1)%7] + d.Alter))
}

// String writes the degree as players do: R, b3, #11, bb7.
func (d Degree) String() string {
	if d.Number == 1 && d.Alter == 0 {
		return "R"
	}
	sign, count := "#", d.Alter
	if d.Alter < 0 {
		sign, count = "b", -d.Alter
	}
	const digits = "0123456789"
	number := ""
	if d.Number >= 10 {
		number = "1"
	}
	number += digits[d.Number%10 : d.Number%10+1]
	return strings.Repeat(sign, count) + number
}

// Over spells the note that stands at this degree above root.
func (d Degree) Over(root Note) Note {
	return root.Up(d.Number-1, d.Semitones())
}

// DegreeError says which text could not be read as a degree.
type DegreeError struct{ Text string }

func (e *DegreeError) Error() string {
	return fmt.Sprintf("%q is not a degree: R, or up to two b or # signs and a number from 1 to 13, as in b3 or 13", e.Text)
}

// ParseDegree reads a degree as String writes it.
func ParseDegree(text string) (Degree, error) {
	if text == "R" {
		return Degree{Number: 1}, nil
	}
	d := Degree{}
	rest := strings.TrimLeft(text, "b#")
	signs := text[:len(text)-len(rest)]
	d.Alter = strings.Count(signs, "#") - strings.Count(signs, "b")
	for _, digit := range rest {
		if digit < '0' || digit > '9' || d.Number > 13 {
			return Degree{}, &DegreeError{Text: text}
		}
		d.Number = d.Number*10 + int(digit-'0')
	}
	if d.Number < 1 || d.Number > 13 || len(signs) > 2 {
		return Degree{}, &DegreeError{Text: text}
	}
	return d, nil
}

// MustDegree is ParseDegree for the tables of the rules, whose every entry is a
// literal; it panics on anything else.
func MustDegree(text string) Degree {
	d, err := ParseDegree(text)
	if err != nil {
		panic(err)
	}
	return d
}
