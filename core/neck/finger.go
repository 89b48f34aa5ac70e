package neck

import (
	"fmt"

	"undaris/core/pitch"
)

// NoteToPlace is one note to be placed and fingered.
type NoteToPlace struct {
	Pitch pitch.MIDI
	// At holds the note to one place; nil leaves it free.
	At *Place
	// Slurred asks for the string of the note before, as a slide, hammer-on or
	// pull-off needs.
	Slurred bool
	// Fretted forbids the open string, as a bend, slide or vibrato needs.
	Fretted bool
	// Bend is how far the string is bent, in quarter tones.
	Bend int
	// Held says that the note is held, and perhaps shaken: the little finger is spared.
	Held bool
}

// Fingered is a place with the finger that takes it: 1 first to 4 little, 0 for
// an open string.
type Fingered struct {
	Place
	Finger int
}

// The cost table of placing and fingering. All of it is our choice of weights
// for what teachers of the instrument agree on: stay in the core, one finger
// per fret, let strings follow the pitch, do not skip strings, do not jump one
// finger across strings.
const (
	costReachUp = 2
	// Reaching back costs more: the first finger pulls the hand out of place.
	costReachBack = 5
	// For each finger away from one finger per fret.
	costOffFinger = 2
	// One finger laid over the next string at the same fret.
	costRoll = 1
	// One finger on adjacent strings at different frets.
	costSameFingerAdjacent = 5
	// One finger moved along its string.
	costSameFingerShift = 6
	// One finger moved across more than one string to another fret.
	costSameFingerJump = 2
	// A lower finger set above a higher one.
	costCrossed = 8
	// For each string skipped.
	costSkip = 3
	// A bend of a half step or more with the first, second or little finger: the
	// third bends, with the others behind it.
	costBendFirst  = 12
	costBendSecond = 4
	costBendLittle = 4
	// A held note with the little finger, which shakes it least.
	costHeldLittle = 3
	// Leaving the place of a pitch that is repeated.
	costMoveRepeated = 5
	// Going to a lower string while the pitch rises, or the other way about.
	// Never worth it while any other way exists.
	costAgainst = 40
	// Breaking a join. The caller is told by the strings that come back.
	costBrokenSlur = 100
)

// bendWithThird is the bend, in quarter tones, from which it matters which
// finger bends.
const bendWithThird = 2

// UnplaceableError says which pitch has no place in the window.
type UnplaceableError struct {
	Index int
	Pitch pitch.MIDI
	Window
}

func (e *UnplaceableError) Error() string {
	return fmt.Sprintf("note %d (MIDI %d) has no place on frets %d to %d", e.Index+1, int(e.Pitch), e.Low, e.High)
}

// Finger places and fingers the notes in their order within the window at the
// least total cost, exactly (shortest path over places and fingers). Ties fall
// to the higher string, then the lower finger. It returns the cost with the
// fingering.
func Finger(i Instrument, w Window, wanted []NoteToPlace) ([]Fingered, int, error) {
	states := make([]Fingered, 0, len(wanted)*8)
	starts := make([]int, 0, len(wanted)+1)
	for n, note := range wanted {
		starts = append(starts, len(states))
		states = appendCandidates(states, i, w, note)
		if len(states) == starts[n] {
			return nil, 0, &UnplaceableError{Index: n, Pitch: note.Pitch, Window: w}
		}
	}
	starts = append(starts, len(states))

	cost := make([]int, len(states))
	from := make([]int, len(states))
	for n := range wanted {
		for s := starts[n]; s < starts[n+1]; s++ {
			here := placeCost(w, wanted[n], states[s])
			if n == 0 {
				cost[s], from[s] = here, -1
				continue
			}
			best, origin := 1<<30, -1
			for p := starts[n-1]; p < starts[n]; p++ {
				total := cost[p] + moveCost(wanted[n-1].Pitch, wanted[n], states[p], states[s])
				if total < best {
					best, origin = total, p
				}
			}
			cost[s], from[s] = best+here, origin
		}
	}

	path := make([]Fingered, len(wanted))
	if len(wanted) == 0 {
		return path, 0, nil
	}
	last := len(wanted) - 1
	end := starts[last]
	for s := starts[last]; s < starts[last+1]; s++ {
		if cost[s] < cost[end] {
			end = s
		}
	}
	total := cost[end]
	for n := last; n >= 0; n-- {
		path[n] = states[end]
		end = from[end]
	}
	return path, total, nil
}

