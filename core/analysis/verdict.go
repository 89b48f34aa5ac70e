package analysis

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Verdict is what can be said of a phrase over its chords: figures, each with the
// notes it comes from, never one score.
type Verdict struct {
	// Strong are the notes on strong beats: home or not. Rests are those rested on:
	// home or colour, or not.
	Strong, Rests Share
	// Passing are the outside and blue notes that go nowhere.
	Passing []Issue
	// Landings are the changes under the phrase, and what is first played at each.
	Landings []Landing
	// Coverage is what each chord got.
	Coverage []ChordCoverage
	Shape    Shape
}

// Share is so many notes of a kind that are as they should be, and those that are not.
type Share struct {
	Of, Good int
	// Notes are all of the kind, as indices of events.
	Notes  []int
	Issues []Issue
}

// Issue is one note that could be better, and its nearest repair.
type Issue struct {
	// Index counts events from 0.
	Index int
	Text  string
	// Repair is the note altered by the least movement that lets it rest, Alteration
	// what that is; nil where its string has none.
	Repair     *phrase.Event
	Alteration *phrase.Alteration
}

// Landing is what is first played at a change.
type Landing struct {
	Tick  int
	Chord harmony.Chord
	// Index is the event landed on, -1 for none.
	Index int
	// When is early, on, late or none.
	Timing string
	harmony.Judgement
}

// ChordCoverage is a chord under the phrase: which of its tones were played, and which of
// its guide tones were not.
type ChordCoverage struct {
	Chord       harmony.Chord
	Got, Missed []harmony.Tone
	// Notes are those that sound over it, as indices of events.
	Notes []int
}

// Shape is the shape of a phrase, whatever its chords.
type Shape struct {
	// Rhythm labels the bars by their rhythm: "A A B A".
	Rhythm string
	// Ends is question, answer or open.
	Ends string
	// Space is the share of silence, PerSecond the notes a second at a tempo.
	Space, PerSecond float64
	// Shifts is how often the hand moves, WidestMM the widest reach between
	// neighbouring notes.
	Shifts   int
	WidestMM float64
}

// How near a change a note counts as its landing, in ticks: from an eighth before to
// a beat after (ours: what is earlier still belongs to the chord before).
const landsEarly = 240

// shiftFrets is how far the hand's place must move to be a shift (ours: one fret is
// only a reach).
const shiftFrets = 2

// Judged is the verdict of a phrase over the chords it knows, at a tempo in counted
// beats a minute. It is the zero Verdict where it knows none.
func Judge(p phrase.Phrase, i neck.Instrument, k harmony.Key, tempo int) Verdict {
	labels := p.Labels(i, k)
	if len(labels) == 0 {
		return Verdict{}
	}
	v := Verdict{Shape: ShapeOf(p, i, labels[len(labels)-1].Tone, labels[len(labels)-1].Class, tempo)}
	for n, e := range p.Events {
		label := labels[n]
		if p.Meter.IsStrong(e.Tick) {
			v.Strong.Of++
			v.Strong.Notes = append(v.Strong.Notes, n)
			if label.Class == harmony.ChordTone {
				v.Strong.Good++
			} else {
				v.Strong.Issues = append(v.Strong.Issues, issue(p, i, k, n, label, "on a strong beat", phrase.IsChordTone))
			}
		}
		if RestsOn(p, n) {
			v.Rests.Of++
			v.Rests.Notes = append(v.Rests.Notes, n)
			if phrase.MayRestOn(k, label.Chord, e.Sounding(i).Class()) || IsCurled(e, label) {
				v.Rests.Good++
			} else {
				v.Rests.Issues = append(v.Rests.Issues, issue(p, i, k, n, label, "rested on", phrase.MayRestOn))
			}
		}
		if (label.Class == harmony.Outside || label.Class == harmony.Blue) && !IsCurled(e, label) && !resolves(p, i, k, n, labels) {
			v.Passing = append(v.Passing, issue(p, i, k, n, label, "and does not move on by a step", phrase.MayRestOn))
		}
	}
	v.Landings = Landings(p, i, k)
	v.Coverage = coverage(p, i)
	return v
}

