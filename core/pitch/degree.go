package pitch

import "strings"

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

// MustDegree reads a degree written as String writes it; it is for the tables
// of the rules, whose every entry is a literal, and panics on anything else.
func MustDegree(text string) Degree {
	if text == "R" {
		return Degree{Number: 1}
	}
	d := Degree{}
	rest := strings.TrimLeft(text, "b#")
	signs := text[:len(text)-len(rest)]
	d.Alter = strings.Count(signs, "#") - strings.Count(signs, "b")
	for _, digit := range rest {
		if digit < '0' || digit > '9' {
			panic("not a degree: " + text)
		}
		d.Number = d.Number*10 + int(digit-'0')
	}
	if d.Number < 1 || d.Number > 13 {
		panic("not a degree: " + text)
	}
	return d
}
