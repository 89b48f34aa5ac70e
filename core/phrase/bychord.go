package phrase

import (
	"cmp"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// ChordPart is what is played over one chord.
type ChordPart struct {
	Chord harmony.Chord
	// Tick is the phrase's own at which the chord begins.
	Tick int
	// Places are those that are played, each once, from the lowest string up, with the finger it is first
	// taken with.
	Places []neck.Fingered
}

// ByChord is the phrase chord by chord; a chord that goes on is one part. It is nothing where no chords
// are known.
func (p Phrase) ByChord() []ChordPart {
	parts := make([]ChordPart, len(p.Chords))
	for n, over := range p.Chords {
		parts[n] = ChordPart{Chord: over.Chord, Tick: over.Tick}
	}
	for _, e := range p.Events {
		at := p.ChordIndexOf(e)
		if at < 0 {
			return nil
		}
		if part := &parts[at]; !slices.ContainsFunc(part.Places, func(f neck.Fingered) bool { return f.Place == e.Place }) {
			part.Places = append(part.Places, e.Fingered)
		}
	}
	for n := range parts {
		slices.SortFunc(parts[n].Places, func(a, b neck.Fingered) int { return cmp.Or(b.String-a.String, a.Fret-b.Fret) })
	}
	return parts
}
