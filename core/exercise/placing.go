package exercise

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// structureReach is how many frets the notes of a structure span at most, maxGap how many
// strings lie between two neighbouring notes at most.
const (
	structureReach = 4
	maxGap         = 2
)

// structures are the structures in the area, from the lowest up, each with all ways to play it.
func (a area) structures(m material) []rung {
	rungs := []rung{}
	add := func(pitches []pitch.MIDI) {
		r := rung{pitches: pitches, placings: a.placings(pitches)}
		if len(r.placings) > 0 {
			rungs = append(rungs, r)
		}
	}
	low, high := a.pitches()
	for p := low; p <= high; p++ {
		for _, stack := range m.stacks {
			if stack[0].Note.Class() == p.Class() {
				add(stacked(stack, p))
			}
		}
		if m.stacks == nil && hasClass(m.tones, p.Class()) {
			add(stepsAbove(m.tones, p, m.above))
		}
	}
	return rungs
}

// stacked are the pitches of a stack from its lowest up, each tone the next of its name.
func stacked(stack []harmony.Tone, lowest pitch.MIDI) []pitch.MIDI {
	pitches := []pitch.MIDI{lowest}
	for _, t := range stack[1:] {
		last := pitches[len(pitches)-1]
		above := t.Note.Class().Above(last.Class())
		if above == 0 {
			above = 12
		}
		pitches = append(pitches, last+pitch.MIDI(above))
	}
	return pitches
}

// stepsAbove are a pitch and those so many steps of the tones above it.
func stepsAbove(tones []harmony.Tone, lowest pitch.MIDI, above []int) []pitch.MIDI {
	pitches := []pitch.MIDI{lowest}
	for _, steps := range above {
		p := lowest
		for left := steps; left > 0; {
			p++
			if hasClass(tones, p.Class()) {
				left--
			}
		}
		pitches = append(pitches, p)
	}
	return pitches
}

// placings are all ways to play pitches together: each on a string of its own, the higher on the
// higher string, within the reach of a hand.
func (a area) placings(pitches []pitch.MIDI) [][]neck.Place {
	found := [][]neck.Place{}
	var try func(so []neck.Place)
	try = func(so []neck.Place) {
		if len(so) == len(pitches) {
			found = append(found, slices.Clone(so))
			return
		}
		for _, at := range a.places(pitches[len(so)]) {
			if len(so) > 0 {
				gap := so[len(so)-1].String - at.String - 1
				if gap < 0 || gap > maxGap {
					continue
				}
			}
			if next := append(so, at); spanned(next) <= structureReach {
				try(next)
			}
		}
	}
	try(make([]neck.Place, 0, len(pitches)))
	return found
}

// spanned is how many frets lie between the lowest and the highest fretted place; open strings
// stretch nothing, but do not go with frets beyond the hand at the nut.
func spanned(places []neck.Place) int {
	low, high, open := 0, 0, false
	for _, p := range places {
		switch {
		case p.Fret == 0:
			open = true
		case low == 0:
			low, high = p.Fret, p.Fret
		default:
			low, high = min(low, p.Fret), max(high, p.Fret)
		}
	}
	if open {
		return high
	}
	return high - low
}
