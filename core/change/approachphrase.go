package change

import (
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// ArrivalTechnique is how a target is played that an approach leads into.
func ArrivalTechnique(l Approach, target neck.Place) phrase.Technique {
	switch l.Arrival {
	case Slid:
		return phrase.Technique{SlideFrom: target.Fret - 1}
	case Hammered:
		return phrase.Technique{HammerOn: true}
	case Bent:
		return phrase.Technique{Bend: l.Notes[len(l.Notes)-1].Bend, Tied: true}
	case HeldOver:
		return phrase.Technique{Tied: true}
	}
	return phrase.Technique{}
}

// RingBeats is how many beats the last note of a run rings at most.
const RingBeats = 2

// RingTicks is how many ticks the last note of a run rings over the chord it lands on.
func RingTicks(over chart.ChordSpan) int {
	return min(RingBeats*over.Meter.BeatTicks(), over.Ticks)
}

// ApproachPhrase writes an approach as it leads over a change of a chart: its target on
// the change, the notes before it counted back. It stands in the chart with its
// tick 0 at the downbeat of the bar it begins in, and that tick is returned too: one
// that would begin before bar 1 begins in the last bars, one after the last in bar 1.
func ApproachPhrase(c chart.Chart, ch chart.Change, w ApproachOption, s chart.Subdivision) (phrase.Phrase, int) {
	p := evenNotes(c, w.Fingering, chart.RunStart(ch.Tick, len(w.Notes), s, ch.Leaving.Meter), ch.Leaving.Meter, s)
	last := &p.Events[len(p.Events)-1]
	last.Ticks = RingTicks(ch.Arriving)
	last.Technique = ArrivalTechnique(w.Approach, last.Place)
	return atDownbeat(p, c)
}

// RunBeats is how many beats a connector runs from a change on, and the most
// it may run so that its last note still falls on a beat of the chord: half a bar
// unless so many are wanted. The most is 0 where the chord lasts but one beat.
func RunBeats(over chart.ChordSpan, wanted int) (beats, most int) {
	m := over.Meter
	most = min(over.Ticks/m.BeatTicks(), m.Beats()) - 1
	if wanted <= 0 {
		wanted = max(m.Beats()/2, 1)
	}
	return min(wanted, most), most
}

// RunPhrase writes a connector as it runs on from a change: its first note on
// the change.
func RunPhrase(c chart.Chart, ch chart.Change, r ChromaticRun, s chart.Subdivision) (phrase.Phrase, int) {
	p := evenNotes(c, r.Fingering, ch.Tick, ch.Arriving.Meter, s)
	last := &p.Events[len(p.Events)-1]
	last.Ticks = min(ch.Arriving.Meter.BeatTicks(), ch.Tick+ch.Arriving.Ticks-last.Tick)
	return atDownbeat(p, c)
}

// EvenNotes writes places as even notes of a subdivision whose first falls on a tick
// of the chart; it stands like ApproachPhrase.
func EvenNotes(c chart.Chart, places []neck.Fingered, start int, s chart.Subdivision) (phrase.Phrase, int) {
	t := c.Timeline()
	return atDownbeat(evenNotes(c, places, start, t.MeterAt(t.BarAt(start)), s), c)
}

// evenNotes writes places one after the other, in ticks of the chart, as even notes of a meter's beat.
func evenNotes(c chart.Chart, places []neck.Fingered, start int, m chart.Meter, s chart.Subdivision) phrase.Phrase {
	p := phrase.Phrase{Meter: c.Meter}
	step := s.Ticks(m)
	for n, f := range places {
		p.Events = append(p.Events, phrase.Event{Tick: start + n*step, Ticks: step, Fingered: f})
	}
	return p
}

// atDownbeat turns a phrase in ticks of the chart into one of its own, over the
// chart's chords.
func atDownbeat(p phrase.Phrase, c chart.Chart) (phrase.Phrase, int) {
	t := c.Timeline()
	into := p.Events[0].Tick % t.Ticks() // in the chorus that it stands in
	if into < 0 {
		into += t.Ticks()
	}
	for n, by := 0, into-p.Events[0].Tick; n < len(p.Events); n++ {
		p.Events[n].Tick += by
	}
	start := t.BarStart(into)
	for n := range p.Events {
		p.Events[n].Tick -= start
	}
	return p.WithChordsOf(c, start), start
}
