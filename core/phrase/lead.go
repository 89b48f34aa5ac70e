package phrase

import (
	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/neck"
)

// ArrivalTechnique is how a target is played that an approach leads into.
func ArrivalTechnique(l change.Approach, target neck.Place) Technique {
	switch l.Arrival {
	case change.Slid:
		return Technique{SlideFrom: target.Fret - 1}
	case change.Hammered:
		return Technique{HammerOn: true}
	case change.Bent:
		return Technique{Bend: l.Notes[len(l.Notes)-1].Bend, Tied: true}
	case change.HeldOver:
		return Technique{Tied: true}
	}
	return Technique{}
}

// ringBeats is how many beats the last note of a run rings at most.
const ringBeats = 2

// RingTicks is how many ticks the last note of a run rings over the chord it lands on.
func RingTicks(m chart.Meter, over chart.ChordSpan) int {
	return min(ringBeats*m.BeatTicks(), over.Ticks)
}

// ApproachPhrase writes an approach as it leads over a change of a chart: its target on
// the change, the notes before it counted back. It stands in the chart with its
// tick 0 at the downbeat of the bar it begins in, and that tick is returned too: one
// that would begin before bar 1 begins in the last bars, one after the last in bar 1.
func ApproachPhrase(c chart.Chart, ch chart.Change, w change.ApproachOption, s chart.Subdivision) (Phrase, int) {
	p := evenNotes(c, w.Fingering, chart.RunStart(ch.Tick, len(w.Notes), s, c.Meter), s)
	last := &p.Events[len(p.Events)-1]
	last.Ticks = RingTicks(c.Meter, ch.Arriving)
	last.Technique = ArrivalTechnique(w.Approach, last.Place)
	return p.atDownbeat(c)
}

// RunBeats is how many beats a connector runs from a change on, and the most
// it may run so that its last note still falls on a beat of the chord: half a bar
// unless so many are wanted. The most is 0 where the chord lasts but one beat.
func RunBeats(m chart.Meter, over chart.ChordSpan, wanted int) (beats, most int) {
	most = min(over.Ticks/m.BeatTicks(), m.Beats()) - 1
	if wanted <= 0 {
		wanted = max(m.Beats()/2, 1)
	}
	return min(wanted, most), most
}

// RunPhrase writes a connector as it runs on from a change: its first note on
// the change.
func RunPhrase(c chart.Chart, ch chart.Change, r change.ChromaticRun, s chart.Subdivision) (Phrase, int) {
	p := evenNotes(c, r.Fingering, ch.Tick, s)
	last := &p.Events[len(p.Events)-1]
	last.Ticks = min(c.Meter.BeatTicks(), ch.Tick+ch.Arriving.Ticks-last.Tick)
	return p.atDownbeat(c)
}

// EvenNotes writes places as even notes of a subdivision whose first falls on a tick
// of the chart; it stands like ApproachPhrase.
func EvenNotes(c chart.Chart, places []neck.Fingered, start int, s chart.Subdivision) (Phrase, int) {
	return evenNotes(c, places, start, s).atDownbeat(c)
}

// even writes places one after the other, in ticks of the chart.
func evenNotes(c chart.Chart, places []neck.Fingered, start int, s chart.Subdivision) Phrase {
	p := Phrase{Meter: c.Meter}
	step := s.Ticks(c.Meter)
	for n, f := range places {
		p.Events = append(p.Events, Event{Tick: start + n*step, Ticks: step, Fingered: f})
	}
	return p
}

// standing turns a phrase in ticks of the chart into one of its own, over the
// chart's chords.
func (p Phrase) atDownbeat(c chart.Chart) (Phrase, int) {
	bar := c.Meter.BarTicks()
	chorus := c.Ticks()
	into := ((p.Events[0].Tick % chorus) + chorus) % chorus // the chorus that it stands in
	for n, by := 0, into-p.Events[0].Tick; n < len(p.Events); n++ {
		p.Events[n].Tick += by
	}
	start := into / bar * bar
	for n := range p.Events {
		p.Events[n].Tick -= start
	}
	return p.WithChordsOf(c, start), start
}
