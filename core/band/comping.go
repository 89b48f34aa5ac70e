package band

import (
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Chords sit where a guitar's middle strings sound, E3 to A4.
const (
	lowestVoice  = pitch.MIDI(52)
	highestVoice = pitch.MIDI(69)
)

// hit is one stroke of the comping pattern, in fractions of a beat over twelve.
type hit struct{ at, long, loudness int }

// patterns are the comping rhythms of one bar of four beats (plain and common):
// a shuffle answers on the and of two, a straight feel plays the backbeat, slow
// 12/8 breathes with every beat.
var patterns = map[chart.Feel][]hit{
	chart.Shuffle:  {{0, 16, 62}, {18, 6, 54}, {36, 8, 50}},
	chart.Straight: {{12, 8, 58}, {30, 5, 50}, {36, 8, 56}},
	chart.Slow128:  {{0, 11, 58}, {12, 8, 46}, {24, 11, 54}, {36, 8, 46}},
}

// comping lays the chords out: voicings that keep common tones, in the feel's
// rhythm. A chord that comes in where the pattern is silent is struck where it
// begins, so that every chord of the chart is heard.
func comping(c chart.Chart, spans []chart.Moment, offset int) []Note {
	notes := []Note{}
	twelfth := c.Meter.BeatTicks() / 12
	voicing := []pitch.MIDI(nil)
	for _, span := range spans {
		if span.Silent {
			continue
		}
		voicing = nextVoicing(voicing, span.Chord)
		first := span.Beat * 12
		last := first + span.Ticks/twelfth
		struck := false
		for _, h := range patterns[c.Feel] {
			if h.at < first || h.at >= last {
				continue
			}
			struck = true
			length := min(h.long, last-h.at) * twelfth
			for _, p := range voicing {
				notes = append(notes, sounding(c, Chords, span.Tick+(h.at-first)*twelfth, length, offset, p, h.loudness))
			}
		}
		if struck {
			continue
		}
		for _, p := range voicing {
			notes = append(notes, sounding(c, Chords, span.Tick, span.Ticks*9/10, offset, p, 56))
		}
	}
	return notes
}

// voiced is which tones of the chord the comping plays: at most four, the root
// left to the bass where there are enough others.
func voiced(c harmony.Chord) []pitch.Class {
	tones := c.Tones()
	if len(tones) > 3 {
		tones = tones[1:]
	}
	if len(tones) > 4 {
		// Of a large chord the fifth says least.
		kept := []harmony.Tone{}
		for _, tone := range tones {
			if tone.Degree.Number != 5 || tone.Degree.Alter != 0 {
				kept = append(kept, tone)
			}
		}
		tones = kept[:min(4, len(kept))]
	}
	classes := make([]pitch.Class, len(tones))
	for n, tone := range tones {
		classes[n] = tone.Note.Class()
	}
	return classes
}

// nextVoicing is the voicing of the chord that moves least from the one before;
// the first lies in the middle. Every choice of octaves is tried: there are at
// most sixteen.
func nextVoicing(before []pitch.MIDI, c harmony.Chord) []pitch.MIDI {
	classes := voiced(c)
	best, bestCost := []pitch.MIDI(nil), 0
	var try func(chosen []pitch.MIDI, rest []pitch.Class)
	try = func(chosen []pitch.MIDI, rest []pitch.Class) {
		if len(rest) == 0 {
			if cost := voicingCost(before, chosen); best == nil || cost < bestCost {
				best, bestCost = append([]pitch.MIDI(nil), chosen...), cost
			}
			return
		}
		for p := lowestVoice; p <= highestVoice; p++ {
			if p.Class() == rest[0] {
				try(append(chosen, p), rest[1:])
			}
		}
	}
	try(make([]pitch.MIDI, 0, len(classes)), classes)
	return best
}

// voicingCost is how far each voice lies from the nearest voice before, plus
// the spread, so that a voicing stays in one hand.
func voicingCost(before, voicing []pitch.MIDI) int {
	low, high, cost := voicing[0], voicing[0], 0
	for _, p := range voicing {
		low, high = min(low, p), max(high, p)
		nearest := max(p-60, 60-p)
		for n, was := range before {
			apart := max(p-was, was-p)
			if n == 0 || apart < nearest {
				nearest = apart
			}
		}
		cost += int(nearest) * 2
	}
	return cost + int(high-low)
}
