package api

import (
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/document"
)

// ReadChart is a chart with what it says: numerals, times, changes and facts.
type ReadChart struct {
	Chart      document.Chart `json:"chart"`
	Scheme     string         `json:"scheme" doc:"The scheme its bars follow, empty for none"`
	BarTicks   int            `json:"barTicks" doc:"The length of bar 1"`
	Ticks      int            `json:"ticks" doc:"The length of a chorus"`
	Beats      int            `json:"beats" doc:"The counted beats of bar 1"`
	Box        string         `json:"box" doc:"The kind of box that is played in: the chart's, or the key's own"`
	BoxName    string         `json:"boxName"`
	Bars       []WrittenBar   `json:"bars" doc:"The bars as they are written"`
	Played     []PlayedBar    `json:"played" doc:"The bars of a chorus as they are played, repeats and jumps played out"`
	Pickup     []BarChord     `json:"pickup" doc:"The chords of the unfinished bar before bar 1; none where there is none"`
	PickupText string         `json:"pickupText" doc:"The same in the bar notation, a word for each beat"`
	ChordSpans []ChordSpan    `json:"chordSpans" doc:"Every chord on the time line, in order, repeats played out"`
	Changes    []Change       `json:"changes" doc:"Every change of a chorus, in order; of a tune that stays on one chord, the downbeats of its bars"`
	Facts      Facts          `json:"facts"`
	// Fretted is left out where there is no capo.
	Fretted string `json:"fretted,omitempty" doc:"The key that the hand plays in above the capo"`
}

// PlayedBar is one bar of a chorus, and what holds in it.
type PlayedBar struct {
	BarLine
	Source int    `json:"source" doc:"The written bar, from 1"`
	Key    string `json:"key" example:"Eb major"`
	Box    string `json:"box" doc:"The box that is played in there" example:"Eb major pentatonic"`
	Feel   string `json:"feel"`
	// Changes differs from that of the written bar where a jump leads into another key.
	Changes string `json:"changes" doc:"What is another than in the bar played before, in short; empty for nothing"`
}

// WrittenBar is one bar as it is written.
type WrittenBar struct {
	Key          string     `json:"key" doc:"The key that holds in it" example:"Eb major"`
	Meter        string     `json:"meter" doc:"The meter that holds in it"`
	Beats        int        `json:"beats" doc:"Its counted beats"`
	Feel         string     `json:"feel" doc:"The feel that holds in it"`
	Changes      string     `json:"changes" doc:"What changes with it, in short; empty for nothing" example:"key Eb major, 2/4"`
	Segno        bool       `json:"segno"`
	Coda         bool       `json:"coda"`
	ToCoda       bool       `json:"toCoda"`
	Fine         bool       `json:"fine"`
	Jump         string     `json:"jump"`
	Unread       string     `json:"unread" doc:"What a file has here that could not be read; empty in any other bar"`
	Text         string     `json:"text" doc:"The bar in the bar notation"`
	ImaginedText string     `json:"imaginedText" doc:"Its imagined layer in the same notation; empty for none"`
	Section      string     `json:"section"`
	Chords       []BarChord `json:"chords"`
	Imagined     []BarChord `json:"imagined"`
	RepeatFrom   bool       `json:"repeatFrom"`
	RepeatTo     int        `json:"repeatTo"`
	Ending       int        `json:"ending"`
}

// BarChord is one chord of a bar; its chord is empty for silence, or where
// nothing is imagined.
type BarChord struct {
	Chord   string `json:"chord"`
	Roman   string `json:"roman"`
	Fretted string `json:"fretted,omitempty" doc:"Its name above the capo"`
	Beat    int    `json:"beat" doc:"From 1"`
	Beats   int    `json:"beats"`
}

// Facts is what a tune asks of a player, over one chorus.
type Facts struct {
	Bars       int          `json:"bars"`
	Seconds    float64      `json:"seconds"`
	Chords     []ChordFact  `json:"chords"`
	Changes    []ChangeFact `json:"changes" doc:"The most frequent first"`
	MostChords int          `json:"mostChords" doc:"The most chords in a bar"`
	Fastest    []int        `json:"fastest" doc:"The bars that have them, from 1; none where no bar has two"`
}

