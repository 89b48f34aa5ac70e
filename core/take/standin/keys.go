package standin

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/listen"
)

// KeyEvent is what a MIDI instrument sends.
type KeyEvent = listen.KeyEvent

// wheelEvery is how often the wheel is sent while a pitch moves, in seconds.
const wheelEvery = 0.01

// Keys is the playing as a guitar with a pickup for each string sends it: each string on a channel of its own,
// bends and vibrato by the wheel.
func (p Playing) Keys() []KeyEvent {
	events := []KeyEvent{}
	for _, n := range p.Notes {
		channel := (n.String - 1) & 15
		if channel == 9 { // drums
			channel = 15
		}
		key := int(math.Round(n.Pitch))
		events = append(events,
			KeyEvent{Seconds: n.Onset, Channel: channel, Wheel: true, Cents: n.Cents(0)},
			KeyEvent{Seconds: n.Onset, Channel: channel, Key: key, Velocity: max(1, min(127, int(math.Round(160*math.Sqrt(n.Loudness)))))},
			KeyEvent{Seconds: n.Onset + n.Length, Channel: channel, Key: key},
		)
		last := n.Cents(0)
		for t := wheelEvery; len(n.Curve) > 0 && t < n.Length; t += wheelEvery {
			if cents := math.Round(n.Cents(t)); cents != last {
				events = append(events, KeyEvent{Seconds: n.Onset + t, Channel: channel, Wheel: true, Cents: cents})
				last = cents
			}
		}
	}
	slices.SortStableFunc(events, func(a, b KeyEvent) int { return cmp.Compare(a.Seconds, b.Seconds) })
	return events
}
