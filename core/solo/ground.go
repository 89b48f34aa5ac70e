package solo

import (
	"fmt"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// ground is what a chorus is planned on: everything that is the same for every candidate.
type ground struct {
	ChorusOrder
	boxed   [12]bool
	chords  []over
	chordOf map[string]int
	moments []chart.Moment
	// arrivals are the landings of a chorus in order of time, that of the change back to
	// the top at tick 0.
	arrivals []arrival
	ticks    []int
	gave     []Gave
	places   map[neck.Window][]choice
	set      map[setAt]setLick
	// widest is the highest fret that is within the span of each.
	widest []int
}

// over is what the twelve classes are over one chord.
type over struct {
	chord harmony.Chord
	class [12]harmony.Class
	// joins are the classes of its joining scale; guide, root and fifth sort its own.
	joins, guide, root, third [12]bool
}

// arrival is one landing: its change, the class aimed at and the ways into it.
type arrival struct {
	chart.Change
	tick    int
	over    int
	leaving int
	aim     harmony.Tone
	placed  []neck.Placed
	leads   map[neck.Place][]change.Led
	window  neck.Window
}

// lay prepares an order. Its error is a *chart.FieldError.
func (o ChorusOrder) lay() (*ground, error) {
	if err := o.Check(); err != nil {
		return nil, err
	}
	g := &ground{ChorusOrder: o, chordOf: map[string]int{}, places: map[neck.Window][]choice{}, set: map[setAt]setLick{}}
	box, err := o.box()
	if err != nil {
		return nil, &chart.FieldError{Field: "box", Detail: err.Error()}
	}
	for _, t := range box.Tones {
		g.boxed[t.Note.Class()] = true
	}
	for fret := range o.Instrument.Frets + 1 {
		high := fret
		for high < o.Instrument.Frets && o.Instrument.StretchMM(fret, high+1) <= o.SpanMM {
			high++
		}
		g.widest = append(g.widest, high)
	}
	g.moments = o.Chart.Moments()
	for _, m := range g.moments {
		g.know(m.Chord)
	}
	g.giveDensity()
	if len(o.Chart.Changes()) == 0 {
		g.gave = append(g.gave, Gave{"changes", fmt.Sprintf("the chart stays on %s and has no change to land on: the downbeat of each bar is aimed at instead", g.moments[0].Chord.Symbol())})
	}
	return g, g.aim(box)
}

// giveDensity takes the density down to what there is time for.
func (g *ground) giveDensity() {
	beats := float64(g.Chart.Meter.Beats())
	most := beats * float64(g.Subdivision.PerBeat) * (1 - g.Space)
	if g.Density > most {
		g.gave = append(g.gave, Gave{"density", fmt.Sprintf("%g notes a bar do not fit in %ss with %.0f %% of space: planned with %.1f", g.Density, g.Subdivision, 100*g.Space, most)})
		g.Density = most
	}
}

// know classifies the twelve classes over a chord, once.
func (g *ground) know(c harmony.Chord) int {
	if n, known := g.chordOf[c.Symbol()]; known {
		return n
	}
	o := over{chord: c}
	for class := range o.class {
		o.class[class] = g.Chart.Key.Classify(c, pitch.Class(class))
	}
	scale, _ := g.Chart.Key.Joining(c)
	for _, t := range scale.Tones {
		o.joins[t.Note.Class()] = true
	}
	for _, t := range c.Tones() {
		class := t.Note.Class()
		o.guide[class] = change.GuideTone(t.Degree)
		o.root[class] = t.Degree.Number == 1
		o.third[class] = t.Degree.Number == 3
	}
	g.chordOf[c.Symbol()] = len(g.chords)
	g.chords = append(g.chords, o)
	return len(g.chords) - 1
}

// chordAt is the chord that is followed at a tick, as an index of chords.
func (g *ground) chordAt(tick int) int {
	length := g.Chart.Ticks()
	tick = ((tick % length) + length) % length
	at := g.moments[0]
	for _, m := range g.moments {
		if m.Tick > tick {
			break
		}
		at = m
	}
	return g.chordOf[at.Chord.Symbol()]
}

// aim chooses the tone of every landing: by the exact path of the school over the changes
// that one hand position covers; where a bar is the box alone, the tone of the box that the
// school values most.
func (g *ground) aim(box harmony.Box) error {
	length := g.Chart.Ticks()
	changes := g.Chart.Arrivals()
	// The change back to the top is landed on at the top.
	if n := len(changes); n > 0 && changes[n-1].Tick == length {
		changes = append([]chart.Change{changes[n-1]}, changes[:n-1]...)
	}
	for from := 0; from < len(changes); {
		at := g.PositionAt(changes[from].Tick % length)
		to := from
		for to < len(changes) && g.PositionAt(changes[to].Tick%length) == at {
			to++
		}
		path, err := change.PathOrder{
			School: g.School, Instrument: g.Instrument, Window: at.Window, Swaps: g.Swaps, Arrivals: changes[from:to],
		}.Write()
		if err != nil {
			return err
		}
		for n, landed := range path.Landings {
			ch := changes[from+n]
			a := arrival{Change: ch, tick: ch.Tick % length, window: at.Window, aim: landed.Tone,
				over: g.know(ch.Arriving.Chord), leaving: g.know(ch.Leaving.Chord), leads: map[neck.Place][]change.Led{}}
			if g.blendAt(a.tick) == 0 {
				g.aimInBox(&a, box)
			}
			for _, tone := range neck.LayChord(g.Instrument, at.Window, ch.Arriving.Chord, g.Swaps).Tones {
				if tone.Note.Class() == a.aim.Note.Class() {
					a.placed = append(a.placed, tone)
				}
			}
			if len(a.placed) == 0 {
				a.placed = neck.Lay(g.Instrument, at.Window, []harmony.Tone{a.aim}).Tones
			}
			g.leadInto(&a, box)
			g.arrivals = append(g.arrivals, a)
			g.ticks = append(g.ticks, a.tick)
		}
		from = to
	}
	return nil
}

// aimInBox aims at a tone of the box that is home over the chord.
func (g *ground) aimInBox(a *arrival, box harmony.Box) {
	best := -1.0
	for _, t := range a.Arriving.Chord.Tones() {
		if _, boxed := box.Tone(t.Note.Class()); boxed && g.School.Weight(t.Degree) > best {
			a.aim, best = t, g.School.Weight(t.Degree)
		}
	}
	if best < 0 {
		for _, t := range box.Tones {
			if g.chords[a.over].class[t.Note.Class()] != harmony.Outside && best < 0 {
				a.aim, best = g.Chart.Key.ToneOver(a.Arriving.Chord, t.Note.Class()), 0
			}
		}
		g.gave = append(g.gave, Gave{"blend", fmt.Sprintf("bar %d: no note of %s is a tone of %s, so with the box alone this change has no landing on one", a.Arriving.Bar+1, box.Name(), a.Arriving.Chord.Symbol())})
	}
}

// leadInto works out the approaches into every place of the landing.
func (g *ground) leadInto(a *arrival, box harmony.Box) {
	allowed := g.Approaches
	if len(allowed) == 0 {
		allowed = change.Approaches
	}
	for _, tone := range a.placed {
		for _, way := range allowed {
			led, err := way.Lead(change.Goal{
				Instrument: g.Instrument, Window: a.window, Key: g.Chart.Key, Box: box,
				Leaving: a.Leaving.Chord, Arriving: a.Arriving.Chord, Target: tone.Place,
			})
			if err == nil {
				a.leads[tone.Place] = append(a.leads[tone.Place], led)
			}
		}
	}
}

// allPlaces lists every place of a window.
func (g *ground) allPlaces(w neck.Window) []choice {
	if known, ok := g.places[w]; ok {
		return known
	}
	all := []choice{}
	for s := range g.Instrument.Open {
		for fret := w.Low; fret <= w.High; fret++ {
			c := choice{place: neck.Place{String: s + 1, Fret: fret}}
			c.pitch = g.Instrument.Pitch(c.place)
			if w.Reach(fret) {
				c.reach = costOfReach
			}
			all = append(all, c)
		}
	}
	g.places[w] = all
	return all
}
