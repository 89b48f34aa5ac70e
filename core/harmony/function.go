package harmony

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/pitch"
)

// stands says how far a root lies above home, by its degree of the key (common
// names of intervals).
var stands = map[string]string{
	"R": "home", "b2": "a half step above home", "2": "a whole step above home", "b3": "a minor third above home",
	"3": "a major third above home", "4": "a fourth above home", "#4": "an augmented fourth above home",
	"b5": "a diminished fifth above home", "5": "a fifth above home", "b6": "a minor sixth above home",
	"6": "a sixth above home", "b7": "a minor seventh above home", "7": "a half step below home",
}

// DegreeOf is the place of a note in the key, counted on the major scale of its
// tonic: "R", "b3", "#4".
func (k Key) DegreeOf(n pitch.Note) pitch.Degree {
	letters := (int(n.Letter) - int(k.Tonic.Letter) + 7) % 7
	plain := pitch.Degree{Number: letters + 1}.Over(k.Tonic)
	alter := n.Class().Above(plain.Class())
	if alter > 6 {
		alter -= 12
	}
	return pitch.Degree{Number: letters + 1, Alter: alter}
}

// Function says what the chord is in the key: where its root stands, what its
// guide tones are in the key, and where it wants to go (common theory).
func (k Key) Function(c Chord) string {
	k = k.of(c)
	root := k.DegreeOf(c.Root)
	place, ok := stands[root.String()]
	if !ok {
		place = "on the " + root.String() + " of the key"
	}
	said := k.Roman(c) + ": " + place
	tones := []string{}
	for _, tone := range c.Tones() {
		if tone.Degree.Number == 3 || tone.Degree.Number == 7 {
			tones = append(tones, fmt.Sprintf("its %s is %s", tone.Degree, k.degreeSaid(tone.Note)))
		}
	}
	if len(tones) > 0 {
		said += "; " + strings.Join(tones, ", ")
	}
	if wants := k.wants(c); wants != "" {
		said += ". " + wants
	}
	return said
}

// degreeSaid is DegreeOf as players say it: a tone spelled as b1 is the 7, one with two signs the degree that it
// sounds as.
func (k Key) degreeSaid(n pitch.Note) string {
	d := k.DegreeOf(n)
	switch {
	case d.Number == 1 && d.Alter == 0:
		return "home itself"
	case d.Number == 1 && d.Alter == -1:
		d = pitch.Degree{Number: 7}
	case d.Alter > 1 || d.Alter < -1:
		d = k.DegreeOf(k.Spell(n.Class()))
	}
	return fmt.Sprintf("the %s of the key", d)
}

// wants is where a chord with a pull wants to go.
func (k Key) wants(c Chord) string {
	above := c.Root.Class().Above(k.Tonic.Class())
	isDominant := c.Quality.family == dominant
	_, hasTritone := c.Tone(pitch.ClassOf(int(c.Root.Class()) + 10))
	switch {
	case above == 0:
		return ""
	case above == 7 && !c.Quality.Minor():
		return "The V: it wants to go home"
	case isDominant && above == 1:
		return "It stands a half step above home and slides down into it"
	case isDominant && above == 8:
		return "It stands a half step above the V and slides down into it"
	case isDominant && hasTritone && above != 5 && above != 10:
		goal := transposed(pitch.Note{Letter: 3}, pitch.Note{}, c.Root) // a fourth up, spelled as F lies over C
		return fmt.Sprintf("It leads a fourth up, to the chord on %s: V7/%s", goal, k.goalNumeral(goal))
	case c.Quality.family == diminished:
		goal := c.Root.Up(1, 1)
		if goal.Accidental > 1 || goal.Accidental < -1 {
			goal = k.Spell(goal.Class())
		}
		return fmt.Sprintf("It passes: its root moves a half step up to %s or down again", goal)
	}
	return ""
}

// goalNumeral is the numeral of the chord that a secondary dominant leads to: minor where the
// key's own chord on that degree is (common theory), else major.
func (k Key) goalNumeral(root pitch.Note) string {
	goal := Chord{Root: root, Quality: bySpec[spec{}]}
	at := k.DegreeOf(root)
	minorDegrees := []int{2, 3, 6}
	if k.Mode == MinorMode {
		minorDegrees = []int{1, 4}
	}
	if at.Alter == 0 && slices.Contains(minorDegrees, at.Number) {
		goal.Quality = bySpec[spec{third: minorThird}]
	}
	return k.Roman(goal)
}
