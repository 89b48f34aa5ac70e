package phrase

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/chart"
	"undaris/core/neck"
)

// slideFar is how many frets away a slide begins that comes from no note: two, since
// less is a grace and more is a shift (ours).
const slideFar = 2

// setTechnique sets one technique of the selection's notes. Value 0 takes it away; for a bend
// it is the quarter tones, for a slide 1 from below and -1 from above, out of a note 1
// up and -1 down; for a trill 1 with the whole step above and -1 with the half step; for any other 1.
func (p *Phrase) setTechnique(i neck.Instrument, e Edit) error {
	if !slices.Contains(Techniques, e.Technique) {
		return &chart.FieldError{Field: "technique", Detail: fmt.Sprintf("%q is not a technique; there are %s", e.Technique, strings.Join(Techniques, ", "))}
	}
	if e.Technique == "grace" && e.Value != 0 {
		return p.grace(e)
	}
	on := e.Value != 0
	return p.forEach(e, func(note *Event) error {
		switch e.Technique {
		case "slide":
			return p.slideInto(i, note, e.Value)
		case "slide out":
			note.SlideOut = max(min(e.Value, 1), -1)
		case "hammer-on":
			note.HammerOn = on
			if on {
				note.PullOff, note.Tied, note.SlideFrom = false, false, 0
			}
		case "pull-off":
			note.PullOff = on
			if on {
				note.HammerOn, note.Tied, note.SlideFrom = false, false, 0
			}
		case "bend":
			note.Bend = e.Value
			if !on {
				note.PreBend, note.Release = false, false
			} else if most := neck.MostBend(note.Place); e.Value < 0 || e.Value > most {
				return bendTooFar(note.Place, most)
			}
		case "pre-bend":
			note.PreBend = on
		case "release":
			note.Release = on
		case "vibrato":
			note.Vibrato = on
		case "mute":
			note.Mute = on
		case "accent":
			note.Accent = on
			if on {
				note.Ghost = false
			}
		case "staccato":
			note.Staccato = on
		case "tie":
			note.Tied = on
			if on {
				note.HammerOn, note.PullOff, note.SlideFrom = false, false, 0
			}
		case "trill":
			note.Trill = 0
			switch {
			case e.Value > 0:
				note.Trill = 2
			case on:
				note.Trill = 1
			}
		case "rake":
			note.Rake = on
		case "ghost":
			note.Ghost = on
			if on {
				note.Accent = false
			}
		case "grace":
			note.Grace = false
		}
		return note.checkTechnique(i, p, e.Technique, on)
	})
}

func bendTooFar(at neck.Place, most int) error {
	if most == 0 {
		return fmt.Errorf("an open string cannot be bent")
	}
	return fmt.Errorf("string %d is bent %s at most", at.String, BendNames[most])
}

// checkTechnique says why the technique that was just asked for cannot be played, so that it is
// refused rather than mended away.
func (e *Event) checkTechnique(i neck.Instrument, p *Phrase, technique string, on bool) error {
	if !on {
		return nil
	}
	last := -1
	for n := range p.Events {
		if before := p.Events[n]; before.String == e.String && before.Tick < e.Tick {
			last = n
		}
	}
	field, detail := e.techniqueFault(i, p.Events, last, last >= 0)
	if field == "" {
		return nil
	}
	return fmt.Errorf("%s", detail)
}

// slideInto slides a note from the one before on its string, or from two frets below
// or above it.
func (p *Phrase) slideInto(i neck.Instrument, note *Event, way int) error {
	note.SlideFrom = 0
	if way == 0 {
		return nil
	}
	if note.Fret == 0 {
		return fmt.Errorf("an open string cannot be slid to")
	}
	from := note.Fret - slideFar
	if way < 0 || from < 1 {
		from = note.Fret + slideFar
	}
	for _, before := range p.Events {
		if before.String != note.String || before.End() != note.Tick || before.Fret == 0 {
			continue
		}
		if (way > 0 && before.Fret < note.Fret) || (way < 0 && before.Fret > note.Fret) {
			from = before.Fret
		}
	}
	if from > i.Frets {
		return fmt.Errorf("there is no fret to slide from")
	}
	note.SlideFrom = from
	note.HammerOn, note.PullOff, note.Tied = false, false, false
	return nil
}

// grace crushes the selection's notes into the one that follows: they go to stand
// against it, and what sounded there makes room.
func (p *Phrase) grace(e Edit) error {
	chosen := []int{}
	for n, note := range p.Events {
		if e.selects(note) {
			chosen = append(chosen, n)
		}
	}
	if len(chosen) == 0 {
		return &chart.FieldError{Field: "from", Detail: "there is no note there to be changed"}
	}
	last := chosen[len(chosen)-1]
	if last+1 == len(p.Events) {
		return &EventError{Index: last, Field: "grace", Detail: "a grace note needs a note after it"}
	}
	end := p.Events[last+1].Tick
	for n := len(chosen) - 1; n >= 0; n-- {
		note := &p.Events[chosen[n]]
		end -= GraceTicks
		note.Tick, note.Ticks, note.Grace = end, GraceTicks, true
	}
	for n := range p.Events {
		if note := &p.Events[n]; !note.Grace && note.Tick < end && note.End() > end && n < chosen[0] {
			note.Ticks = end - note.Tick
		}
	}
	return nil
}
