package transcribe

import (
	"math"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/listen"
	"undaris/core/pitch"
)

// BarOne is where the tune was found to begin in a take that was not recorded over the band.
type BarOne struct {
	// Start is seconds from the beginning of the sound.
	Start float64
	// Sure says that no other bar comes near: where it is false the player had better look.
	Sure bool
}

const (
	// phases is how many places within a beat the grid is tried at.
	phases = 96
	// leastForBarOne is how many notes it takes to find anything.
	leastForBarOne = 6
	// beatsBefore is how many beats before the first note the tune may have begun, beatsAfter how many after it:
	// two bars of rest, and a pickup.
	beatsBefore, beatsAfter = 8, 4
	// sureMargin is how much better the best beginning fits than the next, in shares of a note.
	sureMargin = 0.06
	// startsNear is how much a beginning is preferred where a note starts it (ours: most takes begin near bar 1).
	startsNear = 0.04
)

// FindBarOne finds where bar 1 lies: the phase of the beat on which most notes lie on the grid as the chart's feel
// sounds it, and of the beats from there the one from which the notes fit their chords best. The tempo is taken to be
// the chart's, at so many seconds a tick. (Our choice; it is false for who plays outside of the chords throughout.)
func FindBarOne(notes []listen.Note, c chart.Chart, secondsPerTick float64) (BarOne, bool) {
	sure := []listen.Note{}
	for _, n := range notes {
		if n.Confidence >= leastConfidence {
			sure = append(sure, n)
		}
	}
	if len(sure) < leastForBarOne {
		return BarOne{}, false
	}
	beat := c.Meter.BeatTicks()
	seconds := float64(beat) * secondsPerTick
	fits := newChordFits(c)
	best, second, at := math.Inf(-1), math.Inf(-1), 0.0
	for _, phase := range phasesOf(sure, c, secondsPerTick) {
		// The beat nearest to the first note.
		near := math.Round((sure[0].Onset - phase) / seconds)
		for k := near - beatsBefore; k <= near+beatsAfter; k++ {
			start := phase + k*seconds
			value := fits.of(sure, Clock{Start: start, SecondsPerTick: secondsPerTick})
			value -= startsNear * math.Abs(start-sure[0].Onset) / seconds / float64(c.Meter.Beats())
			switch {
			case value > best:
				best, second, at = value, best, start
			case value > second:
				second = value
			}
		}
	}
	return BarOne{Start: at, Sure: best-second >= sureMargin}, true
}

// phasesOf are where in a beat's seconds the grid may lie: where the sum over the notes of how near each is to a place
// of the grid is largest, and half a beat from there where that is nearly as likely, as of straight eighths.
func phasesOf(notes []listen.Note, c chart.Chart, secondsPerTick float64) []float64 {
	line, beat := c.Timeline(), c.Meter.BeatTicks()
	seconds := float64(beat) * secondsPerTick
	fit := func(phase float64) float64 {
		sum := 0.0
		for _, n := range notes {
			into := math.Mod(n.Onset-phase, seconds)
			if into < 0 {
				into += seconds
			}
			// On the beat, on the off-beat as it swings, on the next beat.
			ticks := into / secondsPerTick
			onBeat := math.Min(ticks, float64(beat)-ticks)
			offBeat := math.Abs(ticks - float64(line.Swung(beat/2)))
			sum += closeness(onBeat*secondsPerTick) + offBeatWeight*closeness(offBeat*secondsPerTick)
		}
		return sum
	}
	best, found := math.Inf(-1), 0.0
	for k := range phases {
		phase := float64(k) / phases * seconds
		if sum := fit(phase); sum > best {
			best, found = sum, phase
		}
	}
	if other := math.Mod(found+seconds/2, seconds); fit(other) > nearlyAsLikely*best {
		return []float64{found, other}
	}
	return []float64{found}
}

// nearlyAsLikely is the share of the best fit from which another phase is tried too.
const nearlyAsLikely = 0.7

// offBeatWeight makes the beat of a line in eighths the beat, and not the off-beat.
const offBeatWeight = 0.8

// closeness is 1 for a note on its place, and near 0 from 60 ms on.
func closeness(seconds float64) float64 { return math.Exp(-seconds * seconds / (2 * 0.025 * 0.025)) }

// chordFits says how well notes fit the chords that they would lie over.
type chordFits struct {
	line  chart.Timeline
	spans []chart.ChordSpan
	beat  int
	fits  []map[pitch.Class]float64
}

func newChordFits(c chart.Chart) chordFits {
	f := chordFits{line: c.Timeline(), spans: c.ChordSpans(), beat: c.Meter.BeatTicks()}
	for _, s := range f.spans {
		worth := map[pitch.Class]float64{}
		for class := range pitch.Class(12) {
			switch j := s.Key.Judge(s.Chord, class); {
			case j.Class == harmony.ChordTone && harmony.IsGuideTone(j.Degree):
				worth[class] = 1
			case j.Class == harmony.ChordTone:
				worth[class] = 0.7
			case j.Class == harmony.Colour:
				worth[class] = 0.2
			case j.Class == harmony.Outside:
				worth[class] = -1
			}
		}
		f.fits = append(f.fits, worth)
	}
	return f
}

// of is the mean over the notes, long ones and those on strong beats counting for more.
func (f chordFits) of(notes []listen.Note, clock Clock) float64 {
	if len(f.spans) == 0 {
		return 0
	}
	sum, weights := 0.0, 0.0
	for _, n := range notes {
		tick := int(math.Round(clock.At(n.Onset)))
		weight := math.Min(n.Length, 1) + 0.1
		if f.line.IsStrong(tick - tick%max(f.beat/2, 1)) {
			weight *= 1.5
		}
		in := f.line.InChorus(tick + f.beat/8)
		span := 0
		for s := range f.spans {
			if f.spans[s].Tick <= in {
				span = s
			}
		}
		weights += weight
		sum += weight * f.fits[span][pitch.MIDI(n.SoundingMIDI()).Class()]
	}
	return sum / weights
}
