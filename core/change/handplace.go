package change

import (
	"slices"
	"sort"

	"undaris/core/chart"
	"undaris/core/neck"
)

// HandPlace is where the hand stands from a tick of the chorus on.
type HandPlace struct {
	Tick     int
	Position neck.Position
}

// HandPlaces are where the hand stands through a chorus, in order, the first at tick 0. It goes where it is
// sent at the start of a bar, and where the key changes in between to the position that follows it there,
// in the form it had (see neck.Position.Follow).
func HandPlaces(t chart.Timeline, i neck.Instrument, first neck.Position, sent ...HandPlace) []HandPlace {
	places := []HandPlace{{0, first}}
	for bar := range t.Bars() {
		tick := t.Start(bar)
		at := places[len(places)-1].Position
		if n := slices.IndexFunc(sent, func(s HandPlace) bool { return s.Tick == tick }); n >= 0 {
			at = sent[n].Position
		} else if before := t.KeyAt(bar - 1).Tonic.Class(); bar > 0 && before != t.KeyAt(bar).Tonic.Class() {
			at = at.Follow(i, before, i, t.KeyAt(bar).Tonic.Class())
		} else {
			continue
		}
		places = append(places, HandPlace{tick, at})
	}
	return places
}

// PositionAt is where the hand stands at a tick of the chorus; before the first place it stands there already.
func PositionAt(hand []HandPlace, tick int) neck.Position {
	after := sort.Search(len(hand), func(n int) bool { return hand[n].Tick > tick })
	return hand[max(after-1, 0)].Position
}
