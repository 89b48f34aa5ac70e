package exercise

import (
	"undaris/core/chart"
	"undaris/core/harmony"
)

// span is a chord and the ticks at which notes may begin.
type span struct {
	chord harmony.Chord
	// beat is the length of a counted beat.
	beat     int
	from, to int
	ticks    []int
	// step is how long a note is; final is where the last note of the exercise begins, -1 where
	// another chord follows.
	step, final int
}

// spansOf are the chords that are walked over, with the places of their notes.
func (e Exercise) spansOf(c chart.Chart) ([]span, error) {
	first, bars := e.Over.bars(c)
	t := c.Timeline()
	start, end := t.Start(first), t.Start(first+bars)
	spans := []span{}
	for _, m := range c.ChordSpans() {
		from, to := max(m.Tick, start), min(m.Tick+m.Ticks, end)
		if from >= to {
			continue
		}
		length, err := e.Time.ticks(m.Meter)
		if err != nil {
			return nil, err
		}
		s := span{chord: m.Chord, beat: m.Meter.BeatTicks(), from: from - start, to: to - start, step: to - from, final: -1}
		if length > 0 {
			s.step = length
		}
		spans = append(spans, s)
	}
	slots := 0
	for n := range spans {
		s := &spans[n]
		if n == len(spans)-1 && !e.Time.NoEnding && e.Time.Subdivision != OncePerChord {
			s.final = max(s.to-s.beat, s.from)
			if s.final == s.from && s.to-s.from > s.step {
				s.final = s.to - s.step
			}
		}
		for tick := s.from; tick < s.to && (s.final < 0 || tick < s.final); tick += s.step {
			if e.Time.Rest == 0 || slots%(e.Time.Play+e.Time.Rest) < e.Time.Play {
				s.ticks = append(s.ticks, tick)
			}
			slots++
		}
	}
	return spans, nil
}
