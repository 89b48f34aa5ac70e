package band

import (
	"math"
	"math/rand/v2"
	"sort"

	"undaris/core/chart"
	"undaris/core/pitch"
)

// How far a player is from a machine (our choice, by ear): most notes lie within a few
// milliseconds of the beat, and none further than mostLate.
const (
	spreadMS       = 3.5
	mostLateMS     = 12.0
	spreadLoudness = 4.0
	// Bounds of a band's loudness, as MIDI velocity.
	softest = 20
	loudest = 124
)

// loudnessFactor is the loudness of a bar as a factor: a chorus is as loud as it is intense, and
// leans a little into its turnaround.
func (b bar) loudnessFactor() float64 {
	factor := []float64{0.84, 0.95, 1.06}[b.intensity]
	if b.turnaround {
		factor *= 1.04
	}
	return factor
}

// sound makes a note from ticks of the performance before the feel is applied.
func (s score) sound(part Part, tick, ticks int, p pitch.MIDI, loudness int) Note {
	start, end := s.withFeel(tick), s.withFeel(tick+ticks)
	return Note{Part: part, Tick: start, Ticks: max(end-start, 1), Pitch: p, Loudness: loudness, Event: -1}
}

// withFeel applies the feel of the bar that a tick of the performance lies in.
func (s score) withFeel(tick int) int {
	after := sort.Search(len(s.bars), func(n int) bool { return s.bars[n].tick > tick })
	if len(s.bars) == 0 {
		return tick
	}
	b := s.bars[max(after-1, 0)]
	in := chart.Setting{Key: b.key, Meter: b.meter, Feel: b.feel}
	return b.tick + in.Swung(tick-b.tick, s.Chart.Swing)
}

// humanised moves a note by a few milliseconds and a little loudness; late is where the
// player means to lie, in ms behind the beat. Nothing sounds before the performance begins.
func (s score) humanised(n Note, random *rand.Rand, late float64) Note {
	ms := math.Max(-mostLateMS, math.Min(mostLateMS, late+random.NormFloat64()*spreadMS))
	n.Tick = max(n.Tick+s.ticksOf(ms), 0)
	n.Loudness = min(max(n.Loudness+int(math.Round(random.NormFloat64()*spreadLoudness)), softest), loudest)
	return n
}

// ticksOf is how many ticks so many milliseconds are, rounded towards none.
func (s score) ticksOf(ms float64) int {
	return int(ms / 1000 * ticksPerSecond(s.Chart))
}
