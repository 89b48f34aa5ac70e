package neck

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"undaris/core/pitch"
)

// The fingering of a hand that moves costs what the cheapest of all costs, tried one by one.
func TestTheMovingHandEqualsExhaustiveSearch(t *testing.T) {
	guitar := Standard()
	guitar.Frets = 14
	rapid.Check(t, func(t *rapid.T) {
		notes := []NoteWithPlaces{}
		for range rapid.IntRange(1, 4).Draw(t, "notes") {
			p := pitch.MIDI(rapid.IntRange(45, 70).Draw(t, "pitch"))
			places := guitar.PlacesOf(Window{Low: 0, High: guitar.Frets}, p)
			notes = append(notes, NoteWithPlaces{Pitch: p, Places: places[:min(len(places), 2)]})
		}
		least := 1 << 30
		var try func(n, cost int, before *handState)
		try = func(n, cost int, before *handState) {
			if n == len(notes) {
				least = min(least, cost)
				return
			}
			for _, place := range notes[n].Places {
				fingers := []int{1, 2, 3, 4}
				if place.Fret == 0 {
					fingers = []int{0}
				}
				for _, finger := range fingers {
					hands := []int{place.Fret - finger + 1}
					if place.Fret == 0 {
						hands = hands[:0]
						for hand := 1; hand <= guitar.Frets; hand++ {
							hands = append(hands, hand)
						}
					}
					for _, hand := range hands {
						if hand < 1 {
							continue
						}
						here := handState{Fingered: Fingered{Place: place, Finger: finger}, hand: hand}
						so := cost + handCost(here)
						if before != nil {
							so += moveHandCost(notes[n-1].Pitch, notes[n].Pitch, *before, here)
						}
						try(n+1, so, &here)
					}
				}
			}
		}
		try(0, 0, nil)
		path, cost := FingerMovingHand(guitar, notes)
		assert.Equal(t, least, cost)
		for n, f := range path {
			assert.Equal(t, notes[n].Pitch, guitar.Pitch(f.Place))
			assert.Equal(t, f.Fret == 0, f.Finger == 0)
		}
	})
}

// The box stays under one hand, one finger a fret; a scale along one string is shifted.
func TestTheMovingHandFingersAsPlayersDo(t *testing.T) {
	guitar := Standard()
	for _, c := range []struct {
		name    string
		places  []Place
		fingers []int
	}{
		{"the first box of A", []Place{{6, 5}, {6, 8}, {5, 5}, {5, 7}, {4, 5}, {4, 7}}, []int{1, 4, 1, 3, 1, 3}},
		{"the open position", []Place{{5, 3}, {4, 0}, {4, 2}, {4, 3}, {3, 0}}, []int{3, 0, 2, 3, 0}},
		{"along one string", []Place{{3, 5}, {3, 7}, {3, 9}, {3, 10}, {3, 12}}, []int{1, 3, 1, 2, 4}},
	} {
		notes := make([]NoteWithPlaces, len(c.places))
		for n, place := range c.places {
			notes[n] = NoteWithPlaces{Pitch: guitar.Pitch(place), Places: []Place{place}}
		}
		path, _ := FingerMovingHand(guitar, notes)
		fingers := make([]int, len(path))
		for n, f := range path {
			fingers[n] = f.Finger
		}
		assert.Equal(t, c.fingers, fingers, c.name)
	}
}
