package analysis

import (
	"fmt"
	"strconv"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Shape is the shape of a phrase, whatever its chords.
type Shape struct {
	// Rhythm labels the bars by their rhythm: "A A B A".
	Rhythm string
	// Ends says how the phrase ends: as a question off the chord or on its 5, as an answer
	// on R or 3, else open (common).
	Ends Ending
	// Space is the share of silence, PerSecond the notes a second at a tempo.
	Space, PerSecond float64
	// Shifts is how often the hand moves, WidestMM the widest reach between
	// neighbouring notes.
	Shifts   int
	WidestMM float64
}

// Ending is how a phrase ends.
type Ending string

// The endings.
const (
	QuestionEnding Ending = "question"
	AnswerEnding   Ending = "answer"
	OpenEnding     Ending = "open"
)

// ShapeOf is the shape of a phrase at a tempo in counted beats a minute. Its last note is the
// given tone, of the given class over its chord.
func ShapeOf(p phrase.Phrase, i neck.Instrument, last harmony.Tone, class harmony.Class, tempo int) Shape {
	o := Shape{Rhythm: rhythm(p), Ends: OpenEnding}
	switch {
	case class == harmony.ChordTone && (last.Degree.Number == 1 || last.Degree.Number == 3):
		o.Ends = AnswerEnding
	case class != harmony.ChordTone || last.Degree.Number == 5:
		o.Ends = QuestionEnding
	}
	first := p.Events[0].Tick
	end := first
	hand := 0
	for n, e := range p.Events {
		end = max(end, e.End())
		if e.Fret > 0 && n > 0 && p.Events[n-1].Fret > 0 {
			low, high := min(e.Fret, p.Events[n-1].Fret), max(e.Fret, p.Events[n-1].Fret)
			o.WidestMM = max(o.WidestMM, i.StretchMM(low, high))
		}
		if e.Fret > 0 && e.Finger > 0 {
			at := e.Fret - e.Finger + 1
			if hand != 0 && max(at-hand, hand-at) >= ShiftFrets {
				o.Shifts++
			}
			if hand == 0 || max(at-hand, hand-at) >= ShiftFrets {
				hand = at
			}
		}
	}
	o.Space = SilentShare(p, first, end)
	seconds := float64(end-first) / float64(p.Meter.BeatTicks()) * 60 / float64(tempo)
	o.PerSecond = float64(len(p.Events)) / seconds
	return o
}

// rhythm labels the bars by when their notes start: bars alike have the same letter.
func rhythm(p phrase.Phrase) string {
	lines := p.BarLines()
	first := lines.BarAt(p.Events[0].Tick)
	patterns := make([]string, lines.BarAt(p.Events[len(p.Events)-1].Tick)-first+1)
	for _, e := range p.Events {
		bar := lines.BarAt(e.Tick)
		patterns[bar-first] += fmt.Sprintf("%d ", e.Tick-lines.Start(bar))
	}
	letters, names := map[string]string{}, []string{}
	for _, pattern := range patterns {
		if _, known := letters[pattern]; !known {
			letters[pattern] = barLetter(len(letters))
		}
		names = append(names, letters[pattern])
	}
	return strings.Join(names, " ")
}

// barLetter names the nth rhythm, from 0: A to Z, then A2 to Z2, and on.
func barLetter(n int) string {
	name := string(rune('A' + n%26))
	if n >= 26 {
		name += strconv.Itoa(n/26 + 1)
	}
	return name
}
