package phrase

import (
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Label is what one event is over the chord that sounds when it starts.
type Label struct {
	Chord harmony.Chord
	harmony.Judgement
}

// Labels says what each event is, the phrase's bar 1 standing at the tick
// start of the chart. A bent note is what it is bent to.
func (p Phrase) Labels(i neck.Instrument, c chart.Chart, start int) []Label {
	labels := make([]Label, len(p.Events))
	for n, e := range p.Events {
		chord := c.ChordAt(start + e.Tick)
		labels[n] = Label{Chord: chord, Judgement: c.Key.Judge(chord, e.Sounding(i).Class())}
	}
	return labels
}
