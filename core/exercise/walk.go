package exercise

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// figureSteps are the figures by how many steps of the tones their notes lie above the one they
// begin on; each next one begins a step further on (common practice).
var figureSteps = map[Figure][]int{
	"": {0}, OneAfterAnother: {0}, InThirds: {0, 2}, InFourths: {0, 3}, InFifths: {0, 4}, InSixths: {0, 5},
	GroupsOfThree: {0, 1, 2}, GroupsOfFour: {0, 1, 2, 3}, TwoUpOneDown: {0, 2},
}

// walker is where a walk is.
type walker struct {
	exercise Exercise
	// ladders are those of the present chord, one for each area; tones are those of the chord.
	ladders [][]rung
	tones   []harmony.Tone
	chord   harmony.Chord
	// area is the one that is walked in; up is 1 on the way up and -1 on the way down.
	area, up int
	// at is the rung that the next figure begins on, queue what is left of the present one.
	at    int
	queue []rung
	// figures counts those begun, heard is the last pitch that was played; 0 before the first.
	figures int
	heard   pitch.MIDI
}

func (w *walker) ladder() []rung { return w.ladders[w.area] }

// arrive goes on over a chord, the index-th from 0. The error is a *chart.FieldError where the
// chord has no tone to begin on, or too few for the figure.
func (w *walker) arrive(index int, chord harmony.Chord, m material, ladders [][]rung) error {
	same := index > 0 && w.chord.Same(chord)
	w.ladders, w.chord, w.tones = ladders, chord, m.tones
	for _, ladder := range ladders {
		if widest := slices.Max(w.steps()); widest >= len(ladder) {
			return &chart.FieldError{Field: "order.figure", Detail: fmt.Sprintf("%q needs %d tones; over %s there are %d here", w.exercise.Order.Figure, widest+1, chord.SignedSymbol(), len(ladder))}
		}
	}
	direction := w.exercise.Order.Direction
	if same && direction != UpOneDownNext {
		return nil
	}
	w.queue = nil
	nearest := w.exercise.Order.Start == NearestTone || w.exercise.Order.Start == ""
	switch {
	case direction == Down, direction == UpOneDownNext && index%2 == 1:
		w.turnTo(-1)
	case direction == Up, direction == UpOneDownNext, index == 0, !nearest:
		w.turnTo(1)
	}
	if nearest && index > 0 {
		w.goOn()
		return nil
	}
	return w.begin()
}

// turnTo sets the direction. Where the way up and the way down have areas of their own, it is
// the other's turn.
func (w *walker) turnTo(up int) {
	w.up = up
	if w.exercise.Where.Kind == TwoPositions {
		w.area = (1 - up) / 2
	}
}

// begin begins on the tone that every chord begins on: the lowest of its name on the way up, the
// highest on the way down, and in a walk that goes both ways the nearest to the last note.
func (w *walker) begin() error {
	ladder := w.ladder()
	w.at = 0
	if w.up < 0 {
		w.at = len(ladder) - 1
	}
	number := w.exercise.Order.Start.degree()
	if number == 0 || w.exercise.Where.Kind == CellOnStrings {
		return nil
	}
	tone, ok := chordToneNumbered(w.chord, number)
	if number > 7 { // of the tones that are walked
		tone, ok = toneNumbered(w.tones, number)
	}
	if number == 1 && len(w.tones) > 0 && !hasClass(w.tones, tone.Note.Class()) {
		tone = w.tones[0] // an arpeggio of another chord begins on its own root
	}
	if at := w.rungOn(tone.Note.Class()); ok && at >= 0 {
		w.at = at
		return nil
	}
	if number == 1 { // what has no root here begins at its end
		return nil
	}
	return &chart.FieldError{Field: "order.start", Detail: fmt.Sprintf("over %s there is no %d here to begin on; %q fits every chord", w.chord.SignedSymbol(), number, NearestTone)}
}

// degree is the degree that a chord begins on: the root where the start is the nearest tone and nothing has been
// played yet; 0 for the lowest note.
func (s Start) degree() int {
	return map[Start]int{NearestTone: 1, "": 1, FromRoot: 1, FromThird: 3, FromFifth: 5, FromSeventh: 7, FromNinth: 9, FromFourth: 11, FromSixth: 13}[s]
}

