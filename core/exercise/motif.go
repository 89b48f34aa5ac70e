package exercise

import (
	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Motif writes a few fretted notes over every chord of a chorus, each bent as it
// must be to be a chord tone there: one motif that follows the chords. It begins with each
// chord, one note a subdivision in the order given; where a chord is too short the
// last notes are left out. The last note rings, shaken where it is not bent. The
// rows are those of change.FunctionTable over chords, in their order. The phrase's
// tick 0 is that of the chart.
func Motif(c chart.Chart, i neck.Instrument, w neck.Window, rows []change.FunctionRow, chords []harmony.Chord, s chart.Subdivision) (phrase.Phrase, error) {
	p := phrase.Phrase{Meter: c.Meter}
	step := s.Ticks(c.Meter)
	index := map[string]int{}
	for n, chord := range chords {
		index[chord.Identity()] = n
	}
	moments := c.ChordSpans()
	for n, m := range moments {
		if n > 0 && moments[n-1].Chord.Same(m.Chord) && m.Beat > 0 {
			continue // the same chord goes on within the bar
		}
		over := index[m.Chord.Identity()]
		count := min(len(rows), max(m.Ticks/step, 1))
		wanted := make([]neck.NoteToPlace, count)
		for r, row := range rows[:count] {
			at := row.Place
			wanted[r] = neck.NoteToPlace{Pitch: row.Pitch, At: &at, Bend: 2 * row.Functions[over].Bend}
		}
		fingering, _, err := neck.FingerPhrase(i, w, wanted)
		if err != nil {
			return phrase.Phrase{}, err
		}
		for r, f := range fingering {
			e := phrase.Event{Tick: m.Tick + r*step, Ticks: step, Fingered: f, Technique: phrase.Technique{Bend: wanted[r].Bend}}
			if r == count-1 {
				e.Ticks = min(change.RingBeats*m.Meter.BeatTicks(), m.Tick+m.Ticks-e.Tick)
				e.Vibrato = f.Fret > 0 && rows[r].Functions[over].Vibrato
			}
			p.Events = append(p.Events, e)
		}
	}
	return p.WithChordsOf(c, 0), nil
}
