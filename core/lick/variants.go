package lick

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Variant is a lick at another place: another octave, in octaves, in another key or
// another position.
type Variant struct {
	// Group says what it is one of, Name which.
	Group, Name string
	// Tonic is the key it is in there.
	Tonic pitch.Note
	// Move is it there, over its own chords; or the reason why it cannot be.
	Move
}

// The groups of places that a lick can be had at.
const (
	groupOctaves   = "octaves"
	groupKeys      = "keys"
	groupPositions = "positions"
)

// Variants is the lick at every other place: an octave up and down, as octaves, in
// every key at the form of a position, and in every position of the key (common
// practice: a lick is known when it can be had anywhere).
func (l Lick) Variants(i neck.Instrument, k harmony.Key, at neck.Position) []Variant {
	all := []Variant{
		l.variant(i, groupOctaves, "an octave up", l.Tonic, l.octave(i, 12)),
		l.variant(i, groupOctaves, "an octave down", l.Tonic, l.octave(i, -12)),
		l.variant(i, groupOctaves, "as octaves", l.Tonic, l.asOctaves(i)),
	}
	for _, name := range k.Mode.Tonics() {
		key, err := harmony.ParseKey(name, k.Mode)
		if err != nil || key.Tonic.Class() == k.Tonic.Class() {
			continue
		}
		all = append(all, l.inKey(i, key, at))
	}
	for _, p := range neck.Positions(i, k.Tonic.Class()) {
		moved := l.placed(i, k.Tonic, p.Window)
		all = append(all, l.variant(i, groupPositions, fmt.Sprintf("%s, frets %d to %d", p.Label(), p.Core, p.CoreEnd), k.Tonic, moved))
	}
	return all
}

// inKey sets the lick into a key, at the position there that is the like of this one.
func (l Lick) inKey(i neck.Instrument, key harmony.Key, at neck.Position) Variant {
	text := string(at.Form)
	if text == "" {
		text = at.ID()
	}
	position, err := neck.FindPosition(i, key.Tonic.Class(), text)
	if err != nil {
		return l.variant(i, groupKeys, key.Tonic.String(), key.Tonic, refused("", "%s", err))
	}
	return l.variant(i, groupKeys, key.Tonic.String(), key.Tonic, l.placed(i, key.Tonic, position.Window))
}

// placed is the lick set into a key and window, as something moved.
func (l Lick) placed(i neck.Instrument, tonic pitch.Note, w neck.Window) Move {
	setting, err := l.PlaceIn(i, tonic.Class(), w)
	if err != nil {
		return refused("", "%s", err)
	}
	return Move{Phrase: setting.Phrase, Shift: setting.Shift, Lost: setting.Lost, Method: StayInPosition}
}

// variant measures what was moved and puts its own chords under it, moved with it.
func (l Lick) variant(i neck.Instrument, group, name string, tonic pitch.Note, m Move) Variant {
	e := Variant{Group: group, Name: name, Tonic: tonic}
	if m.Refused == "" {
		over := l.withOwnChords().Chords
		m.measure(i, over[0].Chord)
		m.Phrase.Chords = nil
		for _, from := range over {
			from.Chord = from.Chord.Transposed(l.Tonic, tonic)
			if from.Written != nil {
				written := from.Written.Transposed(l.Tonic, tonic)
				from.Written = &written
			}
			m.Phrase.Chords = append(m.Phrase.Chords, from)
		}
	}
	e.Move = m
	return e
}

// octave moves the lick by octaves: along the neck where it has room, else fingered
// anew in the position where that costs least.
func (l Lick) octave(i neck.Instrument, shift int) Move {
	if events, err := l.onNeck(i); err == nil && !slices.ContainsFunc(events, func(e phrase.Event) bool { return e.Fret == 0 }) {
		p := phrase.Phrase{Meter: l.Phrase.Meter, Events: slices.Clone(events)}
		if slideFrets(p.Events, shift, i) {
			return Move{Method: SlideShape, Phrase: p, Shift: shift}
		}
	}
	best, cost := Placement{}, -1
	for _, p := range neck.Positions(i, l.Tonic.Class()) {
		setting, c, ok := l.refingered(i, p.Window, shift)
		if c += costLost * len(setting.Lost); ok && (cost < 0 || c < cost) {
			best, cost = setting, c
		}
	}
	if cost < 0 {
		return refused(StayInPosition, "there is no room for it on this neck")
	}
	return Move{Method: StayInPosition, Phrase: best.Phrase, Shift: shift, Lost: best.Lost}
}

