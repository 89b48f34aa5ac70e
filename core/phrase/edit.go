package phrase

import (
	"fmt"
	"slices"
	"sort"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Edit is one change that a player makes to a phrase. It works on a selection: the
// notes that start from From up to, but not at, To, on one string or on all.
type Edit struct {
	Kind     EditKind
	From, To int
	// String is 0 for every string.
	String int
	// Fret and Ticks are those of a note to be put at From.
	Fret, Ticks int
	// By is how far a selection is moved: ticks, or half steps.
	By int
	// Technique and Value are how the selection is to be played.
	Technique string
	Value     int
	// Events are pasted with their tick 0 at From.
	Events []Event
	// Chord holds from From on.
	Chord harmony.Chord
}

// EditKind is what an edit does.
type EditKind string

// The edits.
const (
	// Put writes a note; where one begins already its fret is changed, and nothing else.
	Put EditKind = "put"
	// Clear takes the selection's notes away and leaves their time as a rest.
	Clear EditKind = "clear"
	// RemoveTime takes the selection's time away with its notes: what follows moves up.
	RemoveTime EditKind = "removeTime"
	// InsertTime makes room: all from From on moves later by Ticks.
	InsertTime EditKind = "insertTime"
	// SetLength sets how long the selection's notes last.
	SetLength EditKind = "setLength"
	// SetTechnique sets a technique.
	SetTechnique EditKind = "setTechnique"
	// Shift moves the selection in time, Transpose along its strings.
	Shift     EditKind = "shift"
	Transpose EditKind = "transpose"
	// MoveString moves the selection to other strings, its sound kept.
	MoveString EditKind = "moveString"
	// Paste writes events, in place of what is there.
	Paste EditKind = "paste"
	// Repeat plays the selection once more behind itself; what follows moves later.
	Repeat EditKind = "repeat"
	// SetChord puts a chord under the phrase from a tick on, ClearChord takes it away.
	SetChord   EditKind = "setChord"
	ClearChord EditKind = "clearChord"
)

// EditKinds lists them.
var EditKinds = []EditKind{Put, Clear, RemoveTime, InsertTime, SetLength, SetTechnique, Shift, Transpose, MoveString, Paste, Repeat, SetChord, ClearChord}

// Apply is the phrase with one change made, and what had to be done beside it: notes
// cut short, slurs that no longer fit. One voice is written: a note ends where the next
// begins unless it is held on purpose (ours; that is how a lick is played). Where the
// change cannot be made, the error is an *EventError or a *chart.FieldError.
func (p Phrase) Apply(i neck.Instrument, e Edit) (Phrase, []string, error) {
	was := p
	p.Events, p.Chords = slices.Clone(p.Events), slices.Clone(p.Chords)
	var remarks []string
	var err error
	switch e.Kind {
	case Put:
		err = p.put(i, e)
	case Clear:
		p.Events = slices.DeleteFunc(p.Events, e.selects)
	case RemoveTime:
		err = p.removeTime(e)
	case InsertTime:
		err = p.insertTime(e.From, e.Ticks)
	case SetLength:
		remarks, err = p.setLength(e)
	case SetTechnique:
		err = p.setTechnique(i, e)
	case Shift:
		err = p.shift(e)
	case Transpose:
		err = p.forEach(e, func(note *Event) error { return transposeNote(i, note, e.By) })
	case MoveString:
		err = p.forEach(e, func(note *Event) error { return moveNoteToString(i, note, e.By) })
	case Paste:
		p.paste(e)
	case Repeat:
		err = p.repeat(e)
	case SetChord:
		p.setChord(e)
	case ClearChord:
		p.Chords = slices.DeleteFunc(p.Chords, func(c PhraseChord) bool { return c.Tick >= e.From && c.Tick < e.To })
	default:
		err = &chart.FieldError{Field: "kind", Detail: fmt.Sprintf("%q is not an edit", e.Kind)}
	}
	if err != nil {
		return was, nil, err
	}
	sort.SliceStable(p.Events, func(a, b int) bool { return p.Events[a].Tick < p.Events[b].Tick })
	p.Events, remarks = WithoutOverlaps(p.Events, remarks)
	remarks = append(remarks, DropBrokenSlurs(p.Events)...)
	if err := p.CheckSoFar(i); err != nil {
		return was, nil, err
	}
	p.Finger(i)
	return p, remarks, nil
}

// selects says whether a note belongs to the edit's selection.
func (e Edit) selects(note Event) bool {
	return note.Tick >= e.From && note.Tick < e.To && (e.String == 0 || e.String == note.String)
}

// forEach changes every note of the selection, which may not be empty.
func (p *Phrase) forEach(e Edit, change func(*Event) error) error {
	found := false
	for n := range p.Events {
		if !e.selects(p.Events[n]) {
			continue
		}
		found = true
		if err := change(&p.Events[n]); err != nil {
			return &EventError{Index: n, Field: "fret", Detail: err.Error()}
		}
	}
	if !found {
		return &chart.FieldError{Field: "from", Detail: "there is no note there to be changed"}
	}
	return nil
}

// put writes a note. What sounded on any string until then ends there, and the new
// note ends where the next begins.
func (p *Phrase) put(i neck.Instrument, e Edit) error {
	place := neck.Place{String: e.String, Fret: e.Fret}
	if !i.Has(place) {
		return &chart.FieldError{Field: "fret", Detail: fmt.Sprintf("string %d has no fret %d; strings are 1 to %d, frets 0 to %d", e.String, e.Fret, len(i.Open), i.Frets)}
	}
	for n := range p.Events {
		note := &p.Events[n]
		if note.Tick == e.From && note.String == e.String {
			note.Fret = e.Fret
			note.dropUnplayable()
			return nil
		}
	}
	if e.Ticks < 1 {
		return &chart.FieldError{Field: "ticks", Detail: "a note lasts at least one tick"}
	}
	added := Event{Tick: e.From, Ticks: e.Ticks, Fingered: neck.Fingered{Place: place}}
	for n := range p.Events {
		note := &p.Events[n]
		switch {
		case note.Tick < e.From && note.End() > e.From:
			note.Ticks = e.From - note.Tick
		case note.Tick > e.From && note.Tick < added.End():
			added.Ticks = note.Tick - e.From
		}
	}
	p.Events = append(p.Events, added)
	return nil
}

// transposeNote moves a note along its string by half steps.
func transposeNote(i neck.Instrument, note *Event, by int) error {
	note.Fret += by
	if note.SlideFrom > 0 {
		note.SlideFrom += by
	}
	if !i.Has(note.Place) || note.SlideFrom < 0 || note.SlideFrom > i.Frets {
		return fmt.Errorf("%d half steps on, it is off the neck: frets are 0 to %d", by, i.Frets)
	}
	note.dropUnplayable()
	return nil
}

// moveNoteToString plays a note's pitch so many strings farther down.
func moveNoteToString(i neck.Instrument, note *Event, by int) error {
	to := note.String + by
	if to < 1 || to > len(i.Open) {
		return fmt.Errorf("there is no string %d; strings are 1 to %d", to, len(i.Open))
	}
	fret := int(i.Pitch(note.Place) - i.Open[to-1])
	if fret < 0 || fret > i.Frets {
		return fmt.Errorf("string %d does not have its pitch", to)
	}
	if note.SlideFrom > 0 {
		if note.SlideFrom += fret - note.Fret; note.SlideFrom < 1 || note.SlideFrom > i.Frets {
			note.SlideFrom = 0
		}
	}
	note.Place = neck.Place{String: to, Fret: fret}
	note.dropUnplayable()
	return nil
}

// paste writes events from From on; notes that begin within their time give way.
func (p *Phrase) paste(e Edit) {
	end := e.From
	for _, note := range e.Events {
		end = max(end, e.From+note.End())
	}
	p.Events = slices.DeleteFunc(p.Events, func(note Event) bool { return note.Tick >= e.From && note.Tick < end })
	for n := range p.Events {
		if note := &p.Events[n]; note.Tick < e.From && note.End() > e.From {
			note.Ticks = e.From - note.Tick
		}
	}
	for _, note := range e.Events {
		note.Tick += e.From
		p.Events = append(p.Events, note)
	}
}

// setChord puts a chord under the phrase.
func (p *Phrase) setChord(e Edit) {
	p.Chords = slices.DeleteFunc(p.Chords, func(c PhraseChord) bool { return c.Tick == e.From })
	p.Chords = append(p.Chords, PhraseChord{Tick: e.From, Chord: e.Chord})
	sort.SliceStable(p.Chords, func(a, b int) bool { return p.Chords[a].Tick < p.Chords[b].Tick })
}
