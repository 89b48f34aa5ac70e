package exercise

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// tonesNumbered are the classes of a chord's tones of some degrees; what the chord does not
// have is its scale's.
func (w *composer) tonesNumbered(chord harmony.Chord, numbers []int) []pitch.Class {
	scale, _ := w.chart.Key.ChordScale(chord)
	classes := []pitch.Class{}
	for _, number := range numbers {
		for _, tones := range [][]harmony.Tone{chord.Tones(), scale.Tones} {
			at := slices.IndexFunc(tones, func(t harmony.Tone) bool { return (t.Degree.Number-1)%7 == (number-1)%7 })
			if at >= 0 {
				classes = append(classes, tones[at].Note.Class())
				break
			}
		}
	}
	return classes
}

// rungsOf are single notes where the area has a place for every one; otherwise nothing.
func (w *composer) rungsOf(pitches ...pitch.MIDI) []rung {
	rungs := []rung{}
	for _, p := range pitches {
		places := w.areas[w.walker.area].places(p)
		if len(places) == 0 {
			return nil
		}
		rungs = append(rungs, single(p, places...))
	}
	return rungs
}

// before is what leads into a rung of the walk, if it is one of those that are led into. What has just been heard
// is not played again.
func (w *composer) before(n int, r rung, heard pitch.MIDI) []rung {
	o := w.exercise.Ornaments
	if o.Before == "" {
		return nil
	}
	to := o.To
	if len(to) == 0 {
		to = []int{5}
	}
	chord, p := w.spans[n].chord, r.lowest()
	if !slices.Contains(w.tonesNumbered(chord, to), p.Class()) {
		return nil
	}
	above, below := p+1, p-1
	if o.Before == DiatonicEnclosure {
		scale, _ := w.chart.Key.ChordScale(chord)
		above, below = nextOf(scale.Tones, p, 1), nextOf(scale.Tones, p, -1)
	}
	led := []pitch.MIDI{above, below}
	if o.Before == HalfStepBelow {
		led = []pitch.MIDI{below}
	}
	if led[0] == heard {
		led = led[1:]
	}
	return w.rungsOf(led...)
}

// nextOf is the next pitch of some tones above a pitch (by 1) or below it (by -1).
func nextOf(tones []harmony.Tone, p pitch.MIDI, by pitch.MIDI) pitch.MIDI {
	for p += by; !hasClass(tones, p.Class()); p += by {
	}
	return p
}

// tail is the 4 and what it resolves to, in the octave nearest to the last note; nothing where
// the chord or the area has them not.
func (w *composer) tail(n int) []rung {
	goal := 3
	if w.exercise.Ornaments.Tail == FourToFive {
		goal = 5
	}
	classes := w.tonesNumbered(w.spans[n].chord, []int{4, goal})
	if len(classes) < 2 || classes[0] == classes[1] {
		return nil
	}
	for away := pitch.MIDI(1); away <= 18; away++ {
		for _, four := range []pitch.MIDI{w.walker.heard + away, w.walker.heard - away} {
			if four.Class() != classes[0] {
				continue
			}
			end := four - pitch.MIDI(classes[0].Above(classes[1]))
			if goal == 5 {
				end = four + pitch.MIDI(classes[1].Above(classes[0]))
			}
			if rungs := w.rungsOf(four, end); rungs != nil {
				return rungs
			}
		}
	}
	return nil
}

// leadInto is what leads into the first tone of the next chord: at most so many notes in half
// steps. A note that has just been heard is not struck again.
func (w *composer) leadInto(target pitch.MIDI, most int) []rung {
	from := pitch.MIDI(-1)
	if w.exercise.Into == FromAbove || w.exercise.Into == ChromaticInto && w.walker.heard > target {
		from = 1
	}
	for _, side := range []pitch.MIDI{from, -from} {
		for count := most; count > 0; count-- {
			pitches := []pitch.MIDI{}
			for k := count; k > 0; k-- {
				pitches = append(pitches, target+side*pitch.MIDI(k))
			}
			if pitches[0] == w.walker.heard {
				continue
			}
			if rungs := w.rungsOf(pitches...); rungs != nil {
				return rungs
			}
		}
	}
	return nil
}
