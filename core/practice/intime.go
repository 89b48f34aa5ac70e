package practice

import (
	"fmt"
	"math"
	"slices"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Hit is a note that was played while the band went on, in milliseconds from the first bar.
type Hit struct {
	MS    float64
	Pitch pitch.MIDI
}

// TimedTarget is the tone that is asked for at a change.
type TimedTarget struct {
	MS    float64
	Chord harmony.Chord
	Tone  harmony.Tone
}

// Timing is how a target was met.
type Timing string

// The timings.
const (
	Early  Timing = "early"
	OnTime Timing = "on"
	Late   Timing = "late"
	Missed Timing = "missed"
	// OtherNote is another note in its place.
	OtherNote Timing = "other note"
)

// How near a note must be, in milliseconds (our choice: a sixteenth at 120 is 125, and within 60 two
// notes are heard as together by most players).
const (
	OnWindow = 60.0
	// nearWindow is how far from its target a note still answers it.
	nearWindow = 400.0
)

// TimedMark is how one target was met.
type TimedMark struct {
	Timing Timing
	// OffMS is how much too late, or, negative, too early; 0 where nothing met it.
	OffMS float64
	// Hit is the index of the note that met it, -1 for none.
	Hit  int
	Text string
}

// MarkTargets says how each target was met. Hits are taken so many milliseconds earlier as they take
// to be heard of. Each note meets one target at most: the nearest right note of a target, else the
// nearest other one.
func MarkTargets(k harmony.Key, targets []TimedTarget, hits []Hit, latencyMS float64) []TimedMark {
	marks := make([]TimedMark, len(targets))
	taken := make([]bool, len(hits))
	nearest := func(t TimedTarget, wanted func(Hit) bool) int {
		best := -1
		for n, h := range hits {
			off := math.Abs(h.MS - latencyMS - t.MS)
			if !taken[n] && off <= nearWindow && wanted(h) && (best < 0 || off < math.Abs(hits[best].MS-latencyMS-t.MS)) {
				best = n
			}
		}
		return best
	}
	for n, t := range targets {
		marks[n].Hit = nearest(t, func(h Hit) bool { return h.Pitch.Class() == t.Tone.Note.Class() })
		if marks[n].Hit >= 0 {
			taken[marks[n].Hit] = true
		}
	}
	for n, t := range targets {
		m := &marks[n]
		name := fmt.Sprintf("the %s of %s, %s", signed(t.Tone.Degree.String()), t.Chord.SignedSymbol(), signed(t.Tone.Note.String()))
		if m.Hit >= 0 {
			// To a hundredth: at the edge of the window no rounding error decides.
			m.OffMS = math.Round(100*(hits[m.Hit].MS-latencyMS-t.MS)) / 100
			switch {
			case math.Abs(m.OffMS) <= OnWindow:
				m.Timing, m.Text = OnTime, name+": on"
			case m.OffMS < 0:
				m.Timing, m.Text = Early, fmt.Sprintf("%s: %.0f ms early", name, -m.OffMS)
			default:
				m.Timing, m.Text = Late, fmt.Sprintf("%s: %.0f ms late", name, m.OffMS)
			}
			continue
		}
		other := nearest(t, func(Hit) bool { return true })
		if other < 0 {
			m.Timing, m.Text = Missed, name+": missed"
			continue
		}
		taken[other] = true
		played := k.ToneOver(t.Chord, hits[other].Pitch.Class())
		m.Timing, m.Hit = OtherNote, other
		m.Text = fmt.Sprintf("%s: %s was played, the %s", name, signed(played.Note.String()), signed(played.Degree.String()))
	}
	return marks
}

// MiddleOff is the middle of how far off the targets that were met are, in milliseconds, and how many
// those are: the same for all of them is the way from the hand to the page.
func MiddleOff(marks []TimedMark) (ms float64, count int) {
	offs := []float64{}
	for _, m := range marks {
		if m.Timing == OnTime || m.Timing == Early || m.Timing == Late {
			offs = append(offs, m.OffMS)
		}
	}
	if len(offs) == 0 {
		return 0, 0
	}
	slices.Sort(offs)
	return offs[len(offs)/2], len(offs)
}

// AllowedSpan is a chord while it is on, with the notes that are to be played over it.
type AllowedSpan struct {
	FromMS, ToMS float64
	Chord        harmony.Chord
	Notes        []harmony.Tone
}

// NoteMark is whether a note was one of those asked for.
type NoteMark struct {
	Right bool
	// Span is the index of the chord that was on.
	Span int
	Text string
}

// pushMS is how much before a chord a note already belongs to it (an eighth at 120: our choice, as a
// push is heard).
const pushMS = 120.0

// MarkNotes says of each note whether it is one of those asked for over the chord that is on. One that
// comes just before a chord may belong to that or to the chord before.
func MarkNotes(k harmony.Key, spans []AllowedSpan, hits []Hit, latencyMS float64) []NoteMark {
	marks := make([]NoteMark, len(hits))
	for n, h := range hits {
		at := h.MS - latencyMS
		on := max(slices.IndexFunc(spans, func(s AllowedSpan) bool { return at < s.ToMS }), 0)
		if at >= spans[len(spans)-1].ToMS {
			on = len(spans) - 1
		}
		has := func(span int) bool {
			return slices.ContainsFunc(spans[span].Notes, func(t harmony.Tone) bool { return t.Note.Class() == h.Pitch.Class() })
		}
		m := NoteMark{Right: has(on), Span: on}
		if !m.Right && on+1 < len(spans) && spans[on].ToMS-at <= pushMS && has(on+1) {
			m.Right, m.Span = true, on+1
		}
		s := spans[m.Span]
		played := k.ToneOver(s.Chord, h.Pitch.Class())
		m.Text = fmt.Sprintf("%s, the %s of %s", signed(played.Note.String()), signed(played.Degree.String()), s.Chord.SignedSymbol())
		if !m.Right {
			m.Text += fmt.Sprintf("; asked for are %s", degrees(s.Notes))
		}
		marks[n] = m
	}
	return marks
}
