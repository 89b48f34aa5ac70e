package solo

import (
	"fmt"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// PlanContext is what a chorus is planned on: everything that is the same for every candidate.
type PlanContext struct {
	ChorusRequest
	InBox   [12]bool
	Chords  []ChordClasses
	chordOf map[string]int
	Spans   []chart.ChordSpan
	// arrivals are the landings of a chorus in order of time, that of the change back to
	// the top at tick 0.
	Targets     []PlannedTarget
	ticks       []int
	Concessions []Concession
	places      map[neck.Window][]placeChoice
	licksPlaced map[placedLickKey]placedLick
	// widest is the highest fret that is within the span of each.
	widestFret []int
}

// over is what the twelve classes are over one chord.
type ChordClasses struct {
	chord harmony.Chord
	class [12]harmony.Class
	// joins are the classes of its joining scale; guide, root and fifth sort its own.
	inScale, guide, root, third [12]bool
}

// PlannedTarget is one landing: its change, the class aimed at and the ways into it.
type PlannedTarget struct {
	chart.Change
	tick       int
	over       int
	leaving    int
	aim        harmony.Tone
	placed     []neck.Placed
	approaches map[neck.Place][]change.Approach
	window     neck.Window
}

// lay prepares an order. Its error is a *chart.FieldError.
func (o ChorusRequest) newContext() (*PlanContext, error) {
	if err := o.Check(); err != nil {
		return nil, err
	}
	pc := &PlanContext{ChorusRequest: o, chordOf: map[string]int{}, places: map[neck.Window][]placeChoice{}, licksPlaced: map[placedLickKey]placedLick{}}
	box, err := o.box()
	if err != nil {
		return nil, &chart.FieldError{Field: "box", Detail: err.Error()}
	}
	for _, t := range box.Tones {
		pc.InBox[t.Note.Class()] = true
	}
	for fret := range o.Instrument.Frets + 1 {
		high := fret
		for high < o.Instrument.Frets && o.Instrument.StretchMM(fret, high+1) <= o.SpanMM {
			high++
		}
		pc.widestFret = append(pc.widestFret, high)
	}
	pc.Spans = o.Chart.ChordSpans()
	for _, m := range pc.Spans {
		pc.classesOver(m.Chord)
	}
	pc.limitDensity()
	if len(o.Chart.Changes()) == 0 {
		pc.Concessions = append(pc.Concessions, Concession{"changes", fmt.Sprintf("the chart stays on %s and has no change to land on: the downbeat of each bar is aimed at instead", pc.Spans[0].Chord.Symbol())})
	}
	return pc, pc.chooseTargets(box)
}

// giveDensity takes the density down to what there is time for.
func (pc *PlanContext) limitDensity() {
	beats := float64(pc.Chart.Meter.Beats())
	most := beats * float64(pc.Subdivision.PerBeat) * (1 - pc.Space)
	if pc.Density > most {
		pc.Concessions = append(pc.Concessions, Concession{"density", fmt.Sprintf("%g notes a bar do not fit in %ss with %.0f %% of space: planned with %.1f", pc.Density, pc.Subdivision, 100*pc.Space, most)})
		pc.Density = most
	}
}

// know classifies the twelve classes over a chord, once.
func (pc *PlanContext) classesOver(c harmony.Chord) int {
	if n, known := pc.chordOf[c.Symbol()]; known {
		return n
	}
	o := ChordClasses{chord: c}
	for class := range o.class {
		o.class[class] = pc.Chart.Key.Classify(c, pitch.Class(class))
	}
	scale, _ := pc.Chart.Key.ChordScale(c)
	for _, t := range scale.Tones {
		o.inScale[t.Note.Class()] = true
	}
	for _, t := range c.Tones() {
		class := t.Note.Class()
		o.guide[class] = harmony.IsGuideTone(t.Degree)
		o.root[class] = t.Degree.Number == 1
		o.third[class] = t.Degree.Number == 3
	}
	pc.chordOf[c.Symbol()] = len(pc.Chords)
	pc.Chords = append(pc.Chords, o)
	return len(pc.Chords) - 1
}

// chordAt is the chord that is followed at a tick, as an index of chords.
func (pc *PlanContext) chordAt(tick int) int {
	length := pc.Chart.Ticks()
	tick = ((tick % length) + length) % length
	at := pc.Spans[0]
	for _, m := range pc.Spans {
		if m.Tick > tick {
			break
		}
		at = m
	}
	return pc.chordOf[at.Chord.Symbol()]
}

// aim chooses the tone of every landing: by the exact path of the school over the changes
// that one hand position covers; where a bar is the box alone, the tone of the box that the
// school values most.
func (pc *PlanContext) chooseTargets(box harmony.Box) error {
	length := pc.Chart.Ticks()
	changes := pc.Chart.TargetChanges()
	// The change back to the top is landed on at the top.
	if n := len(changes); n > 0 && changes[n-1].Tick == length {
		changes = append([]chart.Change{changes[n-1]}, changes[:n-1]...)
	}
	for from := 0; from < len(changes); {
		at := pc.PositionAt(changes[from].Tick % length)
		to := from
		for to < len(changes) && pc.PositionAt(changes[to].Tick%length) == at {
			to++
		}
		path, err := change.PathRequest{
			Strategy: pc.Strategy, Instrument: pc.Instrument, Window: at.Window, Swaps: pc.Swaps, Changes: changes[from:to],
		}.Find()
		if err != nil {
			return err
		}
		for n, landed := range path.Targets {
			ch := changes[from+n]
			a := PlannedTarget{Change: ch, tick: ch.Tick % length, window: at.Window, aim: landed.Tone,
				over: pc.classesOver(ch.Arriving.Chord), leaving: pc.classesOver(ch.Leaving.Chord), approaches: map[neck.Place][]change.Approach{}}
			if pc.blendAt(a.tick) == 0 {
				pc.aimInBox(&a, box)
			}
			for _, tone := range neck.PlaceChord(pc.Instrument, at.Window, ch.Arriving.Chord, pc.Swaps).Tones {
				if tone.Note.Class() == a.aim.Note.Class() {
					a.placed = append(a.placed, tone)
				}
			}
			if len(a.placed) == 0 {
				a.placed = neck.PlaceTones(pc.Instrument, at.Window, []harmony.Tone{a.aim}).Tones
			}
			pc.findApproaches(&a, box)
			pc.Targets = append(pc.Targets, a)
			pc.ticks = append(pc.ticks, a.tick)
		}
		from = to
	}
	return nil
}

// aimInBox aims at a tone of the box that is home over the chord.
func (pc *PlanContext) aimInBox(a *PlannedTarget, box harmony.Box) {
	best := -1.0
	for _, t := range a.Arriving.Chord.Tones() {
		if _, boxed := box.Tone(t.Note.Class()); boxed && pc.Strategy.Weight(t.Degree) > best {
			a.aim, best = t, pc.Strategy.Weight(t.Degree)
		}
	}
	if best < 0 {
		for _, t := range box.Tones {
			if pc.Chords[a.over].class[t.Note.Class()] != harmony.Outside && best < 0 {
				a.aim, best = pc.Chart.Key.ToneOver(a.Arriving.Chord, t.Note.Class()), 0
			}
		}
		pc.Concessions = append(pc.Concessions, Concession{"blend", fmt.Sprintf("bar %d: no note of %s is a tone of %s, so with the box alone this change has no landing on one", a.Arriving.Bar+1, box.Name(), a.Arriving.Chord.Symbol())})
	}
}

// leadInto works out the approaches into every place of the landing.
func (pc *PlanContext) findApproaches(a *PlannedTarget, box harmony.Box) {
	allowed := pc.Approaches
	if len(allowed) == 0 {
		allowed = change.ApproachKinds
	}
	for _, tone := range a.placed {
		for _, way := range allowed {
			led, err := way.Into(change.Goal{
				Instrument: pc.Instrument, Window: a.window, Key: pc.Chart.Key, Box: box,
				Leaving: a.Leaving.Chord, Arriving: a.Arriving.Chord, Target: tone.Place,
			})
			if err == nil {
				a.approaches[tone.Place] = append(a.approaches[tone.Place], led)
			}
		}
	}
}

// allPlaces lists every place of a window.
func (pc *PlanContext) allPlaces(w neck.Window) []placeChoice {
	if known, ok := pc.places[w]; ok {
		return known
	}
	all := []placeChoice{}
	for s := range pc.Instrument.Open {
		for fret := w.Low; fret <= w.High; fret++ {
			c := placeChoice{place: neck.Place{String: s + 1, Fret: fret}}
			c.pitch = pc.Instrument.Pitch(c.place)
			if w.IsReach(fret) {
				c.reach = costOfReach
			}
			all = append(all, c)
		}
	}
	pc.places[w] = all
	return all
}
