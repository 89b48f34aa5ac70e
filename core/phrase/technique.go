package phrase

import (
	"fmt"

	"undaris/core/neck"
)

// Technique is how a note is played.
type Technique struct {
	// SlideFrom is the fret the note is slid from; 0 for no slide, since an
	// open string cannot be slid.
	SlideFrom int
	// SlideOut lets the note slide away at its end: 1 up, -1 down, 0 not.
	SlideOut int
	// HammerOn and PullOff sound the note from the one before on its string.
	HammerOn, PullOff bool
	// Bend is how far the string is bent, in quarter tones: 2 is a half step.
	Bend int
	// PreBend bends before the note is struck, Release lets the bend back.
	PreBend, Release                      bool
	Vibrato, Mute, Accent, Staccato, Tied bool
	// Trill is how many half steps above the note the one lies that it is trilled with, on the
	// same string; 0 for none.
	Trill int
	// Rake drags the pick over damped thicker strings on the way to the note; Ghost plays it so
	// softly that it is hinted at.
	Rake, Ghost bool
	// Grace is a note crushed into the one after it: GraceTicks long, it ends where
	// that one begins.
	Grace bool
}

// GraceTicks is how long a grace note sounds: a thirty-second (ours: short enough
// to be heard as part of the note it leads to, at any tempo).
const GraceTicks = 60

// MaxBend is the widest bend a hand is asked for, in quarter tones: three half
// steps.
const MaxBend = 6

// MaxTrill is the widest trill a hand is asked for, in half steps: a major third.
const MaxTrill = 4

// techniqueFault returns the field and the reason why the note's technique cannot be
// played, or nothing. The note before on its string is events[last], if any.
func (e Event) techniqueFault(i neck.Instrument, events []Event, last int, heard bool) (field, detail string) {
	switch {
	case e.Bend < 0 || e.Bend > MaxBend:
		return "bend", fmt.Sprintf("a bend is 0 to %g semitones", float64(MaxBend)/2)
	case e.Bend > 0 && e.Fret == 0:
		return "bend", "an open string cannot be bent"
	case e.Vibrato && e.Fret == 0:
		return "vibrato", "an open string cannot be shaken"
	case (e.PreBend || e.Release) && e.Bend == 0:
		return "bend", "a pre-bend or a release needs a bend"
	case e.SlideFrom != 0 && (e.SlideFrom < 1 || e.SlideFrom > i.Frets || e.SlideFrom == e.Fret || e.Fret == 0):
		return "slideFrom", "a slide goes from one fret to another, and not over an open string"
	case e.Trill < 0 || e.Trill > MaxTrill:
		return "trill", fmt.Sprintf("a trill is 1 to %d half steps", MaxTrill)
	case e.Trill > 0 && e.Fret+e.Trill > i.Frets:
		return "trill", fmt.Sprintf("fret %d is not on the neck, so it cannot be trilled with", e.Fret+e.Trill)
	case e.Trill > 0 && (e.Bend > 0 || e.Mute):
		return "trill", "a note that is bent or muted is not trilled"
	case e.Rake && e.String == len(i.Open):
		return "rake", "a rake begins on a thicker string, and this is the thickest"
	case e.Ghost && e.Accent:
		return "ghost", "a note is accented or a ghost note, not both"
	case e.SlideOut < -1 || e.SlideOut > 1 || (e.SlideOut != 0 && e.Fret == 0):
		return "slideOut", "a slide out goes up or down, and not from an open string"
	case (e.HammerOn || e.PullOff) && !heard:
		return "string", "a hammer-on or pull-off needs a note before it on its string"
	case e.HammerOn && events[last].Fret >= e.Fret:
		return "hammerOn", "a hammer-on goes up from the note before on its string"
	case e.PullOff && events[last].Fret <= e.Fret:
		return "pullOff", "a pull-off goes down from the note before on its string"
	case e.HammerOn && e.PullOff:
		return "pullOff", "a note is hammered on or pulled off, not both"
	case e.Tied && (!heard || events[last].Place != e.Place || events[last].End() != e.Tick):
		return "tied", "a tie needs the same note right before it"
	}
	return "", ""
}

