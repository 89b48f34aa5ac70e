package chorus

import (
	"fmt"
	"sort"

	"undaris/core/analysis"
	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/floor"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Context is what a chorus is planned on: everything that is the same for every candidate.
type Context struct {
	Request
	// Time says where its bars lie and what holds in them, Length how long it is, in ticks.
	Time   chart.Timeline
	Length int
	// hand is where the hand stands from which tick on.
	hand    []change.HandPlace
	Chords  []ChordClasses
	chordOf map[string]int
	Spans   []chart.ChordSpan
	// spanChord is the chord of each span, as an index of Chords.
	spanChord []int
	// Targets are the landings of a chorus in order of time, that of the change back to
	// the top at tick 0.
	Targets     []PlannedTarget
	TargetTicks []int
	Concessions []Concession
	// recognizer says whether a chord would be known without the band.
	recognizer *analysis.ChordRecognizer
	// widestFret is the highest fret that is within the span of each.
	widestFret []int
}

// ChordClasses is what the twelve classes are over one chord.
type ChordClasses struct {
	Chord harmony.Chord
	// Key is the key that the chord stands in, Box the box that is played in there.
	Key   harmony.Key
	Box   harmony.Box
	Class [12]harmony.Class
	InBox [12]bool
	// InScale are the classes of its scale of the chord; guide, root and fifth sort its own.
	InScale, Guide, Root, Third [12]bool
}

// PlannedTarget is one landing: its change, the class aimed at and the ways into it.
type PlannedTarget struct {
	chart.Change
	Tick         int
	Over         int
	LeavingChord int
	Aim          harmony.Tone
	Places       []neck.Placed
	Approaches   map[neck.Place][]change.Approach
	Window       neck.Window
}

// NewContext prepares what a chorus is planned and edited with. Its error is a *chart.FieldError.
func (o Request) NewContext() (*Context, error) {
	if err := o.Check(); err != nil {
		return nil, err
	}
	t := o.Chart.Timeline()
	pc := &Context{Request: o, Time: t, Length: t.Ticks(), chordOf: map[string]int{}, hand: o.handPlaces(t), recognizer: analysis.NewChordRecognizer(o.Chart.Key, o.Chart.Chords())}
	if _, err := o.BoxIn(o.Chart.Key); err != nil {
		return nil, &chart.FieldError{Field: "box", Detail: err.Error()}
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
		pc.spanChord = append(pc.spanChord, pc.classesOver(m.Chord))
	}
	pc.limitDensity()
	if len(o.Chart.Changes()) == 0 {
		pc.Concessions = append(pc.Concessions, Concession{"changes", fmt.Sprintf("the chart stays on %s and has no change to land on: the downbeat of each bar is aimed at instead", pc.Spans[0].Chord.Symbol())})
	}
	return pc, pc.chooseTargets()
}

// limitDensity takes the density down to what there is time for.
func (pc *Context) limitDensity() {
	beats := float64(pc.Chart.Meter.Beats())
	most := beats * float64(pc.Subdivision.PerBeat) * (1 - pc.Space)
	if pc.Density > most {
		pc.Concessions = append(pc.Concessions, Concession{"density", fmt.Sprintf("%g notes a bar do not fit in %ss with %.0f %% of space: planned with %.1f", pc.Density, pc.Subdivision, 100*pc.Space, most)})
		pc.Density = most
	}
}

// classesOver classifies the twelve classes over a chord, once.
func (pc *Context) classesOver(c harmony.Chord) int {
	if n, known := pc.chordOf[c.Identity()]; known {
		return n
	}
	o := ChordClasses{Chord: c, Key: c.Context(pc.Chart.Key).Key}
	for class := range o.Class {
		o.Class[class] = o.Key.Classify(c, pitch.Class(class))
	}
	o.Box, _ = pc.BoxIn(o.Key) // the kind of box is known to exist
	for _, t := range o.Box.Tones {
		o.InBox[t.Note.Class()] = true
	}
	scale, _ := o.Key.ChordScale(c)
	for _, t := range scale.Tones {
		o.InScale[t.Note.Class()] = true
	}
	for _, t := range c.Tones() {
		class := t.Note.Class()
		o.Guide[class] = harmony.IsGuideTone(t.Degree)
		o.Root[class] = t.Degree.Number == 1
		o.Third[class] = t.Degree.Number == 3
	}
	pc.chordOf[c.Identity()] = len(pc.Chords)
	pc.Chords = append(pc.Chords, o)
	return len(pc.Chords) - 1
}

// ChordAt is the chord that is followed at a tick, as an index of chords.
func (pc *Context) ChordAt(tick int) int {
	tick = floor.Mod(tick, pc.Length)
	after := sort.Search(len(pc.Spans), func(n int) bool { return pc.Spans[n].Tick > tick })
	return pc.spanChord[max(after-1, 0)]
}

// chooseTargets chooses the tone of every landing: by the exact path of the target strategy over the changes
// that one hand position covers; where a bar is the box alone, the tone of the box that the
// strategy values most.
func (pc *Context) chooseTargets() error {
	length := pc.Length
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
			Strategy: pc.Strategy, Instrument: pc.Instrument, Hand: []change.HandPlace{{Position: at}}, Swaps: pc.Swaps, Changes: changes[from:to],
			Variation: &change.Variation{Seed: pc.Seed, Key: pc.Time.KeyAt(pc.Time.BarAt(changes[from].Tick))},
		}.Find()
		if err != nil {
			return err
		}
		for n, landed := range path.Targets {
			ch := changes[from+n]
			a := PlannedTarget{Change: ch, Tick: ch.Tick % length, Window: at.Window, Aim: landed.Tone,
				Over: pc.classesOver(ch.Arriving.Chord), LeavingChord: pc.classesOver(ch.Leaving.Chord), Approaches: map[neck.Place][]change.Approach{}}
			if pc.BlendAt(a.Tick) == 0 {
				pc.aimInBox(&a)
			}
			for _, tone := range neck.PlaceChord(pc.Instrument, at.Window, ch.Arriving.Chord, pc.Swaps).Tones {
				if tone.Note.Class() == a.Aim.Note.Class() {
					a.Places = append(a.Places, tone)
				}
			}
			if len(a.Places) == 0 {
				a.Places = neck.PlaceTones(pc.Instrument, at.Window, []harmony.Tone{a.Aim}).Tones
			}
			pc.findApproaches(&a)
			pc.Targets = append(pc.Targets, a)
			pc.TargetTicks = append(pc.TargetTicks, a.Tick)
		}
		from = to
	}
	return nil
}

