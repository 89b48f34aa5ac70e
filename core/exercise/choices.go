package exercise

// What can be walked.
type Tones string

// The tones and structures that are walked. The empty text is ChordTones.
const (
	ChordTones       Tones = "chord tones"
	Triad            Tones = "triad"
	Seventh          Tones = "seventh arpeggio"
	ScaleOfChord     Tones = "scale of the chord"
	BoxTones         Tones = "box"
	SuperimposedOver Tones = "superimposed arpeggio"
	Shells           Tones = "shells"
	GuideTones       Tones = "guide tones"
	RootAndThird     Tones = "root and third"
	Thirds           Tones = "thirds"
	Fourths          Tones = "fourths"
	Fifths           Tones = "fifths"
	Sixths           Tones = "sixths"
	Octaves          Tones = "octaves"
	Tenths           Tones = "tenths"
	SpreadTriads     Tones = "spread triads"
)

// OverKind is what is walked over.
type OverKind string

// The empty text is TheTune.
const (
	TheTune       OverKind = "the tune"
	OneChord      OverKind = "one chord"
	ChordsOfKey   OverKind = "the seven chords of the key"
	TypedInChords OverKind = "a progression"
)

// WhereKind is where on the neck.
type WhereKind string

// The empty text is InPosition.
const (
	InPosition     WhereKind = "in position"
	TwoPositions   WhereKind = "up here, down the next position"
	AlongStrings   WhereKind = "along the strings"
	SomeFrets      WhereKind = "on some frets"
	NotesPerString WhereKind = "so many notes a string"
	StringPairs    WhereKind = "a pair of strings and its octaves"
	CellOnStrings  WhereKind = "a cell on two strings, moved"
	WholeNeck      WhereKind = "the whole neck"
	ByForms        WhereKind = "form by form, low to high"
)

// Direction is which way a walk goes.
type Direction string

// The empty text is UpAndDown.
const (
	UpAndDown     Direction = "up and down"
	Up            Direction = "up"
	Down          Direction = "down"
	UpOneDownNext Direction = "up one chord, down the next"
)

// Start is where each chord begins.
type Start string

// The empty text is NearestTone.
const (
	NearestTone Start = "nearest tone"
	LowestNote  Start = "lowest note"
	FromRoot    Start = "R"
	FromThird   Start = "3"
	FromFifth   Start = "5"
	FromSeventh Start = "7"
	FromNinth   Start = "9"
	FromFourth  Start = "11"
	FromSixth   Start = "13"
)

// Figure is which steps of the tones follow one another.
type Figure string

// The empty text is OneAfterAnother.
const (
	OneAfterAnother Figure = "one after another"
	InThirds        Figure = "in thirds"
	InFourths       Figure = "in fourths"
	InFifths        Figure = "in fifths"
	InSixths        Figure = "in sixths"
	GroupsOfThree   Figure = "groups of three"
	GroupsOfFour    Figure = "groups of four"
	TwoUpOneDown    Figure = "two up, one down"
	Inversions      Figure = "inversion by inversion"
	OwnFigure       Figure = "my own numbers"
)

// FigureTurn is which way round a figure goes.
type FigureTurn string

// The empty text is AsWritten.
const (
	AsWritten   FigureTurn = "as written"
	Reversed    FigureTurn = "reversed"
	Alternating FigureTurn = "alternating"
	UpsideDown  FigureTurn = "upside down"
)

// Into is how one chord is led into the next.
type Into string

// The empty text is Directly.
const (
	Directly      Into = "directly"
	FromBelow     Into = "half step from below"
	FromAbove     Into = "half step from above"
	ChromaticInto Into = "chromatic run"
)

// Approach is what leads into single tones.
type Approach string

// The empty text is none.
const (
	HalfStepBelow      Approach = "half step below"
	DiatonicEnclosure  Approach = "enclosure, diatonic"
	ChromaticEnclosure Approach = "enclosure, chromatic"
)

// Tail is how a chord ends.
type Tail string

// The empty text is none.
const (
	FourToThree Tail = "4–3"
	FourToFive  Tail = "4–5"
)

// Pattern is how the time of a chord is used.
type Pattern string

// The empty text is Through.
const (
	Through       Pattern = "through"
	FigureAndFill Pattern = "figure, then fill"
	CountedBack   Pattern = "counted back"
)

// Choice is something that may be chosen, with what it is in a line.
type Choice struct{ Name, Text string }

