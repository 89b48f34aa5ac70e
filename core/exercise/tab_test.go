package exercise

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/phrase/phrasetest"
)

func chordNamed(symbol string) *harmony.Chord {
	chord, err := harmony.ParseChord(symbol)
	if err != nil {
		panic(err)
	}
	return &chord
}

// What is walked, where, how and when, as tab: every note as string:fret and its degree over the
// chord that sounds, with h, p and / where it is hammered on, pulled off or slid to.
func TestExercisesAsTab(t *testing.T) {
	settings := map[string]Setting{
		"blues": bluesInC(t, "C7", "F7"),
		"song":  settingOver(t, phrasetest.Song(t, "Ab", harmony.MajorMode, "Ab", "Fm7", "Dbmaj7 Eb7"), "E"),
		"minor": settingOver(t, phrasetest.Song(t, "A", harmony.MinorMode, "Am7", "Dm7", "E7"), "E"),
	}
	for _, c := range []struct {
		over, name string
		exercise   Exercise
		want       string
	}{
		{"blues", "chord tones in position", Exercise{},
			"6:8 R 5:7 3 5:10 5 4:8 b7 4:10 R 3:9 3 2:8 5 2:11 b7 | 1:8 5 1:11 b7 1:8 5 2:10 3 3:10 R 3:8 b7 3:10 R"},
		{"blues", "triads with the 9", Exercise{Tones: Triad, Extensions: []int{9}},
			"6:8 R 6:10 9 5:7 3 5:10 5 4:10 R 3:7 9 3:9 3 2:8 5 | 2:10 3 1:8 5 2:10 3 2:8 9 3:10 R 4:10 5 4:7 3"},
		{"blues", "sevenths with 9 and 13, up, each from its root", Exercise{Tones: Seventh, Extensions: []int{9, 13}, Order: Order{Direction: Up, Start: FromRoot}},
			"6:8 R 6:10 9 5:7 3 5:10 5 4:7 13 4:8 b7 4:10 R 3:7 9 | 5:8 R 5:10 9 4:7 3 4:10 5 3:7 13 3:8 b7 3:10 R"},
		{"blues", "sevenths up this chord, down the next", Exercise{Tones: Seventh, Order: Order{Direction: UpOneDownNext}},
			"6:8 R 5:7 3 5:10 5 4:8 b7 4:10 R 3:9 3 2:8 5 2:11 b7 | 2:10 3 3:10 R 3:8 b7 4:10 5 4:7 3 5:8 R 4:7 3"},
		{"blues", "sevenths down from the lowest start", Exercise{Tones: Seventh, Order: Order{Direction: Down, Start: LowestNote}},
			"1:8 R 2:11 b7 2:8 5 3:9 3 4:10 R 4:8 b7 5:10 5 5:7 3 | 1:11 b7 1:8 5 2:10 3 3:10 R 3:8 b7 4:10 5 4:7 3"},
		{"blues", "inversion by inversion", Exercise{Tones: Seventh, Order: Order{Figure: Inversions, Start: LowestNote}},
			"6:8 R 5:7 3 5:10 5 4:8 b7 5:7 3 5:10 5 4:8 b7 4:10 R | 6:8 5 6:11 b7 5:8 R 4:7 3 6:11 b7 5:8 R 4:7 3"},
		{"blues", "two up one down", Exercise{Order: Order{Figure: TwoUpOneDown}},
			"6:8 R 5:10 5 5:7 3 4:8 b7 5:10 5 4:10 R 4:8 b7 3:9 3 | 3:10 R 1:8 5 2:10 3 1:11 b7 1:8 5 3:10 R 2:10 3"},
		{"blues", "from the third with a half step into it", Exercise{Tones: Seventh, Order: Order{Start: FromThird}, Into: FromBelow},
			"5:7 3 5:10 5 4:8 b7 4:10 R 3:9 3 2:8 5 2:11 b7 2:9 b13 | 2:10 3 1:8 5 1:11 b7 1:8 5 2:10 3 3:10 R 2:10 3"},
		{"blues", "a half step from above", Exercise{Tones: Triad, Into: FromAbove},
			"6:8 R 5:7 3 5:10 5 4:10 R 3:9 3 2:8 5 1:8 R 2:11 b7 | 2:10 3 3:10 R 4:10 5 4:7 3 5:8 R 6:8 5 5:8 R"},
		{"blues", "a chromatic run into the next chord", Exercise{Into: ChromaticInto},
			"6:8 R 5:7 3 5:10 5 4:8 b7 4:10 R 3:9 3 3:6 b9 3:7 9 | 3:8 b7 3:10 R 2:10 3 1:8 5 1:11 b7 1:8 5 2:10 3"},
		{"blues", "a note below the 5", Exercise{Ornaments: Ornaments{Before: HalfStepBelow}},
			"6:8 R 5:7 3 5:9 b5 5:10 5 4:8 b7 4:10 R 3:9 3 2:8 5 | 2:10 3 1:7 b5 1:8 5 1:11 b7 1:7 b5 1:8 5 2:10 3"},
		{"blues", "thirds and sevenths enclosed in the scale", Exercise{Ornaments: Ornaments{Before: DiatonicEnclosure, To: []int{3, 7}}},
			"6:8 R 5:8 11 6:10 9 5:7 3 5:10 5 4:10 R 4:7 13 4:8 b7 | 4:10 5 3:10 R 3:7 13 3:8 b7 3:10 R 2:10 3 3:10 R"},
		{"blues", "roots enclosed in half steps", Exercise{Ornaments: Ornaments{Before: ChromaticEnclosure, To: []int{1}}},
			"6:9 b9 6:7 7 6:8 R 5:7 3 5:10 5 4:8 b7 4:10 R 3:9 3 | 2:7 b9 3:9 7 3:10 R 2:10 3 1:8 5 1:11 b7 2:10 3"},
		{"blues", "4-3 tails with slurs", Exercise{Ornaments: Ornaments{Tail: FourToThree, Slurs: true}},
			"6:8 R 5:7 3 h5:10 5 4:8 b7 h4:10 R 3:9 3 h3:10 11 p3:9 3 | h3:10 R 2:10 3 1:8 5 h1:11 b7 2:11 11 p2:10 3 3:10 R"},
		{"blues", "4-5 tails", Exercise{Ornaments: Ornaments{Tail: FourToFive}},
			"6:8 R 5:7 3 5:10 5 4:8 b7 4:10 R 3:9 3 3:10 11 2:8 5 | 2:10 3 1:8 5 1:11 b7 1:8 5 2:11 11 1:8 5 2:10 3"},
		{"blues", "scale in thirds", Exercise{Tones: ScaleOfChord, Order: Order{Figure: InThirds}},
			"6:8 R 5:7 3 6:10 9 5:8 11 5:7 3 5:10 5 5:8 11 4:7 13 | 4:8 11 3:7 13 4:10 5 3:8 b7 3:7 13 3:10 R 2:10 3"},
		{"blues", "scale in thirds, alternating", Exercise{Tones: ScaleOfChord, Order: Order{Figure: InThirds, Turn: Alternating}},
			"6:8 R 5:7 3 5:8 11 6:10 9 5:7 3 5:10 5 4:7 13 5:8 11 | 5:10 9 4:8 11 4:10 5 4:7 3 4:8 11 3:7 13 3:10 R"},
		{"blues", "scale in fourths, reversed", Exercise{Tones: ScaleOfChord, Order: Order{Figure: InFourths, Turn: Reversed}},
			"5:8 11 6:8 R 5:10 5 6:10 9 4:7 13 5:7 3 4:8 b7 5:8 11 | 4:10 5 5:10 9 3:7 13 4:7 3 3:8 b7 4:8 11 4:7 3"},
		{"blues", "scale in fifths", Exercise{Tones: ScaleOfChord, Order: Order{Figure: InFifths}},
			"6:8 R 5:10 5 6:10 9 4:7 13 5:7 3 4:8 b7 5:8 11 4:10 R | 3:7 13 2:10 3 3:8 b7 2:11 11 3:10 R 1:8 5 2:10 3"},
		{"blues", "scale in sixths", Exercise{Tones: ScaleOfChord, Order: Order{Figure: InSixths}},
			"6:8 R 4:7 13 6:10 9 4:8 b7 5:7 3 4:10 R 5:8 11 3:7 9 | 3:8 b7 1:8 5 3:10 R 1:10 13 2:8 9 1:11 b7 2:10 3"},
		{"blues", "scale in groups of three, triplets", Exercise{Tones: ScaleOfChord, Order: Order{Figure: GroupsOfThree}, Time: Time{Subdivision: "triplet"}},
			"6:8 R 6:10 9 5:7 3 6:10 9 5:7 3 5:8 11 5:7 3 5:8 11 5:10 5 5:8 11 5:10 5 4:7 13 | 4:8 11 4:10 5 3:7 13 4:10 5 3:7 13 3:8 b7 3:7 13 3:8 b7 3:10 R 2:10 3"},
		{"blues", "my figure 1 2 3 1, seven played and one left out", Exercise{Tones: ScaleOfChord, Order: Order{Figure: OwnFigure, Numbers: []int{1, 2, 3, 1}}, Time: Time{Play: 7, Rest: 1}},
			"6:8 R 6:10 9 5:7 3 6:8 R 6:10 9 5:7 3 5:8 11 | 5:10 9 4:7 3 4:8 11 5:10 9 4:7 3 4:8 11 4:7 3"},
		{"blues", "my figure 1 2 3 1 upside down", Exercise{Tones: ScaleOfChord, Order: Order{Figure: OwnFigure, Numbers: []int{1, 2, 3, 1}, Turn: UpsideDown}},
			"5:7 3 6:10 9 6:8 R 5:7 3 5:8 11 5:7 3 6:10 9 5:8 11 | 4:8 11 4:7 3 5:10 9 4:8 11 4:10 5 4:8 11 4:7 3"},
		{"blues", "box in fours with slurs", Exercise{Tones: BoxTones, Order: Order{Figure: GroupsOfFour}, Ornaments: Ornaments{Slurs: true}},
			"6:8 R h6:11 b3 5:8 11 h5:10 5 6:11 b3 5:8 11 h5:10 5 4:8 b7 | h4:10 5 3:8 b7 h3:10 R 2:8 9 3:8 b7 h3:10 R 5:8 R"},
		{"blues", "box with strings skipped", Exercise{Tones: BoxTones, Ornaments: Ornaments{SkipStrings: true}},
			"6:8 R 6:11 b3 4:8 b7 4:10 R 5:8 11 5:10 5 3:8 b3 3:10 11 | 2:8 9 2:11 11 3:8 b7 3:10 R 1:8 5 1:11 b7 3:10 R"},
		{"blues", "scale on strings 5 to 2", Exercise{Tones: ScaleOfChord, Where: Where{LowString: 2, HighString: 5}},
			"4:10 R 3:7 9 3:9 3 3:10 11 2:8 5 2:10 13 2:11 b7 2:10 13 | 2:8 9 3:10 R 3:8 b7 3:7 13 4:10 5 4:8 11 4:7 3"},
		{"blues", "scale on frets 5 to 8", Exercise{Tones: ScaleOfChord, Where: Where{Kind: SomeFrets, LowFret: 5, HighFret: 8}},
			"6:8 R 5:5 9 5:7 3 5:8 11 4:5 5 4:7 13 4:8 b7 3:5 R | 3:7 13 3:8 b7 2:6 R 2:8 9 1:5 3 1:6 11 1:5 3"},
		{"blues", "scale along string 2 in quarters", Exercise{Tones: ScaleOfChord, Where: Where{Kind: AlongStrings, LowString: 2, HighString: 2}, Time: Time{Subdivision: "quarter"}},
			"2:1 R 2:3 9 2:5 3 2:6 11 | 2:8 9 2:10 3 2:11 11 2:10 3"},
		{"blues", "two a string", Exercise{Tones: BoxTones, Where: Where{Kind: NotesPerString, PerString: 2}},
			"6:8 R 6:11 b3 5:8 11 5:10 5 4:8 b7 4:10 R 3:8 b3 3:10 11 | 2:8 9 2:11 11 1:8 5 1:11 b7 1:8 5 2:11 11 3:10 R"},
		{"blues", "three a string, slurred", Exercise{Tones: ScaleOfChord, Where: Where{Kind: NotesPerString}, Ornaments: Ornaments{Slurs: true}},
			"6:8 R h6:10 9 h6:12 3 5:8 11 h5:10 5 h5:12 13 4:8 b7 h4:10 R | h4:12 13 3:8 b7 h3:10 R h3:12 9 2:10 3 h2:11 11 p2:10 3"},
		{"blues", "four a string, strings 4 to 1", Exercise{Tones: ScaleOfChord, Where: Where{Kind: NotesPerString, PerString: 4, LowString: 1, HighString: 4}},
			"4:10 R 4:12 9 3:9 3 3:10 11 3:12 5 3:14 13 2:11 b7 2:13 R | 2:15 13 2:16 b7 1:13 R 1:15 9 1:17 3 1:18 11 1:17 3"},
		{"blues", "up here, down the next position", Exercise{Tones: ScaleOfChord, Where: Where{Kind: TwoPositions}, Time: Time{Subdivision: "sixteenth"}},
			"6:8 R 6:10 9 5:7 3 5:8 11 5:10 5 4:7 13 4:8 b7 4:10 R 3:7 9 3:9 3 3:10 11 2:8 5 2:10 13 2:11 b7 1:8 R 1:10 9 | 1:11 b7 1:13 R 1:11 b7 1:10 13 2:13 5 2:11 11 2:10 3 3:12 9 3:10 R 4:13 b7 4:12 13 4:10 5 5:12 3"},
		{"blues", "form by form", Exercise{Tones: Seventh, Where: Where{Kind: ByForms}, Time: Time{Subdivision: "sixteenth"}},
			"5:3 R 4:2 3 3:0 5 3:3 b7 2:1 R 1:0 3 1:3 5 1:0 3 2:1 R 3:3 b7 3:0 5 4:2 3 5:3 R 5:1 b7 6:3 5 6:0 3 | 6:5 3 5:3 5 5:6 b7 4:3 R 4:7 3 3:5 5 2:4 b7 2:6 R 1:5 3 2:6 R 2:4 b7 3:5 5 4:7 3"},
		{"blues", "whole neck", Exercise{Tones: ScaleOfChord, Where: Where{Kind: WholeNeck}, Time: Time{Subdivision: "sixteenth"}},
			"5:3 R 5:5 9 5:7 3 5:8 11 5:10 5 4:7 13 4:8 b7 4:10 R 3:7 9 3:9 3 3:10 11 3:12 5 3:14 13 3:15 b7 3:17 R 3:19 9 | 3:20 b7 2:18 R 2:20 9 1:17 3 1:18 11 1:20 5 1:22 13 1:20 5 1:18 11 1:17 3 2:20 9 2:18 R 1:17 3"},
		{"blues", "a pair of strings and its octaves", Exercise{Tones: Triad, Extensions: []int{9}, Where: Where{Kind: StringPairs}},
			"6:8 R 6:10 9 5:7 3 5:10 5 4:10 R 4:12 9 3:9 3 3:12 5 | 3:14 3 3:17 5 2:18 R 2:20 9 1:17 3 1:20 5 1:17 3"},
		{"blues", "a cell on strings 3 and 2", Exercise{Tones: ScaleOfChord, Where: Where{Kind: CellOnStrings, LowString: 2, HighString: 3}},
			"3:2 13 3:3 b7 2:1 R 2:3 9 3:3 b7 3:5 R 2:3 9 2:5 3 | 3:5 5 3:7 13 2:4 b7 2:6 R 3:7 13 3:8 b7 3:10 R"},
		{"blues", "fifths slid a step on strings 6 and 5", Exercise{Tones: Fifths, Where: Where{Kind: AlongStrings, LowString: 5, HighString: 6}, Ornaments: Ornaments{Slides: true}, Time: Time{Subdivision: "quarter"}},
			"6:8 R+5:10 5 /6:10 9+/5:12 13 /6:12 3+/5:13 b7 /6:13 11+5:15 R | /6:15 9+/5:17 13 /6:17 3+/5:18 b7 /6:18 11+5:20 R /6:17 3+5:18 b7"},
		{"blues", "double stops in thirds up the top strings", Exercise{Tones: Thirds, Where: Where{Kind: AlongStrings, LowString: 1, HighString: 2}, Time: Time{Subdivision: "quarter"}},
			"2:1 R+1:0 3 2:3 9+1:1 11 2:5 3+1:3 5 2:6 11+1:5 13 | 2:8 9+1:6 11 2:10 3+1:8 5 2:11 11+1:10 13 2:10 3+1:8 5"},
		{"blues", "double stops in fourths in position", Exercise{Tones: Fourths, Time: Time{Subdivision: "quarter"}},
			"6:8 R+5:8 11 6:10 9+5:10 5 5:7 3+4:7 13 5:8 11+4:8 b7 | 5:10 9+4:10 5 4:7 3+3:7 13 4:8 11+3:8 b7 4:7 3+3:7 13"},
		{"blues", "broken sixths on strings 4 to 1", Exercise{Tones: Sixths, Broken: true, Where: Where{Kind: AlongStrings, LowString: 1, HighString: 4}},
			"3:5 R 1:5 13 3:7 9 1:6 b7 3:9 3 1:8 R 3:10 11 1:10 9 | 3:12 9 1:11 b7 3:14 3 1:13 R 3:15 11 1:15 9 1:13 R"},
		{"blues", "octaves in position", Exercise{Tones: Octaves, Time: Time{Subdivision: "quarter"}},
			"6:8 R+4:10 R 6:10 9+3:7 9 5:7 3+3:9 3 5:8 11+3:10 11 | 5:10 9+2:8 9 4:7 3+2:10 3 4:8 11+2:11 11 4:7 3+2:10 3"},
		{"blues", "tenths", Exercise{Tones: Tenths, Where: Where{Kind: AlongStrings}, Time: Time{Subdivision: "quarter"}},
			"6:8 R+3:9 3 6:10 9+3:10 11 6:12 3+3:12 5 6:13 11+3:14 13 | 6:15 9+3:15 11 6:17 3+3:17 5 6:18 11+3:19 13 6:17 3+3:17 5"},
		{"blues", "spread triads, broken", Exercise{Tones: SpreadTriads, Broken: true, Where: Where{Kind: AlongStrings}, Time: Time{Subdivision: "triplet"}},
			"6:8 R 5:10 5 3:9 3 6:12 3 5:15 R 3:12 5 6:15 5 4:14 3 2:13 R 5:15 R 4:17 5 2:17 3 | 4:15 R 3:17 5 1:17 3 4:19 3 3:22 R 1:20 5 4:15 R 3:17 5 1:17 3 3:22 R"},
		{"blues", "shells once a chord", Exercise{Tones: Shells, Time: Time{Subdivision: OncePerChord}},
			"6:8 R+4:8 b7+3:9 3 | 5:8 R+4:7 3+3:8 b7"},
		{"blues", "guide tones as a line", Exercise{Tones: GuideTones, Broken: true, Time: Time{Subdivision: "quarter"}},
			"4:8 b7 3:9 3 4:8 b7 3:9 3 | 4:7 3 3:8 b7 4:7 3 3:8 b7"},
		{"blues", "roots and thirds", Exercise{Tones: RootAndThird, Time: Time{Subdivision: OncePerChord}},
			"6:8 R+5:7 3 | 5:8 R+4:7 3"},
		{"blues", "the arpeggio on the 3", Exercise{Tones: SuperimposedOver, Superimposed: 3},
			"5:7 3 5:10 5 4:8 b7 3:7 9 3:9 3 2:8 5 2:11 b7 1:10 9 | 1:11 b7 1:8 5 2:10 3 2:8 9 3:8 b7 4:10 5 4:7 3"},
		{"blues", "the same figure, then a fill into the root", Exercise{Time: Time{Pattern: FigureAndFill}},
			"6:8 R 5:7 3 5:10 5 5:7 3 6:10 9 6:8 R 6:10 9 5:7 3 | 5:8 R 4:7 3 4:10 5 4:7 3 3:7 13 3:8 b7 3:10 R"},
		{"blues", "runs counted back to the third", Exercise{Tones: ScaleOfChord, Time: Time{Pattern: CountedBack}},
			"6:10 9 5:7 3 5:8 11 5:10 5 | 4:7 3"},
		{"blues", "the seven chords of the key", Exercise{Tones: Triad, Over: Over{Kind: ChordsOfKey}, Order: Order{Direction: UpOneDownNext}, Time: Time{Subdivision: "quarter"}},
			"6:8 R 5:7 3 5:10 5 4:10 R | 4:7 5 5:8 b3 6:10 R 5:8 b3 | 5:10 b3 4:8 b5 3:9 R 2:8 b3 | 3:10 R 4:10 5 4:7 3 5:8 R | 5:10 R 4:8 b3 3:7 5 2:8 R | 3:9 5 4:10 b3 4:7 R 5:7 5 | 5:8 5 4:8 R 3:7 3 3:10 5 | 3:9 3 4:10 R 5:10 5 5:7 3"},
		{"song", "scale of each chord in Ab", Exercise{Tones: ScaleOfChord},
			"6:4 R 6:6 9 5:3 3 5:4 11 5:6 5 4:3 13 4:5 7 4:6 R | 3:3 11 3:5 5 3:6 b13 2:4 b7 2:6 R 1:3 9 1:4 b3 1:6 11 | 1:4 5 1:3 #11 2:6 3 2:4 9 3:6 b7 3:5 13 2:4 R"},
		{"song", "shells in Ab", Exercise{Tones: Shells, Where: Where{Kind: AlongStrings}, Time: Time{Subdivision: OncePerChord}},
			"5:11 R+4:10 3+3:8 5 | 5:8 R+4:6 b3+3:8 b7 | 5:4 R+4:3 3+3:5 7 5:6 R+4:5 3+3:6 b7"},
		{"minor", "sevenths in A minor with the 9", Exercise{Tones: Seventh, Extensions: []int{9}},
			"6:5 R 6:7 9 5:3 b3 5:7 5 4:5 b7 4:7 R 3:4 9 3:5 b3 | 3:7 R 2:5 9 2:6 b3 1:5 5 1:8 b7 1:5 5 2:6 b3 2:5 9 | 3:7 b7 3:4 5 4:6 3 5:8 b9 5:7 R 5:5 b7 5:7 R"},
		{"minor", "the best arpeggio over each", Exercise{Tones: SuperimposedOver},
			"5:3 b3 5:7 5 4:5 b7 3:4 9 3:5 b3 2:5 5 2:8 b7 1:7 9 | 1:8 b7 1:5 5 2:6 b3 2:5 9 3:5 b7 4:7 5 5:8 b3 5:7 9 | 5:5 b7 6:8 b13 6:4 3 6:8 b13 5:5 b7 5:8 b9 4:6 3"},
		{"minor", "over E7 alone", Exercise{Tones: ScaleOfChord, Over: Over{Kind: OneChord, Chord: chordNamed("E7"), Bars: 2}},
			"5:7 R 5:8 b9 4:6 3 4:7 11 3:4 5 3:5 b13 3:7 b7 2:5 R | 2:6 b9 1:4 3 1:5 11 1:7 5 1:8 b13 1:7 5 1:4 3"},
		{"minor", "over a progression of my own", Exercise{Tones: Triad, Over: Over{Kind: TypedInChords, Text: "| Dm7 G7 | Cmaj7 | % |"}},
			"5:5 R 5:8 b3 4:7 5 3:7 R 2:8 R 1:7 3 2:8 R 3:7 5 | 3:5 R 4:5 5 5:7 3 6:8 R 5:7 3 4:5 5 3:5 R 2:5 3 | 2:8 5 1:8 R 2:8 5 2:5 3 3:5 R 4:5 5 5:7 3"},
	} {
		w, err := c.exercise.Write(settings[c.over])
		require.NoError(t, err, c.name)
		assert.Equal(t, c.want, tabOf(w, settings[c.over]), c.name)
	}
}
