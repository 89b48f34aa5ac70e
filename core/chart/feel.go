package chart

import (
	"undaris/core/choice"
	"undaris/core/floor"
)

// Feel is how notated time is sounded.
type Feel string

// The feels of a chart. Notation stays straight; a shuffle delays the off-beat
// eighths when the chart is sounded or judged; slow 12/8 has its triplets
// written out and so sounds as it is written.
const (
	Straight Feel = "straight"
	Shuffle  Feel = "shuffle"
	Slow128  Feel = "slow 12/8"
)

// Feels lists every feel.
var Feels = []Feel{Straight, Shuffle, Slow128}

// ParseFeel reads a feel by its name.
func ParseFeel(text string) (Feel, error) {
	f, err := choice.FindText("a feel", Feels, text)
	return f, InField("feel", err)
}

// Swung is where a notated tick of a bar sounds, both counted from the bar line. In a shuffle with
// swing ratio r the two eighths of a beat last r : 1, so the off-beat falls r/(r+1) into the beat
// (common practice; r is 2 for triplet swing, 1 for none). Sixteenths stretch
// with their eighth. Ticks on the triplet grid are triplets already and stay.
func (s Setting) Swung(tick int, swing float64) int {
	if s.Feel != Shuffle || s.Meter.Compound() {
		return tick
	}
	beat := s.Meter.BeatTicks()
	into := floor.Mod(tick, beat)
	if into%(beat/3) == 0 {
		return tick
	}
	half := beat / 2
	off := int(float64(beat)*swing/(swing+1) + 0.5)
	if into <= half {
		return tick - into + into*off/half
	}
	return tick - into + off + (into-half)*(beat-off)/half
}