// asOctaves doubles every note an octave lower, on the string two or three lower as
// octaves are held, so that the line stays on top; where that cannot be had of all, an
// octave higher, and else of each what can be had (common practice for the first). Two
// strings cannot be bent, hammered or pulled together: those techniques go, and a bend is
// played as its goal. Double stops are refused: a bend and its unison would come to lie on one
// string.
func (l Lick) asOctaves(i neck.Instrument) Move {
	events, err := l.onNeck(i)
	if err != nil {
		return refused(SlideShape, "%s", err)
	}
	if l.Phrase.DoubleStops() {
		return refused(SlideShape, "it has double stops, and four strings at once are no octaves")
	}
	m := Move{Method: SlideShape, Phrase: phrase.Phrase{Meter: l.Phrase.Meter}}
	for n := range events {
		e := &events[n]
		if e.Bend > 0 || e.HammerOn || e.PullOff || e.Tied {
			m.Lost = append(m.Lost, fmt.Sprintf("the %s at note %d cannot be had on two strings", map[bool]string{true: "bend", false: e.SlurName()}[e.Bend > 0], n+1))
		}
		e.Fret += e.Bend / 2
		e.Bend, e.PreBend, e.Release, e.HammerOn, e.PullOff, e.Tied = 0, false, false, false, false, false
		if !i.Has(e.Place) || e.SlideFrom == e.Fret {
			e.SlideFrom = 0
		}
	}
	missing := 0
	for _, ways := range [][]octaveShape{lowerOctave, higherOctave, append(slices.Clone(lowerOctave), higherOctave...)} {
		if m.Phrase.Events, missing = doubled(i, events, ways); missing < 0 {
			m.Phrase.Events, _ = phrase.WithoutOverlaps(m.Phrase.Events, nil)
			return m
		}
	}
	return refused(SlideShape, "note %d has no octave beside it on this neck", missing+1)
}

// octaveShape is where an octave lies: so many strings over, so many half steps away.
type octaveShape struct{ strings, semitones int }

// An octave lies two strings over, or three.
var (
	lowerOctave  = []octaveShape{{2, -12}, {3, -12}}
	higherOctave = []octaveShape{{-2, 12}, {-3, 12}}
)

// doubled doubles every note by the first of the ways that it has; missing is the first
// note that has none, -1 for none.
func doubled(i neck.Instrument, events []phrase.Event, ways []octaveShape) (all []phrase.Event, missing int) {
	for n, e := range events {
		other, ok := octaveOf(e, i, ways)
		if !ok || !i.Has(e.Place) {
			return nil, n
		}
		pair := []phrase.Event{e, other}
		slices.SortFunc(pair, func(a, b phrase.Event) int { return b.String - a.String })
		all = append(all, pair...)
	}
	return all, -1
}

// octaveOf is the octave of a note that a hand reaches beside it.
func octaveOf(e phrase.Event, i neck.Instrument, ways []octaveShape) (phrase.Event, bool) {
	for _, to := range ways {
		other := e
		other.String += to.strings
		if other.String < 1 || other.String > len(i.Open) {
			continue
		}
		other.Fret = int(i.Pitch(e.Place)-i.Open[other.String-1]) + to.semitones
		if other.SlideFrom > 0 {
			other.SlideFrom += other.Fret - e.Fret
		}
		far := max(other.Fret-e.Fret, e.Fret-other.Fret)
		if i.Has(other.Place) && far <= widestOctave && other.SlideFrom >= 0 && other.SlideFrom <= i.Frets && (other.Fret > 0 || !other.NeedsFret()) {
			return other, true
		}
	}
	return e, false
}

// widestOctave is how many frets a hand spans between the two notes of an octave.
const widestOctave = 4

// withOwnChords is the lick's phrase over the chords it knows, or else over the tonic chord.
func (l Lick) withOwnChords() phrase.Phrase {
	if len(l.Phrase.Chords) > 0 {
		return l.Phrase
	}
	return l.Phrase.WithDefaultChord(chart.Chart{Key: l.Key()}.TonicChord())
}
