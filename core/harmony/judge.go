package harmony

import (
	"fmt"
	"strings"

	"undaris/core/pitch"
)

// Class is what a note is over a chord.
type Class string

// The five classes. A chord tone is rested on; colour is rested on and adds; a blue note
// is leaned on and bent or slid up; a suspension wants to move a step to a chord tone; what
// is outside is passed through and never rested on.
const (
	ChordTone  Class = "chordTone"
	Colour     Class = "colour"
	Blue       Class = "blue"
	Suspension Class = "suspension"
	Outside    Class = "outside"
)

// Classes lists the classes, from what is rested on to what is passed through.
var Classes = []Class{ChordTone, Colour, Blue, Suspension, Outside}

// Name is the class as players call it.
func (c Class) Name() string {
	switch c {
	case ChordTone:
		return "chord tone"
	case Suspension:
		return "sus"
	}
	return string(c)
}

// Short is the name of the class where there is little room.
func (c Class) Short() string {
	if c == ChordTone {
		return "chord"
	}
	return c.Name()
}

// Text says the class as it completes "the note is …": "a chord tone".
func (c Class) Text() string {
	switch c {
	case ChordTone:
		return "a chord tone"
	case Blue:
		return "a blue note"
	case Suspension:
		return "a suspension"
	}
	return string(c)
}

// family groups the qualities over which the other notes mean the same.
type family int

const (
	dominant family = iota
	major
	majorSeventh
	minor
	halfDiminished
	diminished
	suspended
	suspendedSecond
	augmented
	power
	// A dominant chord means more than its quality where it leads to a minor chord, and
	// where it lies beside the key: see Key.family.
	dominantOfMinor
	lydianDominant
	// These a player may choose: see Chord.Scales.
	alteredDominant
	halfWholeDominant
	bluesDominant
)

// classesByLetter are the letters of the table below.
var classesByLetter = [256]Class{'T': ChordTone, 'C': Colour, 'B': Blue, 'S': Suspension, 'O': Outside}

// families gives each semitone above the root its class, from the root (left)
// to the major seventh: T chord tone, C colour, B blue, S suspension, O outside. The rows
// are common practice in blues and rock, those of the two dominants by their place in
// the key common theory (the harmonic minor, the Lydian dominant); suspendedSecond and the plain
// diminished triad (read on the half-diminished row) are our choice.
var families = map[family]string{
	//                0123456789te
	dominant:        "TOCBTSBTOCTO",
	major:           "TOCBTSOTOCBO",
	majorSeventh:    "TOCBTSOTOCOT",
	minor:           "TOCTOCBTSCTO",
	halfDiminished:  "TSSTOCTOCOTO",
	diminished:      "TOCTOCTOCTOC",
	suspended:       "TOCBSTOTOCTO",
	suspendedSecond: "TOTSSCOTOCCO",
	augmented:       "TOCBTSCOTSCO",
	power:           "TOCCCSBTOCCO",
	dominantOfMinor: "TCOCTSBTCOTO",
	lydianDominant:  "TOCBTOCTOCTO",
	// The rows of the chosen scales have its notes as colour and no others; in the minor blues the
	// notes that lean keep leaning.
	alteredDominant:   "TCOCTOCTCOTO",
	halfWholeDominant: "TCOCTOCTOCTO",
	bluesDominant:     "TOOBTSBTOOTO",
}

// resolutions gives the semitone, counted on from the root and so up to 12, that a
// blue or leaning note of the family moves to.
var resolutions = map[family]map[int]int{
	dominant:        {3: 4, 5: 4, 6: 7},
	major:           {3: 4, 5: 4, 10: 12},
	majorSeventh:    {3: 4, 5: 4},
	minor:           {6: 7, 8: 7, 9: 10},
	halfDiminished:  {1: 0, 2: 3},
	suspended:       {3: 5, 4: 5},
	suspendedSecond: {3: 2, 4: 2},
	augmented:       {3: 4, 5: 4, 9: 8},
	power:           {5: 7, 6: 7},
	dominantOfMinor: {5: 4, 6: 7},
	lydianDominant:  {3: 4},
	bluesDominant:   {3: 4, 5: 4, 6: 7},
}

