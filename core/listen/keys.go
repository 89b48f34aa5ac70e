package listen

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

// What is followed of keys (our choices): a take lasts an hour at most; nobody presses 55 keys a second for an hour; a
// string rings for less than a minute; and six strings may be bent all the time. Without bounds a file of 48 bytes, with
// one note that is as long as can be written, would need all the memory there is.
const (
	// MaxSeconds is how long a take lasts at most.
	MaxSeconds = 3600.0
	// MaxKeyEvents is how many events of keys and wheels a take has at most.
	MaxKeyEvents = 200_000
	// maxCurveSeconds is how much of a note the wheel is followed in, maxCurvesSeconds of all notes together.
	maxCurveSeconds  = 60.0
	maxCurvesSeconds = 6 * MaxSeconds
)

// NotesOfKeys are the notes that keys were pressed for, in order of time, with bends and vibrato by the wheel.
// They are as sure as can be. Times outside a take are brought to its beginning or end, and only the first MaxKeyEvents
// are read.
func NotesOfKeys(events []KeyEvent) []Note {
	events = slices.Clone(events[:min(len(events), MaxKeyEvents)])
	for n := range events {
		events[n].Seconds = within(events[n].Seconds, 0, MaxSeconds)
	}
	slices.SortStableFunc(events, func(a, b KeyEvent) int { return cmp.Compare(a.Seconds, b.Seconds) })
	// pressed is a note with the wheel as it was at its beginning, and the moves of its channel's wheel while it sounds.
	type pressed struct {
		note        Note
		wheel       float64
		channel     int
		from, until int
	}
	all := []*pressed{}
	sounding := map[[2]int]*pressed{}
	wheels := map[int][]KeyEvent{}
	for _, e := range events {
		key := [2]int{e.Channel, e.Key}
		if e.Wheel {
			wheels[e.Channel] = append(wheels[e.Channel], e)
			continue
		}
		if p := sounding[key]; p != nil {
			p.note.Length, p.until = e.Seconds-p.note.Onset, len(wheels[e.Channel])
			delete(sounding, key)
		}
		if e.Velocity > 0 {
			p := &pressed{note: Note{Onset: e.Seconds, Pitch: float64(e.Key), Attack: Picked, Confidence: 1, Loudness: 20 * math.Log10(float64(e.Velocity)/127)}}
			p.channel, p.from = e.Channel, len(wheels[e.Channel])
			if p.from > 0 {
				p.wheel = wheels[e.Channel][p.from-1].Cents
			}
			all = append(all, p)
			sounding[key] = p
		}
	}
	last := 0.0
	if len(events) > 0 {
		last = events[len(events)-1].Seconds
	}
	for _, p := range sounding {
		p.note.Length, p.until = math.Max(0.05, last-p.note.Onset), len(wheels[p.channel])
	}
	notes, left := make([]Note, len(all)), int(maxCurvesSeconds/hopSeconds)
	for n, p := range all {
		left -= p.note.followWheel(p.wheel, wheels[p.channel][p.from:p.until], left)
		notes[n] = p.note
		notes[n].Together = n > 0 && notes[n].Onset-notes[n-1].Onset < 0.012
	}
	return notes
}

func within(value, least, most float64) float64 { return math.Min(math.Max(value, least), most) }

// followWheel gives a note the curve that the wheel made, of at most so many frames, and what it amounts to. The wheel
// stands at so many cents as the note begins. It returns how many frames the curve has.
func (n *Note) followWheel(cents float64, moves []KeyEvent, most int) int {
	moved := cents != 0
	for _, w := range moves {
		moved = moved || w.Cents != 0
	}
	if !moved {
		return 0
	}
	frames := min(int(math.Min(n.Length, maxCurveSeconds)/hopSeconds), most)
	at := 0
	for k := range frames {
		for at < len(moves) && moves[at].Seconds <= n.Onset+wheelSettles+float64(k)*hopSeconds {
			cents = moves[at].Cents
			at++
		}
		n.Curve = append(n.Curve, float32(cents))
	}
	n.Bend, n.Vibrato = shaped(n.Curve)
	if len(n.Curve) > 0 && n.Curve[0] > bendLeast && n.Bend == nil {
		n.Bend = &Bend{Cents: float64(n.Curve[0]), Pre: true}
	}
	return len(n.Curve)
}
