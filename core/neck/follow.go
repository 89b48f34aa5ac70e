package neck

import (
	"strconv"
	"strings"

	"undaris/core/pitch"
)

// Follow is the position that follows a position when its key or its neck changes: the
// same form, at the place nearest to where the frets would have gone; where the new
// strings have no forms, or it had none, a window as far from the tonic on the lowest
// string as it was (our choice: the hand stays where the sound is).
func (p Position) Follow(from Instrument, tonic pitch.Class, to Instrument, toTonic pitch.Class) Position {
	apart := tonicFret(to, toTonic) - tonicFret(from, tonic)
	wanted := p.Core + apart
	if p.Form != "" && to.HasNamedForms() {
		best, found := Position{}, false
		for _, other := range Positions(to, toTonic) {
			if other.Form == p.Form && (!found || distance(other.Core, wanted) < distance(best.Core, wanted)) {
				best, found = other, true
			}
		}
		if found {
			return best
		}
	}
	for wanted < 0 {
		wanted += 12
	}
	for wanted > to.Frets-coreFrets+1 {
		wanted -= 12
	}
	return Position{Window: to.WindowFrom(max(wanted, 0))}
}

// tonicFret is the lowest fret of the tonic on the lowest string.
func tonicFret(i Instrument, tonic pitch.Class) int {
	return tonic.Above(i.Open[len(i.Open)-1].Class())
}

func distance(a, b int) int { return max(a-b, b-a) }

// Name is how a position is kept: by its form and how often the form has come before it
// from the nut on, as in "E" and "E+1"; a plain window by its fret. Unlike an ID it means
// the same in every key.
func (p Position) Name(all []Position) string {
	if p.Form == "" {
		return p.ID()
	}
	before := 0
	for _, other := range all {
		if other.Form == p.Form && other.Core < p.Core {
			before++
		}
	}
	if before == 0 {
		return string(p.Form)
	}
	return string(p.Form) + "+" + strconv.Itoa(before)
}

// byName finds a position by its Name.
func byName(all []Position, text string) (Position, bool) {
	form, times, _ := strings.Cut(text, "+")
	before, err := strconv.Atoi(times)
	if times != "" && (err != nil || before < 1) {
		return Position{}, false
	}
	for _, p := range all {
		if p.Form == "" || string(p.Form) != form {
			continue
		}
		if before == 0 {
			return p, true
		}
		before--
	}
	return Position{}, false
}
