package judge

import (
	"fmt"
	"math"

	"undaris/core/analysis"
	"undaris/core/harmony"
)

// Finding is one thing that is said of a take.
type Finding struct {
	Name string
	Good bool
	Text string
	// Notes are those it comes from, by their index in what was heard.
	Notes []int
	// cost is what it costs a listener (ours), on the scale of package analysis: a landing that is missed 85.
	cost float64
}

// What is said of how a take was played, beside the findings of package analysis.
const (
	FindingSteady  = "steady"
	FindingUneven  = "uneven time"
	FindingRushing = "rushing"
	FindingDrags   = "dragging"
	FindingAhead   = "ahead of the band"
	FindingBehind  = "behind the band"
	FindingSwing   = "swing"
	FindingFlat    = "flat bends"
	FindingSharp   = "sharp bends"
	FindingBends   = "bends"
	FindingTuning  = "tuning"
	FindingHeld    = "held pitch"
	FindingVibrato = "vibrato"
	FindingPlan    = "the plan"
	FindingLeftOut = "left out"
	FindingLanded  = "landings"
	FindingNothing = "nothing heard"
)

// FindingNames lists what may be found, that of package analysis too.
var FindingNames = append([]string{
	FindingSteady, FindingUneven, FindingRushing, FindingDrags, FindingAhead, FindingBehind, FindingSwing, FindingFlat, FindingSharp, FindingBends, FindingTuning,
	FindingHeld, FindingVibrato, FindingPlan, FindingLeftOut, FindingNothing, analysis.FindingArpeggios, analysis.FindingScales, analysis.FindingNoodling, analysis.FindingLandings,
	analysis.FindingRests, analysis.FindingStrong, analysis.FindingPassing, analysis.FindingHeard,
}, analysis.FindingNames...)

func ms(seconds float64) int { return int(math.Round(1000 * math.Abs(seconds))) }

// reviewFindings are those that the notes alone give, with the notes by their index in what was heard.
func (v Verdict) reviewFindings() []Finding {
	found := []Finding{}
	if len(v.Written.Phrase.Events) == 0 {
		return []Finding{{Name: FindingNothing, Text: "no note was heard: is the right input chosen, and the guitar turned up?", cost: 200}}
	}
	heard := map[int]int{}
	for _, p := range v.Written.Places {
		heard[p.Event] = p.Note
	}
	for n, f := range v.Review.First {
		one := Finding{Name: f.Name, Text: f.Text, cost: 90 - 12*float64(n)}
		for _, e := range f.Notes {
			one.Notes = append(one.Notes, heard[e])
		}
		found = append(found, one)
	}
	notes := []int{}
	for _, l := range v.Review.Verdict.Landings {
		if l.Index >= 0 && l.Class == harmony.ChordTone {
			notes = append(notes, heard[l.Index])
		}
	}
	landed, of := v.Landed()
	if of >= 2 && 4*landed >= 3*of {
		found = append(found, Finding{Name: FindingLanded, Good: true, Text: fmt.Sprintf("%d of %d changes are landed on a tone of the chord that arrives", landed, of), Notes: notes, cost: 80})
	}
	recognized := 0
	for _, d := range v.Review.Implied {
		if d.Recognition == analysis.Recognized {
			recognized++
		}
	}
	if n := len(v.Review.Implied); n >= 3 && 2*recognized > n {
		found = append(found, Finding{Name: analysis.FindingHeard, Good: true, Text: fmt.Sprintf("without the band, %d of %d chords would still be heard", recognized, n), cost: 70})
	}
	return found
}

// Landed is how many of the changes that something was played on were landed on a chord tone.
func (v Verdict) Landed() (landed, of int) {
	for _, l := range v.Review.Verdict.Landings {
		if l.Index < 0 {
			continue
		}
		of++
		if l.Class == harmony.ChordTone {
			landed++
		}
	}
	return landed, of
}

