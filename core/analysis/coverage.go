package analysis

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// ChordCoverage is a chord under the phrase: which of its tones were played, and which of
// its guide tones were not.
type ChordCoverage struct {
	Chord       harmony.Chord
	Got, Missed []harmony.Tone
	// Notes are those that belong to it, as indices of events.
	Notes []int
}

// coverage says which tones each chord got.
func coverage(p phrase.Phrase, i neck.Instrument) []ChordCoverage {
	found := make([]ChordCoverage, len(p.Chords))
	for m, e := range p.Events {
		if n := p.ChordIndexOf(e); n >= 0 {
			found[n].Notes = append(found[n].Notes, m)
		}
	}
	for n := range found {
		c := &found[n]
		c.Chord = p.Chords[n].Chord
		for _, tone := range c.Chord.Tones() {
			got := slices.ContainsFunc(c.Notes, func(m int) bool { return p.Events[m].Sounding(i).Class() == tone.Note.Class() })
			switch {
			case got:
				c.Got = append(c.Got, tone)
			case harmony.IsGuideTone(tone.Degree):
				c.Missed = append(c.Missed, tone)
			}
		}
	}
	return found
}