// Choices lists all that may be chosen, the default of each first.
var Choices = struct {
	Tones, Over, Where, Directions, Starts, Figures, Turns, Into, Approaches, Tails, Patterns []Choice
}{
	Tones: []Choice{
		{string(ChordTones), "the tones of each chord as it is written"},
		{string(Triad), "root, third and fifth of each chord"},
		{string(Seventh), "root, third, fifth and seventh, also where only a triad is written"},
		{string(ScaleOfChord), "the chord's tones and the notes that join them"},
		{string(BoxTones), "your pentatonic or blues scale, whatever the chord"},
		{string(SuperimposedOver), "another chord's arpeggio that adds colour to this one"},
		{string(Shells), "root, third and seventh, root on string 6 or 5, with the nearest change of hand"},
		{string(GuideTones), "third and seventh, each voice moving as little as it can"},
		{string(RootAndThird), "root and third of each chord"},
		{string(Thirds), "two notes, a third of the scale apart"},
		{string(Fourths), "two notes, a fourth of the scale apart"},
		{string(Fifths), "two notes, a fifth of the scale apart"},
		{string(Sixths), "two notes, a sixth of the scale apart, one string between them"},
		{string(Octaves), "each note with its octave"},
		{string(Tenths), "two notes, a third and an octave apart"},
		{string(SpreadTriads), "triads with the middle tone an octave up, through their inversions"},
	},
	Over: []Choice{
		{string(TheTune), "through the tune's chords, in its time"},
		{string(OneChord), "one chord that goes on"},
		{string(ChordsOfKey), "a bar for each chord that the key has"},
		{string(TypedInChords), "chords of your own"},
	},
	Where: []Choice{
		{string(InPosition), "the hand stays where it is"},
		{string(TwoPositions), "up in this position, down in the next one higher"},
		{string(AlongStrings), "from the nut to the last fret, on the strings you choose"},
		{string(SomeFrets), "only between two frets"},
		{string(NotesPerString), "two, three or four on every string; the hand moves along"},
		{string(StringPairs), "strings 6 and 5, then the same an octave up on 4 and 3, and on 2 and 1"},
		{string(CellOnStrings), "one small group on two strings, moved up the scale step by step"},
		{string(WholeNeck), "from the lowest note to the highest, diagonal across the neck"},
		{string(ByForms), "each time through in the next of the five forms"},
	},
	Directions: []Choice{
		{string(UpAndDown), "up to the top, down to the bottom, on through the chords"},
		{string(Up), "always up, and again from the start"},
		{string(Down), "always down, and again from the top"},
		{string(UpOneDownNext), "up this chord, down the next one"},
	},
	Starts: []Choice{
		{string(NearestTone), "each chord goes on from the nearest tone"},
		{string(LowestNote), "each chord begins on its lowest tone here (going down: its highest)"},
		{string(FromRoot), "each chord begins on its root"},
		{string(FromThird), "each chord begins on its third"},
		{string(FromFifth), "each chord begins on its fifth"},
		{string(FromSeventh), "each chord begins on its seventh"},
		{string(FromNinth), "each chord begins on its 9, the 2"},
		{string(FromFourth), "each chord begins on its 11, the 4"},
		{string(FromSixth), "each chord begins on its 13, the 6"},
	},
	Figures: []Choice{
		{string(OneAfterAnother), "1 2 3 4 …"},
		{string(InThirds), "1 3, 2 4, 3 5 …"},
		{string(InFourths), "1 4, 2 5, 3 6 …"},
		{string(InFifths), "1 5, 2 6, 3 7 …"},
		{string(InSixths), "1 6, 2 7, 3 8 …"},
		{string(GroupsOfThree), "1 2 3, 2 3 4 …"},
		{string(GroupsOfFour), "1 2 3 4, 2 3 4 5 …"},
		{string(TwoUpOneDown), "1 3 2 4 3 5 …: two tones up, one back"},
		{string(Inversions), "all the chord's tones from the root, then from the next tone, and so on"},
		{string(OwnFigure), "steps of the tones that you type, as in 1 2 3 1"},
	},
	Turns: []Choice{
		{string(AsWritten), "as it is written"},
		{string(Reversed), "from its last note to its first"},
		{string(Alternating), "once as written, once reversed"},
		{string(UpsideDown), "up where it went down"},
	},
	Into: []Choice{
		{string(Directly), "straight on"},
		{string(FromBelow), "the last note is the half step below the next chord's first"},
		{string(FromAbove), "the last note is the half step above the next chord's first"},
		{string(ChromaticInto), "the last three notes go there in half steps"},
	},
	Approaches: []Choice{
		{"", "nothing before the tones"},
		{string(HalfStepBelow), "the half step below comes first"},
		{string(DiatonicEnclosure), "the scale's note above and the one below come first"},
		{string(ChromaticEnclosure), "the half step above and the one below come first"},
	},
	Tails: []Choice{
		{"", "no tail"},
		{string(FourToThree), "each chord ends on its 4 and resolves to the 3"},
		{string(FourToFive), "each chord ends on its 4 and goes up to the 5"},
	},
	Patterns: []Choice{
		{string(Through), "notes all the time"},
		{string(FigureAndFill), "the same figure in the first half of a bar, then a fill into the next root"},
		{string(CountedBack), "silence, then a run that lands on the next chord"},
	},
}
