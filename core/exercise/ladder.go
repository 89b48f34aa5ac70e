package exercise

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

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

// skippingStrings is a ladder with a string left out between every two: 6 4 5 3 4 2 3 1.
func skippingStrings(ladder []rung) []rung {
	byString := [neck.MaxStrings + 1][]rung{}
	highest, lowest := neck.MaxStrings, 1
	for _, r := range ladder {
		s := r.placings[0][0].String
		byString[s] = append(byString[s], r)
		highest, lowest = min(highest, s), max(lowest, s)
	}
	if lowest-highest < 2 {
		return ladder
	}
	order := []rung{}
	for s := lowest; s-2 >= highest; s-- {
		order = append(append(order, byString[s]...), byString[s-2]...)
	}
	return order
}
