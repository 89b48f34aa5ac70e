package judge

import (
	"math"

	"undaris/core/listen"
)

// Intonation is how well in tune a take is. Cents are sharp above 0, flat below.
type Intonation struct {
	// Tuning is how far from A 440 the guitar is: the middle of the notes that are not bent.
	Tuning float64
	// Bends are those that go to a half step; a curl of a quarter step or less is none of them.
	Bends []BendHeard
	// Held are the long notes that are out of tune beside Tuning by more than HeldCents.
	Held []HeldHeard
	// VibratoHertz and VibratoCents are the middle of the notes that are shaken, VibratoOf how many; VibratoEven says that they are alike.
	VibratoHertz, VibratoCents float64
	VibratoOf                  int
	VibratoEven                bool
}

// BendHeard is one bend and what it goes for.
type BendHeard struct {
	// Note is its index in what was heard.
	Note int
	// Target is how many half steps it goes for, Cents how far from there it comes.
	Target    int
	Cents     float64
	Judgement BendJudgement
}

// BendJudgement says how a bend arrives.
type BendJudgement string

// How bends arrive: a little flat is better than sharp, for the ear takes what is on its way as coming.
const (
	BendTrue  BendJudgement = "true"
	BendFlat  BendJudgement = "flat"
	BendSharp BendJudgement = "sharp"
)

// HeldHeard is a long note that is out of tune.
type HeldHeard struct {
	Note  int
	Cents float64
}

// Our choices; the ear forgives a bend that is a little flat more than one that is sharp, and about 10 cents
// of a held note are heard (Zwicker and Fastl, "Psychoacoustics", on just noticeable differences of pitch).
const (
	FlatestBend   = -18.0
	SharpestBend  = 8.0
	CurlCents     = 72.0
	HeldCents     = 14.0
	heldSeconds   = 0.35
	leastVibratos = 3
	evenVibrato   = 0.18 // share of the rate
)

// IntonationOf measures what was heard.
func IntonationOf(notes []listen.Note) Intonation {
	i := Intonation{}
	plain := []float64{}
	for _, n := range notes {
		if n.Bend == nil && n.Confidence >= 0.5 {
			plain = append(plain, 100*(n.Pitch-math.Round(n.Pitch)))
		}
	}
	i.Tuning = middle(plain)
	hertz, cents := []float64{}, []float64{}
	for k, n := range notes {
		switch {
		case n.Bend != nil && n.Bend.Cents > CurlCents:
			// The fret is where the guitar has it, not where the pitch was first caught.
			from := 100 * (n.Pitch - math.Round(n.Pitch-i.Tuning/100))
			reached := from - i.Tuning + n.Bend.Cents
			target := int(math.Round(reached / 100))
			b := BendHeard{Note: k, Target: target, Cents: reached - float64(target)*100}
			switch {
			case b.Cents < FlatestBend:
				b.Judgement = BendFlat
			case b.Cents > SharpestBend:
				b.Judgement = BendSharp
			default:
				b.Judgement = BendTrue
			}
			i.Bends = append(i.Bends, b)
		case n.Bend == nil && n.Length >= heldSeconds && n.Confidence >= 0.5:
			if off := 100*(n.Pitch-math.Round(n.Pitch)) - i.Tuning; math.Abs(off) > HeldCents {
				i.Held = append(i.Held, HeldHeard{Note: k, Cents: off})
			}
		}
		if n.Vibrato != nil {
			hertz, cents = append(hertz, n.Vibrato.Hertz), append(cents, n.Vibrato.Cents)
		}
	}
	i.VibratoOf = len(hertz)
	if len(hertz) > 0 {
		i.VibratoHertz, i.VibratoCents = middle(hertz), middle(cents)
		away := make([]float64, len(hertz))
		for n, h := range hertz {
			away[n] = math.Abs(h-i.VibratoHertz) / i.VibratoHertz
		}
		i.VibratoEven = len(hertz) >= leastVibratos && middle(away) <= evenVibrato
	}
	return i
}
