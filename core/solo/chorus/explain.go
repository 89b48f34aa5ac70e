package chorus

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/analysis"
	"undaris/core/harmony"
	"undaris/core/phrase"
	"undaris/core/solo/line"
)

// TargetReport is the tone that is aimed at where a chord arrives, and the landing that is
// played there.
type TargetReport struct {
	// Landing is on the chorus's ticks.
	analysis.Landing
	// Aim is the tone aimed at; OnAim says that the landing is of its class.
	Aim   harmony.Tone
	OnAim bool
	// Silent says that nothing sounds as the chord arrives, nor up to a beat after: the change
	// is left to the band.
	Silent bool
}

// Explanation is why every note of a chorus is there, and what lands where.
type Explanation struct {
	Targets []TargetReport
	// Why says of each event what it is there for, BlockOf in which block it stands.
	// Roles holds Landing for the note that answers a target, Leading for one that
	// approaches it, and is empty for all others.
	Roles   []line.Role
	Why     []string
	BlockOf []int
}

// Explain says of every note of a chorus why it is there, and what lands where. Its error is a
// *chart.FieldError for an order that cannot be meant.
func (o Request) Explain(c Chorus) (Explanation, error) {
	pc, err := o.NewContext()
	if err != nil {
		return Explanation{}, err
	}
	return pc.explain(c, c.Phrase(o.Chart)), nil
}

// Analysis is everything that can be said of a chorus at a stage.
type Analysis struct {
	analysis.Review
	Explanation
	Issues []Issue
}

// Analyse says everything of a chorus at a stage: what is heard, what each note is there for,
// what could be better. Its error is a *chart.FieldError.
func (o Request) Analyse(c Chorus, stage Stage) (Analysis, error) {
	pc, err := o.NewContext()
	if err != nil {
		return Analysis{}, err
	}
	grown := pc.grown(c, stage)
	r := analysis.ReviewLine(o.Instrument, grown.Phrase(o.Chart), o.Chart)
	return Analysis{Review: r, Explanation: pc.explain(grown, r.Line), Issues: pc.issues(r)}, nil
}

// explain is Tell of a chorus and what is heard of it.
func (pc *Context) explain(c Chorus, p phrase.Phrase) Explanation {
	o := pc.Request
	t := Explanation{Roles: make([]line.Role, len(p.Events)), Why: make([]string, len(p.Events)), BlockOf: make([]int, len(p.Events))}
	labels := p.Labels(o.Instrument, o.Chart.Key)
	for n, e := range p.Events {
		t.BlockOf[n] = c.blockOf(e)
		t.Why[n] = pc.noteReason(c, t.BlockOf[n], e, labels[n])
	}
	for _, a := range pc.Targets {
		target := pc.Landing(p, a)
		t.Targets = append(t.Targets, target)
		if target.Index < 0 {
			continue
		}
		goal := fmt.Sprintf("%s, the %s of %s", target.Note, target.Degree, a.Arriving.Chord.Symbol())
		remarks := "target: " + goal
		if !target.OnAim {
			remarks = fmt.Sprintf("landing: %s; aimed at was %s, the %s", goal, a.Aim.Note, a.Aim.Degree)
		}
		t.Why[target.Index], t.Roles[target.Index] = remarks, line.RoleTarget
		if led := pc.ApproachUsed(p.Events[:target.Index], p.Events[target.Index], a); led != nil {
			for k := 1; k < len(led.Notes) && p.Events[target.Index-1].End() > target.Tick-pc.Time.BeatTicksAt(target.Tick); k++ {
				// A note that is itself a target stays one.
				if n := target.Index - k; t.Roles[n] != line.RoleTarget {
					t.Roles[n], t.Why[n] = line.RoleApproach, fmt.Sprintf("approach: %s into %s", led.Description, goal)
				}
			}
		}
	}
	for n := range t.Why {
		reason := labels[n].Why()
		if t.Roles[n] == line.RoleApproach { // it says already where it leads
			reason = labels[n].Reason
		}
		t.Why[n] = strings.ToUpper(t.Why[n][:1]) + t.Why[n][1:] + ". " + reason
	}
	return t
}

// Landing is the landing at a planned target.
func (pc *Context) Landing(p phrase.Phrase, a PlannedTarget) TargetReport {
	t := TargetReport{Landing: analysis.LandingAt(p, pc.Instrument, pc.Chart.Key, a.Tick, a.Arriving.Chord), Aim: a.Aim}
	t.OnAim = t.Index >= 0 && t.Note.Class() == a.Aim.Note.Class()
	t.Silent = t.Index < 0 && !slices.ContainsFunc(p.Events, func(e phrase.Event) bool { return e.Tick <= a.Tick && e.End() > a.Tick })
	return t
}

// noteReason says what a note is there for that is no landing and leads into none.
func (pc *Context) noteReason(c Chorus, block int, e phrase.Event, l phrase.Label) string {
	where, inBox := "of the chord", pc.Chords[pc.classesOver(l.Chord)].InBox[l.Note.Class()]
	switch {
	case inBox && l.Class == harmony.ChordTone:
		where = "of the box and of the chord"
	case inBox:
		where = "of the box"
	case l.Class != harmony.ChordTone:
		where = "between chord tones"
	}
	switch {
	case block >= 0 && c.Blocks[block].Kind == LickBlock:
		return fmt.Sprintf("from the lick %q, %s", c.Blocks[block].Name, where)
	case analysis.IsHeld(e, pc.Time.MeterAt(pc.Time.BarAt(e.Tick))):
		return "held, so that the phrase can breathe: " + where
	case block >= 0 && c.Blocks[block].Name != "":
		return fmt.Sprintf("%s: %s", c.Blocks[block].Name, where)
	}
	return where
}

// blockOf is the block that a note of the line stands in, -1 for none.
func (c Chorus) blockOf(e phrase.Event) int {
	for n, b := range c.Blocks {
		if !b.Muted && e.Tick >= b.Start && e.Tick < b.End() {
			return n
		}
	}
	return -1
}

// OverWrittenChords is the review of the same line over what the band plays, where the chart
// imagines other chords than it writes.
func (o Request) OverWrittenChords(c Chorus, stage Stage) (analysis.Review, bool) {
	for _, m := range o.Chart.ChordSpans() {
		if !m.Imagined || m.Chord.Same(m.Written) {
			continue
		}
		grown, err := o.Grown(c, stage)
		if err != nil {
			return analysis.Review{}, false
		}
		written := o.Chart.WithoutImagined()
		return analysis.ReviewLine(o.Instrument, grown.Phrase(written), written), true
	}
	return analysis.Review{}, false
}
