package lick

import (
	"fmt"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Lick is a phrase kept to be used again, as it was written in one key.
type Lick struct {
	Name string
	// About says in a line what the lick is good for.
	About string
	// Tonic is the tonic it was written over.
	Tonic pitch.Note
	// Tags are the player's own words for it.
	Tags   []string
	Phrase phrase.Phrase
	// Instrument is the instrument that its strings and frets are of; nil for a guitar in
	// standard tuning.
	Instrument *neck.Instrument
}

// WrittenFor is the instrument that the lick's strings and frets are of. Licks may
// be written for any fret that a neck has.
func (l Lick) WrittenFor() neck.Instrument {
	if l.Instrument != nil {
		return *l.Instrument
	}
	i := neck.Standard()
	i.Frets = neck.MaxFrets
	return i
}

// MaxName and MaxAbout are how many characters a lick's name and line hold, MaxTags
// and MaxTag how many tags it may have, and how long each.
const (
	MaxName  = 60
	MaxAbout = 200
	MaxTags  = 12
	MaxTag   = 24
)

// MaxLickBars is how many bars a lick may last, MaxPickupBars how many it may begin
// before its bar 1 (ours: what is longer is a solo).
const (
	MaxLickBars   = 64
	MaxPickupBars = 4
)

// Check returns the first thing that makes the lick unfit to be kept: a
// *chart.FieldError for what it is called, an *EventError for a note.
func (l Lick) Check() error {
	if err := l.CheckSoFar(); err != nil {
		return err
	}
	return l.Phrase.Check(l.WrittenFor())
}

// CheckSoFar is Check for a lick that is being written and may have no notes yet.
func (l Lick) CheckSoFar() error {
	name := strings.TrimSpace(l.Name)
	if name == "" || len([]rune(name)) > MaxName {
		return &chart.FieldError{Field: "name", Detail: fmt.Sprintf("a lick's name has 1 to %d characters", MaxName)}
	}
	if len([]rune(l.About)) > MaxAbout {
		return &chart.FieldError{Field: "about", Detail: fmt.Sprintf("what a lick is about has at most %d characters", MaxAbout)}
	}
	if l.Tonic.Accidental > 1 || l.Tonic.Accidental < -1 {
		return &chart.FieldError{Field: "tonic", Detail: fmt.Sprintf("%s is not a tonic; a tonic has at most one b or #", l.Tonic)}
	}
	if err := CheckTags(l.Tags); err != nil {
		return err
	}
	return l.checkBars()
}

// CheckTags returns a *chart.FieldError for the first tag that is none, or for too many.
func CheckTags(tags []string) error {
	if len(tags) > MaxTags {
		return &chart.FieldError{Field: "tags", Detail: fmt.Sprintf("at most %d tags are kept", MaxTags)}
	}
	for n, tag := range tags {
		if strings.TrimSpace(tag) != tag || tag == "" || len([]rune(tag)) > MaxTag || strings.ContainsAny(tag, ",\n\r\t") {
			return &chart.FieldError{Field: fmt.Sprintf("tags[%d]", n), Detail: fmt.Sprintf("a tag has 1 to %d characters in one line, without a comma", MaxTag)}
		}
	}
	return nil
}

// checkBars holds notes and chords within the bars that a lick may have.
func (l Lick) checkBars() error {
	bar := l.Phrase.Meter.BarTicks()
	first, end := -MaxPickupBars*bar, MaxLickBars*bar
	for n, e := range l.Phrase.Events {
		switch {
		case e.Tick < first:
			return &phrase.EventError{Index: n, Field: "tick", Detail: fmt.Sprintf("it begins more than %d bars before bar 1", MaxPickupBars)}
		case e.End() > end:
			return &phrase.EventError{Index: n, Field: "ticks", Detail: fmt.Sprintf("it goes on past bar %d, where a lick ends at the latest", MaxLickBars)}
		}
	}
	for n, from := range l.Phrase.Chords {
		if from.Tick < first || from.Tick >= end {
			return &phrase.EventError{Field: "chords", Detail: fmt.Sprintf("chord %d is outside the %d bars a lick may have", n+1, MaxLickBars)}
		}
	}
	return l.Phrase.CheckSoFar(l.WrittenFor())
}

// Key is the key the lick was written in, as its first chord says; that of a blues where
// it knows none.
func (l Lick) Key() harmony.Key {
	k := harmony.Key{Tonic: l.Tonic, Mode: harmony.DominantMode}
	if len(l.Phrase.Chords) > 0 {
		k.Mode = l.Phrase.Chords[0].Chord.TonicMode()
	}
	return k
}

// NearestPosition is the position of the lick's own key that is nearest to where its frets lie.
func (l Lick) NearestPosition(i neck.Instrument) neck.Position {
	low, _ := l.Phrase.Frets()
	best := neck.Position{Window: i.WindowFrom(min(max(low, 0), i.Frets-3))}
	for n, p := range neck.Positions(i, l.Tonic.Class()) {
		if n == 0 || max(p.Core-low, low-p.Core) < max(best.Core-low, low-best.Core) {
			best = p
		}
	}
	return best
}
