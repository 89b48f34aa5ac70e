package harmony

import "undaris/core/pitch"

// Context is what is known of a chord where it stands in a tune. Whatever is asked of a key about a
// chord that has one is answered in that key and by that scale.
type Context struct {
	// Key is the key that holds there.
	Key Key
	// Scale is the name of the scale that joins the chord's tones there, empty for what the key says;
	// Why is why.
	Scale string
	Why   ScaleReason
	// Next is the chord that follows; nil where none was looked at.
	Next *Chord
	// Numeral is what the chord is to the chord it leads to, "V7/ii"; empty where its own numeral
	// says enough.
	Numeral string
}

// ScaleReason is why a chord joins by a scale that the key alone would not give it.
type ScaleReason int

// The reasons: the player chose it, or what follows decides it.
const (
	KeyDecides ScaleReason = iota
	PlayerChose
	LeadsToMinor
	LeadsToMajor
	SlidesDown
)

// In is the chord in a context.
func (c Chord) In(at Context) Chord {
	c.context = &at
	return c
}

// WithoutContext is the chord looked at alone.
func (c Chord) WithoutContext() Chord {
	c.context = nil
	return c
}

// Context is where the chord stands, in a key unless it says another.
func (c Chord) Context(k Key) Context {
	if c.context == nil {
		return Context{Key: k}
	}
	return *c.context
}

// SameContext says whether both chords are judged alike: in the same key and by the same scale. One
// without a context stands in the key k.
func (c Chord) SameContext(other Chord, k Key) bool {
	a, b := c.Context(k), other.Context(k)
	return a.Key == b.Key && a.Scale == b.Scale
}

// of is the key that is asked about a chord: that of the chord's context, where it has one.
func (k Key) of(c Chord) Key {
	if c.context != nil {
		return c.context.Key
	}
	return k
}

// contextScale is the scale that the chord's context gives it, and why.
func (c Chord) contextScale() (string, ScaleReason) {
	if c.context == nil {
		return "", KeyDecides
	}
	return c.context.Scale, c.context.Why
}

// Following is the context of a chord in the key before another: what follows says of a dominant
// whether it leads to a minor chord, to a major one, or slides down into the next by a half step
// (common theory). The home chord of a blues leads nowhere, and a symbol that names its own tensions is taken
// at its word.
func (k Key) Following(c, next Chord) Context {
	at := Context{Key: k, Next: &next}
	above := next.Root.Class().Above(c.Root.Class())
	home := k.Mode == DominantMode && c.Root.Class() == k.Tonic.Class()
	leads := c.Quality.isDominantWith("b9", "#9", "11", "b13")
	switch {
	case home:
	case above == 5 && leads && next.Quality.Minor():
		at.Scale, at.Why = minorDominantScale(c), LeadsToMinor
	case above == 5 && leads && k.leadsToMinor(c):
		at.Scale, at.Why = usualScale(c), LeadsToMajor
	case above == 11 && c.Quality.isDominantWith("9", "13", "#11"):
		at.Scale, at.Why = "Lydian dominant", SlidesDown
	}
	if byKey, _ := k.chordScale(c); byKey == at.Scale {
		at.Scale, at.Why = "", KeyDecides // the key says so already
	}
	at.Numeral = k.secondaryNumeral(c, next)
	return at
}

// minorDominantScale is the scale of a dominant that leads to a minor chord.
func minorDominantScale(c Chord) string {
	if c.Quality.has("#9") {
		return "Phrygian dominant with #9"
	}
	return "Phrygian dominant"
}

// secondaryNumeral is what a chord from outside a major or minor key is to the chord that follows it
// or that it leads to: its V7, its viio7, or the ii7 of its V7. In a blues players say II7 and VI7 (our
// choice), so it is empty there.
func (k Key) secondaryNumeral(c, next Chord) string {
	if k.Mode == DominantMode || k.ownsChord(c) {
		return ""
	}
	_, third := c.Tone(pitch.ClassOf(int(c.Root.Class()) + 4))
	_, seventh := c.Tone(pitch.ClassOf(int(c.Root.Class()) + 10))
	sign, toTonic := "", next.Root.Class() == k.Tonic.Class()
	switch above := next.Root.Class().Above(c.Root.Class()); {
	case toTonic && (above == 1 || third):
	case above == 5 && third && seventh:
		sign = "V7"
	case above == 5 && third && c.Quality.family == major:
		sign = "V"
	case above == 1 && c.Quality.Sign == "dim7":
		sign = "vii°7"
	case above == 1 && c.Quality.Sign == "m7b5":
		sign = "viiø7"
	case above == 5 && next.Quality.isDominantWith("b9", "#9", "9", "11", "#11", "13", "b13") && c.Quality.Sign == "m7":
		goal := transposed(pitch.Note{Letter: 3}, pitch.Note{}, next.Root)
		if goal.Class() == k.Tonic.Class() {
			return ""
		}
		return "ii7/" + k.goalNumeral(goal)
	}
	if sign == "" {
		return ""
	}
	return sign + "/" + k.Roman(Chord{Root: next.Root, Quality: next.Quality})
}

// ownsChord says whether every tone of the chord is in the key's scale, or in the harmonic minor of
// a minor key.
func (k Key) ownsChord(c Chord) bool {
	return k.Scale().has(c) || k.Mode == MinorMode && scaleOn(k.Tonic, "harmonic minor").has(c)
}

// Identity tells chords apart that are judged differently: the symbol, and the key and the scale where
// the chord's context gives them.
func (c Chord) Identity() string {
	if c.context == nil {
		return c.Symbol()
	}
	k := c.context.Key
	return c.Symbol() + " in " + k.Tonic.String() + " " + string(k.Mode) + " " + c.context.Scale
}