// IsCurled says whether a blue note is bent a quarter tone on its way up: that is how
// it is leaned on (common).
func IsCurled(e phrase.Event, label phrase.Label) bool {
	return label.Class == harmony.Blue && e.Bend%2 == 1
}

func issue(p phrase.Phrase, i neck.Instrument, k harmony.Key, n int, label phrase.Label, what string, good phrase.NoteTest) Issue {
	o := Issue{Index: n, Text: fmt.Sprintf("note %d: %s, the %s of %s, is %s %s", n+1, label.Note, label.Degree, label.Chord.Symbol(), label.Class, what)}
	by, repaired, ok := phrase.LeastChange(i, k, label.Chord, p.Events[n], good)
	if !ok {
		return o
	}
	to := k.ToneOver(label.Chord, repaired.Sounding(i).Class())
	o.Repair = &repaired
	o.Alteration = &phrase.Alteration{Index: n, Semitones: by, Text: fmt.Sprintf("play %s, the %s: %s", to.Note, to.Degree, phrase.ChangeText(p.Events[n], repaired))}
	return o
}

// restsOn says whether a note is rested on: it lasts a beat or more, or is the last
// before a gap of half a beat or more.
func RestsOn(p phrase.Phrase, n int) bool {
	beat := p.Meter.BeatTicks()
	return p.Events[n].Ticks >= beat || n == len(p.Events)-1 || 2*(p.Events[n+1].Tick-p.Events[n].End()) >= beat
}

// movesOn says whether a note moves by a step to home or colour within two notes.
func resolves(p phrase.Phrase, i neck.Instrument, k harmony.Key, n int, labels []phrase.Label) bool {
	from := p.Events[n].Sounding(i)
	for m := n + 1; m <= n+2 && m < len(p.Events); m++ {
		to := p.Events[m].Sounding(i)
		step := int(max(to-from, from-to))
		if step >= 1 && step <= 2 && phrase.MayRestOn(k, labels[m].Chord, to.Class()) {
			return true
		}
	}
	return false
}

// landfalls says what is first played at each change under the phrase.
func Landings(p phrase.Phrase, i neck.Instrument, k harmony.Key) []Landing {
	found := []Landing{}
	for n := 1; n < len(p.Chords); n++ {
		from := p.Chords[n]
		l := Landing{Tick: from.Tick, Chord: from.Chord, Index: -1, Timing: "none"}
		if m := landingAt(p, from.Tick); m >= 0 {
			e := p.Events[m]
			l.Index, l.Judgement = m, k.Judge(from.Chord, e.Sounding(i).Class())
			switch {
			case e.Tick < from.Tick:
				l.Timing = "early"
			case e.Tick > from.Tick:
				l.Timing = "late"
			default:
				l.Timing = "on"
			}
		}
		found = append(found, l)
	}
	return found
}

// landing is the note that lands on a change: the first from an eighth before to a beat
// after it. A note before the change that has ended by then only leads in, where
// another follows in time (ours: an approach is not the landing it leads to). It is -1
// for none.
func landingAt(p phrase.Phrase, change int) int {
	led := -1
	for n, e := range p.Events {
		switch {
		case e.Tick < change-landsEarly || e.Grace:
		case e.Tick > change+p.Meter.BeatTicks():
			return led
		case e.Tick >= change || e.End() > change:
			return n
		case led < 0:
			led = n
		}
	}
	return led
}

