package exercise

import (
	"fmt"
	"slices"

	"undaris/core/chart"
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
		return a.slantwise(p)
	}
	return true
}

// slantBreadth is how many frets a place may lie away from the straight line from the lowest to
// the highest note of the neck: every pitch has a place that near (ours).
const slantBreadth = 4

// slantwise says whether a place lies near the line from the lowest to the highest note.
func (a area) slantwise(p neck.Place) bool {
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

// rung is one step of a ladder: a note, or the notes of a structure from the lowest up.
type rung struct {
	pitches []pitch.MIDI
	// placings are the ways to play it: for each a place for every pitch.
	placings [][]neck.Place
}

// lowest is the lowest pitch, by which rungs are ordered.
func (r rung) lowest() pitch.MIDI { return r.pitches[0] }

func single(p pitch.MIDI, places ...neck.Place) rung {
	r := rung{pitches: []pitch.MIDI{p}}
	for _, place := range places {
		r.placings = append(r.placings, []neck.Place{place})
	}
	return r
}

// ladder is what can be walked of the material in the area, from the lowest up. The error is a
// *chart.FieldError where there is nothing.
func (a area) ladder(m material, chord harmony.Chord) ([]rung, error) {
	var rungs []rung
	var err error
	switch {
	case m.stacks != nil || m.above != nil:
		rungs = a.structures(m)
	case a.where.Kind == StringPairs:
		rungs = a.inPairs(m.tones, chord)
	case a.where.Kind == CellOnStrings:
		rungs = a.cells(m.tones)
	default:
		rungs, err = a.singles(m.tones)
	}
	if err != nil {
		return nil, err
	}
	if len(rungs) == 0 {
		return nil, a.nothing(chord)
	}
	return rungs, nil
}

// nothing says that the area has none of the tones of a chord.
func (a area) nothing(chord harmony.Chord) error {
	low, high := a.where.strings(a.setting.Instrument)
	field, frets := "where.strings", fmt.Sprintf("frets 0 to %d", a.setting.Instrument.Frets)
	switch {
	case a.where.Kind == SomeFrets:
		field, frets = "where.frets", fmt.Sprintf("frets %d to %d", a.where.LowFret, a.where.HighFret)
	case a.window != nil:
		frets = fmt.Sprintf("frets %d to %d", a.window.Low, a.window.High)
	}
	if low == 1 && high == len(a.setting.Instrument.Open) && field == "where.strings" {
		field = "where.kind"
	}
	return &chart.FieldError{Field: field, Detail: fmt.Sprintf("over %s none of it lies on strings %d to %d, %s", chord.SignedSymbol(), low, high, frets)}
}

// singles are single notes: in position and with so many a string each has its one place.
func (a area) singles(tones []harmony.Tone) ([]rung, error) {
	i := a.setting.Instrument
	low, high := a.where.strings(i)
	layout := neck.Layout{Kind: neck.AllTones}
	switch {
	case a.where.Kind == NotesPerString:
		kinds := map[int]neck.LayoutKind{0: neck.ThreeAString, 2: neck.TwoAString, 3: neck.ThreeAString, 4: neck.FourAString}
		layout = neck.Layout{Kind: kinds[a.where.PerString], Low: low, High: high}
	case a.window == nil:
		return a.freeSingles(tones), nil
	case low > 1 || high < len(i.Open):
		layout = neck.Layout{Kind: neck.SomeStrings, Low: low, High: high}
	}
	shape, err := neck.PlaceInLayout(i, *a.window, tones, layout)
	if err != nil {
		return nil, chart.InField(map[bool]string{true: "where.perString", false: "where.strings"}[a.where.Kind == NotesPerString], err)
	}
	rungs := make([]rung, len(shape.Tones))
	for n, t := range shape.Tones {
		rungs[n] = single(t.Pitch, t.Place)
	}
	return rungs, nil
}

// freeSingles are single notes with every place that the area has for them.
func (a area) freeSingles(tones []harmony.Tone) []rung {
	rungs := []rung{}
	low, high := a.pitches()
	for p := low; p <= high; p++ {
		if !hasClass(tones, p.Class()) {
			continue
		}
		if places := a.places(p); len(places) > 0 {
			rungs = append(rungs, single(p, places...))
		}
	}
	return rungs
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

// structureReach is how many frets the notes of a structure span at most, maxGap how many
// strings lie between two neighbouring notes at most.
const (
	structureReach = 4
	maxGap         = 2
)

// structures are the structures in the area, from the lowest up, each with all ways to play it.
func (a area) structures(m material) []rung {
	rungs := []rung{}
	add := func(pitches []pitch.MIDI) {
		r := rung{pitches: pitches, placings: a.placings(pitches)}
		if len(r.placings) > 0 {
			rungs = append(rungs, r)
		}
	}
	low, high := a.pitches()
	for p := low; p <= high; p++ {
		for _, stack := range m.stacks {
			if stack[0].Note.Class() == p.Class() {
				add(stacked(stack, p))
			}
		}
		if m.stacks == nil && hasClass(m.tones, p.Class()) {
			add(stepsAbove(m.tones, p, m.above))
		}
	}
	return rungs
}

// stacked are the pitches of a stack from its lowest up, each tone the next of its name.
func stacked(stack []harmony.Tone, lowest pitch.MIDI) []pitch.MIDI {
	pitches := []pitch.MIDI{lowest}
	for _, t := range stack[1:] {
		last := pitches[len(pitches)-1]
		above := t.Note.Class().Above(last.Class())
		if above == 0 {
			above = 12
		}
		pitches = append(pitches, last+pitch.MIDI(above))
	}
	return pitches
}

// stepsAbove are a pitch and those so many steps of the tones above it.
func stepsAbove(tones []harmony.Tone, lowest pitch.MIDI, above []int) []pitch.MIDI {
	pitches := []pitch.MIDI{lowest}
	for _, steps := range above {
		p := lowest
		for left := steps; left > 0; {
			p++
			if hasClass(tones, p.Class()) {
				left--
			}
		}
		pitches = append(pitches, p)
	}
	return pitches
}

// placings are all ways to play pitches together: each on a string of its own, the higher on the
// higher string, within the reach of a hand.
func (a area) placings(pitches []pitch.MIDI) [][]neck.Place {
	found := [][]neck.Place{}
	var try func(so []neck.Place)
	try = func(so []neck.Place) {
		if len(so) == len(pitches) {
			found = append(found, slices.Clone(so))
			return
		}
		for _, at := range a.places(pitches[len(so)]) {
			if len(so) > 0 {
				gap := so[len(so)-1].String - at.String - 1
				if gap < 0 || gap > maxGap {
					continue
				}
			}
			if next := append(so, at); spanned(next) <= structureReach {
				try(next)
			}
		}
	}
	try(make([]neck.Place, 0, len(pitches)))
	return found
}

// spanned is how many frets lie between the lowest and the highest fretted place; open strings
// stretch nothing, but do not go with frets beyond the hand at the nut.
func spanned(places []neck.Place) int {
	low, high, open := 0, 0, false
	for _, p := range places {
		switch {
		case p.Fret == 0:
			open = true
		case low == 0:
			low, high = p.Fret, p.Fret
		default:
			low, high = min(low, p.Fret), max(high, p.Fret)
		}
	}
	if open {
		return high
	}
	return high - low
}
