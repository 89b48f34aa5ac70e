package chart

import (
	"fmt"
	"strings"

	"undaris/core/choice"
	"undaris/core/floor"
)

// Subdivision is how a beat is divided.
type Subdivision struct {
	Name string
	// PerBeat is the number of equal notes in a counted beat.
	PerBeat int
}

// The subdivisions of a simple beat (a quarter) and a compound one (a dotted
// quarter), coarsest first.
var (
	simpleSubdivisions = []Subdivision{
		{"quarter", 1}, {"eighth", 2}, {"triplet", 3}, {"sixteenth", 4}, {"quintuplet", 5}, {"sextuplet", 6}, {"thirty-second", 8},
	}
	compoundSubdivisions = []Subdivision{
		{"dotted quarter", 1}, {"duplet", 2}, {"eighth", 3}, {"quadruplet", 4}, {"sixteenth", 6}, {"thirty-second", 12},
	}
)

// String is the subdivision's name.
func (s Subdivision) String() string { return s.Name }

// Subdivisions lists those of the meter's beat, coarsest first.
func (m Meter) Subdivisions() []Subdivision {
	if m.Compound() {
		return compoundSubdivisions
	}
	return simpleSubdivisions
}

// CommonSubdivisions lists those that lines mostly run in, without the uneven and the fastest (our
// choice: quintuplets, sextuplets, duplets, quadruplets and thirty-seconds are left out).
func (m Meter) CommonSubdivisions() []Subdivision {
	common := []Subdivision{}
	for _, s := range m.Subdivisions() {
		if s.PerBeat <= 4 && !m.Compound() || s.PerBeat%3 == 0 && s.PerBeat <= 6 && m.Compound() || s.PerBeat == 1 {
			common = append(common, s)
		}
	}
	return common
}

// DefaultSubdivision is what lines run in unless told otherwise; every meter
// has it.
const DefaultSubdivision = "eighth"

// Subdivision finds a subdivision of the meter by name; the empty name is the
// default.
func (m Meter) Subdivision(name string) (Subdivision, error) {
	if name == "" {
		name = DefaultSubdivision
	}
	s, err := choice.Find("a subdivision of this meter", m.Subdivisions(), Subdivision.String, name)
	return s, InField("subdivision", err)
}

// NearestSubdivision is Subdivision for what was written in another meter: a subdivision that this
// meter does not have is that with as nearly as many notes to a beat, the finer of two as near, so
// that quarters are dotted quarters in 12/8.
func (m Meter) NearestSubdivision(name string) (Subdivision, error) {
	s, err := m.Subdivision(name)
	if err == nil {
		return s, nil
	}
	for _, other := range [][]Subdivision{simpleSubdivisions, compoundSubdivisions} {
		for _, wanted := range other {
			if wanted.Name != name {
				continue
			}
			nearest := m.Subdivisions()[0]
			for _, one := range m.Subdivisions() {
				if size(one.PerBeat-wanted.PerBeat) <= size(nearest.PerBeat-wanted.PerBeat) {
					nearest = one
				}
			}
			return nearest, nil
		}
	}
	return s, err
}

func size(n int) int { return max(n, -n) }

// Ticks is the length of one note of the subdivision in the meter.
func (s Subdivision) Ticks(m Meter) int { return m.BeatTicks() / s.PerBeat }

// RunStart is the tick where a run of notes must start so that its last note
// falls on the tick of arrival: arrival minus (notes - 1) subdivisions.
func RunStart(arrival, notes int, s Subdivision, m Meter) int {
	return arrival - (notes-1)*s.Ticks(m)
}

// Counted says a tick as a player counts it: "beat 3", "the and of beat 2",
// "the last triplet of beat 2", "the second sixteenth of beat 3". A tick that
// lies on no subdivision is said as the beat it follows.
func (m Meter) Counted(tick int) string {
	inBar := floor.Mod(tick, m.BarTicks())
	beat := fmt.Sprintf("beat %d", inBar/m.BeatTicks()+1)
	into := inBar % m.BeatTicks()
	if into == 0 {
		return beat
	}
	for _, s := range m.Subdivisions() {
		if into%s.Ticks(m) != 0 {
			continue
		}
		if s.PerBeat == 2 {
			return "the and of " + beat
		}
		return fmt.Sprintf("the %s %s of %s", ordinal(into/s.Ticks(m), s.PerBeat), s.Name, beat)
	}
	return "just after " + beat
}

// countedInBar says a count in a bar, from 0, by the bar's number.
func countedInBar(counted string, bar int) string {
	switch {
	case bar >= 0:
		return fmt.Sprintf("%s of bar %d", counted, bar+1)
	case bar == -1:
		return counted + " of the bar before bar 1"
	case bar >= -4:
		return fmt.Sprintf("%s of %s bars before bar 1", counted, [3]string{"two", "three", "four"}[-bar-2])
	}
	return fmt.Sprintf("%s of %d bars before bar 1", counted, -bar)
}

// CountedInChorus says a tick as a player counts it, with its bar: see Timeline.CountedInChorus.
func (c Chart) CountedInChorus(tick int) string { return c.Timeline().CountedInChorus(tick) }

// IsStrong says whether a tick falls on a strong beat: 1 and 3 of 4/4, the first and
// third dotted beats of 12/8, 1 of 3/4, 9/8 and 2/4, 1 and 4 of 5/4 and 6/4 (which are felt as three
// beats and then two or three; our choice for 5/4), and the beginning of each half of 6/8 (common).
func (m Meter) IsStrong(tick int) bool {
	inBar := tick - m.Downbeat(tick)
	if inBar%m.BeatTicks() != 0 {
		return false
	}
	beat := inBar / m.BeatTicks()
	switch m {
	case FourFour, TwelveEight:
		return beat == 0 || beat == 2
	case FiveFour, SixFour:
		return beat == 0 || beat == 3
	}
	return beat == 0 || m == SixEight
}

// Downbeat is the tick at which the bar of a tick begins, before the first bar too.
func (m Meter) Downbeat(tick int) int {
	bar := m.BarTicks()
	return tick - floor.Mod(tick, bar)
}

func ordinal(index, of int) string {
	if index == of-1 {
		return "last"
	}
	return strings.Fields("first second third fourth fifth sixth seventh eighth ninth tenth eleventh twelfth")[index]
}