func (v Verdict) timingFindings(o Order) []Finding {
	found, t := []Finding{}, v.Timing
	if len(v.Written.Places) < 6 {
		return nil
	}
	say := func(name string, good bool, cost float64, notes []int, format string, args ...any) {
		found = append(found, Finding{Name: name, Good: good, Text: fmt.Sprintf(format, args...), Notes: notes, cost: cost})
	}
	steady := t.Spread <= SteadySpread
	switch {
	case t.Drift <= -DriftSeconds:
		say(FindingRushing, false, 75, nil, "it rushes: each bar comes about %d ms earlier than the one before; count the long notes out", ms(t.Drift))
	case t.Drift >= DriftSeconds:
		say(FindingDrags, false, 75, nil, "it drags: each bar comes about %d ms later than the one before; keep the foot going through the rests", ms(t.Drift))
	case steady:
		say(FindingSteady, true, 60, nil, "steady: half of the notes lie within %d ms of where they belong%s", ms(t.Spread), leans(t.Lean))
	}
	if !steady {
		say(FindingUneven, false, 40+float64(min(40, ms(t.Spread))), t.Stray, "the time is uneven: notes lie about %d ms beside the grid; play these bars with the click alone", ms(t.Spread))
	}
	if c := o.Chart; t.SwingPlayed > 0 && c.Feel == "shuffle" {
		switch {
		case t.SwingPlayed < c.Swing*0.72:
			say(FindingSwing, false, 45, nil, "the eighths are nearly even, %.1f to 1; the band swings %.1f to 1", t.SwingPlayed, c.Swing)
		case t.SwingPlayed > c.Swing*1.4:
			say(FindingSwing, false, 35, nil, "the eighths swing harder than the band, %.1f to 1 against %.1f to 1", t.SwingPlayed, c.Swing)
		default:
			say(FindingSwing, true, 50, nil, "the eighths swing with the band, %.1f to 1", t.SwingPlayed)
		}
	}
	return found
}

// SureConfidence is how sure the ear is of a note that is shown without a doubt.
const SureConfidence = 0.6

// LateText says how late something is.
func LateText(seconds float64) string {
	switch n := ms(seconds); {
	case n < 3:
		return "in time"
	case seconds > 0:
		return fmt.Sprintf("%d ms late", n)
	default:
		return fmt.Sprintf("%d ms early", n)
	}
}

// Text says what a bend goes for and how it arrives.
func (b BendHeard) Text() string {
	steps := map[int]string{1: "a half step", 2: "a whole step", 3: "a step and a half"}[b.Target]
	if steps == "" {
		steps = fmt.Sprintf("%d half steps", b.Target)
	}
	switch cents := int(math.Round(math.Abs(b.Cents))); {
	case cents < 3:
		return steps + ", in tune"
	case b.Cents < 0:
		return fmt.Sprintf("%s, %d cents flat", steps, cents)
	default:
		return fmt.Sprintf("%s, %d cents sharp", steps, cents)
	}
}

// leans says where a steady take lies beside the band, which is a style.
func leans(lean float64) string {
	switch {
	case lean >= LeanSeconds:
		return fmt.Sprintf(", laid back by %d ms", ms(lean))
	case lean <= -LeanSeconds:
		return fmt.Sprintf(", ahead by %d ms", ms(lean))
	}
	return ""
}

