package band

import (
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// The bass stays between the open low string of a bass and the octave above
// its third string's G.
const (
	lowestBass  = pitch.MIDI(28)
	highestBass = pitch.MIDI(48)
)

// bassLine walks in quarters in the straight and shuffle feels: root, third,
// fifth and sixth or seventh up, and down again when the chord stays; the last
// beat before another chord steps into its root by a half step. In slow 12/8
// it holds the root and fifth and leads with one eighth. Common practice.
func bassLine(c chart.Chart, spans []chart.Moment, offset int) []Note {
	notes := []Note{}
	down := false
	for n, span := range spans {
		if span.Silent {
			continue
		}
		next := spans[(n+1)%len(spans)].Chord
		if n+1 == len(spans) {
			next = c.Written().ChordAt(span.Tick + span.Ticks)
		}
		leads := next.Root.Class() != span.Chord.Root.Class()
		down = !down && n > 0 && spans[n-1].Chord.Same(span.Chord)
		if c.Feel == chart.Slow128 {
			notes = append(notes, heldBass(c, span, next, leads, offset)...)
			continue
		}
		notes = append(notes, walkingBass(c, span, next, leads, down, offset)...)
	}
	return notes
}

func walkingBass(c chart.Chart, span chart.Moment, next harmony.Chord, leads, down bool, offset int) []Note {
	beat := c.Meter.BeatTicks()
	beats := span.Ticks / beat
	steps := walk(span.Chord)
	root := bassRoot(span.Chord)
	notes := []Note{}
	for n := range beats {
		p := root + steps[n%len(steps)]
		if down {
			p = root + 12 - descend(span.Chord)[n%len(steps)]
			if p > highestBass {
				p -= 12
			}
		}
		if leads && n == beats-1 && beats > 1 {
			p = leadInto(bassRoot(next), notes[len(notes)-1].Pitch)
		}
		loudness := 84
		if n == 0 {
			loudness = 94
		}
		notes = append(notes, sounding(c, Bass, span.Tick+n*beat, beat*9/10, offset, p, loudness))
	}
	return notes
}

// walk is the way up from the root in semitones: root, third, fifth, and the
// sixth where the chord is major, else the seventh.
func walk(c harmony.Chord) []pitch.MIDI {
	third, fifth := pitch.MIDI(4), pitch.MIDI(7)
	last := pitch.MIDI(9)
	for _, tone := range c.Tones() {
		switch tone.Degree.Number {
		case 2, 3, 4:
			third = pitch.MIDI(tone.Degree.Semitones())
		case 5:
			fifth = pitch.MIDI(tone.Degree.Semitones())
		}
	}
	if c.Quality.Minor() {
		last = 10
		if _, ok := c.Tone(pitch.ClassOf(int(c.Root.Class()) + 9)); ok {
			last = 9
		}
	}
	return []pitch.MIDI{0, third, fifth, last}
}

// descend is the way down, in semitones below the octave: octave, seventh or
// sixth, fifth, third.
func descend(c harmony.Chord) []pitch.MIDI {
	up := walk(c)
	seventh := up[3]
	if _, ok := c.Tone(pitch.ClassOf(int(c.Root.Class()) + 10)); ok {
		seventh = 10
	}
	return []pitch.MIDI{0, 12 - seventh, 12 - up[2], 12 - up[1]}
}

func heldBass(c chart.Chart, span chart.Moment, next harmony.Chord, leads bool, offset int) []Note {
	beat := c.Meter.BeatTicks()
	eighth := beat / 3
	beats := span.Ticks / beat
	root := bassRoot(span.Chord)
	fifth := walk(span.Chord)[2]
	notes := []Note{}
	for n := range beats {
		p, length := root, beat
		if n%2 == 1 {
			p = root + fifth
		}
		last := n == beats-1
		if last && leads {
			length = beat - eighth
		}
		notes = append(notes, sounding(c, Bass, span.Tick+n*beat, length*95/100, offset, p, 88))
		if last && leads {
			notes = append(notes, sounding(c, Bass, span.Tick+span.Ticks-eighth, eighth*9/10, offset, leadInto(bassRoot(next), p), 78))
		}
	}
	return notes
}

// bassRoot is the chord's bass note at its lowest on the instrument; a slash
// bass is the note the band plays below.
func bassRoot(c harmony.Chord) pitch.MIDI {
	note := c.Root
	if c.Bass != nil {
		note = *c.Bass
	}
	return lowestBass + pitch.MIDI(note.Class().Above(lowestBass.Class()))
}

// leadInto is the half step into a root from the side the bass comes from.
func leadInto(root, from pitch.MIDI) pitch.MIDI {
	if from > root || root == lowestBass {
		return root + 1
	}
	return root - 1
}