// ChordFact is a chord of a tune, and what it does in the key.
type ChordFact struct {
	Chord    string `json:"chord"`
	Roman    string `json:"roman"`
	Times    int    `json:"times"`
	Beats    int    `json:"beats"`
	Function string `json:"function" doc:"What it does in the key, in words"`
}

// ChangeFact is a change of a tune and the bars, from 1, that it leads into.
type ChangeFact struct {
	Leaving  string `json:"leaving"`
	Arriving string `json:"arriving"`
	Bars     []int  `json:"bars"`
}

// ChordSpan is one chord on the time line.
type ChordSpan struct {
	Chord string `json:"chord" doc:"The chord that is followed: the imagined one, where there is one and the chart imagines"`
	Roman string `json:"roman"`
	// Written is left out where it is the same.
	Written string `json:"written,omitempty" doc:"What the band plays, where an imagined chord is followed"`
	Silent  bool   `json:"silent,omitempty" doc:"The band rests; the chord is the one that still rings in the ear"`
	Bar     int    `json:"bar" doc:"From 1, repeats played out"`
	Source  int    `json:"source" doc:"The written bar, from 1"`
	Section string `json:"section,omitempty" doc:"The section that begins with it"`
	Beat    int    `json:"beat" doc:"From 1"`
	Beats   int    `json:"beats"`
	Tick    int    `json:"tick"`
	Ticks   int    `json:"ticks"`
	// Next is the change that ends the stretch of this chord.
	Next *int `json:"next,omitempty" doc:"The tick of the change that this chord is left at; in a one-chord vamp that of the next bar"`
}

// Change is one chord giving way to another.
type Change struct {
	Tick     int       `json:"tick" doc:"Where the arriving chord begins"`
	Leaving  ChordSpan `json:"leaving"`
	Arriving ChordSpan `json:"arriving"`
	Wraps    bool      `json:"wraps" doc:"From the end of the chorus to its start"`
	Stays    bool      `json:"stays,omitempty" doc:"The tune has one chord, which arrives at itself on the downbeat"`
}

func readChart(c chart.Chart) ReadChart {
	r := ReadChart{
		Chart: document.ChartOf(c), Scheme: c.SchemeOf(), BarTicks: c.Meter.BarTicks(), Ticks: c.Ticks(),
		Beats: c.Meter.Beats(), Bars: writtenBars(c), Played: playedBars(c), Pickup: []BarChord{}, PickupText: chart.PickupText(c.Pickup), ChordSpans: []ChordSpan{}, Changes: []Change{}, Facts: factsOf(c),
	}
	if len(c.Pickup) > 0 {
		r.Pickup = barChords(c, c.Key, c.Pickup, c.AsFretted().Pickup)
	}
	if c.Capo > 0 {
		key := c.AsFretted().Key
		r.Fretted = key.Tonic.String() + " " + string(key.Mode)
	}
	if box, err := c.Key.Box(c.Box); err == nil {
		r.Box, r.BoxName = string(box.Kind), box.Name()
	}
	changes := c.TargetChanges()
	for _, m := range c.ChordSpans() {
		moment := chordSpanOf(c, m)
		for _, ch := range changes {
			if ch.Leaving.Tick >= m.Tick {
				moment.Next = &ch.Tick
				break
			}
		}
		r.ChordSpans = append(r.ChordSpans, moment)
	}
	for _, ch := range changes {
		r.Changes = append(r.Changes, changeOf(c, ch))
	}
	return r
}

func chordSpanOf(c chart.Chart, m chart.ChordSpan) ChordSpan {
	moment := ChordSpan{
		Chord: m.Chord.Symbol(), Roman: m.Key.Roman(m.Chord), Silent: m.Silent, Bar: m.Bar + 1, Source: m.Source + 1, Beat: m.Beat + 1,
		Beats: m.Ticks / m.Meter.BeatTicks(), Tick: m.Tick, Ticks: m.Ticks,
	}
	if m.Imagined {
		moment.Written = m.Written.Symbol()
	}
	if m.Beat == 0 {
		moment.Section = c.Bars[m.Source].Section
	}
	return moment
}

