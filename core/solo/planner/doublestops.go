package planner

import (
	"math/rand/v2"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// oftenDoubled is how often a note that is rested on is played as a double stop (ours).
const oftenDoubled = 0.1

// doubleStopIntervals are how far below the line the second note of a double stop lies, in
// semitones: a minor or major third, a minor or major sixth (common in the blues).
var doubleStopIntervals = []int{3, 4, 8, 9}

// addDoubleStops adds a third or a sixth below to some of the notes that are rested on, where
// it is a tone of the chord and lies under the hand. Next are the notes of the phrase after it.
func (pc *planContext) addDoubleStops(p *draftPhrase, next []phrase.Event, r *rand.Rand) {
	line := slices.Concat(p.notes, next[:min(1, len(next))])
	for n, e := range p.notes {
		o := p.onsets[n]
		if p.fromLick[n] || e.Bend > 0 || e.Fret == 0 || e.Ticks < o.beat || !o.rests || o.peak || e.HammerOn || e.PullOff || e.SlideFrom > 0 || r.Float64() >= oftenDoubled {
			continue
		}
		found := []neck.Place{}
		for _, c := range pc.allPlaces(o.window) {
			below := int(p.notes[n].Sounding(pc.Instrument) - c.pitch)
			if c.place.String > e.String && c.place.String <= e.String+2 && c.place.Fret > 0 && slices.Contains(doubleStopIntervals, below) &&
				(o.blend > 0 || pc.Chords[o.over].InBox[c.pitch.Class()]) && pc.Chords[o.over].Class[c.pitch.Class()] == harmony.ChordTone &&
				pc.WithinSpan(e.Place, c.place) && secondFinger(e, c.place) > 0 && (n+1 == len(line) || pc.WithinSpan(line[n+1].Place, c.place)) {
				found = append(found, c.place)
			}
		}
		if len(found) == 0 {
			continue
		}
		at := found[r.IntN(len(found))]
		second := phrase.Event{Tick: e.Tick, Ticks: e.Ticks, Fingered: neck.Fingered{Place: at, Finger: secondFinger(e, at)}}
		second.Vibrato = e.Vibrato
		p.with[n] = append(p.with[n], second)
	}
}

// secondFinger is the finger of the lower note of a double stop beside that of the upper one, 0 where
// none is free: one finger lies across neighbouring strings at the same fret; else each fret has
// its finger as nearly as can be, and no lower finger stands above a higher one.
func secondFinger(upper phrase.Event, at neck.Place) int {
	if at.Fret == upper.Fret && at.String == upper.String+1 {
		return upper.Finger
	}
	best, natural := 0, upper.Finger+at.Fret-upper.Fret
	for finger := 1; finger <= 4; finger++ {
		crossed := at.Fret > upper.Fret && finger < upper.Finger || at.Fret < upper.Fret && finger > upper.Finger
		if finger == upper.Finger || crossed {
			continue
		}
		if best == 0 || max(finger-natural, natural-finger) < max(best-natural, natural-best) {
			best = finger
		}
	}
	return best
}
