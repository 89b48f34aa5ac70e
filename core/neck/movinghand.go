package neck

import (
	"undaris/core/pitch"
	"undaris/core/shortestpath"
)

// NoteWithPlaces is a note and the places at which it may be played.
type NoteWithPlaces struct {
	Pitch  pitch.MIDI
	Places []Place
}

// The costs of moving the hand, beside those of the fingering table (our choice: a shift
// costs the more the farther it goes, a stretch of one fret little).
const (
	costStretchOne = 3
	costShift      = 3
	costShiftFret  = 1
	// An open string while the hand is up the neck rings on out of the hand's control.
	costOpenAway = 4
	// From this fret on the hand is up the neck.
	awayFromNut = 5
)

// handState is a place, the finger on it, and the fret at which the first finger is.
type handState struct {
	Fingered
	hand int
}

// FingerMovingHand places and fingers notes in their order where the hand may move along the
// neck: one finger per fret, from wherever the hand is, at the least total cost (exact: a
// shortest path over places, fingers and hands). Ties fall to the place that is listed first, then to the
// lower finger. Every note needs at least one place; the cost is returned with the
// fingering.
func FingerMovingHand(i Instrument, notes []NoteWithPlaces) ([]Fingered, int) {
	layers := make([][]handState, len(notes))
	for n, note := range notes {
		layers[n] = handStates(i, note.Places)
	}
	chosen, cost := shortestpath.Choose(layers, handCost, func(n int, a, b handState) int {
		return moveHandCost(notes[n-1].Pitch, notes[n].Pitch, a, b)
	})
	path := make([]Fingered, len(notes))
	for n, at := range chosen {
		path[n] = layers[n][at].Fingered
	}
	return path, cost
}

// handStates are the fingers that may take each of the places; with an open string the hand may
// be anywhere.
func handStates(i Instrument, places []Place) []handState {
	states := []handState{}
	for _, place := range places {
		if place.Fret == 0 {
			for hand := 1; hand <= i.Frets; hand++ {
				states = append(states, handState{Fingered: Fingered{Place: place}, hand: hand})
			}
			continue
		}
		for finger := 1; finger <= min(place.Fret, 4); finger++ {
			states = append(states, handState{Fingered: Fingered{Place: place, Finger: finger}, hand: place.Fret - finger + 1})
		}
	}
	return states
}

func handCost(s handState) int {
	if s.Fret == 0 && s.hand >= awayFromNut {
		return costOpenAway
	}
	return 0
}

// moveHandCost is the cost of going from one fingered place to the next with the hand
// where each has it.
func moveHandCost(was, pitch pitch.MIDI, a, b handState) int {
	moved := max(a.hand-b.hand, b.hand-a.hand)
	if moved > 1 {
		// The hand is lifted: any finger may follow any other.
		a.Finger, b.Finger = 0, 0
	}
	cost := moveCost(was, NoteToPlace{Pitch: pitch}, a.Fingered, b.Fingered)
	switch moved {
	case 0:
	case 1:
		cost += costStretchOne
	default:
		cost += costShift + costShiftFret*moved
	}
	return cost
}
