package practice

import (
	"fmt"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// Card is one thing to know: a kind of drill in a key, at a position, over a chord or several.
type Card struct {
	Kind Kind
	Key  harmony.Key
	// Position is the name of a position of the key, as in "E" or "E+1"; empty where the drill
	// is asked in none.
	Position string
	Chords   []harmony.Chord
	// id is its ID where that is known already.
	id string
}

// WithID is the card with its ID at hand; it is not to be changed any more.
func (c Card) WithID() Card {
	c.id = c.ID()
	return c
}

// ID names a card: its kind, key, position and chords, with bars between. Cards of one ID are the
// same card.
func (c Card) ID() string {
	if c.id != "" {
		return c.id
	}
	symbols := make([]string, len(c.Chords))
	for n, chord := range c.Chords {
		symbols[n] = chord.Symbol()
	}
	return strings.Join([]string{string(c.Kind), c.Key.Tonic.String() + " " + string(c.Key.Mode), c.Position, strings.Join(symbols, " ")}, "|")
}

// Subject is what the card is about, as it is read: "C7", "C7 to F7", "12 chords".
func (c Card) Subject() string {
	switch len(c.Chords) {
	case 0:
		return string(c.Key.Tonic.String() + " " + string(c.Key.Mode))
	case 1:
		return c.Chords[0].Symbol()
	case 2:
		return c.Chords[0].Symbol() + " to " + c.Chords[1].Symbol()
	}
	return fmt.Sprintf("%d chords from %s on", len(c.Chords), c.Chords[0].Symbol())
}

// CardError says what of a card cannot be read or asked, and what is allowed.
type CardError struct{ Detail string }

func (e *CardError) Error() string { return e.Detail }

// ParseCard reads a card by its ID. Its error is a *CardError.
func ParseCard(id string) (Card, error) {
	parts := strings.Split(id, "|")
	if len(parts) != 4 {
		return Card{}, &CardError{fmt.Sprintf("a card is kind|key|position|chords, as in \"find it|C dominant|E|C7\"; %q is not", id)}
	}
	facts, err := FindKind(parts[0])
	if err != nil {
		return Card{}, &CardError{err.Error()}
	}
	key, err := harmony.ReadKey(parts[1])
	if err != nil {
		return Card{}, &CardError{err.Error()}
	}
	c := Card{Kind: facts.Kind, Key: key, Position: parts[2]}
	for _, symbol := range strings.Fields(parts[3]) {
		chord, err := harmony.ParseChord(symbol)
		if err != nil {
			return Card{}, &CardError{err.Error()}
		}
		c.Chords = append(c.Chords, chord)
	}
	return c, c.check(facts)
}

// check says what a card lacks for its kind.
func (c Card) check(facts KindFacts) error {
	switch {
	case facts.Chords == Many && (len(c.Chords) < 2 || len(c.Chords) > MaxChords):
		return &CardError{fmt.Sprintf("%s is asked over 2 to %d chords; these are %d", c.Kind, MaxChords, len(c.Chords))}
	case facts.Chords != Many && len(c.Chords) != facts.Chords:
		return &CardError{fmt.Sprintf("%s is asked over %d chords; these are %d", c.Kind, facts.Chords, len(c.Chords))}
	}
	return nil
}

// MaxChords is how many chords a progression has at most that is asked about.
const MaxChords = 64

// position is where the card lies on the neck.
func (c Card) position(i neck.Instrument) neck.Position {
	return neck.NearestPosition(i, c.Key.Tonic.Class(), c.Position)
}
