package band

import (
	"math/rand/v2"
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// The bass stays between its open low string, E1, and the ninth fret of its highest, E3.
const (
	lowestBass  = pitch.MIDI(28)
	highestBass = pitch.MIDI(52)
	// middleBass is where a bass line is at home: around C2.
	middleBass = pitch.MIDI(36)
)

// bassFigures are bars of bass by intensity, each of which ends near where it began; and
// for a chord of two bars those that go up in the first and come down in the second. Each
// slot names a degree of the chord: R (or the slash bass), 2, 3, 5, 6, 7; N is the root of
// the next chord, L the half step into it. ^ is reached upwards, v downwards.
type bassFigures [comesDown + 1][]string

// Where bassFigures has those of two bars.
const (
	goesUp = full + 1 + iota
	comesDown
)

// bassTone is one note of the bass, before its octave is chosen.
type bassTone struct {
	tick, ticks int
	class       pitch.Class
	// up and down say from which side it is reached; into that it must lie a half step from
	// the note after it.
	up, down, into bool
	loudness       int
	bar            int
}

// bass writes the bass: the figures of the style over the chords, their octaves chosen
// together (octaves.go).
func (s score) bass() []Note {
	tones := []bassTone{}
	for n, b := range s.bars {
		tones = append(tones, s.bassOf(n, b)...)
	}
	notes := make([]Note, 0, len(tones))
	bar := -1
	var random *rand.Rand
	for n, o := range chooseOctaves(tones) {
		tone := tones[n]
		if tone.bar != bar {
			bar, random = tone.bar, s.random(s.bars[tone.bar], forBassTime)
		}
		loudness := int(float64(tone.loudness) * s.bars[bar].loudnessFactor())
		if o.begin == o.end {
			notes = append(notes, s.humanised(s.sound(Bass, tone.tick, tone.ticks*9/10, o.begin, loudness), random, 0))
			continue
		}
		half := tone.ticks / 2
		notes = append(notes,
			s.humanised(s.sound(Bass, tone.tick, half*9/10, o.begin, loudness), random, 0),
			s.humanised(s.sound(Bass, tone.tick+half, half*9/10, o.end, loudness), random, 0))
	}
	return notes
}

// bassOf is the bass of a bar.
func (s score) bassOf(n int, b bar) []bassTone {
	tones := []bassTone{}
	for k, sp := range b.spans {
		if sp.silent {
			continue
		}
		if b.last || b.stop {
			ticks := sp.ticks
			if b.stop {
				ticks = b.meter.BeatTicks() * 2 / 3
			}
			if !b.last || k == 0 {
				tones = append(tones, bassTone{tick: sp.tick, ticks: ticks, class: bassClass(sp.chord), loudness: 96, bar: n})
			}
			continue
		}
		tones = append(tones, s.bassOfSpan(n, k, s.figureOf(n))...)
	}
	return tones
}

// figureOf is the bass figure of a bar: a chord of two bars may go up and come down; else
// one figure carries the chorus, and others come in between.
func (s score) figureOf(n int) string {
	b := s.bars[n]
	random := s.random(b, forBass)
	choices := b.style.bass[b.intensity]
	switch {
	case b.goesUp:
		choices = b.style.bass[goesUp]
	case n > 0 && s.bars[n-1].goesUp:
		choices = b.style.bass[comesDown]
	}
	if random.Float64() < 0.6 {
		return choices[(b.chorus+int(s.Seed%7))%len(choices)]
	}
	return choices[random.IntN(len(choices))]
}

// pairBars finds the bars in which the bass goes up, to come down in the next one: two bars of
// one chord, in some places.
func (s *score) pairBars() {
	for n := 0; n+1 < len(s.bars); n++ {
		b, next := &s.bars[n], s.bars[n+1]
		apart := b.stop || next.stop || b.turnaround || next.turnaround || next.last || next.top || b.intensity == light
		paired := n > 0 && s.bars[n-1].goesUp
		b.goesUp = !apart && !paired && len(b.style.bass[goesUp]) > 0 && len(b.spans) == 1 && s.same(n, n+1) &&
			s.random(*b, forBassPair).Float64() < 0.6
	}
}

// same says whether a bar has one chord, and it is the one the bar before ended on.
func (s score) same(before, n int) bool {
	b, last := s.bars[n], s.bars[before].spans
	return len(b.spans) == 1 && last[len(last)-1].chord.Same(b.spans[0].chord) && !last[len(last)-1].silent && !b.spans[0].silent
}

func (s score) bassOfSpan(n, k int, figure string) []bassTone {
	b := s.bars[n]
	sp := b.spans[k]
	after := s.spanAfter(n, k)
	next := after.chord
	leads := !after.silent && (bassClass(next) != bassClass(sp.chord) || b.style.walks && !b.goesUp)
	beat := b.meter.BeatTicks()
	strokes := over(readGrid(figure, ","), gridBeats(figure), b.meter.Beats())
	if b.turnaround && !b.style.walks {
		strokes = turnaroundBass(sp)
	} else {
		strokes = cut(strokes, 0, sp.beats)
	}
	if leads && sp.beats > 1 {
		strokes = leadOut(strokes, sp.beats, b.meter.Compound())
	}
	tones := []bassTone{}
	for i, st := range strokes {
		tone := bassTone{tick: sp.tick + st.at*beat/twelfths, ticks: st.long * beat / twelfths, loudness: 84, bar: n}
		if st.at == 0 {
			tone.loudness = 96
		}
		degree := strings.TrimLeft(st.text, "^v")
		tone.up, tone.down = strings.HasPrefix(st.text, "^"), strings.HasPrefix(st.text, "v")
		last := i == len(strokes)-1
		switch {
		case degree == "L" && leads && last:
			// The side is chosen with the octave.
			tone.class, tone.into = bassClass(next), true
		case degree == "N" && last && !after.silent:
			tone.class = bassClass(next)
		case degree == "L" || degree == "N":
			tone.class = bassDegree(sp.chord, "5", b.key)
		default:
			tone.class = bassDegree(sp.chord, degree, b.key)
		}
		tones = append(tones, tone)
	}
	return tones
}

// leadOut makes the last stroke of a span lead into the next chord. One that is longer than
// a beat gives up its last slot for it.
func leadOut(strokes []stroke, beats int, compound bool) []stroke {
	last := &strokes[len(strokes)-1]
	if strings.TrimLeft(last.text, "^v") == "N" {
		return strokes
	}
	lastBeat := (beats - 1) * twelfths
	if len(strokes) > 1 && last.at >= lastBeat {
		last.text = "L"
		return strokes
	}
	from := lastBeat
	if compound {
		from += twelfths * 2 / 3
	}
	last.long = from - last.at
	return append(strokes, stroke{at: from, long: beats*twelfths - from, text: "L"})
}

// bassClass is what the bass plays on the chord's first beat: the slash bass, else the root.
func bassClass(c harmony.Chord) pitch.Class {
	if c.Bass != nil {
		return c.Bass.Class()
	}
	return c.Root.Class()
}

// bassDegree is the pitch class that a figure's degree has over a chord: the chord's own
// third, fifth and seventh, the second and sixth where the key has them as chord tone or
// colour, and otherwise the nearest chord tone below.
func bassDegree(c harmony.Chord, degree string, key harmony.Key) pitch.Class {
	if degree == "R" {
		return bassClass(c)
	}
	number := int(degree[0] - '0')
	own := map[int]pitch.Class{}
	for _, tone := range c.Tones() {
		own[(tone.Degree.Number-1)%7+1] = tone.Note.Class()
	}
	class, ok := own[number]
	switch number {
	case 3:
		if !ok { // a suspended chord, or a bare fifth
			if class, ok = own[4]; !ok {
				class, ok = own[2]
			}
		}
	case 2, 6:
		if !ok {
			class, ok = addedDegree(c, key, map[int]int{2: 2, 6: 9}[number])
		}
		if !ok && number == 6 {
			class, ok = addedDegree(c, key, 8)
		}
	case 7:
		if !ok {
			class, ok = own[6]
		}
		if !ok {
			class, ok = addedDegree(c, key, 10)
		}
		if !ok {
			class, ok = addedDegree(c, key, 9)
		}
	}
	if ok {
		return class
	}
	for below := number - 1; below > 1; below-- {
		if class, ok := own[below]; ok {
			return class
		}
	}
	return bassClass(c)
}

// addedDegree is the class so many semitones above the root, where it may be rested on.
func addedDegree(c harmony.Chord, key harmony.Key, above int) (pitch.Class, bool) {
	class := pitch.ClassOf(int(c.Root.Class()) + above)
	what := key.Classify(c, class)
	return class, what == harmony.ChordTone || what == harmony.Colour
}
