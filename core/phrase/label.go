package phrase

import (
	"fmt"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// WrittenOver is the phrase with the chords of a chart under it, its own tick 0
// standing at the chart's tick start.
func (p Phrase) WithChordsOf(c chart.Chart, start int) Phrase {
	if len(p.Events) == 0 {
		return p
	}
	last := p.Events[len(p.Events)-1]
	p.Chords = nil
	length := c.Ticks()
	chorus := 0
	for chorus*length > start+p.Events[0].Tick {
		chorus--
	}
	for ; chorus*length < start+last.End(); chorus++ {
		for _, m := range c.ChordSpans() {
			tick := chorus*length + m.Tick - start
			if tick+m.Ticks <= p.Events[0].Tick || tick >= last.End() {
				continue
			}
			from := PhraseChord{Tick: tick, Chord: m.Chord}
			if m.Imagined && !m.Written.Same(m.Chord) {
				from.Written = &m.Written
			}
			if n := len(p.Chords); n == 0 || !p.Chords[n-1].Same(from) {
				p.Chords = append(p.Chords, from)
			}
		}
	}
	return p
}

func (f PhraseChord) Same(other PhraseChord) bool {
	if (f.Written == nil) != (other.Written == nil) {
		return false
	}
	return f.Chord.Same(other.Chord) && (f.Written == nil || f.Written.Same(*other.Written))
}

// ChordAt is the chord the phrase was written over at its own tick; none where
// no chords are known.
func (p Phrase) ChordAt(tick int) (harmony.Chord, bool) {
	if len(p.Chords) == 0 {
		return harmony.Chord{}, false
	}
	return p.chordAt(tick).Chord, true
}

// overAt is the last of the chords that has begun, or the first of all.
func (p Phrase) chordAt(tick int) PhraseChord {
	over := p.Chords[0]
	for _, from := range p.Chords[1:] {
		if from.Tick > tick {
			break
		}
		over = from
	}
	return over
}

// Label is what one event is over the chord that is followed when it starts.
type Label struct {
	Chord harmony.Chord
	harmony.Judgement
	// NotatedNote is what it is over the chord the band plays, where that is another.
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
		over := p.chordAt(e.Tick)
		class := e.Sounding(i).Class()
		labels[n] = Label{Chord: over.Chord, Judgement: k.Judge(over.Chord, class)}
		if over.Written != nil {
			judged := k.Judge(*over.Written, class)
			labels[n].Written = &WrittenLabel{Chord: *over.Written, Judgement: judged}
			labels[n].Reason += p.againstBand(n, *labels[n].Written)
		}
	}
	return labels
}

// against says what an imagined note is against the band, and when the two meet
// again.
func (p Phrase) againstBand(n int, w WrittenLabel) string {
	said := fmt.Sprintf(". The band plays %s there: the note is its %s, %s", w.Chord.Symbol(), w.Degree, w.Class)
	if w.Class != harmony.Outside {
		return said
	}
	for _, from := range p.Chords {
		if from.Tick > p.Events[n].Tick && from.Written == nil {
			return said + fmt.Sprintf("; you come back in with %s on %s", from.Chord.Symbol(), p.Meter.Counted(from.Tick))
		}
	}
	return said + "; come back in with the next written chord"
}
