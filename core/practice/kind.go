package practice

import "undaris/core/choice"

// Kind is a kind of drill.
type Kind string

// The kinds of drill.
const (
	SpellChord  Kind = "spell a chord"
	SpellScale  Kind = "spell a scale"
	Find        Kind = "find it"
	Name        Kind = "name the degree"
	NameNext    Kind = "name it over the next chord"
	Arpeggio    Kind = "arpeggio in order"
	ScaleFrom   Kind = "scale from a degree"
	Landing     Kind = "nearest landing"
	WriteOut    Kind = "write out the neck"
	WhichForm   Kind = "which form"
	WhereForm   Kind = "where is the form"
	EarDegree   Kind = "which degree, by ear"
	EarChord    Kind = "which chord, by ear"
	EarBar      Kind = "which bar, by ear"
	RunStart    Kind = "where must it begin"
	BoxAndChord Kind = "box and chord"
	GuideLine   Kind = "guide-tone line"
)

// KindFacts says what a kind of drill is about.
type KindFacts struct {
	Kind Kind
	// Text says what is asked, in a few words.
	Text string
	// Chords is how many chords its subject has; Many for as many as there are.
	Chords int
	// InPosition says that it is asked in a position of the neck, NeedsForms that it is only where
	// the five forms lie.
	InPosition, NeedsForms bool
}

// Many is the number of chords of a subject that is a whole progression.
const Many = -1

// Kinds lists every kind in the order that a teacher would begin with them (our choice: where
// things lie, then what they are called, then in order, then over the changes).
var Kinds = []KindFacts{
	{Find, "every place of a tone", 1, true, false},
	{Name, "the degree of a lit note", 1, true, false},
	{Arpeggio, "chord tones from a given one, in a given order", 1, true, false},
	{WhichForm, "the form that a shape is", 1, true, true},
	{WhereForm, "where a form of a chord lies", 1, true, true},
	{SpellChord, "the notes of a chord", 1, false, false},
	{Landing, "the nearest chord tone over a change", 2, true, false},
	{BoxAndChord, "what of a chord the box lacks", 1, true, false},
	{NameNext, "the degree of a lit note over the next chord", 2, true, false},
	{ScaleFrom, "the scale of a chord from any degree", 1, true, false},
	{SpellScale, "the notes of the scale of a chord", 1, false, false},
	{WriteOut, "the names of the notes of two strings", 0, true, false},
	{RunStart, "when a run must begin to land in time", 0, false, false},
	{GuideLine, "one guide tone for each chord, moving least", Many, true, false},
	{EarDegree, "the degree of a note that is heard", 1, false, false},
	{EarChord, "I, IV or V, heard", 1, false, false},
	{EarBar, "the bar of the form that is heard", Many, false, false},
}

// FindKind finds a kind by its name. Its error is a *choice.Error.
func FindKind(name string) (KindFacts, error) {
	return choice.Find("a drill", Kinds, func(k KindFacts) string { return string(k.Kind) }, name)
}
