package change

import (
	"fmt"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// ApproachOption is an approach that can be played into a target, and what it asks of the
// hand and the ear.
type ApproachOption struct {
	Approach
	Fingering []neck.Fingered
	// Length is how many notes come before the target.
	Length int
	// Effort is the cost of fingering it, slurs and bends included; less is
	// easier. Tension is what its notes ask of the ear over the leaving chord;
	// more pulls harder.
	Effort, Tension int
}

// Unplayable is an approach or connector that does not fit, and why.
type Unplayable struct {
	Name, Reason string
}

// What arriving asks of the hand beside the fingering, and a note of each class
// of the ear (ours: a bend must be heard and tuned, a slide or hammer-on only
// aimed; what is further from a chord tone pulls harder).
var (
	effortOf  = map[Arrival]int{Struck: 0, HeldOver: 0, Hammered: 1, Slid: 1, Bent: 3}
	tensionOf = map[harmony.Class]int{harmony.ChordTone: 0, harmony.Colour: 1, harmony.Blue: 2, harmony.Suspension: 2, harmony.Outside: 3}
)

// effortHalfStep is what each half step of a bend adds.
const effortHalfStep = 2

// ApproachOptions tries every approach into the goal: those that can be played, and those
// that cannot with the reason. Room is how many notes there is time for before
// the target while the leaving chord sounds.
func ApproachOptions(g Goal, room int) (ways []ApproachOption, refused []Unplayable) {
	for _, a := range ApproachKinds {
		led, err := a.Into(g)
		if err != nil {
			refused = append(refused, Unplayable{a.Name, err.Error()})
			continue
		}
		way := ApproachOption{Approach: led, Length: len(led.Notes) - 1, Effort: effortOf[a.Arrival]}
		if way.Length > room {
			refused = append(refused, Unplayable{a.Name, fmt.Sprintf("out of time: it takes %s, and %s leaves room for %s", counted(way.Length), g.Leaving.Symbol(), counted(room))})
			continue
		}
		fingering, cost, err := neck.FingerPhrase(g.Instrument, g.Window, led.Notes)
		if err != nil {
			refused = append(refused, Unplayable{a.Name, err.Error()})
			continue
		}
		way.Fingering = fingering
		way.Effort += cost
		if a.Arrival == Bent {
			way.Effort += -a.Steps[0] * effortHalfStep
		}
		for n := range way.Length {
			way.Tension += tensionOf[g.Key.Classify(g.Leaving, led.Notes[n].Pitch.Class())]
		}
		ways = append(ways, way)
	}
	return ways, refused
}

func counted(notes int) string {
	if notes == 1 {
		return "one note"
	}
	return fmt.Sprintf("%d notes", notes)
}
