package solo

import (
	"fmt"
	"strings"

	"undaris/core/harmony"
	"undaris/core/phrase"
)

// Target is the tone that is aimed at where a chord arrives, and what is played there.
type Target struct {
	// Tick is the chorus's.
	Tick  int
	Chord harmony.Chord
	Aim   harmony.Tone
	// Index is the event of the line that lands on it, -1 for none; Landed says what that
	// is over the chord, Aimed that it is the tone aimed at.
	Index  int
	Landed harmony.Judgement
	Aimed  bool
	// When is early, on, late or none.
	When string
}

// Told is what is told of the notes of a line that is a chorus of an order.
type Told struct {
	Targets []Target
	// Why says of each event what it is there for, BlockOf in which block it stands.
	// Roles holds Landing for the note that answers a target, Leading for one that
	// approaches it, and is empty for all others.
	Roles   []Role
	Why     []string
	BlockOf []int
}

// Tell says of every note of a chorus why it is there, and what lands where. Its error is a
// *chart.FieldError for an order that cannot be meant.
func (o ChorusOrder) Tell(c Chorus) (Told, error) {
	g, err := o.lay()
	if err != nil {
		return Told{}, err
	}
	return g.tell(c, c.Heard(o.Chart)), nil
}

// Studied is everything that can be said of a chorus at a stage.
type Studied struct {
	Reviewed
	Told
	Complaints []Complaint
}

// Study says everything of a chorus at a stage: what is heard, what each note is there for,
// what could be better. Its error is a *chart.FieldError.
func (o ChorusOrder) Study(c Chorus, stage Stage) (Studied, error) {
	g, err := o.lay()
	if err != nil {
		return Studied{}, err
	}
	grown := g.grown(c, stage)
	r := Review(o.Instrument, grown.Heard(o.Chart), o.Chart)
	return Studied{Reviewed: r, Told: g.tell(grown, r.Line), Complaints: g.complaints(r)}, nil
}

// tell is Tell of a chorus and what is heard of it.
func (g *ground) tell(c Chorus, p phrase.Phrase) Told {
	o := g.ChorusOrder
	t := Told{Roles: make([]Role, len(p.Events)), Why: make([]string, len(p.Events)), BlockOf: make([]int, len(p.Events))}
	labels := p.Labels(o.Instrument, o.Chart.Key)
	for n, e := range p.Events {
		t.BlockOf[n] = c.blockOf(e)
		t.Why[n] = g.standing(c, t.BlockOf[n], e, labels[n])
	}
	for _, a := range g.arrivals {
		target := g.target(p, a)
		t.Targets = append(t.Targets, target)
		if target.Index < 0 {
			continue
		}
		goal := fmt.Sprintf("%s, the %s of %s", target.Landed.Note, target.Landed.Degree, a.Arriving.Chord.Symbol())
		said := "target: " + goal
		if !target.Aimed {
			said = fmt.Sprintf("landing: %s; aimed at was %s, the %s", goal, a.aim.Note, a.aim.Degree)
		}
		t.Why[target.Index], t.Roles[target.Index] = said, Landing
		if led := g.ledBy(p.Events[:target.Index], p.Events[target.Index], a); led != nil {
			for k := 1; k < len(led.Notes) && p.Events[target.Index-1].End() > target.Tick-o.Chart.Meter.BeatTicks(); k++ {
				// A note that is itself a target stays one.
				if n := target.Index - k; t.Roles[n] != Landing {
					t.Roles[n], t.Why[n] = Leading, fmt.Sprintf("approach: %s into %s", led.Spoken, goal)
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
func (g *ground) target(p phrase.Phrase, a arrival) Target {
	t := Target{Tick: a.tick, Chord: a.Arriving.Chord, Aim: a.aim, Index: -1, When: "none"}
	for n, e := range p.Events {
		away := e.Tick - a.tick
		if e.Grace || away < -eighth || away > g.Chart.Meter.BeatTicks() || (away < 0 && e.End() <= a.tick) {
			continue
		}
		t.Index, t.Landed = n, g.Chart.Key.Judge(a.Arriving.Chord, e.Sounding(g.Instrument).Class())
		t.Aimed = e.Sounding(g.Instrument).Class() == a.aim.Note.Class()
		switch {
		case away < 0:
			t.When = "early"
		case away > 0:
			t.When = "late"
		default:
			t.When = "on"
		}
		break
	}
	return t
}

// standing says what a note is there for that is no landing and leads into none.
func (g *ground) standing(c Chorus, block int, e phrase.Event, l phrase.Label) string {
	where := "of the chord"
	switch {
	case g.boxed[l.Note.Class()] && l.Class == harmony.Home:
		where = "of the box and of the chord"
	case g.boxed[l.Note.Class()]:
		where = "of the box"
	case l.Class != harmony.Home:
		where = "between chord tones"
	}
	switch {
	case block >= 0 && c.Blocks[block].Kind == LickBlock:
		return fmt.Sprintf("from the lick %q, %s", c.Blocks[block].Name, where)
	case 2*e.Ticks >= 3*g.Chart.Meter.BeatTicks():
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
func (o ChorusOrder) OverWritten(c Chorus, stage Stage) (Reviewed, bool) {
	for _, m := range o.Chart.Moments() {
		if !m.Imagined || m.Chord.Same(m.Written) {
			continue
		}
		grown, err := o.Grown(c, stage)
		if err != nil {
			return Reviewed{}, false
		}
		written := o.Chart.Written()
		return Review(o.Instrument, grown.Heard(written), written), true
	}
	return Reviewed{}, false
}
