package lick

import (
	"fmt"
	"slices"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// SplitByChord cuts the lick into one for each chord it is over: a note belongs to
// the chord that holds when it starts. The tick 0 of each is the downbeat of the bar in
// which its chord begins; slurs over a cut are dropped. A lick over one chord is
// returned as it is.
func (l Lick) SplitByChord() []Lick {
	over := l.Phrase.Chords
	if len(over) < 2 {
		return []Lick{l}
	}
	parts := []Lick{}
	for n, from := range over {
		start := l.Phrase.Meter.Downbeat(from.Tick)
		if n == 0 {
			start = 0
		}
		part := Lick{About: l.About, Tags: l.Tags, Tonic: l.Tonic, Instrument: l.Instrument, Phrase: phrase.Phrase{Meter: l.Phrase.Meter}}
		for _, e := range l.Phrase.Events {
			if (n == 0 || e.Tick >= from.Tick) && (n == len(over)-1 || e.Tick < over[n+1].Tick) {
				e.Tick -= start
				part.Phrase.Events = append(part.Phrase.Events, e)
			}
		}
		if len(part.Phrase.Events) == 0 {
			continue
		}
		// What led into the chord before has nothing to lead from any more.
		part.Phrase.Events = phrase.DropLooseGraces(part.Phrase.Events)
		phrase.DropBrokenSlurs(part.Phrase.Events)
		from.Tick -= start
		part.Phrase.Chords = []phrase.PhraseChord{from}
		part.Name = l.Name
		parts = append(parts, part.WithSuffix(fmt.Sprintf(", part %d: %s", len(parts)+1, from.Chord.SignedSymbol())))
	}
	return parts
}

// JoinedLicks is two licks end to end.
type JoinedLicks struct {
	Lick Lick
	// From is the lick's tick at which the second one's tick 0 stands.
	From int
	// Run are the events of the connector, as indices: from, up to but not at, to.
	Run [2]int
	// Remark is what could not be done, empty where all was.
	Remark string
}

// Join plays another lick behind this one, from the first bar line that leaves room for
// its pickup, with a chromatic run of so many notes between the last note of the one and
// the first of the other, in the subdivision. Both must lie on the same instrument, in
// the same tonic and meter: the error is a *chart.FieldError.
func (l Lick) Join(i neck.Instrument, other Lick, notes int, s chart.Subdivision) (JoinedLicks, error) {
	a, b := l.Phrase, other.Phrase
	switch {
	case a.Meter != b.Meter:
		return JoinedLicks{}, &chart.FieldError{Field: "with", Detail: fmt.Sprintf("a lick in %s and one in %s cannot be joined", a.Meter, b.Meter)}
	case l.Tonic.Class() != other.Tonic.Class():
		return JoinedLicks{}, &chart.FieldError{Field: "with", Detail: fmt.Sprintf("it is in %s, and does not lie in %s here", other.Tonic, l.Tonic)}
	case notes < 0 || notes > MaxJoiningRun:
		return JoinedLicks{}, &chart.FieldError{Field: "notes", Detail: fmt.Sprintf("a connector has 0 to %d notes", MaxJoiningRun)}
	}
	end := a.Events[0].Tick
	for _, e := range a.Events {
		end = max(end, e.End())
	}
	j := JoinedLicks{From: a.Bars() * a.Meter.BarTicks()}
	if j.From+b.Events[0].Tick < end {
		j.From += (end - j.From - b.Events[0].Tick + a.Meter.BarTicks() - 1) / a.Meter.BarTicks() * a.Meter.BarTicks()
	}
	p := phrase.Phrase{Meter: a.Meter, Events: slices.Clone(a.Events), Chords: slices.Clone(a.Chords)}
	first := j.From + b.Events[0].Tick
	j.Run = [2]int{len(p.Events), len(p.Events)}
	if notes > 0 {
		run, remarks := joiningRun(i, a.Events[len(a.Events)-1], b.Events[0], first, end, notes, s.Ticks(a.Meter))
		p.Events, j.Remark = append(p.Events, run...), remarks
		j.Run[1] = len(p.Events)
	}
	for _, e := range b.Events {
		e.Tick += j.From
		p.Events = append(p.Events, e)
	}
	for n, from := range b.Chords {
		if from.Tick += j.From; n == 0 {
			from.Tick = max(j.From, first)
		}
		if len(p.Chords) == 0 || p.Chords[len(p.Chords)-1].Tick < from.Tick && !p.Chords[len(p.Chords)-1].Same(from) {
			p.Chords = append(p.Chords, from)
		}
	}
	phrase.DropBrokenSlurs(p.Events)
	j.Lick = Lick{Name: l.Name, About: l.About, Tonic: l.Tonic, Instrument: l.Instrument, Phrase: p}
	for _, tag := range slices.Concat(l.Tags, other.Tags) {
		if !slices.Contains(j.Lick.Tags, tag) && len(j.Lick.Tags) < MaxTags {
			j.Lick.Tags = append(j.Lick.Tags, tag)
		}
	}
	tail := []rune(", then " + other.Name)
	j.Lick = j.Lick.WithSuffix(string(tail[:min(len(tail), MaxName/2)]))
	j.Lick.Phrase.Finger(i)
	return j, asJoinFault(j.Lick.Check())
}

// MaxJoiningRun is how many notes a connector between two licks may have.
const MaxJoiningRun = 12

// asJoinFault names an event's fault as one of the lick it would be joined with.
func asJoinFault(err error) error {
	if err == nil {
		return nil
	}
	return &chart.FieldError{Field: "with", Detail: err.Error()}
}

// joiningRun runs chromatically from one note to another that begins at first, in the
// notes just before it: as many as there is time for from end on.
func joiningRun(i neck.Instrument, from, to phrase.Event, first, end, notes, step int) ([]phrase.Event, string) {
	remarks := ""
	if room := (first - end) / step; room < notes {
		remarks = fmt.Sprintf("there is room for %d of %d notes", max(room, 0), notes)
		if notes = max(room, 0); notes == 0 {
			return nil, remarks
		}
	}
	goal := i.Pitch(to.Place)
	between := func(notes int) ([]pitch.MIDI, string, error) {
		return change.ChromaticPitches(from.Sounding(i), goal, notes+2)
	}
	pitches, fitted, err := between(notes)
	for err != nil && notes > 1 {
		notes--
		pitches, fitted, err = between(notes)
	}
	if err != nil {
		return nil, "one ends where the other begins: nothing lies between"
	}
	if remarks == "" {
		remarks = fitted
	}
	pitches = pitches[1 : len(pitches)-1]
	wanted := make([]neck.NoteToPlace, len(pitches)+1)
	for n, p := range pitches {
		wanted[n] = neck.NoteToPlace{Pitch: p}
	}
	wanted[len(pitches)] = neck.NoteToPlace{Pitch: goal, At: &to.Place}
	low := max(min(to.Fret, from.Fret), 1)
	fingering, _, err := neck.FingerPhrase(i, i.WindowFrom(min(low, i.Frets-3)), wanted)
	if err != nil {
		return nil, "its notes do not lie where the hand is"
	}
	run := make([]phrase.Event, len(pitches))
	for n := range run {
		run[n] = phrase.Event{Tick: first - (len(run)-n)*step, Ticks: step, Fingered: fingering[n]}
	}
	return run, remarks
}
