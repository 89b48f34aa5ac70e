package change

import (
	"fmt"

	"undaris/core/choice"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// TargetStrategy is what a player aims at when the chord changes.
type TargetStrategy string

// The strategies. Practitioners differ; thirds first is only the default.
const (
	ThirdsFirst TargetStrategy = "thirds first"
	GuideTones  TargetStrategy = "guide tones"
	RootsFirst  TargetStrategy = "roots first"
	NearestTone TargetStrategy = "nearest tone"
)

// TargetStrategies lists every strategy, the default first.
var TargetStrategies = []TargetStrategy{ThirdsFirst, GuideTones, RootsFirst, NearestTone}

// ParseTargetStrategy reads a strategy by name; the empty name is thirds first. Its error
// is a *choice.Error.
func ParseTargetStrategy(text string) (TargetStrategy, error) {
	if text == "" {
		return ThirdsFirst, nil
	}
	return choice.FindText("a target strategy", TargetStrategies, text)
}

// weights is what arriving on each part is worth: root, third, fifth, seventh,
// extension. The first four are the strategies' own; an extension counts as the
// least of them (our choice).
var weights = map[TargetStrategy][5]float64{
	ThirdsFirst: {0.6, 1.0, 0.4, 0.8, 0.4},
	GuideTones:  {0.3, 1.0, 0.3, 1.0, 0.3},
	RootsFirst:  {1.0, 0.8, 0.6, 0.6, 0.6},
	NearestTone: {1, 1, 1, 1, 1},
}

// Weight is what arriving on the degree is worth to the strategy, 0 to 1.
func (s TargetStrategy) Weight(d pitch.Degree) float64 { return weights[s][harmony.PartOf(d)] }

func toneOfChord(t harmony.Tone, c harmony.Chord) string {
	return fmt.Sprintf("%s, the %s of %s", t.Note, t.Degree, c.Symbol())
}
