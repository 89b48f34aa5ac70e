package chorus

import (
	"fmt"
	"slices"

	"undaris/core/analysis"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Issue is one thing in a chorus that could be better, with what would mend it.
type Issue struct {
	// About is what kind it is: landing, strong beat, rested on, passing, band, reach, or the
	// name of a finding.
	About string
	Text  string
	// Tick is where it is heard, Notes the events it comes from.
	Tick    int
	Notes   []int
	Repairs []Repair
}

// Repair is one note put right: an edit of the chorus.
type Repair struct {
	Text string
	Edit Edit
}

// Issues lists what could be better in a chorus, the gravest first: landings, chords
// that are not heard without the band, notes rested on, strong beats, notes that go
// nowhere, reaches past the span, then what makes it dull. Its error is a *chart.FieldError.
func (o Request) Issues(c Chorus) ([]Issue, error) {
	pc, err := o.NewContext()
	if err != nil {
		return nil, err
	}
	return pc.issues(analysis.ReviewLine(o.Instrument, c.Phrase(o.Chart), o.Chart)), nil
}

func (pc *Context) issues(r analysis.Review) []Issue {
	all := []Issue{}
	if len(r.Line.Events) == 0 {
		return all
	}
	for _, a := range pc.Targets {
		if t := pc.Landing(r.Line, a); !t.Silent && (t.Index < 0 || t.Class != harmony.ChordTone) {
			all = append(all, pc.missedLanding(r.Line, a, t))
		}
	}
	for index, d := range r.Implied {
		if d.Recognition != analysis.Recognized && d.Recognition != analysis.NothingPlayed && d.To-d.From >= pc.Time.BeatTicksAt(d.From) {
			all = append(all, pc.unheardChord(r.Line, index, d))
		}
	}
	for _, group := range []struct {
		about string
		of    []analysis.Issue
	}{{"rested on", r.Verdict.Rests.Issues}, {"strong beat", r.Verdict.Strong.Issues}, {"passing", r.Verdict.Passing}} {
		for _, issue := range group.of {
			all = append(all, pc.noteIssue(r, group.about, issue))
		}
	}
	all = append(all, pc.wideReaches(r.Line)...)
	for _, f := range r.Style {
		if !f.Good {
			all = append(all, pc.styleIssue(r.Line, f))
		}
	}
	return all
}

// noteIssue is a note that could be better. A repair is offered where it leaves fewer such notes:
// another may have resolved to the one that it alters.
func (pc *Context) noteIssue(r analysis.Review, about string, o analysis.Issue) Issue {
	p := r.Line
	c := Issue{About: about, Text: o.Text, Tick: p.Events[o.Index].Tick, Notes: []int{o.Index}}
	if o.Repair == nil {
		return c
	}
	with := phrase.Phrase{Meter: p.Meter, MeterChanges: p.MeterChanges, Chords: p.Chords, Events: slices.Clone(p.Events)}
	with.Events[o.Index] = *o.Repair
	if mended := analysis.Judge(with, pc.Instrument, pc.Chart.Key, pc.Chart.Tempo); noteIssues(mended) < noteIssues(r.Verdict) && issuesAbout(mended, about) < issuesAbout(r.Verdict, about) {
		c.Repairs = []Repair{{o.Alteration.Text, Edit{Kind: AlterNote, Note: o.Index, Notes: []phrase.Event{*o.Repair}}}}
	}
	return c
}

func noteIssues(v analysis.Verdict) int {
	return len(v.Rests.Issues) + len(v.Strong.Issues) + len(v.Passing)
}

func issuesAbout(v analysis.Verdict, about string) int {
	switch about {
	case "rested on":
		return len(v.Rests.Issues)
	case "strong beat":
		return len(v.Strong.Issues)
	}
	return len(v.Passing)
}

// missedLanding is a change without its landing: the tone aimed at put on it, in the place of
// what is there, or between.
func (pc *Context) missedLanding(p phrase.Phrase, a PlannedTarget, t TargetReport) Issue {
	c := Issue{About: "landing", Tick: a.Tick}
	was := pitch.MIDI(0)
	for _, e := range p.Events {
		if e.Tick <= a.Tick {
			was = e.Sounding(pc.Instrument)
		}
	}
	note := phrase.Event{Tick: a.Tick, Ticks: pc.Time.BeatTicksAt(a.Tick)}
	index := -1
	if t.Index >= 0 {
		index = t.Index
		e := p.Events[index]
		c.Notes = []int{index}
		c.Text = fmt.Sprintf("%s arrives in bar %d and lands on %s, the %s: %s", a.Arriving.Chord.Symbol(), a.Arriving.Bar+1, t.Note, t.Degree, t.Class.Text())
		note.Tick, note.Ticks, was = e.Tick, e.Ticks, e.Sounding(pc.Instrument)
	} else {
		c.Text = fmt.Sprintf("%s arrives in bar %d and nothing lands on it", a.Arriving.Chord.Symbol(), a.Arriving.Bar+1)
		for _, e := range p.Events {
			if e.Tick > a.Tick {
				note.Ticks = min(note.Ticks, e.Tick-a.Tick)
				break
			}
		}
	}
	place, found := nearest(freePlaces(p, index, note, a.Places), was)
	if !found {
		return c
	}
	note.Fingered = place.Fingered
	c.Repairs = []Repair{{fmt.Sprintf("land on %s, the %s: string %d fret %d", a.Aim.Note, a.Aim.Degree, place.String, place.Fret), Edit{Kind: AlterNote, Note: index, Notes: []phrase.Event{note}}}}
	return c
}

// freePlaces are the places on strings that no other note than the given one sounds on while a
// note lasts: the rest of a double stop stays.
func freePlaces(p phrase.Phrase, index int, note phrase.Event, placed []neck.Placed) []neck.Placed {
	return slices.DeleteFunc(slices.Clone(placed), func(at neck.Placed) bool {
		for n, e := range p.Events {
			if n != index && e.String == at.String && e.Tick < note.End() && e.End() > note.Tick && (index >= 0 || e.Tick >= note.Tick) {
				return true
			}
		}
		return false
	})
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

// unheardChord is a chord that one would not know without the band: the note of its span that,
// turned into the tone that settles it, makes it plainest.
func (pc *Context) unheardChord(p phrase.Phrase, index int, d analysis.ImpliedHarmony) Issue {
	c := Issue{About: "band", Tick: max(d.From, 0), Notes: d.Notes, Text: fmt.Sprintf("bar %d: %s", analysis.BarOf(p, d.From), d.Text)}
	if d.SettlingTone == nil {
		return c
	}
	placed := neck.PlaceTones(pc.Instrument, pc.PositionAt(max(d.From, 0)).Window, []harmony.Tone{*d.SettlingTone}).Tones
	best, at, clear := phrase.Event{}, -1, d.Margin
	for _, n := range d.Notes {
		e := p.Events[n]
		if e.Tick < d.From {
			continue
		}
		place, found := nearest(freePlaces(p, n, e, placed), e.Sounding(pc.Instrument))
		if !found {
			break
		}
		changed := e
		changed.Fingered = place.Fingered
		changed.Technique = phrase.Technique{Vibrato: e.Vibrato && place.Fret > 0}
		with := phrase.Phrase{Meter: p.Meter, MeterChanges: p.MeterChanges, Chords: p.Chords, Events: append([]phrase.Event{}, p.Events...)}
		with.Events[n] = changed
		if again := pc.recognizer.At(with, pc.Instrument, index); again.Margin > clear {
			best, at, clear = changed, n, again.Margin
		}
	}
	switch {
	case at >= 0:
		c.Repairs = []Repair{{fmt.Sprintf("play %s, the %s, on %s: string %d fret %d", d.SettlingTone.Note, d.SettlingTone.Degree, pc.Time.CountedInBar(best.Tick), best.String, best.Fret),
			Edit{Kind: AlterNote, Note: at, Notes: []phrase.Event{best}}}}
	case len(d.Notes) == 0 && len(placed) > 0:
		place := placed[len(placed)/2]
		note := phrase.Event{Tick: max(d.From, 0), Ticks: pc.Time.BeatTicksAt(max(d.From, 0)), Fingered: place.Fingered}
		c.Repairs = []Repair{{fmt.Sprintf("play %s, the %s, on %s: string %d fret %d", d.SettlingTone.Note, d.SettlingTone.Degree, pc.Time.CountedInBar(note.Tick), place.String, place.Fret),
			Edit{Kind: AlterNote, Note: -1, Notes: []phrase.Event{note}}}}
	}
	return c
}

// wideReaches are the reaches between neighbouring notes that are wider than the player's
// span, with another place of the second where there is one that is nearer to both sides.
func (pc *Context) wideReaches(p phrase.Phrase) []Issue {
	all := []Issue{}
	for n := 1; n < len(p.Events); n++ {
		before, e := p.Events[n-1], p.Events[n]
		if pc.WithinSpan(before.Place, e.Place) || pc.PositionAt(before.Tick) != pc.PositionAt(e.Tick) {
			continue
		}
		low, high := min(before.Fret, e.Fret), max(before.Fret, e.Fret)
		c := Issue{About: "reach", Tick: e.Tick, Notes: []int{n - 1, n}, Text: fmt.Sprintf(
			"bar %d: frets %d to %d are %.0f mm apart, wider than your %.0f mm; warm up first, and stop if it hurts",
			analysis.BarOf(p, e.Tick), low, high, pc.Instrument.StretchMM(low, high), pc.SpanMM)}
		for _, other := range pc.Instrument.PlacesOf(pc.PositionAt(e.Tick).Window, e.Sounding(pc.Instrument)) {
			if !pc.WithinSpan(before.Place, other) || e.Bend > 0 || (e.Vibrato && other.Fret == 0) ||
				n+1 < len(p.Events) && !pc.WithinSpan(other, p.Events[n+1].Place) {
				continue
			}
			easier := e
			easier.Fingered = neck.Fingered{Place: other}
			easier.SlideFrom, easier.HammerOn, easier.PullOff = 0, false, false
			c.Repairs = append(c.Repairs, Repair{fmt.Sprintf("play it on string %d fret %d", other.String, other.Fret), Edit{Kind: AlterNote, Note: n, Notes: []phrase.Event{easier}}})
		}
		all = append(all, c)
	}
	return all
}

// styleIssue is a finding that is not good. Where one note would mend it, that is offered.
func (pc *Context) styleIssue(p phrase.Phrase, f analysis.Finding) Issue {
	c := Issue{About: f.Name, Text: f.Text, Notes: f.Notes}
	if len(f.Notes) > 0 {
		c.Tick = p.Events[f.Notes[0]].Tick
	}
	if f.Name != analysis.FindingHolds {
		return c
	}
	// The note with the most room behind it rings.
	best, room := -1, 0
	for n, e := range p.Events {
		next := pc.Chart.Ticks()
		if n+1 < len(p.Events) {
			next = p.Events[n+1].Tick
		}
		over := pc.Chords[pc.ChordAt(e.Tick)]
		is := over.Class[e.Sounding(pc.Instrument).Class()]
		if e.Fret > 0 && next-e.Tick > room && (is == harmony.ChordTone || is == harmony.Colour) && !analysis.IsHeld(e, pc.Time.MeterAt(pc.Time.BarAt(e.Tick))) {
			best, room = n, next-e.Tick
		}
	}
	if best < 0 {
		return c
	}
	e := p.Events[best]
	if beat := pc.Time.BeatTicksAt(e.Tick); 2*room >= 3*beat {
		e.Ticks, e.Vibrato = 3*beat/2, true
		c.Repairs = []Repair{{fmt.Sprintf("let the note on %s ring for a beat and a half, with vibrato", pc.Time.CountedInBar(e.Tick)), Edit{Kind: AlterNote, Note: best, Notes: []phrase.Event{e}}}}
	}
	return c
}
