package chart

import (
	"fmt"
	"math"
)

// MaxRun is how many notes a run is counted for at most.
const MaxRun = 256

// Run is a run of even notes counted back from the note it lands on.
type Run struct {
	// Notes counts the last one, on the tick of arrival.
	Notes       int
	Subdivision Subdivision
	// Start and Arrival are ticks of the chart; Start may lie before the first bar,
	// in the chorus before.
	Start, Arrival int
	// meter is that of the bar it arrives in.
	meter Meter
}

// CountBack is the run of so many notes whose last falls on a tick of the chart, or of
// the first bar of the next chorus. Its notes are subdivisions of the beat it arrives on, also where
// the meter changes under it. Its error is a *FieldError: a run is no longer than
// the chart.
func (c Chart) CountBack(arrival, notes int, s Subdivision) (Run, error) {
	t := c.Timeline()
	meter := t.MeterAt(t.BarAt(arrival))
	most := min(t.Ticks()/s.Ticks(meter)+1, MaxRun)
	switch {
	case arrival < 0 || arrival >= t.Ticks()+t.MeterAt(0).BarTicks():
		return Run{}, &FieldError{Field: "arrival", Detail: fmt.Sprintf("tick %d is not in the chart; it has ticks 0 to %d", arrival, t.Ticks())}
	case notes < 1 || notes > most:
		return Run{}, &FieldError{Field: "notes", Detail: fmt.Sprintf("a run of %d notes in %ss is longer than the chart, or has none: 1 to %d", notes, s, most)}
	}
	return Run{Notes: notes, Subdivision: s, Start: RunStart(arrival, notes, s, meter), Arrival: arrival, meter: meter}, nil
}

// RunBetween is the run of even notes from one tick to another. Its error is a
// *FieldError where no note of the subdivision falls on the start.
func (c Chart) RunBetween(start, arrival int, s Subdivision) (Run, error) {
	t := c.Timeline()
	step := s.Ticks(t.MeterAt(t.BarAt(arrival)))
	if start >= arrival || (arrival-start)%step != 0 {
		before := arrival - ((arrival-start)/step+1)*step
		if start >= arrival {
			before = arrival - step
		}
		return Run{}, &FieldError{Field: "start", Detail: fmt.Sprintf("no %s that counts back from %s starts there; the nearest before is %s",
			s, t.Counted(arrival), t.Counted(before))}
	}
	return c.CountBack(arrival, (arrival-start)/step+1, s)
}

// Ticks lists the ticks of the run's notes.
func (r Run) Ticks() []int {
	ticks := make([]int, r.Notes)
	for n := range ticks {
		ticks[n] = r.Start + n*r.Subdivision.Ticks(r.meter)
	}
	return ticks
}

// NotesPerSecond is how fast even notes go: tempo/60 beats a second times notes a
// beat.
func NotesPerSecond(tempo float64, s Subdivision) float64 {
	return tempo / 60 * float64(s.PerBeat)
}

// EqualTempo is the tempo at which another subdivision goes as fast as one does at
// a tempo.
func EqualTempo(tempo float64, s, other Subdivision) float64 {
	return tempo * float64(s.PerBeat) / float64(other.PerBeat)
}

// ladderStep is how much faster each step of a ladder is (ours: small enough to be felt
// as the same tempo pushed, large enough to get somewhere in a session).
const ladderStep = 1.05

// Ladder is the tempos from one to another, each about a twentieth past the one
// before and never less than one beat, the goal last; downwards where the goal is
// slower. Its error is a *FieldError for a tempo out of range.
func Ladder(from, to int) ([]int, error) {
	for field, tempo := range map[string]int{"tempo": from, "goal": to} {
		if tempo < MinTempo || tempo > MaxTempo {
			return nil, &FieldError{Field: field, Detail: fmt.Sprintf("a tempo of %d is out of range: %d to %d", tempo, MinTempo, MaxTempo)}
		}
	}
	rungs := []int{from}
	for at := from; at != to; {
		if to > at {
			at = min(max(int(math.Round(float64(at)*ladderStep)), at+1), to)
		} else {
			at = max(min(int(math.Round(float64(at)/ladderStep)), at-1), to)
		}
		rungs = append(rungs, at)
	}
	return rungs, nil
}
