package etude

import (
	"fmt"
	"math/rand/v2"
	"strings"

	"undaris/core/chart"
	"undaris/core/exercise"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
)

// Part is something that an etude is made of: a lick or an exercise.
type Part struct {
	Name     string
	Lick     *lick.Lick
	Exercise *exercise.Exercise
}

// Ending is how an etude ends.
type Ending string

// The endings.
const (
	OnTheRoot   Ending = "on the root"
	OnTheThird  Ending = "on the third"
	FifthToRoot Ending = "from the fifth to the root"
	NoEnding    Ending = "as it comes"
)

// Endings lists them, the default first.
var Endings = []Ending{OnTheRoot, OnTheThird, FifthToRoot, NoEnding}

// Bounds of a request.
const (
	MaxParts    = 24
	MaxChoruses = 8
	// MaxBars is how many bars an etude has at most, of all choruses (our choice: eight choruses of sixteen bars).
	MaxBars = 128
)

// Request asks for an etude.
type Request struct {
	// Setting is the tune, the neck, where the hand stands and its span.
	exercise.Setting
	Parts []Part
	// PartBars is how many bars a block has, Choruses how many times the form is gone through.
	PartBars, Choruses int
	Ending             Ending
	// Seed decides which part stands where.
	Seed uint64
}

// Etude is a row of choruses and the names of the parts in the order in which they come.
type Etude struct {
	Choruses []chorus.Chorus
	Names    []string
	// Concessions say which parts could not be had at all.
	Concessions []string
}

// Compose joins parts over the form: no part follows itself where there are others, each is led into
// by a chromatic run, and the last chorus ends as wished. The same request gives the same etude. Its
// error is a *chart.FieldError.
func Compose(r Request) (Etude, error) {
	if err := r.check(); err != nil {
		return Etude{}, err
	}
	w := writer{Request: r, random: rand.New(rand.NewPCG(r.Seed, 19)), refused: map[int]bool{}}
	for n := range r.Choruses {
		w.addChorus(n)
		if len(w.refused) == len(r.Parts) {
			return Etude{}, &chart.FieldError{Field: "parts", Detail: "none of the parts can be played here: " + strings.Join(w.concessions, "; ")}
		}
	}
	w.join()
	if r.Ending != NoEnding {
		w.end()
	}
	return w.etude()
}

func (r Request) check() error {
	fail := func(field, format string, args ...any) error {
		return &chart.FieldError{Field: field, Detail: fmt.Sprintf(format, args...)}
	}
	known := false
	for _, e := range Endings {
		known = known || e == r.Ending
	}
	switch bars := len(r.Tune.PlayedBars()); {
	case len(r.Parts) == 0 || len(r.Parts) > MaxParts:
		return fail("parts", "an etude is made of 1 to %d licks and exercises; choose some", MaxParts)
	case r.PartBars < 1 || r.PartBars > bars:
		return fail("partBars", "a block has 1 to %d bars, as many as the tune; not %d", bars, r.PartBars)
	case r.Choruses < 1 || r.Choruses > MaxChoruses:
		return fail("choruses", "an etude has 1 to %d choruses, not %d", MaxChoruses, r.Choruses)
	case bars*r.Choruses > MaxBars:
		return fail("choruses", "%d choruses of %d bars are %d bars; an etude has at most %d", r.Choruses, bars, bars*r.Choruses, MaxBars)
	case !known:
		return fail("ending", "%q is no ending; choose one of %v", r.Ending, Endings)
	}
	return nil
}

// block is a part where it stands: in ticks of the whole etude.
type block struct {
	kind       chorus.Kind
	name       string
	start, end int
	notes      []phrase.Event
}

type writer struct {
	Request
	random      *rand.Rand
	blocks      []block
	before      int
	refused     map[int]bool
	concessions []string
	names       []string
}

// addChorus lays parts over one time through the form.
func (w *writer) addChorus(n int) {
	time := w.Tune.Timeline()
	bars := len(w.Tune.PlayedBars())
	start := n * w.Tune.Ticks()
	for bar := 0; bar < bars; bar += w.PartBars {
		count := min(w.PartBars, bars-bar)
		one, ok := w.choose(bar, count)
		if !ok {
			return
		}
		one.start, one.end = start+time.Start(bar), start+time.Start(bar+count)
		for n := range one.notes {
			one.notes[n].Tick += one.start
		}
		w.blocks = append(w.blocks, one)
		w.names = append(w.names, one.name)
	}
}

// choose takes one of the parts for some bars: not the one before where there are others.
func (w *writer) choose(bar, bars int) (block, bool) {
	order := w.random.Perm(len(w.Parts))
	for _, again := range []bool{false, true} {
		for _, n := range order {
			if w.refused[n] || !again && n == w.before-1 && len(w.Parts) > 1 {
				continue
			}
			one, err := w.lay(w.Parts[n], bar, bars)
			if err != nil {
				w.refused[n] = true
				w.concessions = append(w.concessions, fmt.Sprintf("%s is left out: %s", w.Parts[n].Name, err))
				continue
			}
			w.before = n + 1
			return one, true
		}
	}
	return block{}, false
}

// lay writes a part over bars of the chart: its notes in ticks from the first of them.
func (w *writer) lay(p Part, bar, bars int) (block, error) {
	one := block{kind: chorus.FreeBlock, name: p.Name}
	time := w.Tune.Timeline()
	in, length := time.At(bar), time.Start(bar+bars)-time.Start(bar)
	if p.Exercise != nil {
		e := *p.Exercise
		e.Over = exercise.Over{From: bar, Bars: bars}
		e.Time.NoEnding = true
		written, err := e.Write(w.Setting)
		if err != nil {
			return one, err
		}
		one.notes = within(written.Phrase.Events, length)
		return one, nil
	}
	one.kind = chorus.LickBlock
	l, err := p.Lick.TransposedTo(w.Instrument, in.Key.Tonic, w.Position.Window)
	if err != nil {
		return one, err
	}
	moved := l.Phrase
	if over := w.Tune.ChordAt(time.Start(bar)); over.Root.Class() != l.Root() {
		if move := l.KeepFretsOver(w.Instrument, in.Key, over); move.Refused == "" {
			moved = move.Phrase
		}
	}
	if moved, err = moved.InMeter(in.Meter); err != nil {
		return one, err
	}
	one.notes = within(moved.Events, length)
	if len(one.notes) == 0 {
		return one, fmt.Errorf("it has no note within %d bars", bars)
	}
	return one, nil
}

// within are the notes that begin within a length from tick 0 on, none of them longer; a pickup is
// left out.
func within(events []phrase.Event, length int) []phrase.Event {
	kept := []phrase.Event{}
	for _, e := range events {
		if e.Tick >= 0 && e.Tick < length {
			e.Ticks = min(e.Ticks, length-e.Tick)
			kept = append(kept, e)
		}
	}
	phrase.DropBrokenSlurs(kept)
	return phrase.DropLooseGraces(kept)
}

// placed fingers notes whose places stand.
func (w *writer) placed(notes []phrase.Event) []phrase.Event {
	wanted := make([]neck.NoteWithPlaces, len(notes))
	for n, e := range notes {
		wanted[n] = neck.NoteWithPlaces{Pitch: w.Instrument.Pitch(e.Place), Places: []neck.Place{e.Place}}
	}
	fingering, _ := neck.FingerMovingHand(w.Instrument, wanted)
	for n := range notes {
		notes[n].Fingered = fingering[n]
	}
	return notes
}
