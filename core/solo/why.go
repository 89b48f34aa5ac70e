package solo

import (
	"fmt"
	"strings"

	"undaris/core/harmony"
	"undaris/core/phrase"
)

// TargetReport is the tone that is aimed at where a chord arrives, and what is played there.
type TargetReport struct {
	// Tick is the chorus's.
	Tick  int
	Chord harmony.Chord
	Aim   harmony.Tone
	// Index is the event of the line that lands on it, -1 for none; Landed says what that
	// is over the chord, Aimed that it is the tone aimed at.
	Index     int
	Judgement harmony.Judgement
	Aimed     bool
	// When is early, on, late or none.
	Timing string
}

// Explanation is what is told of the notes of a line that is a chorus of an order.
type Explanation struct {
	Targets []TargetReport
	// Why says of each event what it is there for, BlockOf in which block it stands.
	// Roles holds Landing for the note that answers a target, Leading for one that
	// approaches it, and is empty for all others.
	Roles   []Role
	Why     []string
	BlockOf []int
}

// Tell says of every note of a chorus why it is there, and what lands where. Its error is a
// *chart.FieldError for an order that cannot be meant.
func (o ChorusRequest) Explain(c Chorus) (Explanation, error) {
	pc, err := o.newContext()
	if err != nil {
		return Explanation{}, err
	}
	return pc.explain(c, c.Phrase(o.Chart)), nil
}

// Analysis is everything that can be said of a chorus at a stage.
type Analysis struct {
	Review
	Explanation
	Complaints []Issue
}

// Study says everything of a chorus at a stage: what is heard, what each note is there for,
// what could be better. Its error is a *chart.FieldError.
func (o ChorusRequest) Analyse(c Chorus, stage Stage) (Analysis, error) {
	pc, err := o.newContext()
	if err != nil {
		return Analysis{}, err
	}
	grown := pc.grown(c, stage)
	r := ReviewLine(o.Instrument, grown.Phrase(o.Chart), o.Chart)
	return Analysis{Review: r, Explanation: pc.explain(grown, r.Line), Complaints: pc.issues(r)}, nil
}

// tell is Tell of a chorus and what is heard of it.
func (pc *PlanContext) explain(c Chorus, p phrase.Phrase) Explanation {
	o := pc.ChorusRequest
	t := Explanation{Roles: make([]Role, len(p.Events)), Why: make([]string, len(p.Events)), BlockOf: make([]int, len(p.Events))}
	labels := p.Labels(o.Instrument, o.Chart.Key)
	for n, e := range p.Events {
		t.BlockOf[n] = c.blockOf(e)
		t.Why[n] = pc.noteReason(c, t.BlockOf[n], e, labels[n])
	}
	for _, a := range pc.Targets {
		target := pc.target(p, a)
		t.Targets = append(t.Targets, target)
		if target.Index < 0 {
			continue
		}
		goal := fmt.Sprintf("%s, the %s of %s", target.Judgement.Note, target.Judgement.Degree, a.Arriving.Chord.Symbol())
		said := "target: " + goal
		if !target.Aimed {
			said = fmt.Sprintf("landing: %s; aimed at was %s, the %s", goal, a.aim.Note, a.aim.Degree)
		}
		t.Why[target.Index], t.Roles[target.Index] = said, RoleTarget
		if led := pc.approachUsed(p.Events[:target.Index], p.Events[target.Index], a); led != nil {
			for k := 1; k < len(led.Notes) && p.Events[target.Index-1].End() > target.Tick-o.Chart.Meter.BeatTicks(); k++ {
				// A note that is itself a target stays one.
				if n := target.Index - k; t.Roles[n] != RoleTarget {
					t.Roles[n], t.Why[n] = RoleApproach, fmt.Sprintf("approach: %s into %s", led.Description, goal)
				}
			}
		}
	}
	for n := range t.Why {
		t.Why[n] = strings.ToUpper(t.Why[n][:1]) + t.Why[n][1:] + ". " + labels[n].Reason
	}
	return t
}

// target is what is played at an arrival.
func (pc *PlanContext) target(p phrase.Phrase, a PlannedTarget) TargetReport {
	t := TargetReport{Tick: a.tick, Chord: a.Arriving.Chord, Aim: a.aim, Index: -1, Timing: "none"}
	for n, e := range p.Events {
		away := e.Tick - a.tick
		if e.Grace || away < -eighth || away > pc.Chart.Meter.BeatTicks() || (away < 0 && e.End() <= a.tick) {
			continue
		}
		t.Index, t.Judgement = n, pc.Chart.Key.Judge(a.Arriving.Chord, e.Sounding(pc.Instrument).Class())
		t.Aimed = e.Sounding(pc.Instrument).Class() == a.aim.Note.Class()
		switch {
		case away < 0:
			t.Timing = "early"
		case away > 0:
			t.Timing = "late"
		default:
			t.Timing = "on"
		}
		break
	}
	return t
}

// standing says what a note is there for that is no landing and leads into none.
func (pc *PlanContext) noteReason(c Chorus, block int, e phrase.Event, l phrase.Label) string {
	where := "of the chord"
	switch {
	case pc.InBox[l.Note.Class()] && l.Class == harmony.ChordTone:
		where = "of the box and of the chord"
	case pc.InBox[l.Note.Class()]:
		where = "of the box"
	case l.Class != harmony.ChordTone:
		where = "between chord tones"
	}
	switch {
	case block >= 0 && c.Blocks[block].Kind == LickBlock:
		return fmt.Sprintf("from the lick %q, %s", c.Blocks[block].Name, where)
	case 2*e.Ticks >= 3*pc.Chart.Meter.BeatTicks():
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

// OverWritten is the review of the same line over what the band plays, where the chart
// imagines other chords than it writes.
func (o ChorusRequest) OverWrittenChords(c Chorus, stage Stage) (Review, bool) {
	for _, m := range o.Chart.ChordSpans() {
		if !m.Imagined || m.Chord.Same(m.Written) {
			continue
		}
		grown, err := o.Grown(c, stage)
		if err != nil {
			return Review{}, false
		}
		written := o.Chart.WithoutImagined()
		return ReviewLine(o.Instrument, grown.Phrase(written), written), true
	}
	return Review{}, false
}