func (v Verdict) intonationFindings(o Order) []Finding {
	found, in := []Finding{}, v.Intonation
	flat, sharp, clean := []int{}, []int{}, []int{}
	mostFlat, mostSharp := 0.0, 0.0
	for _, b := range in.Bends {
		switch b.Judgement {
		case BendFlat:
			flat = append(flat, b.Note)
			mostFlat = math.Min(mostFlat, b.Cents)
		case BendSharp:
			sharp = append(sharp, b.Note)
			mostSharp = math.Max(mostSharp, b.Cents)
		default:
			clean = append(clean, b.Note)
		}
	}
	bends := len(in.Bends)
	if len(flat) > 0 && 3*len(flat) >= bends {
		found = append(found, Finding{Name: FindingFlat, Notes: flat, cost: 30 + math.Min(35, -mostFlat), Text: fmt.Sprintf(
			"%s too low, by up to %d cents; hear the note first, then bend to it", share(len(flat), bends, "bend stops", "bends stop"), int(math.Round(-mostFlat)))})
	}
	if len(sharp) > 0 && 3*len(sharp) >= bends {
		found = append(found, Finding{Name: FindingSharp, Notes: sharp, cost: 40 + math.Min(40, mostSharp), Text: fmt.Sprintf(
			"%s past the note, by up to %d cents; a little flat is easier on the ear than sharp", share(len(sharp), bends, "bend goes", "bends go"), int(math.Round(mostSharp)))})
	}
	if bends > 0 && 3*len(clean) >= 2*bends {
		found = append(found, Finding{Name: FindingBends, Good: true, Notes: clean, cost: 55, Text: fmt.Sprintf("%s in tune", share(len(clean), bends, "bend arrives", "bends arrive"))})
	}
	if math.Abs(in.Tuning) > HeldCents && len(o.Notes) >= 5 {
		found = append(found, Finding{Name: FindingTuning, cost: 60, Text: fmt.Sprintf("the guitar is %d cents %s of A 440: tune it before the next take", int(math.Round(math.Abs(in.Tuning))), sharpOrFlat(in.Tuning))})
	}
	if len(in.Held) > 0 {
		notes := []int{}
		for _, h := range in.Held {
			notes = append(notes, h.Note)
		}
		found = append(found, Finding{Name: FindingHeld, Notes: notes, cost: 30, Text: fmt.Sprintf("%s off pitch, by up to %d cents", share(len(notes), len(o.Notes), "note is held", "notes are held"), int(math.Round(mostHeld(in.Held))))})
	}
	if in.VibratoOf >= leastVibratos {
		text := fmt.Sprintf("vibrato %.1f times a second, %d cents to either side", in.VibratoHertz, int(math.Round(in.VibratoCents)))
		if in.VibratoEven {
			found = append(found, Finding{Name: FindingVibrato, Good: true, cost: 40, Text: text + ", the same on every note"})
		} else {
			found = append(found, Finding{Name: FindingVibrato, cost: 22, Text: text + ", but another on every note; shake with the pulse"})
		}
	}
	return found
}

// share is "the bend stops" of one, "2 of 5 bends stop" of many.
func share(n, of int, one, many string) string {
	if of == 1 {
		return "the " + one
	}
	return fmt.Sprintf("%d of %d %s", n, of, many)
}

func mostHeld(all []HeldHeard) float64 {
	most := 0.0
	for _, h := range all {
		most = math.Max(most, math.Abs(h.Cents))
	}
	return most
}

func sharpOrFlat(cents float64) string {
	if cents > 0 {
		return "sharp"
	}
	return "flat"
}

func (v Verdict) planFindings(o Order) []Finding {
	if v.Pairs == nil {
		return nil
	}
	counts := map[Kind]int{}
	wrong := []int{}
	for _, p := range v.Pairs {
		counts[p.Kind]++
		if p.Kind == Changed && !p.Fits {
			wrong = append(wrong, p.Heard)
		}
	}
	planned := counts[AsMeant] + counts[Changed] + counts[LeftOut]
	if planned == 0 {
		return nil
	}
	found := []Finding{}
	switch {
	case 4*counts[AsMeant] >= 3*planned:
		found = append(found, Finding{Name: FindingPlan, Good: true, cost: 65, Text: fmt.Sprintf("%d of %d notes of the plan as they were meant", counts[AsMeant], planned)})
	case 5*counts[LeftOut] >= planned:
		found = append(found, Finding{Name: FindingLeftOut, cost: 55, Text: fmt.Sprintf("%d of %d notes of the plan were left out", counts[LeftOut], planned)})
	}
	if len(wrong) > 0 {
		found = append(found, Finding{Name: FindingPlan, Notes: wrong, cost: 58 + math.Min(20, float64(len(wrong))), Text: fmt.Sprintf("%d of %d notes of the plan became others that do not belong over their chord", len(wrong), planned)})
	}
	return found
}
