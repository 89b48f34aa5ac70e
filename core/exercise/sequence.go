package exercise

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Sequence is an exercise: one small figure walked up and down the tones of a
// position, in the chart's time and through its chords.
type Sequence struct {
	Chart      chart.Chart
	Instrument neck.Instrument
	Window     neck.Window
	// Tones says which tones are walked, Cell which figure, Order which way round.
	Tones, Figure, Order string
	Subdivision          chart.Subdivision
	// From is the first bar, from 0; Bars is how many. They stay within a chorus.
	From, Bars int
}

// What a sequence walks over.
const (
	ChordTones   = "chord tones"
	ScaleOfChord = "scale of the chord"
	BoxTones     = "box"
)

// SequenceTones, SequenceOrders list what may be chosen, the default first.
var (
	SequenceTones  = []string{ChordTones, ScaleOfChord, BoxTones}
	SequenceOrders = []string{"as written", "reversed", "alternating"}
)

// figures are the figures, by how many steps of the walked tones their notes lie
// above the note they begin on; each next one begins a step further on (common
// practice). Chord tones are a third apart already, so that their triads and
// sevenths are neighbours, and one after another they are thirds.
var figures = []struct {
	name          string
	scale, chords []int
}{
	{"one after another", []int{0}, []int{0}},
	{"thirds", []int{0, 2}, nil},
	{"fourths", []int{0, 3}, nil},
	{"triads", []int{0, 2, 4}, []int{0, 1, 2}},
	{"sevenths", []int{0, 2, 4, 6}, []int{0, 1, 2, 3}},
	{"two up, one down", []int{0, 1, 2}, []int{0, 2}},
	{"groups of four", []int{0, 1, 2, 3}, nil},
}

// spreads are the figures of a spread triad, by the numbers of their degrees from
// the lowest note up or, after it, onwards; the 4 is the scale of the chord's, and
// moves to the 3 or the 5 beside it (ours for the order of the notes).
var spreads = []struct {
	name    string
	degrees []int
	// octaves is how far above the root's octave each note lies.
	octaves []int
}{
	{"spread triads", []int{1, 5, 3, 5}, []int{0, 0, 1, 0}},
	{"spread triads with 4-3", []int{1, 5, 4, 3}, []int{0, 0, 1, 1}},
	{"spread triads with 4-5", []int{1, 5, 4, 5}, []int{0, 0, 1, 1}},
}

// SequenceFigures lists the figures that may be walked over the tones.
func SequenceFigures(over string) []string {
	names := []string{}
	for _, c := range figures {
		if over != ChordTones || c.chords != nil {
			names = append(names, c.name)
		}
	}
	if over == ChordTones {
		for _, s := range spreads {
			names = append(names, s.name)
		}
	}
	return names
}

// MaxSequenceBars is how many bars a sequence is written over at most.
const MaxSequenceBars = 64

// Write writes the sequence out as a phrase whose tick 0 is the start of bar From.
// Its error is a *chart.FieldError that says what may be chosen.
func (q Sequence) Write() (phrase.Phrase, error) {
	if err := q.check(); err != nil {
		return phrase.Phrase{}, err
	}
	p := phrase.Phrase{Meter: q.Chart.Meter}
	start := q.From * q.Chart.Meter.BarTicks()
	end := start + q.Bars*q.Chart.Meter.BarTicks()
	spread := slices.IndexFunc(spreads, func(s struct {
		name             string
		degrees, octaves []int
	}) bool {
		return s.name == q.Figure
	})
	walk := walker{up: 1}
	for _, m := range q.Chart.ChordSpans() {
		from, to := max(m.Tick, start), min(m.Tick+m.Ticks, end)
		if from >= to {
			continue
		}
		count := (to - from) / q.Subdivision.Ticks(q.Chart.Meter)
		var notes []neck.Placed
		var err error
		if spread >= 0 {
			notes, err = q.spread(m.Chord, spreads[spread].degrees, spreads[spread].octaves, count)
		} else {
			notes, err = q.walk(&walk, m.Chord, count)
		}
		if err != nil {
			return phrase.Phrase{}, err
		}
		step := q.Subdivision.Ticks(q.Chart.Meter)
		for n, note := range notes {
			p.Events = append(p.Events, phrase.Event{Tick: from - start + n*step, Ticks: step, Fingered: note.Fingered})
		}
	}
	return p.WithChordsOf(q.Chart, start), nil
}