// Names lists the techniques of a note in words.
func (t Technique) Names() []string {
	names := []string{}
	for _, technique := range []struct {
		used bool
		name string
	}{
		{t.SlideFrom > 0, fmt.Sprintf("slid from fret %d", t.SlideFrom)},
		{t.SlideOut > 0, "slid away upwards"}, {t.SlideOut < 0, "slid away downwards"}, {t.Grace, "grace note"},
		{t.HammerOn, "hammered on"}, {t.PullOff, "pulled off"},
		{t.Bend > 0 && !t.PreBend, "bent " + BendNames[min(t.Bend, MaxBend)]},
		{t.PreBend, "bent beforehand " + BendNames[min(t.Bend, MaxBend)]},
		{t.Release, "released"}, {t.Vibrato, "with vibrato"}, {t.Mute, "muted"}, {t.Accent, "accented"},
		{t.Staccato, "short"}, {t.Tied, "tied"},
		{t.Trill > 0, "trilled " + TrillNames[min(t.Trill, MaxTrill)]}, {t.Rake, "raked into"}, {t.Ghost, "a ghost note"},
	} {
		if technique.used {
			names = append(names, technique.name)
		}
	}
	return names
}

// TrillNames says a trill by its half steps.
var TrillNames = [MaxTrill + 1]string{"", "with the half step above", "with the whole step above", "with the minor third above", "with the third above"}

// BendMarks writes a bend, by its quarter tones, as tab has it: in whole steps (common
// practice).
var BendMarks = [MaxBend + 1]string{"", "¼", "½", "¾", "full", "1¼", "1½"}

// BendNames says a bend by its quarter tones.
var BendNames = [MaxBend + 1]string{"", "a quarter tone", "a half step", "three quarter tones", "a whole step", "five quarter tones", "three half steps"}

// NeedsFret says whether the technique rules out the open string.
func (t Technique) NeedsFret() bool {
	return t.Bend > 0 || t.SlideFrom > 0 || t.SlideOut != 0 || t.Vibrato
}

// onOpenString names the technique that keeps the note off the open string.
func (t Technique) FretTechnique() string {
	switch {
	case t.Bend > 0:
		return "bend"
	case t.SlideFrom > 0 || t.SlideOut != 0:
		return "slide"
	}
	return "vibrato"
}

// slur names the technique that joins the note to the one before.
func (t Technique) SlurName() string {
	switch {
	case t.HammerOn:
		return "hammer-on"
	case t.PullOff:
		return "pull-off"
	case t.Tied:
		return "tie"
	}
	return "slide"
}

// Techniques lists how a note can be asked to be played, by the names that an edit of
// a phrase and a search for licks use.
var Techniques = []string{"slide", "slide out", "hammer-on", "pull-off", "bend", "pre-bend", "release", "vibrato", "mute", "accent", "staccato", "tie", "grace", "trill", "rake", "ghost"}

// Uses says whether the technique of that name is used.
func (t Technique) Uses(name string) bool {
	switch name {
	case "slide":
		return t.SlideFrom > 0
	case "slide out":
		return t.SlideOut != 0
	case "hammer-on":
		return t.HammerOn
	case "pull-off":
		return t.PullOff
	case "bend":
		return t.Bend > 0
	case "pre-bend":
		return t.PreBend
	case "release":
		return t.Release
	case "vibrato":
		return t.Vibrato
	case "mute":
		return t.Mute
	case "accent":
		return t.Accent
	case "staccato":
		return t.Staccato
	case "tie":
		return t.Tied
	case "grace":
		return t.Grace
	case "trill":
		return t.Trill > 0
	case "rake":
		return t.Rake
	case "ghost":
		return t.Ghost
	}
	return false
}
