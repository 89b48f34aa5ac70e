package band

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/choice"
	"undaris/core/harmony"
)

// Style is how a band plays.
type Style struct {
	Name string
	// Meters are those it can be played in.
	Meters []chart.Meter
	// grooves of the drums, from the lightest to the fullest, for bars of three beats and
	// for all others.
	grooves, waltz grooves
	// triplets says that fills and approaches divide the beat in three.
	triplets bool
	bass     bassFigures
	// comping is from the lightest to the fullest.
	comping []compFigure
	// late is how far the snare lies behind the beat, in ms.
	late float64
	// keepsFigure says that in a turnaround the chords go on with their figure.
	keepsFigure bool
	// walks says that the bass leads into every bar, whether the chord changes or not.
	walks bool
}

func (s Style) String() string { return s.Name }

// Fits says whether the style can be played in a meter.
func (s Style) Fits(m chart.Meter) bool { return slices.Contains(s.Meters, m) }

// The names of the styles.
const (
	Shuffle      = "shuffle"
	SlowBlues    = "slow 12/8"
	StraightRock = "straight rock"
	Swing        = "jazz swing"
	MinorBallad  = "minor ballad"
	Rumba        = "rumba"
	Funk         = "funk sixteenths"
	TwoBeat      = "two-beat country"
)

// StylesFor lists the styles that a meter has.
func StylesFor(m chart.Meter) []Style {
	all := []Style{}
	for _, s := range Styles {
		if s.Fits(m) {
			all = append(all, s)
		}
	}
	return all
}

// The tempos from which a feel is played otherwise, in counted beats a minute (our choice,
// by ear): a fast shuffle swings, a slow straight tune in minor is a ballad.
const (
	swingTempo  = 132
	balladTempo = 84
)

// StyleFor is the style of a chart that has chosen none, by its meter, feel, tempo and key.
func StyleFor(c chart.Chart) Style {
	minor := c.Key.Mode == harmony.MinorMode
	name := StraightRock
	switch {
	case c.Meter.Compound() && minor && c.Tempo < balladTempo && c.Feel != chart.Slow128:
		name = MinorBallad
	case c.Meter.Compound():
		name = SlowBlues
	case c.Feel == chart.Shuffle && c.Tempo >= swingTempo:
		name = Swing
	case c.Feel == chart.Shuffle:
		name = Shuffle
	case minor && c.Tempo < balladTempo:
		name = MinorBallad
	}
	return mustStyle(name)
}

// MeterError says that a style is not played in a meter.
type MeterError struct {
	Name  string
	Meter chart.Meter
	// Nearest is the style that the chart would be played in.
	Nearest string
}

func (e *MeterError) Error() string {
	return fmt.Sprintf("%s is not played in %s: this is %s", e.Name, e.Meter, e.Nearest)
}

// FindStyle finds a style for a chart by name; without a name it is the chart's own. A name
// that no style has is a *choice.Error; a style that the chart's meter does not have a
// *MeterError.
func FindStyle(name string, c chart.Chart) (Style, error) {
	if name == "" {
		return StyleFor(c), nil
	}
	s, err := choice.Find("a style", Styles, styleName, name)
	if err == nil && !s.Fits(c.Meter) {
		err = &MeterError{Name: name, Meter: c.Meter, Nearest: StyleFor(c).Name}
	}
	return s, err
}

func mustStyle(name string) Style {
	s, err := choice.Find("a style", Styles, styleName, name)
	if err != nil {
		panic(err)
	}
	return s
}

func styleName(s Style) string { return s.Name }
