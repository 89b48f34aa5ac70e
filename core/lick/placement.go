package lick

import (
	"fmt"

	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Placement is a lick laid into a key and position.
type Placement struct {
	Phrase phrase.Phrase
	// Shift is how many semitones the lick sounds above where it was written.
	Shift int
	// Slid is true where the shape itself was moved along the neck; false where
	// the lick had to be fingered anew.
	Slid bool
	// Lost names the techniques that one string no longer allows.
	Lost []string
}

// NoRoomError says that a lick's range does not fit a window.
type NoRoomError struct {
	Lick   string
	Window neck.Window
}

func (e *NoRoomError) Error() string {
	return fmt.Sprintf("%q does not fit on frets %d to %d in any octave", e.Lick, e.Window.Low, e.Window.High)
}

// What another octave and a lost technique cost beside the fingering: a lick
// should sound where it was meant to, and keep its slurs if it can (our choice).
const (
	costOctave = 20
	costLost   = 10
)

// PlaceIn lays the lick into a key and a position: every interval over the tonic is
// kept, in the octave that costs least. Where the written shape
// itself fits the position it is slid there; else the notes are placed and
// fingered anew, and a technique that its notes no longer share a string for
// is dropped and named.
func (l Lick) PlaceIn(i neck.Instrument, tonic pitch.Class, w neck.Window) (Placement, error) {
	up := tonic.Above(l.Tonic.Class())
	for shift := up - widestTransposition; shift <= up+widestTransposition; shift += 12 {
		if slid, ok := l.slideShape(i, w, shift); ok {
			return slid, nil
		}
	}
	return l.refingeredCheapest(i, w, up)
}

// widestTransposition is how far from where it was written a lick may sound, in semitones.
const widestTransposition = 48

// refingeredCheapest sounds the lick so many semitones higher, or octaves from there, fingered
// anew in the window: in the octave that costs least. Its error is a *NoRoomError.
func (l Lick) refingeredCheapest(i neck.Instrument, w neck.Window, up int) (Placement, error) {
	best, cost := Placement{}, -1
	for shift := up - widestTransposition; shift <= up+widestTransposition; shift += 12 {
		setting, c, ok := l.refingered(i, w, shift)
		c += costOctave*max(shift, -shift)/12 + costLost*len(setting.Lost)
		if ok && (cost < 0 || c < cost) {
			best, cost = setting, c
		}
	}
	if cost < 0 {
		return Placement{}, &NoRoomError{Lick: l.Name, Window: w}
	}
	return best, nil
}

// slideShape moves every fret by the shift, if all of them then lie in the window.
func (l Lick) slideShape(i neck.Instrument, w neck.Window, shift int) (Placement, bool) {
	higher, alike := i.SemitonesAbove(l.WrittenFor())
	if !alike {
		return Placement{}, false
	}
	moved := phrase.Phrase{Meter: l.Phrase.Meter, Events: make([]phrase.Event, len(l.Phrase.Events))}
	wanted := make([]neck.NoteToPlace, len(l.Phrase.Events))
	for n, e := range l.Phrase.Events {
		e.Fret += shift - higher
		if e.SlideFrom > 0 {
			e.SlideFrom += shift - higher
		}
		if e.Fret < w.Core || e.Fret > w.High {
			return Placement{}, false
		}
		moved.Events[n] = e
		wanted[n] = neck.NoteToPlace{Pitch: i.Pitch(e.Place), At: &e.Place, Slurred: l.Phrase.Slurred(n), Fretted: e.NeedsFret(), Bend: e.Bend}
	}
	return withFingering(moved, i, w, wanted, Placement{Shift: shift, Slid: true})
}

func withFingering(p phrase.Phrase, i neck.Instrument, w neck.Window, wanted []neck.NoteToPlace, s Placement) (Placement, bool) {
	fingering, _, err := neck.FingerPhrase(i, w, wanted)
	if err != nil {
		return Placement{}, false
	}
	for n, f := range fingering {
		p.Events[n].Fingered = f
	}
	s.Phrase = p
	return s, p.Check(i) == nil
}

// refingered places the shifted pitches anew. A wide bend that comes to lie on
// a low string, which no one bends that far, is given up and the rest placed
// again.
func (l Lick) refingered(i neck.Instrument, w neck.Window, shift int) (Placement, int, bool) {
	unbent := make([]bool, len(l.Phrase.Events))
	for {
		setting, cost, ok := l.placeAnew(i, w, shift, unbent)
		again := false
		for n, e := range setting.Phrase.Events {
			if e.Bend > neck.MostBend(e.Place) {
				unbent[n], again = true, true
			}
		}
		if !again {
			return setting, cost, ok
		}
	}
}

// placeAnew places the shifted pitches, the bends of some notes given up.
func (l Lick) placeAnew(i neck.Instrument, w neck.Window, shift int, unbent []bool) (Placement, int, bool) {
	setting := Placement{Shift: shift, Phrase: phrase.Phrase{Meter: l.Phrase.Meter, Events: make([]phrase.Event, len(l.Phrase.Events))}}
	wanted := make([]neck.NoteToPlace, len(l.Phrase.Events))
	for n, e := range l.Phrase.Events {
		p := l.WrittenFor().Pitch(e.Place) + pitch.MIDI(shift)
		open := e.NeedsFret() && !canBeFretted(i, w, p)
		switch {
		case unbent[n]:
			setting.addLost(n, "bend", "would lie on a low string: play the note it is bent to")
		case open:
			setting.addLost(n, e.FretTechnique(), "needs a fretted string, and here it would be open: leave it out")
		}
		if unbent[n] || open {
			// What was to be bent is played as the note it is bent to.
			p += pitch.MIDI(e.Bend / 2)
			e.Bend, e.PreBend, e.Release = 0, false, false
		}
		if open {
			e.SlideFrom, e.SlideOut, e.Vibrato = 0, 0, false
		}
		setting.Phrase.Events[n] = e
		wanted[n] = neck.NoteToPlace{Pitch: p, Slurred: l.Phrase.Slurred(n), Fretted: e.NeedsFret(), Bend: e.Bend}
	}
	fingering, cost, err := neck.FingerPhrase(i, w, wanted)
	if err != nil {
		return Placement{}, 0, false
	}
	for n := range setting.Phrase.Events {
		e := &setting.Phrase.Events[n]
		if e.SlideFrom > 0 {
			e.SlideFrom += fingering[n].Fret - e.Fret
		}
		e.Fingered = fingering[n]
		if n > 0 && l.Phrase.Slurred(n) && fingering[n].String != fingering[n-1].String {
			setting.addLost(n, e.SlurName(), "needs one string, and here there are two: pick it")
			e.HammerOn, e.PullOff, e.Tied, e.SlideFrom = false, false, false, 0
		}
	}
	return setting, cost, setting.Phrase.Check(i) == nil
}

func (s *Placement) addLost(n int, technique, why string) {
	s.Lost = append(s.Lost, fmt.Sprintf("the %s at note %d %s", technique, n+1, why))
}

// canBeFretted says whether the pitch can be fretted within the window.
func canBeFretted(i neck.Instrument, w neck.Window, p pitch.MIDI) bool {
	for _, open := range i.Open {
		if fret := int(p - open); fret >= max(w.Low, 1) && fret <= w.High {
			return true
		}
	}
	return false
}