// toneNumbered is the tone of a degree, an octave up or not.
func toneNumbered(tones []harmony.Tone, number int) (harmony.Tone, bool) {
	for _, t := range tones {
		if (t.Degree.Number-1)%7 == (number-1)%7 {
			return t, true
		}
	}
	return harmony.Tone{}, false
}

// rungOn is the rung that a chord begins on, on a note of that name; -1 for none.
func (w *walker) rungOn(class pitch.Class) int {
	ladder := w.ladder()
	oneWay := w.exercise.Order.Direction == Up || w.exercise.Order.Direction == Down
	best, least := -1, 0
	for n, r := range ladder {
		if r.lowest().Class() != class {
			continue
		}
		away := n * w.up
		if w.heard > 0 && !oneWay {
			away = int(max(r.lowest()-w.heard, w.heard-r.lowest()))
		}
		if best < 0 || away < least {
			best, least = n, away
		}
	}
	return best
}

// goOn begins on the next tone past the last one played, in its direction; where there is none the
// walk turns or begins again.
func (w *walker) goOn() {
	for range 2 {
		ladder := w.ladder()
		for n := range ladder {
			at := n
			if w.up < 0 {
				at = len(ladder) - 1 - n
			}
			if beyond := int(ladder[at].lowest()-w.heard) * w.up; beyond > 0 {
				w.at = at
				return
			}
		}
		w.turn()
	}
}

// turn turns at the end of a ladder, or begins again where a walk has one direction.
func (w *walker) turn() {
	byForms := w.exercise.Where.Kind == ByForms
	switch w.exercise.Order.Direction {
	case Up, Down:
		if byForms {
			w.area = (w.area + 1) % len(w.ladders)
		}
		if w.begin() != nil { // the next area has no such tone
			w.at = 0
		}
		return
	}
	w.turnTo(-w.up)
	if byForms && w.up > 0 {
		w.area = (w.area + 1) % len(w.ladders)
	}
	ladder := w.ladder()
	w.at = 0
	if w.up < 0 {
		w.at = len(ladder) - 1
	}
	steps := w.steps()
	// The last tone is not struck twice.
	if ladder[w.at+w.up*steps[0]].lowest() == w.heard && slices.Max(steps)+1 < len(ladder) {
		w.at += w.up
	}
}

// next is what is played next.
func (w *walker) next() rung {
	if len(w.queue) == 0 {
		steps := w.steps()
		last := w.at + w.up*slices.Max(steps)
		if w.at < 0 || w.at >= len(w.ladder()) || last < 0 || last >= len(w.ladder()) {
			w.turn()
			// A figure that does not fit from there begins where it does.
			room := len(w.ladder()) - 1 - slices.Max(w.steps())
			if w.up > 0 {
				w.at = min(w.at, room)
			} else {
				w.at = max(w.at, len(w.ladder())-1-room)
			}
		}
		for _, step := range w.steps() {
			w.queue = append(w.queue, w.ladder()[w.at+w.up*step])
		}
		w.at += w.up
		w.figures++
	}
	r := w.queue[0]
	w.queue = w.queue[1:]
	w.heard = r.lowest()
	return r
}

// steps are the steps of the present figure, the way round that it is its turn.
func (w *walker) steps() []int {
	o := w.exercise.Order
	steps := slices.Clone(figureSteps[o.Figure])
	switch {
	case w.exercise.oneShapeAtATime():
		return []int{0}
	case o.Figure == OwnFigure:
		for _, number := range o.Numbers {
			steps = append(steps, number-1)
		}
	case o.Figure == Inversions:
		for n := range max(len(w.tones), 1) {
			steps = append(steps, n)
		}
	}
	switch {
	case o.Turn == Reversed, o.Turn == Alternating && w.figures%2 == 1:
		slices.Reverse(steps)
	case o.Turn == UpsideDown:
		widest := slices.Max(steps)
		for n := range steps {
			steps[n] = widest - steps[n]
		}
	}
	return steps
}
