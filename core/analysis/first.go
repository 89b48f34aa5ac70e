package analysis

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// What may be said first of a chorus, beside the findings of StyleCheck.
const (
	FindingArpeggios = "arpeggio exercise"
	FindingScales    = "scale exercise"
	FindingNoodling  = "noodling"
	FindingLandings  = "landings"
	FindingRests     = "rests"
	FindingStrong    = "strong beats"
	FindingPassing   = "passing notes"
	FindingHeard     = "chords heard"
)

// MostFirst is how many findings are put first.
const MostFirst = 3

// What findings cost a listener (ours): one that is not music at all most, then notes that are
// wrong where they are heard most, then what makes a chorus dull.
var costsListener = map[string]float64{
	FindingArpeggios: 100, FindingScales: 100, FindingNoodling: 95, FindingLandings: 85, FindingRests: 80, FindingPhrases: 70,
	FindingHeard: 50, FindingStrong: 45, FindingLeaps: 40, FindingStarts: 35, FindingPassing: 32, FindingRhythm: 30, FindingDirection: 28,
	FindingTouch: 25, FindingMotif: 20, FindingHolds: 12, FindingHighNote: 8,
}

// firstFindings are what a teacher would say first of a line over a chart: at most three, by what
// they cost a listener, each with the one thing to do. A chorus that is too short for something
// to come back, or to rise and fall, is not asked for it.
func (r Review) firstFindings(i neck.Instrument, c chart.Chart) []Finding {
	found := r.noteFindings(i, c)
	long := len(c.PlayedBars()) >= LongChorusBars
	for _, f := range r.Style {
		if !f.Good && (long || f.Name != FindingMotif && f.Name != FindingHolds && f.Name != FindingHighNote) {
			found = append(found, f)
		}
	}
	slices.SortStableFunc(found, func(a, b Finding) int { return int(costsListener[b.Name] - costsListener[a.Name]) })
	return found[:min(MostFirst, len(found))]
}

// noteFindings are those about the notes: what is walked through, where they land and rest, and
// what is heard of the chords.
func (r Review) noteFindings(i neck.Instrument, c chart.Chart) []Finding {
	found := []Finding{}
	say := func(name, text string, notes []int) {
		found = append(found, Finding{Name: name, Text: text, Notes: notes})
	}
	labels := r.Verdict.labels
	walking := WalkingOf(r.Line, i, c.Key, labels)
	exercise := true
	switch {
	case walking.Moves < LeastMoves:
		exercise = false
	case walking.Arpeggio > MostWalking:
		say(FindingArpeggios, "an arpeggio exercise: the tones of each chord one after the other; leave some out, hold one, and come into it from outside", nil)
	case walking.Scale > MostWalking:
		say(FindingScales, "a scale exercise: step after step one way; turn after three notes, leap, and rest on a chord tone", nil)
	default:
		exercise = false
	}
	landed, missed, notes := 0, 0, []int{}
	for _, l := range r.Verdict.Landings {
		switch {
		case l.Index < 0:
		case l.Class == harmony.ChordTone, !IsLong(r.Line.Events[l.Index], r.Line.BarLines().MeterAt(l.Tick)) && resolves(r.Line, i, c.Key, l.Index, labels):
			landed++ // on it, or leaned into it
		default:
			missed++
			notes = append(notes, l.Index)
		}
	}
	lost := []string{}
	for _, d := range r.Implied {
		if d.Recognition != Recognized && d.Recognition != NothingPlayed {
			lost = append(lost, d.Chord.Symbol())
		}
	}
	rests := r.Verdict.Rests
	poorRests := 2*(rests.Of-rests.Good) >= rests.Of && rests.Of > 0
	if !exercise && onlyBox(r.Line, i, c) && (2*len(lost) > len(r.Implied) || missed > landed || poorRests) {
		say(FindingNoodling, "noodling: the box goes on whatever chord comes; aim at the third of the chord that arrives", nil)
	}
	if missed > 0 && float64(missed) >= MostMissedLandings*float64(missed+landed) {
		l := r.Verdict.Landings[slices.IndexFunc(r.Verdict.Landings, func(l Landing) bool { return l.Index == notes[0] })]
		say(FindingLandings, fmt.Sprintf("%d of %d changes are missed: %s arrives on %s, the %s; land on its third", missed, missed+landed, l.Chord.Symbol(), l.Note, l.Degree), notes)
	}
	if bad := rests.Of - rests.Good; bad > 0 && float64(bad) >= MostPoorRests*float64(rests.Of) {
		say(FindingRests, fmt.Sprintf("%d of %d notes that are rested on want to move on: %s", bad, rests.Of, rests.Issues[0].Text), issueNotes(rests.Issues))
	}
	if strong := r.Verdict.Strong; strong.Of >= LeastStrongBeats && !r.EnoughStrongBeats() {
		say(FindingStrong, fmt.Sprintf("%d of %d strong beats have no tone of their chord", strong.Of-strong.Good, strong.Of), issueNotes(strong.Issues))
	}
	if passing := r.Verdict.Passing; float64(len(passing)) > MostLoosePassing*float64(len(r.Line.Events)) {
		say(FindingPassing, fmt.Sprintf("%s outside that go nowhere", Counted(len(passing), "note")), issueNotes(passing))
	}
	if 2*len(lost) > len(r.Implied) {
		say(FindingHeard, fmt.Sprintf("without the band %d of %d chords would not be known: %s", len(lost), len(r.Implied), strings.Join(lost[:min(3, len(lost))], ", ")), nil)
	}
	return found
}

func issueNotes(issues []Issue) []int {
	notes := []int{}
	for _, o := range issues {
		notes = append(notes, o.Index)
	}
	return notes
}