func (q Sequence) check() error {
	fail := func(field, format string, args ...any) error {
		return &chart.FieldError{Field: field, Detail: fmt.Sprintf(format, args...)}
	}
	bars := len(q.Chart.PlayedBars())
	switch {
	case !slices.Contains(SequenceTones, q.Tones):
		return fail("tones", "%q is not walked over; choose %s", q.Tones, strings.Join(SequenceTones, ", "))
	case !slices.Contains(SequenceFigures(q.Tones), q.Figure):
		return fail("figure", "%q is not a figure over the %s; choose %s", q.Figure, q.Tones, strings.Join(SequenceFigures(q.Tones), "; "))
	case !slices.Contains(SequenceOrders, q.Order):
		return fail("order", "%q is not an order; choose %s", q.Order, strings.Join(SequenceOrders, ", "))
	case q.From < 0 || q.From >= bars:
		return fail("from", "bar %d is not in the chart; its bars are 1 to %d", q.From+1, bars)
	case q.Bars < 1 || q.Bars > MaxSequenceBars || q.From+q.Bars > bars:
		return fail("bars", "%d bars from bar %d are not to be had: at most %d, and the chart ends with bar %d", q.Bars, q.From+1, MaxSequenceBars, bars)
	}
	return nil
}

// walker is where a walk stands.
type walker struct {
	// up is 1 on the way up, -1 on the way down; cells counts those walked.
	up, cells int
	// last is the pitch the present cell began on, heard the last one played; none
	// before the first.
	last, heard pitch.MIDI
}

// TonesOver is the tones that are walked over a chord: its own, its scale of the chord or
// the box of the chart. Its error is a *chart.FieldError.
func TonesOver(c chart.Chart, chord harmony.Chord, over string) ([]harmony.Tone, error) {
	switch over {
	case ChordTones:
		return chord.Tones(), nil
	case ScaleOfChord:
		scale, _ := c.Key.ChordScale(chord)
		return scale.Tones, nil
	case BoxTones:
		box, err := c.Key.Box(c.Box)
		return box.Tones, err
	}
	return nil, &chart.FieldError{Field: "tones", Detail: fmt.Sprintf("%q is not walked over; choose %s", over, strings.Join(SequenceTones, ", "))}
}

// ladder is the tones that are walked over a chord, from the lowest up.
func (q Sequence) ladder(c harmony.Chord) ([]neck.Placed, error) {
	tones, err := TonesOver(q.Chart, c, q.Tones)
	if err != nil {
		return nil, err
	}
	return neck.PlaceTones(q.Instrument, q.Window, tones).Tones, nil
}

func (q Sequence) figure() []int {
	for _, c := range figures {
		if c.name == q.Figure && q.Tones == ChordTones {
			return c.chords
		}
		if c.name == q.Figure {
			return c.scale
		}
	}
	return nil
}

// walk writes so many notes over one chord. The walk goes on from where the chord
// before left it, the same way, and turns at the ends of the position.
func (q Sequence) walk(w *walker, c harmony.Chord, count int) ([]neck.Placed, error) {
	ladder, err := q.ladder(c)
	if err != nil {
		return nil, err
	}
	offsets := q.figure()
	widest := slices.Max(offsets)
	if widest >= len(ladder) {
		return nil, &chart.FieldError{Field: "figure", Detail: fmt.Sprintf("the %s of %s have %d tones in this position, too few for %s; one after another fits",
			q.Tones, c.Symbol(), len(ladder), q.Figure)}
	}
	at := w.enter(ladder)
	notes := make([]neck.Placed, 0, count)
	for len(notes) < count {
		cell := slices.Clone(offsets)
		if q.Order == "reversed" || q.Order == "alternating" && w.cells%2 == 1 {
			slices.Reverse(cell)
		}
		if last := at + w.up*widest; last < 0 || last >= len(ladder) {
			// The cell would leave the position: turn on the last tone, but do not
			// strike it twice.
			w.up = -w.up
			at = 0
			if w.up < 0 {
				at = len(ladder) - 1
			}
			if ladder[at+w.up*cell[0]].Pitch == w.heard && widest+1 < len(ladder) {
				at += w.up
			}
		}
		for _, offset := range cell {
			if len(notes) < count {
				notes = append(notes, ladder[at+w.up*offset])
				w.heard = notes[len(notes)-1].Pitch
			}
		}
		w.last = ladder[at].Pitch
		at += w.up
		w.cells++
	}
	return notes, nil
}

