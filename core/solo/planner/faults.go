package planner

import (
	"math"
	"slices"

	"undaris/core/analysis"
	"undaris/core/harmony"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// What faults weigh against each other (ours): a change without its landing is the worst,
// then a chord that is not heard, a note rested on that wants to move, a dull chorus.
const (
	weighsLanding = 60
	// A landing on a tone of the chord that is not the one aimed at, as licks have them; a
	// change that is left to the band.
	weighsOtherTone    = 4
	weighsSilentChange = 14
	weighsRest         = 12
	weighsPassing      = 5
	weighsUnheard      = 14
	weighsStrong       = 60
	weighsSpace        = 250
	weighsBreathless   = 20
	weighsFinding      = 10
	leastStrong        = 0.72
	leastSpace         = 0.16
	spaceAllowed       = 0.03
	weighsBend         = 12 // one too few or too many
	weighsTie          = 15 // a note tied over the beat from off it too few
	fewestTies         = 2
	fewestBendKinds    = 2
	weighsUntold       = 10 // a chord under which neither its 3rd nor its 7th is played
	weighsEnding       = 40 // a solo that does not end on the tonic
	weighsExercise     = 40 // the chords or the scale walked
	weighsDense        = 20 // one note a bar off what is asked
	weighsDownbeat     = 5  // a phrase on beat 1, after the first
	weighsClimax       = 8  // a highest note that is short, not touched, comes again or comes early
	weighsStart        = 30 // one of the places in the bar too few at which phrases begin
	fewestStarts       = 3
	weighsStretch      = 80
	weighsShort        = 4
	leastPhraseBar     = 0.4
)

// faults weighs what is wrong with a chorus against what the order asks.
func (pc *planContext) faults(r analysis.Review) float64 {
	if len(r.Line.Events) == 0 {
		return 1e9
	}
	return pc.landingFaults(r) + pc.harmonyFaults(r) + pc.styleFaults(r) + pc.phraseFaults(r.Line) + pc.climaxFaults(r.Line.Events) + pc.techniqueFaults(r.Line.Events)
}

// landingFaults weighs the changes that are not landed on as they were aimed at.
func (pc *planContext) landingFaults(r analysis.Review) float64 {
	sum := 0.0
	for _, a := range pc.Targets {
		switch landing := pc.Landing(r.Line, a); {
		case landing.OnAim:
		case landing.Index < 0: // left to the band
			sum += weighsSilentChange
		case landing.Class == harmony.ChordTone:
			sum += weighsOtherTone
		default:
			sum += weighsLanding
		}
	}
	return sum
}

// harmonyFaults weighs chords that cannot be told from the line, and notes that do not belong to
// theirs.
func (pc *planContext) harmonyFaults(r analysis.Review) float64 {
	sum := weighsRest*float64(len(r.Verdict.Rests.Issues)) + weighsPassing*float64(len(r.Verdict.Passing))
	for _, d := range r.Implied {
		if d.To-d.From >= pc.Time.MeterAt(pc.Time.BarAt(d.From)).BarTicks() && d.Recognition != analysis.Recognized {
			sum += weighsUnheard * (0.3 + pc.BlendAt(d.From))
		}
	}
	for n, c := range r.Verdict.Coverage {
		if d := r.Implied[n]; d.To-d.From >= pc.Time.MeterAt(pc.Time.BarAt(d.From)).BarTicks() && len(c.Notes) > 0 && !hasGuideTone(c) {
			sum += weighsUntold * (0.3 + pc.BlendAt(d.From))
		}
	}
	if s := r.Verdict.Strong; s.Of > 0 {
		sum += weighsStrong * max(leastStrong-float64(s.Good)/float64(s.Of), 0) * min(2*pc.BlendAt(0), 1)
	}
	return sum
}

// styleFaults weighs what the review finds dull or hard to play.
func (pc *planContext) styleFaults(r analysis.Review) float64 {
	sum := 0.0
	for _, f := range r.First {
		if f.Name == analysis.FindingArpeggios || f.Name == analysis.FindingScales {
			sum += weighsExercise
		}
	}
	if wanted := min(leastSpace, pc.Space); r.Space < wanted {
		sum += weighsBreathless
	}
	sum += weighsSpace * max(math.Abs(pc.Space-r.Space)-spaceAllowed, 0)
	if r.Verdict.Shape.WidestMM > pc.SpanMM {
		sum += weighsStretch
	}
	for _, f := range r.Style {
		if !f.Good {
			sum += weighsFinding
		}
	}
	return sum
}

// phraseFaults weighs where phrases begin, how long they are, how many notes there are and how
// the solo ends.
func (pc *planContext) phraseFaults(line phrase.Phrase) float64 {
	sum := 0.0
	if last := line.Events[len(line.Events)-1]; pc.Part.Last() && last.Sounding(pc.Instrument).Class() != pc.Time.KeyAt(pc.Time.BarAt(last.Tick)).Tonic.Class() {
		sum += weighsEnding
	}
	starts, downbeats := map[int]bool{}, 0
	for _, span := range analysis.PhraseSpans(line) {
		first := line.Events[span.From].Tick
		bar, into := pc.Time.MeterAt(pc.Time.BarAt(first)).BarTicks(), pc.intoBar(first)
		starts[into] = true
		if line.Events[span.To-1].End()-first < int(leastPhraseBar*float64(bar)) {
			sum += weighsShort
		}
		if into == 0 {
			downbeats++
		}
	}
	sum += weighsDownbeat * max(float64(downbeats)-1, 0)
	if pc.BarCount() >= shortForm {
		sum += weighsStart * float64(max(fewestStarts-len(starts), 0))
	}
	density := float64(len(line.Events)) / float64(pc.BarCount())
	return sum + weighsDense*math.Abs(density-pc.Density)
}

// climaxFaults weighs what the highest note lacks.
func (pc *planContext) climaxFaults(events []phrase.Event) float64 {
	highest, times := events[0], 0
	for _, e := range events {
		switch top, p := highest.Sounding(pc.Instrument), e.Sounding(pc.Instrument); {
		case p > top:
			highest, times = e, 1
		case p == top:
			times++
		}
	}
	lacks := 0
	for _, lacking := range []bool{
		times > 1, highest.Ticks < pc.Time.BeatTicksAt(highest.Tick), highest.Bend == 0 && !highest.Vibrato,
		float64(highest.Tick) < lastThird*float64(pc.Length),
	} {
		if lacking {
			lacks++
		}
	}
	return weighsClimax * float64(lacks)
}

// techniqueFaults weighs bends too few, too many or all alike, and a rhythm without ties.
func (pc *planContext) techniqueFaults(events []phrase.Event) float64 {
	bends, kinds := 0, map[[2]pitch.Class]bool{}
	ties := 0
	for _, e := range events {
		if e.Bend > 0 {
			bends++
			kinds[[2]pitch.Class{pc.Instrument.Pitch(e.Place).Class(), e.Sounding(pc.Instrument).Class()}] = true
		}
		if _, _, in := pc.Time.Place(e.Tick); in > 0 && in+e.Ticks > pc.Time.BeatTicksAt(e.Tick) {
			ties++
		}
	}
	sum := weighsTie * float64(max(fewestTies-ties, 0))
	if !pc.NoBends {
		sum += weighsBend * float64(max(fewestBends-bends, bends-mostBends, fewestBendKinds-len(kinds), 0))
	}
	return sum
}

func hasGuideTone(c analysis.ChordCoverage) bool {
	return slices.ContainsFunc(c.Got, func(t harmony.Tone) bool { return harmony.IsGuideTone(t.Degree) })
}
