package planner

import (
	"undaris/core/neck"
	"undaris/core/phrase"
)

// placedLick is a lick of the vocabulary as it lies in a window: over its own chord, and, once
// it is used, moved to each chord of the tune. It is worked out once for all candidates.
type placedLick struct {
	phrase phrase.Phrase
	moved  map[int]phrase.Phrase
}

type placedLickKey struct {
	lick   int
	window neck.Window
}

// placedLick is a lick set into a window; it has no notes where that has no room for it.
func (pc *planContext) placedLick(n int, w neck.Window) placedLick {
	at := placedLickKey{n, w}
	if known, ok := pc.licksPlaced[at]; ok {
		return known
	}
	one := placedLick{}
	l := pc.Licks[n]
	if setting, err := l.PlaceIn(pc.Instrument, pc.Chart.Key.Tonic.Class(), w); err == nil {
		if set, err := setting.Phrase.InMeter(pc.Chart.Meter); err == nil {
			one.phrase = set
		}
	}
	pc.licksPlaced[at] = one
	return one
}

// movedLicks is a set lick moved to each chord of the tune with its frets kept.
func (pc *planContext) movedLicks(n int, w neck.Window) map[int]phrase.Phrase {
	one := pc.placedLick(n, w)
	if one.moved != nil {
		return one.moved
	}
	one.moved = map[int]phrase.Phrase{}
	home, err := pc.Licks[n].TransposedTo(pc.Instrument, pc.Chart.Key.Tonic, w)
	if err != nil {
		pc.licksPlaced[placedLickKey{n, w}] = one
		return one.moved
	}
	for chord, over := range pc.Chords {
		if over.Chord.Root.Class() == home.Root() || len(one.phrase.Events) == 0 {
			continue
		}
		m := home.KeepFretsOver(pc.Instrument, pc.Chart.Key, over.Chord)
		if m.Refused != "" {
			continue
		}
		if moved, err := m.Phrase.InMeter(pc.Chart.Meter); err == nil && len(moved.Events) == len(one.phrase.Events) {
			one.moved[chord] = moved
		}
	}
	pc.licksPlaced[placedLickKey{n, w}] = one
	return one.moved
}
