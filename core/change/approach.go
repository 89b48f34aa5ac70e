package change

import (
	"fmt"
	"strings"

	"undaris/core/neck"
	"undaris/core/pitch"
)

// Approach is the way the last notes before a target lead into it.
type Approach struct {
	Name string
	// Steps are the approach notes in order, in semitones from the target.
	Steps []int
	// Slides says that the last step is slid into the target on its string.
	Slides bool
	// Spoken says it in a sentence: "by a half step from below".
	Spoken string
}

// Approaches lists the approaches a line may use (common practice; chromatic
// ones are outside notes, and lead because they do not stay).
var Approaches = []Approach{
	{Name: "half step below", Steps: []int{-1}, Spoken: "a half step from below"},
	{Name: "half step above", Steps: []int{1}, Spoken: "a half step from above"},
	{Name: "two half steps below", Steps: []int{-2, -1}, Spoken: "two half steps from below"},
	{Name: "two half steps above", Steps: []int{2, 1}, Spoken: "two half steps from above"},
	{Name: "enclosure", Steps: []int{1, -1}, Spoken: "an enclosure, above and below"},
	{Name: "slide", Steps: []int{-1}, Slides: true, Spoken: "a slide from the fret below"},
}

// ApproachError says which approach is not known.
type ApproachError struct{ Text string }

func (e *ApproachError) Error() string {
	names := make([]string, len(Approaches))
	for i, a := range Approaches {
		names[i] = a.Name
	}
	return fmt.Sprintf("%q is not an approach; choose one of: %s", e.Text, strings.Join(names, ", "))
}

// FindApproach finds an approach by name; the empty name is the half step below.
func FindApproach(name string) (Approach, error) {
	if name == "" {
		return Approaches[0], nil
	}
	for _, a := range Approaches {
		if a.Name == name {
			return a, nil
		}
	}
	return Approach{}, &ApproachError{Text: name}
}

// Wanted lists the approach's notes and its target as they are to be fingered
// in the window, or says why the approach cannot be played there.
func (a Approach) Wanted(i neck.Instrument, w neck.Window, target neck.Place) ([]neck.Wanted, error) {
	if a.Slides && target.Fret < 2 {
		return nil, fmt.Errorf("a slide into string %d fret %d has no fret below to start from", target.String, target.Fret)
	}
	goal := i.Pitch(target)
	wanted := make([]neck.Wanted, 0, len(a.Steps)+1)
	for _, step := range a.Steps {
		note := neck.Wanted{Pitch: goal + pitch.MIDI(step)}
		if a.Slides {
			note.At = &neck.Place{String: target.String, Fret: target.Fret + step}
		}
		if _, _, err := neck.Finger(i, w, []neck.Wanted{note}); err != nil {
			return nil, fmt.Errorf("the %s of string %d fret %d lies outside frets %d to %d", a.Name, target.String, target.Fret, w.Low, w.High)
		}
		wanted = append(wanted, note)
	}
	return append(wanted, neck.Wanted{Pitch: goal, At: &target, Joined: a.Slides}), nil
}
