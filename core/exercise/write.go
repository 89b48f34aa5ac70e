package exercise

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Written is an exercise as it is played.
type Written struct {
	// Chart is the chart that it is walked through: the tune's or one of its own. Start is the
	// chart's tick at which the phrase's tick 0 stands, Bars how many bars it fills.
	Chart       chart.Chart
	Start, Bars int
	Phrase      phrase.Phrase
	// StretchMM is the widest that the hand is spread, in millimetres, and Caution a plain word where
	// that is past the player's span.
	StretchMM float64
	Caution   string
	// Concessions say what could not be had over a chord, and what is played instead.
	Concessions []string
}

// Write writes the exercise out. Its error is a *chart.FieldError that names the choice in
// the way; Nearest offers what can be had instead.
func (e Exercise) Write(s Setting) (Written, error) {
	if err := e.Check(s); err != nil {
		return Written{}, err
	}
	c, err := e.Over.Chart(s.Tune)
	if err != nil {
		return Written{}, err
	}
	areas, err := e.areas(s)
	if err != nil {
		return Written{}, err
	}
	spans, err := e.spansOf(c)
	if err != nil {
		return Written{}, err
	}
	w := &composer{exercise: e, setting: s, chart: c, areas: areas, spans: spans, known: map[string]chordLadders{}}
	w.walker.exercise = e
	if err := w.checkShapes(); err != nil {
		return Written{}, err
	}
	if err := w.compose(); err != nil {
		return Written{}, err
	}
	if len(w.steps) == 0 {
		return Written{}, contradiction("time.rest", "nothing is left to play: the rests take every note")
	}
	from, bars := e.Over.bars(c)
	out := Written{Chart: c, Start: c.Timeline().Start(from), Bars: bars, Concessions: w.concessions}
	events := w.events()
	out.StretchMM = widestStretch(s.Instrument, events)
	if out.StretchMM > s.SpanMM {
		out.Caution = fmt.Sprintf("%.0f mm in one hand, past your %.0f: warm up first, shift rather than stretch, stop at any pain.", out.StretchMM, s.SpanMM)
	}
	out.Phrase = phrase.Phrase{Meter: c.Meter, Events: events}.WithChordsOf(c, out.Start)
	w.ornament(out.Phrase)
	if err := out.Phrase.Check(s.Instrument); err != nil {
		return Written{}, contradiction("time", "%s", err)
	}
	return out, nil
}

// checkShapes holds the numbers of a figure within the shape that they are of.
func (w *composer) checkShapes() error {
	if w.exercise.Order.Figure != OwnFigure || !w.exercise.oneShapeAtATime() {
		return nil
	}
	over, err := w.laddersOf(w.spans[0].chord)
	if err != nil {
		return err
	}
	most := len(over.ladders[0][0].pitches)
	for n, number := range w.exercise.Order.Numbers {
		if number > most {
			return contradiction(fmt.Sprintf("order.numbers[%d]", n), "the shape has %d notes; number %d is not one of them", most, number)
		}
	}
	return nil
}

// events are the notes with their places and fingers, in order of time.
func (w *composer) events() []phrase.Event {
	events, notes := []phrase.Event{}, []neck.NoteWithPlaces{}
	grips := [][]neck.Place(nil)
	severalAtOnce := slices.ContainsFunc(w.steps, func(s step) bool { return len(s.rung.pitches) > 1 })
	if severalAtOnce {
		grips = chooseGrips(w.steps)
	}
	for n, s := range w.steps {
		for _, note := range s.notes {
			for k, p := range s.rung.pitches {
				if note.index != together && note.index != k {
					continue
				}
				events = append(events, phrase.Event{Tick: note.tick, Ticks: note.ticks, Technique: phrase.Technique{Accent: w.isAccented(note)}})
				one := neck.NoteWithPlaces{Pitch: p}
				if severalAtOnce {
					one.Places = grips[n][k : k+1]
				} else {
					one.Places = placesOf(s.rung)
				}
				notes = append(notes, one)
			}
		}
	}
	if severalAtOnce && w.exercise.Where.Kind != CellOnStrings {
		n := 0
		for k, s := range w.steps {
			n += fingerGrip(events[n:], s, grips[k])
		}
		return events
	}
	fingering, _ := neck.FingerMovingHand(w.setting.Instrument, notes)
	for n := range events {
		events[n].Fingered = fingering[n]
	}
	return events
}

