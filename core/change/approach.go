package change

import (
	"fmt"
	"strings"

	"undaris/core/choice"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Arrival is how the last note of an approach comes into its target.
type Arrival string

// The ways to arrive: the target is struck anew, slid or hammered into from the
// note before, bent up to, or held over the change.
const (
	Struck   Arrival = "struck"
	Slid     Arrival = "slid"
	Hammered Arrival = "hammered"
	Bent     Arrival = "bent"
	HeldOver Arrival = "held"
)

// ApproachKind is the way the last notes before a target lead into it.
type ApproachKind struct {
	Name string
	// Short is the name where there is little room.
	Short string
	// Steps are the approach notes in order, in semitones from the target; of a
	// bend the one step is the fret it is bent from.
	Steps []int
	// InScale are the approach notes in steps of the scale of the chord
	// that arrives, where Steps is empty.
	InScale []int
	Arrival Arrival
	// Description says it in a sentence: "a half step from below".
	Description string
}

// ApproachKinds lists every approach (common practice; chromatic ones are outside
// notes, and lead because they do not stay). Scale steps are of the scale of the
// chord that arrives, since they belong to where the line goes (ours).
var ApproachKinds = []ApproachKind{
	{Name: "half step below", Short: "half below", Steps: []int{-1}, Arrival: Struck, Description: "a half step from below"},
	{Name: "half step above", Short: "half above", Steps: []int{1}, Arrival: Struck, Description: "a half step from above"},
	{Name: "scale step below", Short: "scale below", InScale: []int{-1}, Arrival: Struck, Description: "a scale step from below"},
	{Name: "scale step above", Short: "scale above", InScale: []int{1}, Arrival: Struck, Description: "a scale step from above"},
	{Name: "two half steps below", Short: "two below", Steps: []int{-2, -1}, Arrival: Struck, Description: "two half steps from below"},
	{Name: "two half steps above", Short: "two above", Steps: []int{2, 1}, Arrival: Struck, Description: "two half steps from above"},
	{Name: "enclosure", Short: "enclosure", Steps: []int{1, -1}, Arrival: Struck, Description: "an enclosure, above and below"},
	{Name: "enclosure from below", Short: "encl. below", Steps: []int{-1, 1}, Arrival: Struck, Description: "an enclosure, below and above"},
	{Name: "scale enclosure", Short: "scale encl.", InScale: []int{1, -1}, Arrival: Struck, Description: "an enclosure in the scale, above and below"},
	{Name: "scale enclosure from below", Short: "scale encl. below", InScale: []int{-1, 1}, Arrival: Struck, Description: "an enclosure in the scale, below and above"},
	{Name: "slide", Short: "slide", Steps: []int{-1}, Arrival: Slid, Description: "a slide from the fret below"},
	{Name: "hammer-on", Short: "hammer-on", Arrival: Hammered, Description: "a hammer-on from below"},
	{Name: "bend a half step", Short: "bend ½", Steps: []int{-1}, Arrival: Bent, Description: "a bend of a half step up to it"},
	{Name: "bend a whole step", Short: "bend 1", Steps: []int{-2}, Arrival: Bent, Description: "a bend of a whole step up to it"},
	{Name: "bend three half steps", Short: "bend 1½", Steps: []int{-3}, Arrival: Bent, Description: "a bend of three half steps up to it"},
	{Name: "held", Short: "held", Steps: []int{0}, Arrival: HeldOver, Description: "a common tone held over the change"},
}

// FindApproachKind finds an approach by name; the empty name is the half step below.
// Its error is a *choice.Error.
func FindApproachKind(name string) (ApproachKind, error) {
	if name == "" {
		return ApproachKinds[0], nil
	}
	return choice.Find("an approach", ApproachKinds, func(a ApproachKind) string { return a.Name }, name)
}

// Goal is a target on the neck and what lies around it.
type Goal struct {
	Instrument        neck.Instrument
	Window            neck.Window
	Key               harmony.Key
	Box               harmony.Box
	Leaving, Arriving harmony.Chord
	// Target is where the target lies; a bend reaches it from a lower fret.
	Target neck.Place
}

// Check says why the target is none: it is off the neck, or no tone of the arriving
// chord.
func (g Goal) Check() error {
	if !g.Instrument.Has(g.Target) {
		return fmt.Errorf("string %d fret %d is not on the neck; its strings are 1 to %d and its frets 0 to %d",
			g.Target.String, g.Target.Fret, len(g.Instrument.Open), g.Instrument.Frets)
	}
	if !within(g.Window, g.Target.Fret) {
		return fmt.Errorf("string %d fret %d lies outside the position, frets %d to %d", g.Target.String, g.Target.Fret, g.Window.Low, g.Window.High)
	}
	if _, ok := g.Arriving.Tone(g.Instrument.Pitch(g.Target).Class()); ok {
		return nil
	}
	said := []string{}
	for _, l := range NearbyTargets(ThirdsFirst, g.Instrument, g.Target, g.Arriving, neck.PlaceTones(g.Instrument, g.Window, g.Arriving.Tones())) {
		said = append(said, fmt.Sprintf("string %d fret %d (%s)", l.String, l.Fret, l.Degree))
	}
	return fmt.Errorf("string %d fret %d is no tone of %s; the nearest are %s", g.Target.String, g.Target.Fret, g.Arriving.Symbol(), strings.Join(said, ", "))
}

// Approach is an approach as it is played into one target.
type Approach struct {
	ApproachKind
	// Notes are the approach notes in order and then the target, as they are to be
	// fingered. A target that is bent to is wanted at the fret it is bent from.
	Notes []neck.NoteToPlace
}

// Into makes the notes of the approach into a goal, or says why it cannot be
// played there.
func (a ApproachKind) Into(g Goal) (Approach, error) {
	steps, err := a.stepsInto(g)
	if err != nil {
		return Approach{}, err
	}
	led := Approach{ApproachKind: a}
	goal := g.Instrument.Pitch(g.Target)
	onString := a.Arrival != Struck
	for _, step := range steps {
		note := neck.NoteToPlace{Pitch: goal + pitch.MIDI(step), Fretted: a.Arrival == Slid || a.Arrival == Bent}
		if onString {
			note.At = &neck.Place{String: g.Target.String, Fret: g.Target.Fret + step}
		}
		if _, _, err := neck.Finger(g.Instrument, g.Window, []neck.NoteToPlace{note}); err != nil || onString && !within(g.Window, note.At.Fret) {
			return Approach{}, fmt.Errorf("its note %s the target lies outside frets %d to %d", stepText(step), g.Window.Low, g.Window.High)
		}
		led.Notes = append(led.Notes, note)
	}
	target := neck.NoteToPlace{Pitch: goal, At: &g.Target, Slurred: onString}
	if a.Arrival == Bent {
		at := neck.Place{String: g.Target.String, Fret: g.Target.Fret + steps[0]}
		target = neck.NoteToPlace{Pitch: goal + pitch.MIDI(steps[0]), At: &at, Slurred: true, Fretted: true, Bend: -2 * steps[0]}
		// The finger that bends is there from the first note on.
		led.Notes[0].Bend = target.Bend
	}
	led.Notes = append(led.Notes, target)
	return led, nil
}

// stepsInto is the approach notes in semitones from the goal.
func (a ApproachKind) stepsInto(g Goal) ([]int, error) {
	at := fmt.Sprintf("string %d fret %d", g.Target.String, g.Target.Fret)
	goal := g.Instrument.Pitch(g.Target).Class()
	switch a.Arrival {
	case Slid:
		if g.Target.Fret < 2 {
			return nil, fmt.Errorf("a slide into %s has no fret below to start from", at)
		}
	case Bent:
		from := neck.Place{String: g.Target.String, Fret: g.Target.Fret + a.Steps[0]}
		switch {
		case from.Fret < 0:
			return nil, fmt.Errorf("a bend up to %s has no fret to start from", at)
		case from.Fret == 0:
			return nil, fmt.Errorf("the bend up to %s would start from the open string, which cannot be bent", at)
		case neck.MostBend(from) < -2*a.Steps[0]:
			return nil, fmt.Errorf("string %d is too stiff to be bent that far", from.String)
		}
	case Hammered:
		step, ok := g.hammerStart()
		if !ok {
			return nil, fmt.Errorf("%s has no note of the box or scale below it on frets %d to %d to hammer from", at, g.Window.Low, g.Window.High)
		}
		return []int{step}, nil
	case HeldOver:
		if _, common := g.Leaving.Tone(goal); !common {
			note := g.Key.ToneOver(g.Arriving, goal).Note
			return nil, fmt.Errorf("%s is not a tone of %s, so it cannot be held over the change", note, g.Leaving.Symbol())
		}
	}
	if a.Steps != nil {
		return a.Steps, nil
	}
	scale, _ := g.Key.ChordScale(g.Arriving)
	steps := make([]int, len(a.InScale))
	for n, by := range a.InScale {
		step := semitones(scale, goal, by)
		if step == 0 {
			return nil, fmt.Errorf("the scale of %s has no such step beside it", g.Arriving.Symbol())
		}
		steps[n] = step
	}
	return steps, nil
}

// hammerStart is where a hammer-on starts, in semitones from the target: the note of
// the box one or two frets below it, else the step of the scale of the chord, whichever
// the window has. That is how the b3 of the box becomes the 3 (common practice).
func (g Goal) hammerStart() (int, bool) {
	goal := g.Instrument.Pitch(g.Target).Class()
	scale, _ := g.Key.ChordScale(g.Arriving)
	for _, below := range []int{-1, -2, semitones(scale, goal, -1)} {
		_, boxed := g.Box.Tone(pitch.ClassOf(int(goal) + below))
		if (boxed || below == semitones(scale, goal, -1)) && below != 0 && within(g.Window, g.Target.Fret+below) {
			return below, true
		}
	}
	return 0, false
}

// semitones is how far the next note of the scale lies above (by 1) or below (by
// -1) a class; 0 where there is none within a third.
func semitones(scale harmony.Scale, from pitch.Class, by int) int {
	for away := by; away != 5*by; away += by {
		for _, t := range scale.Tones {
			if t.Note.Class() == pitch.ClassOf(int(from)+away) {
				return away
			}
		}
	}
	return 0
}

// stepText says a step from the target.
func stepText(step int) string {
	if step < 0 {
		return interval(-step) + " below"
	}
	return interval(step) + " above"
}

func within(w neck.Window, fret int) bool { return fret >= w.Low && fret <= w.High }
