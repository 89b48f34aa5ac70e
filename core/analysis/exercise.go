package analysis

import (
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Walking says how much of a line is walked through a chord or a scale instead of played.
type Walking struct {
	// Arpeggio and Scale are the shares of the moves within phrases that are part of a walk: of
	// three moves or more, by short notes, to the next tone of the chord or, one way, of the scale
	// of the chord.
	Arpeggio, Scale float64
	// Moves is how many moves there are.
	Moves int
}

// WalkingOf measures the moves of a line whose notes have labels.
func WalkingOf(p phrase.Phrase, i neck.Instrument, k harmony.Key, labels []phrase.Label) Walking {
	w := Walking{}
	if len(labels) == 0 {
		return w
	}
	scales := map[string][12]bool{}
	scaleOf := func(c harmony.Chord) [12]bool {
		symbol := c.Identity()
		known, found := scales[symbol]
		if !found {
			scale, _ := k.ChordScale(c)
			for _, t := range scale.Tones {
				known[t.Note.Class()] = true
			}
			scales[symbol] = known
		}
		return known
	}
	arpeggio, scale := 0, 0
	for _, span := range PhraseSpans(p) {
		w.Moves += span.To - span.From - 1
		arpeggio += movesInRuns(span, func(n int) int {
			if !isShort(p, n-1) || !nextChordTone(labels[n].Chord, p.Events[n-1].Sounding(i), p.Events[n].Sounding(i)) {
				return 0
			}
			return 1
		})
		scale += movesInRuns(span, func(n int) int {
			if !isShort(p, n-1) {
				return 0
			}
			return scaleStep(scaleOf(labels[n].Chord), p.Events[n-1].Sounding(i), p.Events[n].Sounding(i))
		})
	}
	if w.Moves > 0 {
		w.Arpeggio, w.Scale = float64(arpeggio)/float64(w.Moves), float64(scale)/float64(w.Moves)
	}
	return w
}

// movesInRuns counts the moves of a phrase that stand in runs of WalkMoves or more of the same
// kind, 0 for none.
func movesInRuns(span PhraseSpan, kindOf func(n int) int) int {
	all, run, last := 0, 0, 0
	for n := span.From + 1; n < span.To; n++ {
		kind := kindOf(n)
		if kind == 0 || kind != last {
			if run >= WalkMoves {
				all += run
			}
			run = 0
		}
		if last = kind; kind != 0 {
			run++
		}
	}
	if run >= WalkMoves {
		all += run
	}
	return all
}

func isShort(p phrase.Phrase, n int) bool {
	return beats(p.Events[n].Ticks, p.BarLines().MeterAt(p.Events[n].Tick)) <= WalkBeats
}

// nextChordTone says whether two pitches are neighbours among the tones of a chord.
func nextChordTone(c harmony.Chord, from, to pitch.MIDI) bool {
	isTone := func(at pitch.MIDI) bool { _, ok := c.Tone(at.Class()); return ok }
	if from == to || !isTone(from) || !isTone(to) {
		return false
	}
	for at := min(from, to) + 1; at < max(from, to); at++ {
		if isTone(at) {
			return false
		}
	}
	return true
}

// scaleStep is 1 or -1 where one pitch is the next one up or down from another in a scale, else 0.
func scaleStep(inScale [12]bool, from, to pitch.MIDI) int {
	step := int(to - from)
	if step == 0 || max(step, -step) > StepSemitones {
		return 0
	}
	switch {
	case !inScale[from.Class()] || !inScale[to.Class()]:
		return 0
	case max(step, -step) == 2 && inScale[((from+to)/2).Class()]:
		return 0
	case step > 0:
		return 1
	}
	return -1
}

// onlyBox says whether a line stays in the box of a chart while the chords change.
func onlyBox(p phrase.Phrase, i neck.Instrument, c chart.Chart) bool {
	if len(p.Chords) < 2 {
		return false
	}
	t := c.Timeline()
	for _, e := range p.Events {
		box, err := t.KeyAt(t.BarAt(e.Tick)).Box(c.Box)
		if err != nil {
			return false
		}
		if _, inside := box.Tone(e.Sounding(i).Class()); !inside {
			return false
		}
	}
	return true
}