// aimInBox aims at a tone of the box that is a chord tone.
func (pc *Context) aimInBox(a *PlannedTarget) {
	box := pc.Chords[a.Over].Box
	best := -1.0
	for _, t := range a.Arriving.Chord.Tones() {
		if _, boxed := box.Tone(t.Note.Class()); boxed && pc.Strategy.Weight(t.Degree) > best {
			a.Aim, best = t, pc.Strategy.Weight(t.Degree)
		}
	}
	if best < 0 {
		for _, t := range box.Tones {
			if pc.Chords[a.Over].Class[t.Note.Class()] != harmony.Outside && best < 0 {
				a.Aim, best = pc.Chords[a.Over].Key.ToneOver(a.Arriving.Chord, t.Note.Class()), 0
			}
		}
		pc.Concessions = append(pc.Concessions, Concession{"blend", fmt.Sprintf("bar %d: no note of %s is a tone of %s, so with the box alone this change has no landing on one", a.Arriving.Bar+1, box.Name(), a.Arriving.Chord.Symbol())})
	}
}

// findApproaches works out the approaches into every place of the landing.
func (pc *Context) findApproaches(a *PlannedTarget) {
	over := pc.Chords[a.Over]
	allowed := pc.Approaches
	if len(allowed) == 0 {
		allowed = change.ApproachKinds
	}
	for _, tone := range a.Places {
		for _, way := range allowed {
			led, err := way.Into(change.Goal{
				Instrument: pc.Instrument, Window: a.Window, Key: over.Key, Box: over.Box,
				Leaving: a.Leaving.Chord, Arriving: a.Arriving.Chord, Target: tone.Place,
			})
			if err == nil {
				a.Approaches[tone.Place] = append(a.Approaches[tone.Place], led)
			}
		}
	}
}

// ApproachUsed is the approach by which notes lead into a landing, nil for none. Of several the
// longest.
func (pc *Context) ApproachUsed(before []phrase.Event, landing phrase.Event, a PlannedTarget) *change.Approach {
	var best *change.Approach
	at := landing.Place
	at.Fret += landing.Bend / 2
	for n, led := range a.Approaches[at] {
		length := len(led.Notes) - 1
		if length < 1 || length > len(before) {
			continue
		}
		alike := true
		for k := range length {
			if pitch.MIDI(led.Notes[k].Pitch) != before[len(before)-length+k].Sounding(pc.Instrument) {
				alike = false
			}
		}
		if alike && (best == nil || length > len(best.Notes)-1) {
			best = &a.Approaches[at][n]
		}
	}
	return best
}

// Finger gives a phrase its fingers, its places as they are.
func (pc *Context) Finger(events []phrase.Event) error {
	for from := 0; from < len(events); {
		at := pc.PositionAt(events[from].Tick)
		to := from
		wanted := []neck.NoteToPlace{}
		for to < len(events) && pc.PositionAt(events[to].Tick) == at {
			e := &events[to]
			wanted = append(wanted, neck.NoteToPlace{Pitch: pc.Instrument.Pitch(e.Place), At: &e.Place, Bend: e.Bend, Held: analysis.IsHeldFor(e.Ticks, pc.Time.BeatTicksAt(e.Tick))})
			to++
		}
		fingered, _, err := neck.FingerPhrase(pc.Instrument, at.Window, wanted)
		if err != nil {
			return fmt.Errorf("fingering bar %d: %w", pc.Time.BarAt(events[from].Tick)+1, err)
		}
		for n, f := range fingered {
			events[from+n].Fingered = f
		}
		from = to
	}
	return nil
}

// WithinSpan says whether both places lie within the span of the hand.
func (pc *Context) WithinSpan(a, b neck.Place) bool {
	return a.Fret == 0 || b.Fret == 0 || max(a.Fret, b.Fret) <= pc.widestFret[min(a.Fret, b.Fret)]
}
