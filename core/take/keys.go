package take

import (
	"cmp"
	"math"
	"slices"
)

// KeyEvent is what a MIDI instrument sends: a key that is pressed or let go, or the wheel of a channel.
type KeyEvent struct {
	Seconds float64
	// Channel is 0 to 15; a guitar with a pickup for each string sends each on a channel of its own.
	Channel int
	// Key and Velocity are 0 to 127; a velocity of 0 lets the key go.
	Key, Velocity int
	// Wheel says that this is the wheel, which moves the channel's pitch by so many cents.
	Wheel bool
	Cents float64
}

// wheelSettles is how long before a key the wheel may have been moved for it, in seconds.
const wheelSettles = 0.005

// NotesOfKeys are the notes that keys were pressed for, in order of time, with bends and vibrato by the wheel.
// They are as sure as can be.
func NotesOfKeys(events []KeyEvent) []Note {
	events = slices.Clone(events)
	slices.SortStableFunc(events, func(a, b KeyEvent) int { return cmp.Compare(a.Seconds, b.Seconds) })
	type pressed struct {
		note  Note
		wheel []KeyEvent
	}
	all := []*pressed{}
	sounding := map[[2]int]*pressed{}
	wheels := map[int]float64{}
	for _, e := range events {
		key := [2]int{e.Channel, e.Key}
		switch {
		case e.Wheel:
			wheels[e.Channel] = e.Cents
			for k, p := range sounding {
				if k[0] == e.Channel {
					p.wheel = append(p.wheel, e)
				}
			}
		default:
			if p := sounding[key]; p != nil {
				p.note.Length = e.Seconds - p.note.Onset
				delete(sounding, key)
			}
			if e.Velocity > 0 {
				p := &pressed{note: Note{Onset: e.Seconds, Pitch: float64(e.Key), Attack: Picked, Confidence: 1, Loudness: 20 * math.Log10(float64(e.Velocity)/127)}}
				p.wheel = []KeyEvent{{Seconds: e.Seconds, Cents: wheels[e.Channel]}}
				all = append(all, p)
				sounding[key] = p
			}
		}
	}
	last := 0.0
	for _, e := range events {
		last = math.Max(last, e.Seconds)
	}
	for _, p := range sounding {
		p.note.Length = math.Max(0.05, last-p.note.Onset)
	}
	notes := make([]Note, len(all))
	for n, p := range all {
		p.note.followWheel(p.wheel)
		notes[n] = p.note
		notes[n].Together = n > 0 && notes[n].Onset-notes[n-1].Onset < 0.012
	}
	return notes
}

// followWheel gives a note the curve that the wheel made, and what it amounts to.
func (n *Note) followWheel(wheel []KeyEvent) {
	moved := false
	for _, w := range wheel {
		moved = moved || w.Cents != 0
	}
	if !moved {
		return
	}
	frames := int(n.Length / hopSeconds)
	at, cents := 0, 0.0
	for k := range frames {
		for at < len(wheel) && wheel[at].Seconds <= n.Onset+wheelSettles+float64(k)*hopSeconds {
			cents = wheel[at].Cents
			at++
		}
		n.Curve = append(n.Curve, float32(cents))
	}
	n.Bend, n.Vibrato = shaped(n.Curve)
	if len(n.Curve) > 0 && n.Curve[0] > bendLeast && n.Bend == nil {
		n.Bend = &Bend{Cents: float64(n.Curve[0]), Pre: true}
	}
}