// FingerPhrase is Finger for a line played at one place: the hand may stand one
// fret lower or higher than the window's core if that suits the notes better,
// as it does in the first box, which lies a fret above its chord shape.
func FingerPhrase(i Instrument, w Window, wanted []NoteToPlace) ([]Fingered, int, error) {
	best, bestCost, err := Finger(i, w, wanted)
	if err != nil {
		return nil, 0, err
	}
	for _, shift := range []int{1, -1} {
		hand := w
		hand.Core, hand.CoreEnd = w.Core+shift, w.CoreEnd+shift
		if hand.Core < 0 || hand.CoreEnd > i.Frets {
			continue
		}
		if path, cost, err := Finger(i, hand, wanted); err == nil && cost < bestCost {
			best, bestCost = path, cost
		}
	}
	return best, bestCost, nil
}

// appendCandidates adds every place and finger the note may take.
func appendCandidates(states []Fingered, i Instrument, w Window, note NoteToPlace) []Fingered {
	for s := 1; s <= len(i.Open); s++ {
		place := Place{String: s, Fret: int(note.Pitch - i.Open[s-1])}
		switch {
		case note.At != nil:
			if place != *note.At {
				continue
			}
		case place.Fret < w.Low || place.Fret > w.High:
			continue
		}
		if place.Fret == 0 {
			if !note.Fretted {
				states = append(states, Fingered{Place: place})
			}
			continue
		}
		for finger := 1; finger <= 4; finger++ {
			states = append(states, Fingered{Place: place, Finger: finger})
		}
	}
	return states
}

// naturalFinger is the finger that one finger per fret gives the fret; at the
// nut the first finger takes fret 1.
func naturalFinger(w Window, fret int) int {
	first := max(w.Core, 1)
	return min(max(fret-first+1, 1), 4)
}

func placeCost(w Window, note NoteToPlace, f Fingered) int {
	if f.Fret == 0 {
		return 0
	}
	natural := naturalFinger(w, f.Fret)
	cost := costOffFinger * max(natural-f.Finger, f.Finger-natural)
	if note.Bend >= bendWithThird {
		cost += [...]int{1: costBendFirst, 2: costBendSecond, 3: 0, 4: costBendLittle}[f.Finger]
	}
	if note.Held && f.Finger == 4 {
		cost += costHeldLittle
	}
	switch {
	case f.Fret > w.CoreEnd:
		cost += costReachUp
	case f.Fret < w.Core:
		cost += costReachBack
	}
	return cost
}

// moveCost is the cost of going from one fingered place to the next.
func moveCost(was pitch.MIDI, note NoteToPlace, a, b Fingered) int {
	cost := 0
	if note.Slurred && a.String != b.String {
		cost += costBrokenSlur
	}
	switch {
	case note.Pitch == was && a.Place != b.Place:
		cost += costMoveRepeated
	case note.Pitch > was && b.String > a.String, note.Pitch < was && b.String < a.String:
		cost += costAgainst
	}
	apart := max(a.String-b.String, b.String-a.String)
	if apart > 1 {
		cost += costSkip * (apart - 1)
	}
	if a.Finger == 0 || b.Finger == 0 {
		return cost
	}
	switch {
	case a.Finger == b.Finger && a.Fret == b.Fret && apart == 1:
		cost += costRoll
	case a.Finger == b.Finger && a.Fret != b.Fret && apart == 0:
		cost += costSameFingerShift
	case a.Finger == b.Finger && a.Fret != b.Fret && apart == 1:
		cost += costSameFingerAdjacent
	case a.Finger == b.Finger && a.Fret != b.Fret:
		cost += costSameFingerJump
	case a.Finger < b.Finger && a.Fret > b.Fret, a.Finger > b.Finger && a.Fret < b.Fret:
		cost += costCrossed
	case a.Finger != b.Finger && a.Place == b.Place:
		cost += costCrossed
	}
	return cost
}
