package phrase

import (
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// WrittenOver is the phrase with the chords of a chart under it, its own tick 0
// standing at the chart's tick start.
func (p Phrase) WrittenOver(c chart.Chart, start int) Phrase {
	if len(p.Events) == 0 {
		return p
	}
	last := p.Events[len(p.Events)-1]
	p.Over = nil
	length := c.Ticks()
	chorus := 0
	for chorus*length > start+p.Events[0].Tick {
		chorus--
	}
	for ; chorus*length < start+last.End(); chorus++ {
		for _, m := range c.Moments() {
			tick := chorus*length + m.Tick - start
			if tick+m.Ticks <= p.Events[0].Tick || tick >= last.End() {
				continue
			}
			if n := len(p.Over); n == 0 || !p.Over[n-1].Chord.Same(m.Chord) {
				p.Over = append(p.Over, ChordFrom{Tick: tick, Chord: m.Chord})
			}
		}
	}
	return p
}

// ChordAt is the chord the phrase was written over at its own tick; none where
// no chords are known.
func (p Phrase) ChordAt(tick int) (harmony.Chord, bool) {
	if len(p.Over) == 0 {
		return harmony.Chord{}, false
	}
	chord := p.Over[0].Chord
	for _, from := range p.Over[1:] {
		if from.Tick > tick {
			break
		}
		chord = from.Chord
	}
	return chord, true
}

// Label is what one event is over the chord that sounds when it starts.
type Label struct {
	Chord harmony.Chord
	harmony.Judgement
}

// Labels says what each event is in the key over the chords the phrase was
// written over; nothing where those are not known. A bent note is what it is
// bent to.
func (p Phrase) Labels(i neck.Instrument, k harmony.Key) []Label {
	if len(p.Over) == 0 {
		return nil
	}
	labels := make([]Label, len(p.Events))
	for n, e := range p.Events {
		chord, _ := p.ChordAt(e.Tick)
		labels[n] = Label{Chord: chord, Judgement: k.Judge(chord, e.Sounding(i).Class())}
	}
	return labels
}
