package band

import (
	"math/rand/v2"
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// chordKind is how the chords of a figure are played.
type chordKind int

const (
	stabKind   chordKind = iota // short
	padKind                     // held
	softKind                    // every beat or slot, lightly
	boogieKind                  // root and fifth, sixth or seventh on the low strings
)

// compFigure is a bar of chords.
type compFigure struct {
	grid string
	kind chordKind
	// degrees are what a boogie plays above the root, one for each beat.
	degrees string
}

// Loudness of the chords by kind, of an accented stroke and a plain one.
var chordLoudness = map[chordKind][2]int{stabKind: {74, 64}, padKind: {60, 54}, softKind: {58, 46}, boogieKind: {72, 62}}

// stabTwelfths is how long a stab lasts, in twelfths of a beat; a longer one a little longer.
const stabTwelfths = 5

// Boogies lie on the low strings, their root E2 to D#3.
const lowestBoogie = pitch.MIDI(40)

// comping lays the chords out: voicings that keep common tones, in the rhythm of the
// style's figures. A chord that comes in where the figure is silent is struck where it
// begins, so that every chord of the chart is heard.
func (s score) comping() []Note {
	chords := []harmony.Chord{}
	for _, b := range s.bars {
		for _, sp := range b.spans {
			if !sp.silent {
				chords = append(chords, sp.chord)
			}
		}
	}
	led := voiceLead(chords)
	notes := []Note{}
	count := 0
	for n, b := range s.bars {
		figure := s.compFigureOf(n)
		random := s.random(b, forChordsTime)
		for _, sp := range b.spans {
			if sp.silent {
				continue
			}
			voicing := led[count]
			count++
			notes = append(notes, s.compSpan(b, sp, figure, voicing, random)...)
		}
	}
	return notes
}

func (s score) compSpan(b bar, sp span, figure compFigure, voicing []pitch.MIDI, random *rand.Rand) []Note {
	beat := b.meter.BeatTicks()
	switch {
	case b.last:
		return s.strike(b, padKind, true, sp.tick, sp.ticks, voicing, random)
	case b.stop:
		return s.strike(b, stabKind, true, sp.tick, beat*stabTwelfths/twelfths, voicing, random)
	case b.turnaround && s.descends(b, sp):
		return s.descendingLine(b, sp, random)
	}
	rows := cut(over(readGrid(figure.grid, ""), gridBeats(figure.grid), b.meter.Beats()), sp.beat, sp.beats)
	if len(rows) == 0 || figure.kind == padKind && rows[0].at > 0 {
		rows = append([]stroke{{at: 0, long: sp.beats * twelfths, text: "x"}}, rows...)
		if len(rows) > 1 {
			rows[0].long = rows[1].at
		}
	}
	notes := []Note{}
	for _, st := range rows {
		long := st.long
		if figure.kind == stabKind {
			long = min(long, max(stabTwelfths, long*3/4))
		}
		pitches := voicing
		if figure.kind == boogieKind {
			pitches = boogie(sp.chord, figure.degrees, sp.beat+st.at/twelfths, b.key)
		}
		notes = append(notes, s.strike(b, figure.kind, st.text == "X", sp.tick+st.at*beat/twelfths, long*beat/twelfths, pitches, random)...)
	}
	return notes
}

// strike plays the notes of a chord together.
func (s score) strike(b bar, kind chordKind, accented bool, tick, ticks int, pitches []pitch.MIDI, random *rand.Rand) []Note {
	loudness := chordLoudness[kind][1]
	if accented {
		loudness = chordLoudness[kind][0]
	}
	first := s.humanised(s.sound(Chords, tick, ticks*19/20, 0, int(float64(loudness)*b.loudnessFactor())), random, 0)
	notes := make([]Note, len(pitches))
	for n, p := range pitches {
		notes[n] = first
		notes[n].Pitch = p
	}
	return notes
}

// compFigureOf is the figure of a bar: one for each chorus, which gives way to its
// neighbour in some four-bar phrases.
func (s score) compFigureOf(n int) compFigure {
	b := s.bars[n]
	all := b.style.comping
	if b.intensity == light {
		all = all[:2]
	}
	phrase := b
	phrase.inChorus -= b.inChorus % 4
	at := (b.chorus + int(s.Seed%5)) % len(all)
	if s.random(phrase, forChords).Float64() < 0.35 {
		at = (at + 1) % len(all)
	}
	return all[at]
}

// boogie is the root and a degree above it, on the low strings.
func boogie(c harmony.Chord, degrees string, beat int, key harmony.Key) []pitch.MIDI {
	all := strings.Fields(degrees)
	degree := all[beat%len(all)]
	class := bassDegree(c, degree, key)
	root := lowestBoogie + pitch.MIDI(c.Root.Class().Above(lowestBoogie.Class()))
	upper := root + pitch.MIDI(class.Above(root.Class()))
	if upper == root {
		upper += 12
	}
	return []pitch.MIDI{root, upper}
}
