package chart

import (
	"fmt"

	"undaris/core/harmony"
)

// ScaleFor is the scale that the player chose for a chord of the chart, or for whatever chord has a
// function in its key.
type ScaleFor struct {
	// Chord is the chord; its quality is nil where the choice is for a function.
	Chord harmony.Chord
	// Function is the numeral and the sign of the chord, as in "VI7"; empty where it is for a chord.
	Function string
	Scale    string
}

// Name is the chord or the function that it is for.
func (s ScaleFor) Name() string {
	if s.Function != "" {
		return s.Function
	}
	return s.Chord.Symbol()
}

// MaxScales is how many choices of a scale a chart may hold.
const MaxScales = 64

// checkScales holds the chosen scales to chords that can be played by them.
func (c Chart) checkScales() error {
	if len(c.Scales) > MaxScales {
		return fail("scales", "there are %d choices of a scale; a chart has at most %d", len(c.Scales), MaxScales)
	}
	for n, choice := range c.Scales {
		chord := choice.Chord
		if choice.Function != "" {
			var err error
			if chord, err = c.Key.ParseRoman(choice.Function); err != nil {
				return fail(fmt.Sprintf("scales[%d].function", n), "%s", err)
			}
		}
		if err := chord.FindScale(choice.Scale); err != nil {
			return fail(fmt.Sprintf("scales[%d].scale", n), "%s", err)
		}
	}
	return nil
}

// WithScale is the chart with a scale chosen for a chord, or for its function in a key where the key is
// given; an empty scale takes the choice away.
func (c Chart) WithScale(chord harmony.Chord, key *harmony.Key, scale string) (Chart, error) {
	choice := ScaleFor{Chord: chord, Scale: scale}
	if key != nil {
		choice = ScaleFor{Function: key.FunctionNumeral(chord), Scale: scale}
	}
	kept := []ScaleFor{}
	for _, one := range c.Scales {
		if one.Name() != choice.Name() {
			kept = append(kept, one)
		}
	}
	if scale != "" {
		if err := chord.FindScale(scale); err != nil {
			return c, fail("scale", "%s", err)
		}
		kept = append(kept, choice)
	}
	c.Scales = kept
	return c, c.checkScales()
}

// ScaleChosen is the scale that the player chose for a chord in a key, or no scale; the choice for the chord
// itself goes before that for its function.
func (c Chart) ScaleChosen(k harmony.Key, chord harmony.Chord) ScaleFor {
	var chosen ScaleFor
	for _, choice := range c.Scales {
		switch {
		case choice.Function == "" && choice.Chord.Same(chord):
			return choice
		case choice.Function != "" && choice.Function == k.FunctionNumeral(chord):
			chosen = choice
		}
	}
	return chosen
}

// contextOf is where a chord stands before another, or alone.
func (c Chart) contextOf(k harmony.Key, chord harmony.Chord, next *harmony.Chord) harmony.Context {
	at := harmony.Context{Key: k}
	if next != nil {
		at = k.Following(chord, *next)
	}
	if chosen := c.ScaleChosen(k, chord).Scale; chosen != "" {
		at.Scale, at.Why = chosen, harmony.PlayerChose
	}
	return at
}

// withContexts gives every chord of the time line its context: the key of its bar, what follows it,
// the scale the player chose.
func (c Chart) withContexts(spans []ChordSpan) {
	type standing struct {
		chord, next string
		key         harmony.Key
	}
	known := map[standing]harmony.Chord{}
	// next is the chord after each, which for the last ones is that of the next chorus; a chord that
	// goes on is one with itself.
	var next *harmony.Chord
	for n := 2*len(spans) - 1; n >= 0; n-- {
		at := n % len(spans)
		chord := spans[at].Chord
		if after := spans[(at+1)%len(spans)].Chord; !after.Same(chord) {
			next = &after
		}
		if n >= len(spans) {
			continue
		}
		where := standing{chord: chord.Symbol(), key: spans[at].Key}
		if next != nil {
			where.next = next.Symbol()
		}
		in, met := known[where]
		if !met {
			in = c.inContext(where.key, chord, next)
			known[where] = in
		}
		spans[at].Chord = in
		written := spans[at].Written
		if written.Same(chord) {
			spans[at].Written = in
		} else {
			spans[at].Written = c.inContext(where.key, written, nil)
		}
	}
}

// inContext is the chord in its context; as it is where there is nothing to say that the chart's own key
// does not.
func (c Chart) inContext(k harmony.Key, chord harmony.Chord, next *harmony.Chord) harmony.Chord {
	at := c.contextOf(k, chord, next)
	if at.Key == c.Key && at.Scale == "" && at.Numeral == "" {
		return chord.WithoutContext()
	}
	return chord.In(at)
}

// InContext is a chord as the chart first has it, or as it would have it in its first key.
func (c Chart) InContext(chord harmony.Chord) harmony.Chord {
	for _, m := range c.ChordSpans() {
		if m.Chord.Same(chord) {
			return m.Chord
		}
	}
	return c.inContext(c.Key, chord, nil)
}
