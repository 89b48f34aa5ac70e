package phrase

import (
	"undaris/core/chart"
	"undaris/core/neck"
)

// strumTicks is how far apart the strings of a strum are struck: a twentieth of a quarter
// note (ours: heard as one stroke, and still as strings).
const strumTicks = chart.TicksPerQuarter / 20

// ShapeToHear writes places as they are heard: one after the other in eighths, or strummed
// and ringing together. The last note, and every note of a strum, rings for a half note.
func ShapeToHear(places []neck.Place, strummed bool, meter chart.Meter) Phrase {
	const eighth = chart.TicksPerQuarter / 2
	p := Phrase{Meter: meter}
	for n, at := range places {
		e := Event{Tick: n * eighth, Ticks: eighth, Fingered: neck.Fingered{Place: at}}
		if strummed {
			e.Tick = n * strumTicks
		}
		if strummed || n == len(places)-1 {
			e.Ticks = 4 * eighth
		}
		p.Events = append(p.Events, e)
	}
	return p
}
