package harmony

import (
	"fmt"
	"strings"
)

// ScaleChoice is a scale that a player may choose for a dominant.
type ScaleChoice struct {
	Name string
	// Adds are the tones it has beside the chord's, and Use when players take it.
	Adds []Tone
	Use  string
}

// dominantScales are the scales a dominant can be played by, the calmest first: M. Levine, The Jazz
// Theory Book (1995), for the first five; the minor blues scale over a dominant is common to the
// blues. row is how its notes are judged.
var dominantScales = []struct {
	name, use string
	row       family
}{
	{"Mixolydian", "the plain one: it rests, in a blues or where the chord leads nowhere", dominant},
	{"Lydian dominant", "bright: where the chord slides down a half step, or rests on IV or bVII", lydianDominant},
	{"Phrygian dominant", "dark: where the chord leads to a minor chord", dominantOfMinor},
	{"altered", "as tense as it gets: where the chord leads home, to major or minor", alteredDominant},
	{"half-whole diminished", "tense and even: b9 and 13 together, where the chord leads to major", halfWholeDominant},
	{"minor blues", "the box over the chord: b3 and b5 are leaned on and bent", bluesDominant},
}

// Scales lists the scales that the chord can be played by: those that have the tones that its symbol
// names. Only a dominant offers any.
func (c Chord) Scales() []ScaleChoice {
	if c.Quality.family != dominant {
		return nil
	}
	choices := []ScaleChoice{}
	for _, one := range dominantScales {
		if scale := scaleOn(c.Root, one.name); one.row == bluesDominant && len(c.Quality.degrees) == 4 && c.Quality.has("5") || scale.hasTensions(c) {
			choices = append(choices, ScaleChoice{Name: one.name, Adds: scale.beyond(c), Use: one.use})
		}
	}
	return choices
}

// hasTensions says whether every tone of the chord but its fifth is in the scale, and the fifth too
// where the symbol alters it.
func (s Scale) hasTensions(c Chord) bool {
	for _, tone := range c.Tones() {
		if _, ok := s.tone(tone.Note.Class()); !ok && tone.Degree.Semitones() != 7 {
			return false
		}
	}
	return true
}

// beyond lists the tones of the scale that the chord has not.
func (s Scale) beyond(c Chord) []Tone {
	added := []Tone{}
	for _, t := range s.Tones {
		if _, ok := c.Tone(t.Note.Class()); ok {
			continue
		}
		if d := t.Degree; d.Number == 2 || d.Number == 4 || d.Number == 6 {
			t.Degree.Number += 7
		}
		added = append(added, simpler(t, c.Root))
	}
	return added
}

// FindScale checks that the chord can be played by the scale. Its error names those it can.
func (c Chord) FindScale(name string) error {
	names := []string{}
	for _, choice := range c.Scales() {
		if choice.Name == name {
			return nil
		}
		names = append(names, choice.Name)
	}
	if len(names) == 0 {
		return fmt.Errorf("%s is no dominant; only a dominant has scales to choose from", c.Symbol())
	}
	return fmt.Errorf("%s cannot be played by %q; choose one of: %s", c.Symbol(), name, strings.Join(names, ", "))
}

// rowOfScale is the row of the table of classes that a chosen scale is judged by.
func rowOfScale(name string) (family, bool) {
	for _, one := range dominantScales {
		if one.name == name || name == "Phrygian dominant with #9" && one.name == "Phrygian dominant" {
			return one.row, true
		}
	}
	return 0, false
}
