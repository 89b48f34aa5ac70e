package chart

import (
	"fmt"

	"undaris/core/choice"
)

// TicksPerQuarter is how many ticks a quarter note has.
const TicksPerQuarter = 480

// Meter is a time signature.
type Meter struct {
	Count int
	Unit  int
}

// The meters that a chart may have.
var (
	FourFour    = Meter{4, 4}
	ThreeFour   = Meter{3, 4}
	SixEight    = Meter{6, 8}
	TwelveEight = Meter{12, 8}
	TwoFour     = Meter{2, 4}
	FiveFour    = Meter{5, 4}
	SixFour     = Meter{6, 4}
	NineEight   = Meter{9, 8}
)

// Meters lists every meter that can be read, those that most tunes are in first.
var Meters = []Meter{FourFour, TwelveEight, ThreeFour, SixEight, TwoFour, FiveFour, SixFour, NineEight}

// String writes the meter as a time signature, "12/8".
func (m Meter) String() string { return fmt.Sprintf("%d/%d", m.Count, m.Unit) }

// ParseMeter reads a time signature that String writes.
func ParseMeter(text string) (Meter, error) {
	m, err := choice.Find("a meter", Meters, Meter.String, text)
	return m, InField("meter", err)
}

// Compound says whether the beat is a dotted quarter that divides in three.
func (m Meter) Compound() bool { return m.Unit == 8 }

// BeatTicks is the length of one counted beat: a quarter, or a dotted quarter
// in 6/8 and 12/8.
func (m Meter) BeatTicks() int {
	if m.Compound() {
		return TicksPerQuarter * 3 / 2
	}
	return TicksPerQuarter
}

// Beats is the number of counted beats in a bar.
func (m Meter) Beats() int {
	if m.Compound() {
		return m.Count / 3
	}
	return m.Count
}

// BarTicks is the length of a bar.
func (m Meter) BarTicks() int { return m.Beats() * m.BeatTicks() }
