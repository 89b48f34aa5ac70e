package phrase

import (
	"fmt"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// Label is what one event is over the chord that is followed when it starts.
type Label struct {
	Chord harmony.Chord
	harmony.Judgement
	// Towards says where a note that is not to be rested on goes next; empty for nowhere.
	Towards string
	// Written is what it is over the chord the band plays, where that is another.
	Written *WrittenLabel
}

// WrittenLabel is what one event is over the written chord below an imagined one.
type WrittenLabel struct {
	Chord harmony.Chord
	harmony.Judgement
}

// Labels says what each event is in the key over the chords the phrase was
// written over; nothing where those are not known. A bent note is what it is
// bent to.
func (p Phrase) Labels(i neck.Instrument, k harmony.Key) []Label {
	if len(p.Chords) == 0 {
		return nil
	}
	labels := make([]Label, len(p.Events))
	for n, e := range p.Events {
		over := p.Chords[p.ChordIndexOf(e)]
		class := e.Sounding(i).Class()
		labels[n] = Label{Chord: over.Chord, Judgement: k.Judge(over.Chord, class)}
		if over.Written != nil {
			judged := k.Judge(*over.Written, class)
			labels[n].Written = &WrittenLabel{Chord: *over.Written, Judgement: judged}
			labels[n].Reason += p.againstBand(n, *labels[n].Written)
		}
	}
	for n := range labels {
		labels[n].Towards = p.onItsWay(n, labels, i)
	}
	return labels
}

// resolvesWithin is how many half steps away the chord tone lies that a note is on its way to.
const resolvesWithin = 2

// onItsWay says where a note that is not to be rested on goes: to the chord tone a step away that is
// played next.
func (p Phrase) onItsWay(n int, labels []Label, i neck.Instrument) string {
	here := labels[n]
	if n+1 == len(labels) || here.Class == harmony.ChordTone {
		return ""
	}
	next, e, after := labels[n+1], p.Events[n], p.Events[n+1]
	away := int(after.Sounding(i) - e.Sounding(i))
	if next.Class != harmony.ChordTone || away == 0 || max(away, -away) > resolvesWithin || after.Tick > e.End()+p.BarLines().BeatTicksAt(e.Tick) {
		return ""
	}
	if next.Chord.Same(here.Chord) {
		return fmt.Sprintf("Here it is on its way to the %s.", next.Degree)
	}
	return fmt.Sprintf("Here it is on its way to the %s of %s.", next.Degree, next.Chord.Symbol())
}

// againstBand says what an imagined note is against the band, and when the two meet
// again.
func (p Phrase) againstBand(n int, w WrittenLabel) string {
	remarks := fmt.Sprintf(" The band plays %s there: the note is its %s, %s", w.Chord.Symbol(), w.Degree, w.Class.Text())
	if w.Class != harmony.Outside {
		return remarks + "."
	}
	for _, from := range p.Chords {
		if from.Tick > p.Events[n].Tick && from.Written == nil {
			return remarks + fmt.Sprintf("; you come back in with %s on %s.", from.Chord.Symbol(), p.BarLines().Counted(from.Tick))
		}
	}
	return remarks + "; come back in with the next written chord."
}

// Why is the whole reason of a note: what it is over its chord, and where it goes.
func (l Label) Why() string {
	if l.Towards == "" {
		return l.Reason
	}
	return l.Reason + " " + l.Towards
}
