package planner

import (
	"undaris/core/chart"
	"undaris/core/harmony"
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
	key    harmony.Key
	meter  chart.Meter
}

// placedLick is a lick set into a window in the key and meter that hold there; it has no notes where
// that has no room for it.
func (pc *planContext) placedLick(n int, w neck.Window, in chart.Setting) placedLick {
	at := placedLickKey{n, w, in.Key, in.Meter}
	if known, ok := pc.licksPlaced[at]; ok {
		return known
	}
	one := placedLick{}
	l := pc.Licks[n]
	if setting, err := l.PlaceIn(pc.Instrument, in.Key.Tonic.Class(), w); err == nil {
		if set, err := setting.Phrase.InMeter(in.Meter); err == nil {
			one.phrase = set
		}
	}
	pc.licksPlaced[at] = one
	return one
}

// movedLicks is a set lick moved to each chord of the tune with its frets kept.
func (pc *planContext) movedLicks(n int, w neck.Window, in chart.Setting) map[int]phrase.Phrase {
	one := pc.placedLick(n, w, in)
	if one.moved != nil {
		return one.moved
	}
	one.moved = map[int]phrase.Phrase{}
	home, err := pc.Licks[n].TransposedTo(pc.Instrument, in.Key.Tonic, w)
	if err != nil {
		pc.licksPlaced[placedLickKey{n, w, in.Key, in.Meter}] = one
		return one.moved
	}
	for chord, over := range pc.Chords {
		if over.Chord.Root.Class() == home.Root() || len(one.phrase.Events) == 0 {
			continue
		}
		m := home.KeepFretsOver(pc.Instrument, in.Key, over.Chord)
		if m.Refused != "" {
			continue
		}
		if moved, err := m.Phrase.InMeter(in.Meter); err == nil && len(moved.Events) == len(one.phrase.Events) {
			one.moved[chord] = moved
		}
	}
	pc.licksPlaced[placedLickKey{n, w, in.Key, in.Meter}] = one
	return one.moved
}