// enter is the rung to go on from: the next one past where the walk stands, in
// its direction; where there is none the walk turns.
func (w *walker) enter(ladder []neck.Placed) int {
	if w.last == 0 {
		// A walk begins on the lowest root, or where the position has none on the
		// lowest tone.
		return max(slices.IndexFunc(ladder, func(p neck.Placed) bool { return p.Degree.Number == 1 }), 0)
	}
	beyond := func(p neck.Placed) bool {
		return (p.Pitch > w.last) == (w.up > 0) && p.Pitch != w.last && p.Pitch != w.heard
	}
	for range 2 {
		if w.up > 0 {
			if n := slices.IndexFunc(ladder, beyond); n >= 0 {
				return n
			}
		}
		for n := len(ladder) - 1; n >= 0 && w.up < 0; n-- {
			if beyond(ladder[n]) {
				return n
			}
		}
		w.up = -w.up
	}
	return 0
}

// spread writes the figure of a spread triad over a chord, as often as there is
// time. It lies in the window, or in the nearest one that has it.
func (q Sequence) spread(c harmony.Chord, degrees, octaves []int, count int) ([]neck.Placed, error) {
	scale, _ := q.Chart.Key.ChordScale(c)
	tones := make([]harmony.Tone, len(degrees))
	for n, number := range degrees {
		tone, ok := numbered(c.Tones(), number)
		if !ok {
			tone, ok = numbered(scale.Tones, number)
		}
		if !ok {
			return nil, &chart.FieldError{Field: "figure", Detail: fmt.Sprintf("%s has no %d to spread", c.Symbol(), number)}
		}
		tones[n] = tone
	}
	placed, ok := q.nearest(tones, octaves)
	if !ok {
		return nil, &chart.FieldError{Field: "figure", Detail: fmt.Sprintf("%s of %s do not lie anywhere on this neck", q.Figure, c.Symbol())}
	}
	if q.Order == "reversed" {
		slices.Reverse(placed)
	}
	notes := make([]neck.Placed, count)
	for n := range notes {
		at := n % len(placed)
		if q.Order == "alternating" && n/len(placed)%2 == 1 {
			at = len(placed) - 1 - at
		}
		notes[n] = placed[at]
	}
	return notes, nil
}

// numbered is the tone with a degree's number; a suspended tone stands for a
// missing third only where the scale of the chord is asked.
func numbered(tones []harmony.Tone, number int) (harmony.Tone, bool) {
	for _, t := range tones {
		if t.Degree.Number == number || t.Degree.Number == number+7 {
			return t, true
		}
	}
	return harmony.Tone{}, false
}

// nearest places the figure in the window, or in the window nearest to it that
// has room for it, at the least cost of fingering.
func (q Sequence) nearest(tones []harmony.Tone, octaves []int) ([]neck.Placed, bool) {
	for away := 0; away <= q.Instrument.Frets; away++ {
		for _, shift := range []int{away, -away} {
			w := q.Window
			w.Core, w.CoreEnd, w.Low, w.High = w.Core+shift, w.CoreEnd+shift, max(w.Low+shift, 0), w.High+shift
			if w.Core < 0 || w.High > q.Instrument.Frets {
				continue
			}
			if placed, ok := q.spreadIn(w, tones, octaves); ok {
				return placed, true
			}
		}
	}
	return nil, false
}

func (q Sequence) spreadIn(w neck.Window, tones []harmony.Tone, octaves []int) ([]neck.Placed, bool) {
	var best []neck.Fingered
	var bestPitches []pitch.MIDI
	bestCost := -1
	root := tones[0].Note.Class()
	for base := q.Instrument.Open[len(q.Instrument.Open)-1]; base < q.Instrument.Open[0]+pitch.MIDI(w.High); base++ {
		if base.Class() != root {
			continue
		}
		wanted := make([]neck.NoteToPlace, len(tones))
		pitches := make([]pitch.MIDI, len(tones))
		for n, t := range tones {
			pitches[n] = base + pitch.MIDI(t.Note.Class().Above(root)+12*octaves[n])
			wanted[n] = neck.NoteToPlace{Pitch: pitches[n]}
		}
		path, cost, err := neck.Finger(q.Instrument, w, wanted)
		if err == nil && (bestCost < 0 || cost < bestCost) {
			best, bestPitches, bestCost = path, pitches, cost
		}
	}
	placed := make([]neck.Placed, len(best))
	for n, f := range best {
		placed[n] = neck.Placed{Tone: tones[n], Pitch: bestPitches[n], Fingered: f}
	}
	return placed, bestCost >= 0
}
