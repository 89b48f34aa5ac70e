package phrase

import "undaris/core/neck"

// Frets are the lowest and highest fretted fret of the phrase; both 0 where every
// string is open.
func (p Phrase) Frets() (low, high int) {
	for _, e := range p.Events {
		if e.Fret > 0 && (low == 0 || e.Fret < low) {
			low = e.Fret
		}
		high = max(high, e.Fret)
	}
	return low, high
}

// Finger chooses the fingers of notes whose places stand. The hand is set at
// the lowest fret.
func (p Phrase) Finger(i neck.Instrument) {
	wanted := make([]neck.NoteToPlace, len(p.Events))
	for n, e := range p.Events {
		at := e.Place
		wanted[n] = neck.NoteToPlace{Pitch: i.Pitch(at), At: &at, Slurred: p.Slurred(n), Fretted: e.NeedsFret(), Bend: e.Bend}
	}
	low, _ := p.Frets()
	fingering, _, err := neck.FingerPhrase(i, i.WindowFrom(max(min(low, i.Frets-3), 0)), wanted)
	if err != nil {
		return // a note that should be fretted lies open: the check says so
	}
	for n, f := range fingering {
		p.Events[n].Fingered = f
	}
}
