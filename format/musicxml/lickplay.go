package musicxml

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"undaris/core/phrase"
)

// goOn lengthens the note that a tied one goes on from.
func (r *lickReader) goOn(one phrase.PitchedNote) bool {
	for k := len(r.notes) - 1; k >= 0; k-- {
		before := &r.notes[k]
		if before.Tick+before.Ticks == one.Tick && before.Pitch == one.Pitch && (one.At == nil) == (before.At == nil) && (one.At == nil || *one.At == *before.At) && !before.Grace {
			before.Ticks += one.Ticks
			return true
		}
	}
	return false
}

// grace puts the grace notes that wait in a voice before the note they lead to; the time
// they take is that of the note before, where the file says so.
func (r *lickReader) grace(n *note, index int) {
	voice := n.Voice
	one := &r.notes[index]
	if n.Grace != nil {
		if len(r.graces[voice]) < 8 {
			r.graces[voice] = append(r.graces[voice], index)
		} else {
			one.Grace = false
		}
		if n.Grace.Steals > 0 {
			for _, k := range r.last[voice] {
				r.notes[k].Ticks -= phrase.GraceTicks
			}
		}
		return
	}
	waiting := r.graces[voice]
	for k, g := range waiting {
		r.notes[g].Tick = one.Tick - (len(waiting)-k)*phrase.GraceTicks
	}
	delete(r.graces, voice)
	if n.Chord == nil {
		r.last[voice] = nil
	}
	r.last[voice] = append(r.last[voice], index)
}

// technique reads how a note is played. It says whether the note is a tied one of its
// own, which is not to be joined with the one before.
func (r *lickReader) technique(n *note, one *phrase.PitchedNote) (tied bool) {
	if n.Head != nil {
		one.Mute, one.Ghost = strings.TrimSpace(n.Head.Text) == "x", n.Head.Parentheses == "yes"
	}
	if n.Notations == nil {
		return false
	}
	if o := n.Notations.Ornaments; o != nil {
		one.Vibrato = slices.ContainsFunc(o.Wavy, func(t typed) bool { return t.Type != "stop" })
		if o.Trill != nil {
			one.Trill = usualTrill
		}
	}
	if a := n.Notations.Articulation; a != nil {
		one.Accent, one.Staccato = a.Accent != nil, a.Staccato != nil
		switch {
		case a.Doit != nil:
			one.SlideOut = 1
		case a.Falloff != nil:
			one.SlideOut = -1
		}
	}
	stops := func(all []typed) bool {
		return slices.ContainsFunc(all, func(t typed) bool { return t.Type == "stop" })
	}
	if stops(n.Notations.Slides) || stops(n.Notations.Glissandi) {
		one.SlideFrom = r.slidFrom(one)
	}
	for _, o := range n.Notations.Other {
		tied = tied || strings.TrimSpace(o.Text) == otherTied
	}
	one.Tied = tied
	if t := n.Notations.Technical; t != nil {
		one.HammerOn, one.PullOff = stops(t.HammerOn), stops(t.PullOff)
		for _, b := range t.Bends {
			quarters := math.Round(b.Alter * 2)
			if b.Release == nil && quarters > 0 {
				one.Bend = int(math.Min(quarters, phrase.MaxBend))
				if quarters > phrase.MaxBend || quarters != b.Alter*2 {
					r.Remark(0, "", "a bend of %g semitones is read as %g", b.Alter, float64(one.Bend)/2)
				}
			}
			one.PreBend, one.Release = one.PreBend || b.PreBend != nil, one.Release || b.Release != nil
		}
		if one.Bend == 0 {
			one.PreBend, one.Release = false, false
		}
		for _, o := range t.Other {
			if by, ok := strings.CutPrefix(strings.TrimSpace(o.Text), otherTrill); ok {
				if steps, err := strconv.Atoi(by); err == nil && steps >= 1 && steps <= phrase.MaxTrill {
					one.Trill = steps
				}
			}
			one.Rake = one.Rake || strings.TrimSpace(o.Text) == otherRake
			if from, ok := strings.CutPrefix(strings.TrimSpace(o.Text), otherSlide); ok {
				fret, err := strconv.Atoi(from)
				if err == nil && fret >= 1 && fret <= r.on.Frets {
					one.SlideFrom = fret
				}
			}
		}
	}
	return tied
}

// slidFrom is the fret a slide comes from: that of the note before on its string, or two
// below.
func (r *lickReader) slidFrom(one *phrase.PitchedNote) int {
	if one.At == nil || one.At.Fret < 2 {
		return 0
	}
	for k := len(r.notes) - 1; k >= 0; k-- {
		if before := r.notes[k]; before.At != nil && before.At.String == one.At.String {
			if before.At.Fret > 0 && before.At.Fret != one.At.Fret {
				return before.At.Fret
			}
			break
		}
	}
	return max(one.At.Fret-2, 1)
}
