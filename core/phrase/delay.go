package phrase

import "undaris/core/chart"

// Delayed is the phrase with everything so many ticks later: whole bars of its meter, so that its
// bar lines stay where they are between the notes.
func (p Phrase) Delayed(ticks int) Phrase {
	p.Events = append([]Event(nil), p.Events...)
	for n := range p.Events {
		p.Events[n].Tick += ticks
	}
	p.Chords = append([]PhraseChord(nil), p.Chords...)
	for n := range p.Chords {
		p.Chords[n].Tick += ticks
	}
	p.MeterChanges = append([]chart.MeterChange(nil), p.MeterChanges...)
	for n := range p.MeterChanges {
		p.MeterChanges[n].Tick += ticks
	}
	return p
}