// coverage says which tones each chord got while it sounded.
func coverage(p phrase.Phrase, i neck.Instrument) []ChordCoverage {
	found := []ChordCoverage{}
	for n, from := range p.Chords {
		c := ChordCoverage{Chord: from.Chord}
		for m, e := range p.Events {
			if (n == 0 || e.Tick >= from.Tick) && (n == len(p.Chords)-1 || e.Tick < p.Chords[n+1].Tick) {
				c.Notes = append(c.Notes, m)
			}
		}
		for _, tone := range from.Chord.Tones() {
			got := slices.ContainsFunc(c.Notes, func(m int) bool { return p.Events[m].Sounding(i).Class() == tone.Note.Class() })
			switch {
			case got:
				c.Got = append(c.Got, tone)
			case harmony.IsGuideTone(tone.Degree):
				c.Missed = append(c.Missed, tone)
			}
		}
		found = append(found, c)
	}
	return found
}

// outline is the shape of the phrase, whose last note is a tone of a class over its chord.
func ShapeOf(p phrase.Phrase, i neck.Instrument, last harmony.Tone, class harmony.Class, tempo int) Shape {
	o := Shape{Rhythm: rhythm(p), Ends: "open"}
	switch {
	case class == harmony.ChordTone && (last.Degree.Number == 1 || last.Degree.Number == 3):
		o.Ends = "answer"
	case class != harmony.ChordTone || last.Degree.Number == 5:
		o.Ends = "question"
	}
	first := p.Events[0].Tick
	sounding, end := 0, first
	hand := 0
	for n, e := range p.Events {
		sounding += max(e.End()-max(e.Tick, end), 0)
		end = max(end, e.End())
		if e.Fret > 0 && n > 0 && p.Events[n-1].Fret > 0 {
			low, high := min(e.Fret, p.Events[n-1].Fret), max(e.Fret, p.Events[n-1].Fret)
			o.WidestMM = max(o.WidestMM, i.StretchMM(low, high))
		}
		if e.Fret > 0 && e.Finger > 0 {
			at := e.Fret - e.Finger + 1
			if hand != 0 && max(at-hand, hand-at) >= shiftFrets {
				o.Shifts++
			}
			if hand == 0 || max(at-hand, hand-at) >= shiftFrets {
				hand = at
			}
		}
	}
	o.Space = 1 - float64(sounding)/float64(end-first)
	seconds := float64(end-first) / float64(p.Meter.BeatTicks()) * 60 / float64(tempo)
	o.PerSecond = float64(len(p.Events)) / seconds
	return o
}

// rhythm labels the bars by when their notes start: bars alike have the same letter.
func rhythm(p phrase.Phrase) string {
	bar := p.Meter.BarTicks()
	first := p.Meter.Downbeat(p.Events[0].Tick)
	patterns := make([]string, (p.Events[len(p.Events)-1].Tick-first)/bar+1)
	for _, e := range p.Events {
		patterns[(e.Tick-first)/bar] += fmt.Sprintf("%d ", (e.Tick-first)%bar)
	}
	letters, names := map[string]string{}, []string{}
	for _, pattern := range patterns {
		if _, known := letters[pattern]; !known {
			letters[pattern] = string(rune('A' + len(letters)%26))
		}
		names = append(names, letters[pattern])
	}
	return strings.Join(names, " ")
}

// Offences lists the notes that could be better, each once: those of the strong beats
// before those rested on before those that go nowhere.
func (v Verdict) Issues() []Issue {
	all := []Issue{}
	for _, o := range slices.Concat(v.Strong.Issues, v.Rests.Issues, v.Passing) {
		if !slices.ContainsFunc(all, func(other Issue) bool { return other.Index == o.Index }) {
			all = append(all, o)
		}
	}
	return all
}

// Repaired is the phrase with the repairs of some of its notes made, its slurs mended;
// what had to go is named. A note that has no repair stays as it is.
func Repair(p phrase.Phrase, i neck.Instrument, k harmony.Key, tempo int, notes []int) (phrase.Phrase, []string) {
	repaired := phrase.Phrase{Meter: p.Meter, Events: slices.Clone(p.Events), Chords: p.Chords}
	for _, o := range Judge(p, i, k, tempo).Issues() {
		if o.Repair != nil && slices.Contains(notes, o.Index) {
			repaired.Events[o.Index] = *o.Repair
		}
	}
	return repaired, phrase.DropBrokenSlurs(repaired.Events)
}
