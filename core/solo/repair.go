package solo

import (
	"fmt"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Complaint is one thing in a chorus that could be better, with what would mend it.
type Complaint struct {
	// About is what kind it is: landing, strong beat, rested on, passing, band, reach, or the
	// name of a finding.
	About    string
	Sentence string
	// Tick is where it is heard, Notes the events it comes from.
	Tick    int
	Notes   []int
	Repairs []Repair
}

// Repair is one note put right: an edit of the chorus.
type Repair struct {
	Sentence string
	Edit     ChorusEdit
}

// Complaints lists what could be better in a chorus, the gravest first: landings, chords
// that are not heard without the band, notes rested on, strong beats, notes that go
// nowhere, reaches past the span, then what makes it dull. Its error is a *chart.FieldError.
func (o ChorusOrder) Complaints(c Chorus) ([]Complaint, error) {
	g, err := o.lay()
	if err != nil {
		return nil, err
	}
	return g.complaints(Review(o.Instrument, c.Heard(o.Chart), o.Chart)), nil
}

func (g *ground) complaints(r Reviewed) []Complaint {
	o := g.ChorusOrder
	all := []Complaint{}
	if len(r.Line.Events) == 0 {
		return all
	}
	for _, a := range g.arrivals {
		if t := g.target(r.Line, a); t.Index < 0 || t.Landed.Class != harmony.Home {
			all = append(all, g.missed(r.Line, a, t))
		}
	}
	for _, d := range r.Dropped {
		if d.Hearing != phrase.HeardTrue && d.To-d.From >= o.Chart.Meter.BeatTicks() {
			all = append(all, g.unheard(r.Line, d))
		}
	}
	for _, group := range []struct {
		about string
		of    []phrase.Offence
	}{{"rested on", r.Verdict.Rests.Offenders}, {"strong beat", r.Verdict.Strong.Offenders}, {"passing", r.Verdict.Passing}} {
		for _, offence := range group.of {
			all = append(all, offends(r.Line, group.about, offence))
		}
	}
	all = append(all, g.stretches(r.Line)...)
	for _, f := range r.Lively {
		if !f.Good {
			all = append(all, g.dull(r.Line, f))
		}
	}
	return all
}

func offends(p phrase.Phrase, about string, o phrase.Offence) Complaint {
	c := Complaint{About: about, Sentence: o.Sentence, Tick: p.Events[o.Index].Tick, Notes: []int{o.Index}}
	if o.Repair != nil {
		c.Repairs = []Repair{{o.Alteration.Sentence, ChorusEdit{Do: Alter, Note: o.Index, Notes: []phrase.Event{*o.Repair}}}}
	}
	return c
}

// missed is a change without its landing: the tone aimed at put on it, in the place of
// what is there, or between.
func (g *ground) missed(p phrase.Phrase, a arrival, t Target) Complaint {
	m := g.Chart.Meter
	c := Complaint{About: "landing", Tick: a.tick}
	was := pitch.MIDI(0)
	for _, e := range p.Events {
		if e.Tick <= a.tick {
			was = e.Sounding(g.Instrument)
		}
	}
	note := phrase.Event{Tick: a.tick, Ticks: m.BeatTicks()}
	index := -1
	if t.Index >= 0 {
		index = t.Index
		e := p.Events[index]
		c.Notes = []int{index}
		c.Sentence = fmt.Sprintf("%s arrives in bar %d and lands on %s, the %s: %s", a.Arriving.Chord.Symbol(), a.Arriving.Bar+1, t.Landed.Note, t.Landed.Degree, t.Landed.Class)
		note.Tick, note.Ticks, was = e.Tick, e.Ticks, e.Sounding(g.Instrument)
	} else {
		c.Sentence = fmt.Sprintf("%s arrives in bar %d and nothing lands on it", a.Arriving.Chord.Symbol(), a.Arriving.Bar+1)
		for _, e := range p.Events {
			if e.Tick > a.tick {
				note.Ticks = min(note.Ticks, e.Tick-a.tick)
				break
			}
		}
	}
	place, found := nearest(a.placed, was)
	if !found {
		return c
	}
	note.Fingered = place.Fingered
	c.Repairs = []Repair{{fmt.Sprintf("land on %s, the %s: string %d fret %d", a.aim.Note, a.aim.Degree, place.String, place.Fret), ChorusEdit{Do: Alter, Note: index, Notes: []phrase.Event{note}}}}
	return c
}

func nearest(placed []neck.Placed, to pitch.MIDI) (neck.Placed, bool) {
	best, found := neck.Placed{}, false
	for _, p := range placed {
		if !found || max(p.Pitch-to, to-p.Pitch) < max(best.Pitch-to, to-best.Pitch) {
			best, found = p, true
		}
	}
	return best, found
}

// unheard is a chord that one would not know without the band: the note of its span that,
// turned into the tone that settles it, makes it plainest.
func (g *ground) unheard(p phrase.Phrase, d phrase.Dropped) Complaint {
	m := g.Chart.Meter
	c := Complaint{About: "band", Tick: max(d.From, 0), Notes: d.Notes, Sentence: fmt.Sprintf("bar %d: %s", barOf(d.From, m.BarTicks()), d.Sentence)}
	if d.Settles == nil {
		return c
	}
	placed := neck.Lay(g.Instrument, g.PositionAt(max(d.From, 0)).Window, []harmony.Tone{*d.Settles}).Tones
	best, at, clear := phrase.Event{}, -1, d.Margin
	for _, n := range d.Notes {
		e := p.Events[n]
		if e.Tick < d.From {
			continue
		}
		place, found := nearest(placed, e.Sounding(g.Instrument))
		if !found {
			break
		}
		changed := e
		changed.Fingered = place.Fingered
		changed.Technique = phrase.Technique{Vibrato: e.Vibrato && place.Fret > 0}
		with := phrase.Phrase{Meter: p.Meter, Over: p.Over, Events: append([]phrase.Event{}, p.Events...)}
		with.Events[n] = changed
		for _, again := range with.BandDropped(g.Instrument, g.Chart.Key, g.Chart.Chords()) {
			if again.From == d.From && again.Margin > clear {
				best, at, clear = changed, n, again.Margin
			}
		}
	}
	switch {
	case at >= 0:
		c.Repairs = []Repair{{fmt.Sprintf("play %s, the %s, on %s: string %d fret %d", d.Settles.Note, d.Settles.Degree, m.CountedInBar(best.Tick), best.String, best.Fret),
			ChorusEdit{Do: Alter, Note: at, Notes: []phrase.Event{best}}}}
	case len(d.Notes) == 0 && len(placed) > 0:
		place := placed[len(placed)/2]
		note := phrase.Event{Tick: max(d.From, 0), Ticks: m.BeatTicks(), Fingered: place.Fingered}
		c.Repairs = []Repair{{fmt.Sprintf("play %s, the %s, on %s: string %d fret %d", d.Settles.Note, d.Settles.Degree, m.CountedInBar(note.Tick), place.String, place.Fret),
			ChorusEdit{Do: Alter, Note: -1, Notes: []phrase.Event{note}}}}
	}
	return c
}

// stretches are the reaches between neighbouring notes that are wider than the player's
// span, with another place of the second where there is one that is nearer to both sides.
func (g *ground) stretches(p phrase.Phrase) []Complaint {
	m := g.Chart.Meter
	all := []Complaint{}
	for n := 1; n < len(p.Events); n++ {
		before, e := p.Events[n-1], p.Events[n]
		if g.within(before.Place, e.Place) || g.PositionAt(before.Tick) != g.PositionAt(e.Tick) {
			continue
		}
		low, high := min(before.Fret, e.Fret), max(before.Fret, e.Fret)
		c := Complaint{About: "reach", Tick: e.Tick, Notes: []int{n - 1, n}, Sentence: fmt.Sprintf(
			"bar %d: frets %d to %d are %.0f mm apart, wider than your %.0f mm; warm up first, and stop if it hurts",
			barOf(e.Tick, m.BarTicks()), low, high, g.Instrument.StretchMM(low, high), g.SpanMM)}
		for _, other := range g.allPlaces(g.PositionAt(e.Tick).Window) {
			if other.pitch != e.Sounding(g.Instrument) || !g.within(before.Place, other.place) || e.Bend > 0 || (e.Vibrato && other.place.Fret == 0) ||
				n+1 < len(p.Events) && !g.within(other.place, p.Events[n+1].Place) {
				continue
			}
			easier := e
			easier.Fingered = neck.Fingered{Place: other.place}
			easier.SlideFrom, easier.HammerOn, easier.PullOff = 0, false, false
			c.Repairs = append(c.Repairs, Repair{fmt.Sprintf("play it on string %d fret %d", other.place.String, other.place.Fret), ChorusEdit{Do: Alter, Note: n, Notes: []phrase.Event{easier}}})
		}
		all = append(all, c)
	}
	return all
}

// dull is a finding that is not good. Where one note would mend it, that is offered.
func (g *ground) dull(p phrase.Phrase, f Finding) Complaint {
	m := g.Chart.Meter
	c := Complaint{About: f.Name, Sentence: f.Sentence, Notes: f.Notes}
	if len(f.Notes) > 0 {
		c.Tick = p.Events[f.Notes[0]].Tick
	}
	if f.Name != Holds {
		return c
	}
	// The note with the most room behind it rings.
	best, room := -1, 0
	for n, e := range p.Events {
		next := g.Chart.Ticks()
		if n+1 < len(p.Events) {
			next = p.Events[n+1].Tick
		}
		over := g.chords[g.chordAt(e.Tick)]
		is := over.class[e.Sounding(g.Instrument).Class()]
		if e.Fret > 0 && next-e.Tick > room && (is == harmony.Home || is == harmony.Colour) && 2*e.Ticks < 3*m.BeatTicks() {
			best, room = n, next-e.Tick
		}
	}
	if best >= 0 && 2*room >= 3*m.BeatTicks() {
		e := p.Events[best]
		e.Ticks, e.Vibrato = 3*m.BeatTicks()/2, true
		c.Repairs = []Repair{{fmt.Sprintf("let the note on %s ring for a beat and a half, with vibrato", m.CountedInBar(e.Tick)), ChorusEdit{Do: Alter, Note: best, Notes: []phrase.Event{e}}}}
	}
	return c
}