// family is the row of the table that the chord is read on in the key: that of its
// quality, but for dominants whose place in the key says more (common theory).
//
// A scale that the context gives decides before the key does.
func (k Key) family(c Chord) family {
	k = k.of(c)
	if scale, why := c.contextScale(); scale != "" {
		if row, ok := rowOfScale(scale); ok && why != LeadsToMajor {
			return row
		}
		return c.Quality.family
	}
	switch {
	case k.leadsToMinor(c):
		return dominantOfMinor
	case k.besideTheKey(c):
		return lydianDominant
	}
	return c.Quality.family
}

// leadsToMinor says whether the chord is the dominant of a minor chord: the V of a minor
// key, and in other keys the VI that leads to ii and the III that leads to vi (common
// theory). A symbol that names a natural 9 or 13, or a raised or lowered fifth, says
// otherwise and is taken at its word.
func (k Key) leadsToMinor(c Chord) bool {
	k = k.of(c)
	if scale, _ := c.contextScale(); scale != "" {
		return strings.HasPrefix(scale, "Phrygian dominant")
	}
	above := c.Root.Class().Above(k.Tonic.Class())
	switch {
	case c.Quality.isDominantWith("b9", "#9", "11", "b13"):
		return k.Mode == MinorMode && above == 7 || k.Mode != MinorMode && (above == 9 || above == 4)
	case c.Quality.Sign == "": // the V of a minor key is its dominant without a seventh, too
		return k.Mode == MinorMode && above == 7
	}
	return false
}

// besideTheKey says whether the chord is a dominant on bII, bVI or bVII, whose #11 is the
// key's own note (common theory). The bVII of a minor key belongs to it and is left to
// the mode of the key: its natural 4 is the key's third (our choice).
func (k Key) besideTheKey(c Chord) bool {
	if !c.Quality.isDominantWith("9", "13", "#11") {
		return false
	}
	above := c.Root.Class().Above(k.Tonic.Class())
	return above == 1 || above == 8 || above == 10 && k.Mode != MinorMode
}

// Judgement is what one note is over one chord.
type Judgement struct {
	Tone
	Class Class
	// GoesTo is the note that a blue or leaning note wants to move to; nil for
	// the other classes.
	GoesTo *Tone
	// Reason is one plain sentence for the player.
	Reason string
}

// Judge says what the note that sounds as class is over the chord in the key:
// its spelled degree, its class, where it wants to go, and why.
func (k Key) Judge(c Chord, class pitch.Class) Judgement {
	above := class.Above(c.Root.Class())
	kind, target := k.classify(c, above)
	j := Judgement{Tone: k.ToneOver(c, class), Class: kind}
	if target >= 0 {
		resolution := k.ToneOver(c, pitch.ClassOf(int(c.Root.Class())+target))
		j.GoesTo = &resolution
	}
	j.Reason = k.reason(c, j)
	return j
}

// Classify is the class alone of the note that sounds as class over the chord.
func (k Key) Classify(c Chord, class pitch.Class) Class {
	kind, _ := k.classify(c, class.Above(c.Root.Class()))
	return kind
}

// classify is the class of a semitone above the chord's root, and the semitone
// it goes to, or -1.
func (k Key) classify(c Chord, above int) (Class, int) {
	k = k.of(c)
	if _, ok := c.Tone(pitch.ClassOf(int(c.Root.Class()) + above)); ok {
		return ChordTone, -1
	}
	row := k.family(c)
	if kind, target, ok := classBesideAlteration(c, above); ok && row == c.Quality.family {
		return kind, target
	}
	if kind, target, ok := k.refined(c, above); ok {
		return kind, target
	}
	if above == 10 && row == dominantOfMinor && c.Quality.family == major {
		return Colour, -1 // a triad has no seventh to rest on, and can be given one
	}
	letter := families[row][above]
	kind := classesByLetter[letter]
	if kind == Blue || kind == Suspension {
		if target := c.toneNear(above, resolutions[row][above]); target >= 0 {
			return kind, target
		}
		return Outside, -1
	}
	return kind, -1
}

// toneNear is where a note so many semitones above the root resolves: to the tone that the row of
// the table names, and where the chord has altered or left it out, to the nearest tone of the chord
// within a whole step, upwards first; -1 where there is none (our choice).
func (c Chord) toneNear(above, named int) int {
	for _, target := range []int{named, above + 1, above - 1, above + 2, above - 2} {
		if _, ok := c.Tone(pitch.ClassOf(int(c.Root.Class()) + target)); ok && target >= 0 {
			return target
		}
	}
	return -1
}

