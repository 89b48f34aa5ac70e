package analysis

import (
	"fmt"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Verdict is what can be said of a phrase over its chords: figures, each with the
// notes it comes from, never one score.
type Verdict struct {
	// Strong are the notes on strong beats: chord tones or not. Rests are those rested on:
	// chord tones or colour, or not.
	Strong, Rests Share
	// Suspensions are the notes on strong beats that suspend a chord tone, or are blue, and
	// resolve by a step: they count as good.
	Suspensions []int
	// Passing are the outside and blue notes that go nowhere.
	Passing []Issue
	// Landings are those on each change under the phrase.
	Landings []Landing
	// Coverage is what each chord got.
	Coverage []ChordCoverage
	Shape    Shape
	// labels are those of the notes that it was made from.
	labels []phrase.Label
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

// Judge is the verdict of a phrase over the chords it knows, at a tempo in counted
// beats a minute. It is the zero Verdict where it knows none.
func Judge(p phrase.Phrase, i neck.Instrument, k harmony.Key, tempo int) Verdict {
	labels := p.Labels(i, k)
	if len(labels) == 0 {
		return Verdict{}
	}
	v := Verdict{labels: labels, Shape: ShapeOf(p, i, labels[len(labels)-1].Tone, labels[len(labels)-1].Class, tempo)}
	lines := p.BarLines()
	for n, e := range p.Events {
		label := labels[n]
		if lines.IsStrong(e.Tick) {
			v.Strong.Of++
			v.Strong.Notes = append(v.Strong.Notes, n)
			switch {
			case label.Class == harmony.ChordTone:
				v.Strong.Good++
			case (label.Class == harmony.Suspension || label.Class == harmony.Blue) && resolves(p, i, k, n, labels):
				v.Strong.Good++ // leaned on, and it goes where it wants: tension on purpose
				v.Suspensions = append(v.Suspensions, n)
			default:
				v.Strong.Issues = append(v.Strong.Issues, issue(p, i, k, n, label, "on a strong beat", phrase.IsChordTone))
			}
		}
		if RestsOn(p, n) {
			v.Rests.Of++
			v.Rests.Notes = append(v.Rests.Notes, n)
			if phrase.MayRestOn(k, label.Chord, e.Sounding(i).Class()) || IsCurled(e, label.Class) {
				v.Rests.Good++
			} else {
				v.Rests.Issues = append(v.Rests.Issues, issue(p, i, k, n, label, "rested on", phrase.MayRestOn))
			}
		}
		if (label.Class == harmony.Outside || label.Class == harmony.Blue) && !IsCurled(e, label.Class) && !resolves(p, i, k, n, labels) {
			v.Passing = append(v.Passing, issue(p, i, k, n, label, "and does not move on by a step", phrase.MayRestOn))
		}
	}
	v.Landings = Landings(p, i, k)
	v.Coverage = coverage(p, i)
	return v
}

// issue describes note n, which is not as it should be, with the least change that makes it
// good.
func issue(p phrase.Phrase, i neck.Instrument, k harmony.Key, n int, label phrase.Label, what string, good phrase.NoteTest) Issue {
	o := Issue{Index: n, Text: fmt.Sprintf("note %d: %s, the %s of %s, is %s %s", n+1, label.Note, label.Degree, label.Chord.Symbol(), label.Class.Text(), what)}
	by, repaired, ok := phrase.LeastChange(i, k, label.Chord, p.Events[n], good)
	if !ok {
		return o
	}
	to := k.ToneOver(label.Chord, repaired.Sounding(i).Class())
	o.Repair = &repaired
	o.Alteration = &phrase.Alteration{Index: n, Semitones: by, Text: fmt.Sprintf("play %s, the %s: %s", to.Note, to.Degree, phrase.ChangeText(p.Events[n], repaired))}
	return o
}

// Issues lists the notes that could be better, each once: those of the strong beats
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

// Repair returns the phrase with the repairs of some of its notes made, given by their
// indices, and the techniques that had to go with them. A note that has no repair stays as it is.
func Repair(p phrase.Phrase, i neck.Instrument, k harmony.Key, tempo int, notes []int) (phrase.Phrase, []string) {
	repaired := phrase.Phrase{Meter: p.Meter, MeterChanges: p.MeterChanges, Events: slices.Clone(p.Events), Chords: p.Chords}
	for _, o := range Judge(p, i, k, tempo).Issues() {
		if o.Repair != nil && slices.Contains(notes, o.Index) {
			repaired.Events[o.Index] = *o.Repair
		}
	}
	return repaired, phrase.DropBrokenSlurs(repaired.Events)
}
