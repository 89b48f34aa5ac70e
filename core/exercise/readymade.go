package exercise

// ReadyMade is an exercise to begin with: every choice of it can be changed.
type ReadyMade struct {
	Name, About string
	Exercise    Exercise
}

// ReadyMades are what players do every day (common practice), the plain ones first.
var ReadyMades = []ReadyMade{
	{"Arpeggios through the changes", "The tones of each chord in one position, on from the nearest tone", Exercise{}},
	{"Up this chord, down the next", "Seventh arpeggios: one up, the next one down",
		Exercise{Tones: Seventh, Order: Order{Direction: UpOneDownNext}}},
	{"Every arpeggio from its third", "The third tells the chord: begin there, with a half step into it",
		Exercise{Tones: Seventh, Order: Order{Start: FromThird}, Into: FromBelow}},
	{"Scale of each chord in thirds", "1 3, 2 4, 3 5 through the chord scales in position",
		Exercise{Tones: ScaleOfChord, Order: Order{Figure: InThirds}}},
	{"Thirds up the neck, top two strings", "Two notes at once, step by step up strings 2 and 1",
		Exercise{Tones: Thirds, Where: Where{Kind: AlongStrings, LowString: 1, HighString: 2}, Time: Time{Subdivision: "quarter"}, Ornaments: Ornaments{Slides: true}}},
	{"Sixths along the neck", "Broken sixths with one string between them, step by step along the neck",
		Exercise{Tones: Sixths, Broken: true, Where: Where{Kind: AlongStrings, LowString: 1, HighString: 4}}},
	{"Shells, voices led", "Root, third and seventh once a chord; the upper two move as little as they can",
		Exercise{Tones: Shells, Where: Where{Kind: AlongStrings}, Time: Time{Subdivision: OncePerChord}}},
	{"Guide tones as a line", "Thirds and sevenths one after the other on the middle strings",
		Exercise{Tones: GuideTones, Broken: true, Where: Where{Kind: AlongStrings}}},
	{"Box in groups of four", "Your pentatonic up and down in fours, hammered and pulled",
		Exercise{Tones: BoxTones, Order: Order{Figure: GroupsOfFour}, Ornaments: Ornaments{Slurs: true}}},
	{"Three notes a string", "The scale of each chord over all strings, legato",
		Exercise{Tones: ScaleOfChord, Where: Where{Kind: NotesPerString, PerString: 3}, Ornaments: Ornaments{Slurs: true}, Time: Time{Subdivision: "triplet"}}},
	{"Up here, down the next position", "The scale up in this position, and down in the one above it",
		Exercise{Tones: ScaleOfChord, Where: Where{Kind: TwoPositions}}},
	{"One string only", "The scale of each chord along string 3: hear every step as a distance",
		Exercise{Tones: ScaleOfChord, Where: Where{Kind: AlongStrings, LowString: 3, HighString: 3}, Time: Time{Subdivision: "quarter"}, Ornaments: Ornaments{Slides: true}}},
	{"A chromatic note below each 5", "Arpeggios with the half step below the fifth",
		Exercise{Ornaments: Ornaments{Before: HalfStepBelow, To: []int{5}}}},
	{"Roots enclosed", "The half step above and the one below, then the root",
		Exercise{Ornaments: Ornaments{Before: ChromaticEnclosure, To: []int{1}}}},
	{"An arpeggio laid over each chord", "Another chord's arpeggio on the third: 3 5 7 and the colour above",
		Exercise{Tones: SuperimposedOver, Superimposed: 3}},
	{"Spread triads", "Root, fifth and high third, through the inversions along the neck",
		Exercise{Tones: SpreadTriads, Broken: true, Where: Where{Kind: AlongStrings}, Time: Time{Subdivision: "triplet"}}},
	{"Figure and fill", "The same figure on beats 1 and 2, then a fill that comes out on the next root",
		Exercise{Time: Time{Pattern: FigureAndFill}}},
	{"Runs that land on the third", "Silence, then four notes and the third on the change",
		Exercise{Tones: ScaleOfChord, Time: Time{Pattern: CountedBack, Notes: 5}}},
	{"The seven chords of the key", "A seventh arpeggio for each chord that the key has",
		Exercise{Tones: Seventh, Over: Over{Kind: ChordsOfKey}}},
	{"Tenths", "Root and tenth up the scale, one bass string and one treble string",
		Exercise{Tones: Tenths, Where: Where{Kind: AlongStrings}, Time: Time{Subdivision: "quarter"}}},
}
