package band

import (
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// How a hand shapes a note, our choice by ear: times in seconds, depths in cents.
const (
	bendSeconds     = 0.16
	slideSeconds    = 0.09
	slideOutSeconds = 0.15
	slideOutCents   = 400
	vibratoHertz    = 5.2
	vibratoCents    = 22
	vibratoDelay    = 0.35 // share of the note before the vibrato begins
	loudPicked      = 100
	loudSlurred     = 84
	loudAccented    = 116
	loudGhost       = 46
	loudRaked       = 52
	rakeSeconds     = 0.022 // between two strings of a rake
	trillHertz      = 11    // notes a second
	secondsPerMin   = 60.0
	centsPerFret    = 100
	centsPerBend    = 50 // a bend is counted in quarter tones
	vibratoPerTurn  = 2  // points a turn: the crest and the return
)

// line sounds the line; offset is what turns its notated ticks in the chart into ticks of
// the performance.
func (s score) line() []Note {
	o, notes := s.Order, []Note{}
	first, last := s.time.Start(o.From), s.time.Start(o.From+o.Bars)
	offset := s.countIn - first
	if o.From == 0 { // a pickup is played while it is counted in
		first -= s.countIn
	}
	for n, e := range o.Line.Events {
		tick := o.LineStart + e.Tick
		if tick < first || tick >= last {
			continue
		}
		ticks := min(e.Ticks, last-tick)
		if before := len(notes) - 1; e.Tied && n > 0 && before >= 0 && o.Line.Events[n-1].String == e.String && o.Line.Events[n-1].End() == e.Tick {
			notes[before].ringOn(o.Chart, n, e, s.sounding(tick, ticks, offset, 0, 0))
			continue
		}
		if e.Staccato || e.Mute {
			ticks = max(ticks/2, 1)
		}
		if e.Rake {
			notes = append(notes, s.rake(e, tick, offset)...)
		}
		note := s.sounding(tick, ticks, offset, o.Instrument.Pitch(e.Place), loudness(e))
		note.Event = n
		note.Curve = curve(e, note.Ticks, ticksPerSecond(o.Chart))
		notes = append(notes, note)
	}
	return notes
}

// ringOn lets a note ring on as the tied event that stands after it. A bend of the
// tied event is reached when it begins, so that its goal is in time.
func (note *Note) ringOn(c chart.Chart, n int, e phrase.Event, tied Note) {
	at := note.Ticks
	note.Ticks += tied.Ticks
	note.Continues = append(note.Continues, Continuation{Ticks: at, Event: n})
	if e.Bend > 0 && !e.PreBend {
		rise := max(min(int(bendSeconds*ticksPerSecond(c)), at/2), 1)
		note.Curve = append(note.Curve, Point{at - rise, 0}, Point{at, e.Bend * centsPerBend})
	}
	bent := e
	bent.PreBend = true // it is up there already
	for _, p := range curve(bent, tied.Ticks, ticksPerSecond(c)) {
		if p.Ticks > 0 {
			note.Curve = append(note.Curve, Point{at + p.Ticks, p.Cents})
		}
	}
	if len(note.Curve) > 0 && note.Curve[0].Ticks > 0 {
		note.Curve = append([]Point{{}}, note.Curve...)
	}
}

// rake is the damped strings that are struck on the way to a note: up to three thicker ones, each a
// little later than the one before. They are nobody's event.
func (s score) rake(e phrase.Event, tick, offset int) []Note {
	apart, o := max(int(rakeSeconds*ticksPerSecond(s.Chart)), 1), s.Order
	strings := min(len(o.Instrument.Open)-e.String, rakeStrings)
	notes := []Note{}
	for n := strings; n >= 1; n-- {
		at := neck.Place{String: e.String + n, Fret: e.Fret}
		note := s.sounding(tick, apart, offset, o.Instrument.Pitch(at), loudRaked)
		note.Tick -= n * apart
		note.Event = -1
		if note.Tick >= 0 {
			notes = append(notes, note)
		}
	}
	return notes
}

// rakeStrings is how many strings a rake goes over at most (our choice, by ear).
const rakeStrings = 3

func ticksPerSecond(c chart.Chart) float64 {
	return float64(c.Tempo*c.Meter.BeatTicks()) / secondsPerMin
}

func loudness(e phrase.Event) int {
	switch {
	case e.Accent:
		return loudAccented
	case e.Ghost:
		return loudGhost
	case e.HammerOn || e.PullOff || e.Tied:
		return loudSlurred
	}
	return loudPicked
}

// curve is how the pitch of a note moves: slid in, bent, released, shaken.
func curve(e phrase.Event, ticks int, perSecond float64) []Point {
	points := []Point{}
	rise := func(seconds float64) int { return max(min(int(seconds*perSecond), ticks/2), 1) }
	settled := e.Bend * centsPerBend
	at := 0
	switch {
	case e.SlideFrom > 0:
		at = rise(slideSeconds)
		points = append(points, Point{0, (e.SlideFrom - e.Fret) * centsPerFret}, Point{at, settled})
	case e.Bend > 0 && !e.PreBend:
		at = rise(bendSeconds)
		points = append(points, Point{0, 0}, Point{at, settled})
	case e.Bend > 0:
		points = append(points, Point{0, settled})
	}
	switch {
	case e.SlideOut != 0:
		points = append(points, Point{max(at, ticks-rise(slideOutSeconds)), settled}, Point{ticks, settled + e.SlideOut*slideOutCents})
	case e.Release:
		points = append(points, Point{ticks * 2 / 3, settled}, Point{ticks, 0})
	case e.Trill > 0:
		// To and fro between the two frets, as fingers do: at once, not slid.
		turn := max(perSecond/trillHertz, 4)
		points = append(points, Point{at, 0})
		for n := 1; at+int(float64(n)*turn) < ticks; n++ {
			from, to := (n-1)%2*e.Trill*centsPerFret, n%2*e.Trill*centsPerFret
			points = append(points, Point{at + int(float64(n)*turn) - 1, from}, Point{at + int(float64(n)*turn), to})
		}
	case e.Vibrato:
		turn := perSecond / vibratoHertz / vibratoPerTurn
		start := max(at, int(float64(ticks)*vibratoDelay))
		crest := settled + vibratoCents
		if e.Bend > 0 { // the hand lets go a little and comes back to the pitch
			crest = settled - vibratoCents
		}
		points = append(points, Point{start, settled})
		// Whole turns, so that the note ends at its pitch.
		for n := 1; start+int(float64(n+1)*turn) <= ticks; n += 2 {
			points = append(points, Point{start + int(float64(n)*turn), crest}, Point{start + int(float64(n+1)*turn), settled})
		}
	}
	return points
}

// sounding makes a note of the line from notated ticks of the chart.
func (s score) sounding(tick, ticks, offset int, p pitch.MIDI, loudness int) Note {
	start, end := s.time.Swung(tick), s.time.Swung(tick+ticks)
	return Note{Part: Line, Tick: start + offset, Ticks: end - start, Pitch: p, Loudness: loudness, Event: -1}
}

// cueLoudness is softer than the line: it is heard, not played over.
const cueLoudness = 72

// cues sounds those within the bars performed, in every chorus of them.
func (s score) cues() []Note {
	notes := []Note{}
	chorus := s.time.Ticks()
	from, to := s.time.Start(s.From), s.time.Start(s.From+s.Bars)
	for first := from - from%chorus; first < to; first += chorus {
		for _, cue := range s.Cues {
			tick := first + cue.Tick
			if tick >= from && tick < to {
				notes = append(notes, s.sounding(tick, min(cue.Ticks, to-tick), s.countIn-from, cue.Pitch, cueLoudness))
			}
		}
	}
	return notes
}
