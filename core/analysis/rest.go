package analysis

import (
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// RestsOn says whether note n is rested on: it lasts a beat or more, or is the last before a
// gap of half a beat or more.
func RestsOn(p phrase.Phrase, n int) bool {
	e := p.Events[n]
	m := p.BarLines().MeterAt(e.Tick)
	return IsLong(e, m) || n == len(p.Events)-1 || beats(p.Events[n+1].Tick-e.End(), m) >= RestGapBeats
}

// IsLong says whether a note lasts long enough to be rested on for its length alone.
func IsLong(e phrase.Event, m chart.Meter) bool { return beats(e.Ticks, m) >= RestBeats }

// IsHeld says whether a note is held: it lasts a beat and a half or more.
func IsHeld(e phrase.Event, m chart.Meter) bool { return IsHeldFor(e.Ticks, m.BeatTicks()) }

// IsHeldFor is IsHeld of a note of so many ticks where a counted beat has beatTicks.
func IsHeldFor(ticks, beatTicks int) bool { return float64(ticks) >= HeldBeats*float64(beatTicks) }

func beats(ticks int, m chart.Meter) float64 { return float64(ticks) / float64(m.BeatTicks()) }

// IsCurled says whether a blue note is bent a quarter tone on its way up: that is how it is
// leaned on (common).
func IsCurled(e phrase.Event, class harmony.Class) bool {
	return class == harmony.Blue && e.Bend%2 == 1
}

// resolves says whether note n moves by a step to a chord tone or colour within two notes.
// A blue note may move on by a step of the box, which is up to a minor third.
func resolves(p phrase.Phrase, i neck.Instrument, k harmony.Key, n int, labels []phrase.Label) bool {
	from := p.Events[n].Sounding(i)
	widest := StepSemitones
	if labels[n].Class == harmony.Blue {
		widest = BoxStepSemitones
	}
	for m := n + 1; m <= n+ResolveWithin && m < len(p.Events); m++ {
		to := p.Events[m].Sounding(i)
		step := int(max(to-from, from-to))
		if step >= 1 && step <= widest && phrase.MayRestOn(k, labels[m].Chord, to.Class()) {
			return true
		}
	}
	return false
}

// SilentShare is the share of the time between two ticks in which nothing sounds, 0 to 1.
func SilentShare(p phrase.Phrase, from, to int) float64 {
	sounding, end := 0, from
	for _, e := range p.Events {
		sounding += max(min(e.End(), to)-max(e.Tick, end), 0)
		end = max(end, e.End())
	}
	return 1 - float64(sounding)/float64(to-from)
}