// classBesideAlteration judges the plain tone whose place an altered one has taken. It
// is our choice: the symbol asks for the altered tone, so a plain 5 beside it
// is outside, and a plain 9 or 13 leans on the altered one. In the same way a
// seventh that the symbol does not have is no chord tone beside the one it has.
func classBesideAlteration(c Chord, above int) (Class, int, bool) {
	has := func(semitones int) bool {
		_, ok := c.Tone(pitch.ClassOf(int(c.Root.Class()) + semitones))
		return ok
	}
	isDominant := c.Quality.family == dominant
	switch {
	case above == 7 && !c.Quality.has("5") && (isDominant || c.Quality.family == majorSeventh || c.Quality.family == minor):
		return Outside, -1, true
	case c.Quality.isAltered() && (above == 1 || above == 3 || above == 6 || above == 8),
		c.Quality.Sign == "7#5" && (above == 1 || above == 3 || above == 6),
		isDominant && has(3) && above == 1, isDominant && has(1) && has(8) && above == 3:
		return Colour, -1, true // the altered notes keep company
	case above == 2 && isDominant && has(1):
		return Suspension, 1, true
	case above == 2 && isDominant && has(3):
		return Suspension, 3, true
	case above == 9 && isDominant && has(8):
		return Suspension, 8, true
	case above == 10 && c.Quality.family == minor && has(11):
		return Outside, -1, true
	case above == 10 && (c.Quality.has("6") && c.Quality.Minor() || c.Quality.Sign == "dim" || c.Quality.Sign == "sus4"):
		return Colour, -1, true
	}
	return "", -1, false
}

// refined is what the key changes in the rows: the 7 over a major triad and
// the 6 or b6 over a minor chord are colour where the key has them; on the
// IV of a major key the #11 is colour and the plain 4 is outside, on its iii the b9
// suspends and the plain 9 is outside.
func (k Key) refined(c Chord, above int) (Class, int, bool) {
	at := func(semitones int) bool {
		holds, known := k.has(pitch.ClassOf(int(c.Root.Class()) + semitones))
		return known && holds
	}
	switch c.Quality.family {
	case major, majorSeventh:
		lydian := at(6) && !at(5)
		switch {
		case above == 6 && lydian:
			return Colour, -1, true
		case above == 5 && lydian:
			return Outside, -1, true
		case above == 11 && at(11):
			return Colour, -1, true
		}
	case minor:
		phrygian := at(1) && !at(2)
		switch {
		case above == 1 && phrygian:
			return Suspension, 0, true
		case above == 2 && phrygian:
			return Outside, -1, true
		}
		if at(8) && !at(9) {
			switch above {
			case 8:
				return Colour, -1, true
			case 9:
				if kind, _ := k.classify(c, 10); kind != ChordTone {
					return Suspension, 7, true
				}
				return Suspension, 10, true
			}
		}
	}
	return "", -1, false
}

// reason says the judgement in one sentence. Over the V the listener expects
// tension, so colour and lean may last.
func (k Key) reason(c Chord, j Judgement) string {
	k = k.of(c)
	what := fmt.Sprintf("%s is the %s of %s", j.Note, j.Degree, c.Symbol())
	if j.Degree.Number == 1 {
		what = fmt.Sprintf("%s is the root of %s", j.Note, c.Symbol())
	}
	var advice string
	switch j.Class {
	case ChordTone:
		advice = "a chord tone, rest on it"
	case Colour:
		advice = "rest on it and it adds colour"
	case Blue:
		advice = fmt.Sprintf("lean on it, and bend or slide it up to %s, %s", j.GoesTo.Note, theDegree(*j.GoesTo))
	case Suspension:
		advice = fmt.Sprintf("it suspends, and wants to move to %s, %s", j.GoesTo.Note, theDegree(*j.GoesTo))
	case Outside:
		advice = "pass through it, never rest on it"
	}
	if (j.Class == Colour || j.Class == Suspension) && c.Root.Class().Above(k.Tonic.Class()) == 7 {
		advice += "; over the V it may stay longer, tension belongs there"
	}
	return what + ": " + advice + "."
}

func theDegree(t Tone) string {
	if t.Degree.Number == 1 {
		return "the root"
	}
	return "the " + t.Degree.String()
}
