package exercise

import (
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// area is the part of the neck that one time through is played in.
type area struct {
	setting Setting
	where   Where
	// window bounds the frets; nil where they are bounded otherwise.
	window *neck.Window
}

// areas are the parts of the neck that an exercise is played in, one time through after the other.
func (e Exercise) areas(s Setting) ([]area, error) {
	in := func(w neck.Window) area { return area{setting: s, where: e.Where, window: &w} }
	positions := neck.Positions(s.Instrument, s.Tune.Key.Tonic.Class())
	switch e.Where.Kind {
	case TwoPositions:
		for _, p := range positions {
			if p.Core > s.Position.Core {
				return []area{in(s.Position.Window), in(p.Window)}, nil
			}
		}
		return nil, contradiction("where.kind", "no position lies above this one (frets %d to %d); begin lower on the neck", s.Position.Core, s.Position.CoreEnd)
	case ByForms:
		all := make([]area, len(positions))
		for n, p := range positions {
			all[n] = in(p.Window)
		}
		return all, nil
	case InPosition, "", NotesPerString:
		return []area{in(s.Position.Window)}, nil
	}
	return []area{{setting: s, where: e.Where}}, nil
}

// has says whether a place belongs to the area.
func (a area) has(p neck.Place) bool {
	i := a.setting.Instrument
	if !a.where.onString(i, p.String) || !i.Has(p) {
		return false
	}
	switch {
	case a.window != nil && a.where.Kind != NotesPerString:
		return p.Fret >= a.window.Low && p.Fret <= a.window.High
	case a.where.Kind == SomeFrets:
		return p.Fret >= a.where.LowFret && p.Fret <= a.where.HighFret
	case a.where.Kind == WholeNeck:
		return a.diagonal(p)
	}
	return true
}

// slantBreadth is how many frets a place may lie away from the straight line from the lowest to
// the highest note of the neck: every pitch has a place that near (ours).
const slantBreadth = 4

// diagonal says whether a place lies near the line from the lowest to the highest note.
func (a area) diagonal(p neck.Place) bool {
	i := a.setting.Instrument
	low, high := a.where.strings(i)
	bottom, top := i.Open[high-1], i.Open[low-1]+pitch.MIDI(i.Frets)
	line := int(i.Pitch(p)-bottom) * i.Frets / max(int(top-bottom), 1)
	return max(p.Fret-line, line-p.Fret) <= slantBreadth
}

// places are where a pitch can be had in the area, string 1 first.
func (a area) places(m pitch.MIDI) []neck.Place {
	found := []neck.Place{}
	for s, open := range a.setting.Instrument.Open {
		if p := (neck.Place{String: s + 1, Fret: int(m - open)}); a.has(p) {
			found = append(found, p)
		}
	}
	return found
}

// pitches are the lowest and the highest pitch of the area.
func (a area) pitches() (low, high pitch.MIDI) {
	i := a.setting.Instrument
	low, high = i.Open[0], i.Open[0]
	for _, open := range i.Open {
		low, high = min(low, open), max(high, open)
	}
	return low, high + pitch.MIDI(i.Frets)
}

// inPairs are the tones on the strings two by two: from the chord's root on the lower string of
// each pair up, as far as five frets reach, each pair an octave above the one before.
func (a area) inPairs(tones []harmony.Tone, chord harmony.Chord) []rung {
	i := a.setting.Instrument
	low, high := a.where.strings(i)
	rungs := []rung{}
	first := chord.Root.Class().Above(i.Open[high-1].Class())
	for first < a.setting.Position.Low {
		first += 12
	}
	root := i.Open[high-1] + pitch.MIDI(first)
	for lower := high; lower-1 >= low; lower -= 2 {
		fret := int(root - i.Open[lower-1])
		if fret < 0 || fret+3 > i.Frets {
			break
		}
		for p := root; p < root+12; p++ {
			if !hasClass(tones, p.Class()) {
				continue
			}
			at := neck.Place{String: lower - 1, Fret: int(p - i.Open[lower-2])}
			if at.Fret < max(fret-1, 0) {
				at = neck.Place{String: lower, Fret: int(p - i.Open[lower-1])}
			}
			if at.Fret <= fret+3 {
				rungs = append(rungs, single(p, at))
			}
		}
		root += 12
	}
	return rungs
}

// cellReach is how many frets a cell on two strings spans at most.
const cellReach = 5

// cells are groups of neighbouring tones, so many on the lower of two strings and as many on the
// upper, each group beginning a tone higher.
func (a area) cells(tones []harmony.Tone) []rung {
	i := a.setting.Instrument
	upper, lower := a.where.strings(i)
	count := a.where.PerString
	if count == 0 {
		count = 2
	}
	rungs := []rung{}
	for fret := 0; fret <= i.Frets; fret++ {
		start := i.Open[lower-1] + pitch.MIDI(fret)
		if !hasClass(tones, start.Class()) {
			continue
		}
		cell := rung{placings: [][]neck.Place{nil}}
		lowFret, highFret := fret, fret
		for p := start; len(cell.pitches) < 2*count; p++ {
			if !hasClass(tones, p.Class()) {
				continue
			}
			at := neck.Place{String: lower, Fret: int(p - i.Open[lower-1])}
			if len(cell.pitches) >= count {
				at = neck.Place{String: upper, Fret: int(p - i.Open[upper-1])}
			}
			lowFret, highFret = min(lowFret, at.Fret), max(highFret, at.Fret)
			cell.pitches = append(cell.pitches, p)
			cell.placings[0] = append(cell.placings[0], at)
		}
		if lowFret >= 0 && highFret <= i.Frets && highFret-lowFret <= cellReach {
			rungs = append(rungs, cell)
		}
	}
	return rungs
}