// fingerGrip fingers the notes of a structure as a chord, whether they are played at once or one
// after the other, and returns how many events they are.
func fingerGrip(events []phrase.Event, s step, places []neck.Place) int {
	chord := make([]neck.Fingered, len(places))
	for n, place := range places {
		chord[n].Place = place
	}
	chord = neck.FingerChord(chord)
	n := 0
	for _, note := range s.notes {
		for k := range places {
			if note.index == together || note.index == k {
				events[n].Fingered = chord[k]
				n++
			}
		}
	}
	return n
}

func (w *composer) isAccented(note timedNote) bool {
	every := w.exercise.Time.Accent
	return every > 0 && note.slot%every == 0
}

// placesOf are the places of a single note.
func placesOf(r rung) []neck.Place {
	places := make([]neck.Place, len(r.placings))
	for n, one := range r.placings {
		places[n] = one[0]
	}
	return places
}

// widestStretch is the widest that one hand is spread: between notes at once, and between notes
// that follow each other on one string without a shift, in millimetres.
func widestStretch(i neck.Instrument, events []phrase.Event) float64 {
	widest := 0.0
	for n, e := range events {
		if e.Fret == 0 {
			continue
		}
		hand := e.Fret - e.Finger
		for _, other := range events[n+1:] {
			atOnce := other.Tick == e.Tick
			shifted := max(other.Fret-other.Finger-hand, hand-other.Fret+other.Finger) > 1
			if other.Fret == 0 || !atOnce && (shifted || other.String != e.String) {
				break
			}
			widest = max(widest, i.StretchMM(min(e.Fret, other.Fret), max(e.Fret, other.Fret)))
		}
	}
	return widest
}

// ornament adds the techniques that are wished to notes that have their places. A note that is trilled
// lasts at least a beat.
func (w *composer) ornament(p phrase.Phrase) {
	events, lines := p.Events, p.BarLines()
	o := w.exercise.Ornaments
	last := map[int]int{}
	for n := range events {
		e := &events[n]
		before, heard := last[e.String]
		last[e.String] = n
		if o.Trill && e.Ticks >= lines.BeatTicksAt(e.Tick) {
			w.trill(e)
		}
		if !heard {
			continue
		}
		was := events[before]
		if was.End() != e.Tick || was.Fret == e.Fret {
			continue
		}
		moved := max(was.Fret-was.Finger-e.Fret+e.Finger, e.Fret-e.Finger-was.Fret+was.Finger)
		switch {
		case o.Slides && was.Fret > 0 && e.Fret > 0 && (moved > 1 || was.Finger == e.Finger):
			e.SlideFrom = was.Fret
		case !o.Slurs || e.Finger == was.Finger || was.Fret > 0 && e.Fret > 0 && moved > 1:
		case e.Fret > was.Fret:
			e.HammerOn = true
		default:
			e.PullOff = true
		}
	}
}

// trill trills a note with the next tone of its chord's scale, where that lies on the neck and
// within a trill.
func (w *composer) trill(e *phrase.Event) {
	i := w.setting.Instrument
	chord := w.chart.ChordAt(e.Tick + w.startTick())
	scale, _ := w.chart.Key.ChordScale(chord)
	p := i.Pitch(e.Place)
	above := int(nextOf(scale.Tones, p, 1) - p)
	if above <= phrase.MaxTrill && e.Fret+above <= i.Frets {
		e.Trill = above
	}
}

// startTick is the chart's tick at which the exercise begins.
func (w *composer) startTick() int {
	from, _ := w.exercise.Over.bars(w.chart)
	return w.chart.Timeline().Start(from)
}
