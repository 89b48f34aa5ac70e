package phrase

import (
	"slices"

	"undaris/core/neck"
	"undaris/core/pitch"
)

// PitchedNote is a note of which only the sound is known, as files without strings have it.
type PitchedNote struct {
	Tick, Ticks int
	// Pitch is that of the fretted note, before it is bent.
	Pitch pitch.MIDI
	Technique
	// At is its place where that is known after all.
	At *neck.Place
}

// Assigned is notes put on strings and frets.
type Assigned struct {
	Events []Event
	// Window is where the hand stands: the one asked for, or the nearest that has room.
	Window neck.Window
	// Dropped are the notes, by their index, that have no place at all.
	Dropped []int
}

// AssignStrings puts notes, in order of time, on strings and frets within a window at the least
// cost (neck.FingerPhrase); where the window has no room for them, in the nearest that
// has. Notes that begin at once come to lie on strings of their own, the higher on the
// higher string. A note that the instrument does not have, or that no string is left
// for, is dropped and listed.
func AssignStrings(i neck.Instrument, w neck.Window, notes []PitchedNote) Assigned {
	p := Assigned{Window: w}
	kept := []int{}
	for n, note := range notes {
		if len(placesOf(i, note)) == 0 {
			p.Dropped = append(p.Dropped, n)
			continue
		}
		kept = append(kept, n)
	}
	wanted, left := notesToPlace(i, w, notes, kept)
	fingering, window, ok := fingeredNear(i, w, wanted, left)
	p.Window = window
	for m, n := range left {
		note := notes[n]
		e := Event{Tick: note.Tick, Ticks: note.Ticks, Technique: note.Technique}
		if ok {
			e.Fingered = fingering[m]
		} else {
			// No one place of the hand has them all: each goes where it lies lowest.
			e.Place = lowest(i, note)
		}
		p.Events = append(p.Events, e)
	}
	for _, n := range kept {
		if !slices.Contains(left, n) {
			p.Dropped = append(p.Dropped, n)
		}
	}
	slices.Sort(p.Dropped)
	mended, _ := Phrase{Events: p.Events}.Playable()
	p.Events = mended.Events
	return p
}

// placesOf lists every place of a note's pitch, from the highest string down.
func placesOf(i neck.Instrument, note PitchedNote) []neck.Place {
	if note.At != nil {
		return []neck.Place{*note.At}
	}
	places := []neck.Place{}
	for s := range i.Open {
		place := neck.Place{String: s + 1, Fret: int(note.Pitch - i.Open[s])}
		if i.Has(place) && (place.Fret > 0 || !note.NeedsFret()) {
			places = append(places, place)
		}
	}
	return places
}

func lowest(i neck.Instrument, note PitchedNote) neck.Place {
	places := placesOf(i, note)
	return slices.MinFunc(places, func(a, b neck.Place) int { return a.Fret - b.Fret })
}

// notesToPlace is what is asked of the fingering: notes alone are free, notes at once are
// held to strings of their own, as near the window as can be.
func notesToPlace(i neck.Instrument, w neck.Window, notes []PitchedNote, kept []int) ([]neck.NoteToPlace, []int) {
	wanted, left := []neck.NoteToPlace{}, []int{}
	for from := 0; from < len(kept); {
		to := from + 1
		for to < len(kept) && notes[kept[to]].Tick == notes[kept[from]].Tick {
			to++
		}
		group := slices.Clone(kept[from:to])
		slices.SortStableFunc(group, func(a, b int) int { return int(notes[b].Pitch - notes[a].Pitch) })
		places := placeSimultaneous(i, w, notes, group)
		for k, n := range group {
			note := notes[n]
			one := neck.NoteToPlace{Pitch: note.Pitch, At: note.At, Fretted: note.NeedsFret(), Bend: note.Bend, Slurred: note.HammerOn || note.PullOff || note.Tied}
			if len(group) > 1 {
				if places[k] == nil {
					continue
				}
				one.At = places[k]
			}
			wanted, left = append(wanted, one), append(left, n)
		}
		from = to
	}
	return wanted, left
}

// maxSimultaneous is how many notes that begin at once are tried on every string; more than
// there are strings cannot all be placed.
const maxSimultaneous = neck.MaxStrings

// placeSimultaneous puts notes that begin at once, highest first, each on a string of its own: as
// many as can be, as near to the window as can be, by trying every choice. A note that no
// string is left for has no place.
func placeSimultaneous(i neck.Instrument, w neck.Window, notes []PitchedNote, group []int) []*neck.Place {
	best := make([]*neck.Place, len(group))
	if len(group) == 1 {
		return best
	}
	away := func(p neck.Place) int { return max(w.Core-p.Fret, p.Fret-w.CoreEnd, 0) }
	chosen := make([]*neck.Place, len(group))
	taken := map[int]bool{}
	count := min(len(group), maxSimultaneous)
	places := make([][]neck.Place, count)
	for k := range places {
		places[k] = placesOf(i, notes[group[k]])
	}
	most, least := -1, 0
	var try func(k, placed, far int)
	try = func(k, placed, far int) {
		// What cannot become better than the best so far is not followed.
		if room := placed + min(count-k, len(i.Open)-placed); room < most || room == most && far >= least {
			return
		}
		if k == count {
			most, least = placed, far
			copy(best, chosen)
			return
		}
		for _, place := range places[k] {
			if taken[place.String] {
				continue
			}
			taken[place.String], chosen[k] = true, &place
			try(k+1, placed+1, far+away(place))
			taken[place.String], chosen[k] = false, nil
		}
		try(k+1, placed, far)
	}
	try(0, 0, 0)
	return best
}

// fingeredNear fingers in the window, or in the nearest that has room; of two as near,
// the lower.
func fingeredNear(i neck.Instrument, w neck.Window, wanted []neck.NoteToPlace, left []int) ([]neck.Fingered, neck.Window, bool) {
	if len(left) == 0 {
		return nil, w, true
	}
	if fingering, _, err := neck.FingerPhrase(i, w, wanted); err == nil {
		return fingering, w, true
	}
	for away := 1; away <= i.Frets; away++ {
		for _, core := range []int{w.Core - away, w.Core + away} {
			if core < 0 || core > i.Frets-3 {
				continue
			}
			if fingering, _, err := neck.FingerPhrase(i, i.WindowFrom(core), wanted); err == nil {
				return fingering, i.WindowFrom(core), true
			}
		}
	}
	return nil, w, false
}