func writtenBars(c chart.Chart) []WrittenBar {
	fretted := c.AsFretted()
	bars := make([]WrittenBar, len(c.Bars))
	for b, bar := range c.Bars {
		in := c.SettingOf(b)
		bars[b] = WrittenBar{
			Key: keyText(in.Key), Meter: in.Meter.String(), Beats: in.Meter.Beats(), Feel: string(in.Feel), Changes: bar.Change.String(),
			Segno: bar.Signs.Segno, Coda: bar.Signs.Coda, ToCoda: bar.Signs.ToCoda, Fine: bar.Signs.Fine, Jump: string(bar.Signs.Jump), Unread: bar.Unread,
			Text: chart.Text(bar.Spans), ImaginedText: chart.ImaginedText(bar.Imagined), Section: bar.Section,
			Chords: barChords(c, in.Key, bar.Spans, fretted.Bars[b].Spans), Imagined: barChords(c, in.Key, bar.Imagined, fretted.Bars[b].Imagined),
			RepeatFrom: bar.RepeatFrom, RepeatTo: bar.RepeatTo, Ending: bar.Ending,
		}
	}
	return bars
}

func keyText(k harmony.Key) string { return k.Tonic.String() + " " + string(k.Mode) }

func playedBars(c chart.Chart) []PlayedBar {
	t, sources := c.Timeline(), c.PlayedBars()
	all := make([]PlayedBar, t.Bars())
	for n, line := range barLines(t, 0, t.Bars(), 0) {
		in := t.At(n)
		all[n] = PlayedBar{BarLine: line, Source: sources[n] + 1, Key: keyText(in.Key), Feel: string(in.Feel)}
		if n > 0 {
			all[n].Changes = in.Since(t.At(n - 1)).String()
		}
		if box, err := in.Key.Box(c.Box); err == nil {
			all[n].Box = box.Name()
		}
	}
	return all
}

func barChords(c chart.Chart, key harmony.Key, spans, fretted []chart.Span) []BarChord {
	chords := make([]BarChord, len(spans))
	beat := 1
	for n, span := range spans {
		chords[n] = BarChord{Beat: beat, Beats: span.Beats}
		beat += span.Beats
		if span.Empty() {
			continue
		}
		chords[n].Chord, chords[n].Roman = span.Chord.Symbol(), key.Roman(span.Chord)
		if c.Capo > 0 {
			chords[n].Fretted = fretted[n].Chord.Symbol()
		}
	}
	return chords
}

func factsOf(c chart.Chart) Facts {
	f := c.Facts()
	facts := Facts{
		Bars: f.Bars, Seconds: f.Seconds, Chords: make([]ChordFact, len(f.Chords)), Changes: make([]ChangeFact, len(f.Changes)),
		MostChords: f.MostChords, Fastest: make([]int, len(f.Fastest)),
	}
	for n, fact := range f.Chords {
		facts.Chords[n] = ChordFact{
			Chord: fact.Chord.Symbol(), Roman: c.Key.Roman(fact.Chord), Times: fact.Times, Beats: fact.Beats, Function: c.Key.Function(fact.Chord),
		}
	}
	for n, fact := range f.Changes {
		facts.Changes[n] = ChangeFact{Leaving: fact.Leaving.Symbol(), Arriving: fact.Arriving.Symbol(), Bars: make([]int, len(fact.Arrivals))}
		for m, bar := range fact.Arrivals {
			facts.Changes[n].Bars[m] = bar + 1
		}
	}
	for n, bar := range f.Fastest {
		facts.Fastest[n] = bar + 1
	}
	return facts
}

func changeOf(c chart.Chart, ch chart.Change) Change {
	return Change{Tick: ch.Tick, Leaving: chordSpanOf(c, ch.Leaving), Arriving: chordSpanOf(c, ch.Arriving), Wraps: ch.Wraps(), Stays: ch.Stays()}
}
