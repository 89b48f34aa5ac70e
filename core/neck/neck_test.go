package neck

import (
	"fmt"
	"math/rand"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

func mustChord(t testing.TB, symbol string) harmony.Chord {
	t.Helper()
	c, err := harmony.ParseChord(symbol)
	require.NoError(t, err)
	return c
}

func ids(positions []Position) string {
	names := make([]string, len(positions))
	for n, p := range positions {
		names[n] = fmt.Sprintf("%s %d–%d", p.Form, p.Core, p.CoreEnd)
	}
	return strings.Join(names, ", ")
}

// The five positions of every key up to the twelfth fret, counted by hand from
// the table of forms.
func TestPositionsInAllKeys(t *testing.T) {
	for tonic, want := range map[string]string{
		"C":  "C 0–3, A 3–6, G 5–8, E 7–10, D 10–13",
		"C#": "C 1–4, A 4–7, G 6–9, E 8–11, D 11–14",
		"D":  "D 0–3, C 2–5, A 5–8, G 7–10, E 9–12",
		"Eb": "D 1–4, C 3–6, A 6–9, G 8–11, E 10–13",
		"E":  "E 0–3, D 2–5, C 4–7, A 7–10, G 9–12",
		"F":  "E 0–3, D 3–6, C 5–8, A 8–11, G 10–13",
		"F#": "E 1–4, D 4–7, C 6–9, A 9–12, G 11–14",
		"G":  "G 0–3, E 2–5, D 5–8, C 7–10, A 10–13",
		"Ab": "G 1–4, E 3–6, D 6–9, C 8–11, A 11–14",
		"A":  "A 0–3, G 2–5, E 4–7, D 7–10, C 9–12",
		"Bb": "A 1–4, G 3–6, E 5–8, D 8–11, C 10–13",
		"B":  "A 2–5, G 4–7, E 6–9, D 9–12, C 11–14",
	} {
		note, err := pitch.ParseNote(tonic)
		require.NoError(t, err)
		assert.Equal(t, want, ids(Positions(Standard(), note.Class())[:5]), tonic)
	}
}

func TestPositionsRecurWhileTheyFit(t *testing.T) {
	assert.Equal(t, "C 0–3, A 3–6, G 5–8, E 7–10, D 10–13, C 12–15, A 15–18, G 17–20, E 19–22", ids(Positions(Standard(), 0)))
	twelve := Standard()
	twelve.Frets = 12
	assert.Equal(t, "C 0–3, A 3–6, G 5–8, E 7–10", ids(Positions(twelve, 0)))
}

func TestFindPosition(t *testing.T) {
	for text, want := range map[string]string{"": "E-7", "E": "E-7", "E-19": "E-19", "C": "C-0", "D-10": "D-10"} {
		p, err := FindPosition(Standard(), 0, text)
		require.NoError(t, err)
		assert.Equal(t, want, p.ID())
	}
	_, err := FindPosition(Standard(), 0, "E-8")
	assert.ErrorContains(t, err, `"E-8" is not a position of this key; its positions are C-0, A-3, G-5, E-7, D-10, C-12, A-15, G-17, E-19`)
}

// written writes a shape as "string:fret degree", with * at a reach.
func written(s Shape) string {
	tones := make([]string, len(s.Tones))
	for n, tone := range s.Tones {
		tones[n] = fmt.Sprintf("%d:%d %s", tone.String, tone.Fret, tone.Degree)
		if tone.Reach {
			tones[n] += "*"
		}
	}
	return strings.Join(tones, ", ")
}

func TestTheFirstPositionOfC(t *testing.T) {
	position, err := FindPosition(Standard(), 0, "E-7")
	require.NoError(t, err)
	for symbol, want := range map[string]string{
		"C7": "6:8 R, 5:7 3, 5:10 5, 4:8 b7, 4:10 R, 3:9 3, 2:8 5, 2:11 b7*, 1:8 R",
		"F7": "6:8 5, 6:11 b7*, 5:8 R, 4:7 3, 4:10 5, 3:8 b7, 3:10 R, 2:10 3, 1:8 5, 1:11 b7*",
		"G7": "6:7 3, 6:10 5, 5:8 b7, 5:10 R, 4:9 3, 3:7 5, 3:10 b7, 2:8 R, 1:7 3, 1:10 5",
	} {
		chord := mustChord(t, symbol)
		assert.Equal(t, want, written(PlaceTones(Standard(), position.Window, chord.Tones())), symbol)
	}
	for symbol, want := range map[string]Form{"C7": "E", "F7": "A", "G7": "C"} {
		assert.Equal(t, want, FormAt(Standard(), mustChord(t, symbol).Root.Class(), position.Window))
	}
	box, err := harmony.Key{Mode: harmony.DominantMode}.Box("")
	require.NoError(t, err)
	assert.Equal(t, "6:8 R, 6:11 b3*, 5:8 4, 5:10 5, 4:8 b7, 4:10 R, 3:8 b3, 3:10 4, 2:8 5, 2:11 b7*, 1:8 R, 1:11 b3*",
		written(PlaceTones(Standard(), position.Window, box.Tones)))
}

func TestOpenPositionOfE(t *testing.T) {
	position, err := FindPosition(Standard(), 4, "E-0")
	require.NoError(t, err)
	assert.Equal(t, "6:0 R, 6:4 3*, 5:2 5, 4:0 b7, 4:2 R, 3:1 3, 2:0 5, 2:3 b7, 1:0 R, 1:4 3*",
		written(PlaceTones(Standard(), position.Window, mustChord(t, "E7").Tones())))
	for symbol, want := range map[string]Form{"E7": "E", "A7": "A", "B7": "C", "F#7": "E", "C7": "C", "D7": "D", "G7": "G", "Bb7": "A"} {
		assert.Equal(t, want, FormAt(Standard(), mustChord(t, symbol).Root.Class(), position.Window), symbol)
	}
}

func TestFormsOfEachChordInThePositionsOfC(t *testing.T) {
	for symbol, want := range map[string]string{"C7": "C A G E D", "F7": "E D C A G", "G7": "G E D C A"} {
		got := []string{}
		for _, p := range Positions(Standard(), 0)[:5] {
			got = append(got, string(FormAt(Standard(), mustChord(t, symbol).Root.Class(), p.Window)))
		}
		assert.Equal(t, want, strings.Join(got, " "), symbol)
	}
}

func TestFingersInTheFirstPositionOfC(t *testing.T) {
	shape := PlaceTones(Standard(), Standard().WindowFrom(7), mustChord(t, "F7").Tones())
	fingers := ""
	for _, tone := range shape.Tones {
		fingers += fmt.Sprint(tone.Finger)
	}
	assert.Equal(t, "2421424424", fingers)
	assert.InDelta(t, 89.2, shape.StretchMM, 0.1) // 648 (2^(-7/12) - 2^(-11/12))
}

func TestStretchFollowsTheFormula(t *testing.T) {
	assert.InDelta(t, 324, Standard().StretchMM(0, 12), 1e-9)
	assert.InDelta(t, 36.37, Standard().StretchMM(0, 1), 0.005)
}

// In every key, position and quality: pitches ascend and never fall to a lower
// string; each pitch of the chord in the window stands exactly once, placed,
// as the alternative of one placed, or beyond.
func TestLayProperties(t *testing.T) {
	guitar := Standard()
	rapid.Check(t, func(t *rapid.T) {
		tonic := pitch.Class(rapid.IntRange(0, 11).Draw(t, "tonic"))
		position := rapid.SampledFrom(Positions(guitar, tonic)).Draw(t, "position")
		root := pitch.Note{Letter: pitch.Letter(rapid.IntRange(0, 6).Draw(t, "letter")), Accidental: rapid.IntRange(-1, 1).Draw(t, "accidental")}
		chord, err := harmony.ParseChord(root.String() + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
		require.NoError(t, err)
		shape := PlaceTones(guitar, position.Window, chord.Tones())
		seen := map[Place]int{}
		for n, tone := range shape.Tones {
			assert.Equal(t, tone.Pitch, guitar.Pitch(tone.Place))
			assert.GreaterOrEqual(t, tone.Fret, position.Low)
			assert.LessOrEqual(t, tone.Fret, position.High)
			assert.Equal(t, tone.Fret == 0, tone.Finger == 0)
			if n > 0 {
				assert.Greater(t, tone.Pitch, shape.Tones[n-1].Pitch)
				assert.LessOrEqual(t, tone.String, shape.Tones[n-1].String)
			}
		}
		for _, tone := range append(append([]Placed{}, shape.Tones...), shape.Beyond...) {
			seen[tone.Place]++
			for _, other := range tone.Alternatives {
				assert.Equal(t, tone.Pitch, guitar.Pitch(other))
				seen[other]++
			}
		}
		for s := 1; s <= 6; s++ {
			for fret := position.Low; fret <= position.High; fret++ {
				want := 0
				if _, ok := chord.Tone(guitar.Pitch(Place{s, fret}).Class()); ok {
					want = 1
				}
				assert.Equal(t, want, seen[Place{s, fret}], "string %d fret %d", s, fret)
			}
		}
	})
}

// exhaustive tries every way to place and finger the notes.
func exhaustive(i Instrument, w Window, wanted []NoteToPlace, before *Fingered) int {
	if len(wanted) == 0 {
		return 0
	}
	best := 1 << 30
	for _, f := range appendCandidates(nil, i, w, wanted[0]) {
		cost := placeCost(w, wanted[0], f)
		if before != nil {
			cost += moveCost(i.Pitch(before.Place), wanted[0], *before, f)
		}
		best = min(best, cost+exhaustive(i, w, wanted[1:], &f))
	}
	return best
}

func TestFingeringEqualsExhaustiveSearch(t *testing.T) {
	guitar := Standard()
	random := rand.New(rand.NewSource(1))
	for range 10_000 {
		w := guitar.WindowFrom(random.Intn(19))
		wanted := make([]NoteToPlace, 1+random.Intn(4))
		for n := range wanted {
			place := Place{String: 1 + random.Intn(6), Fret: w.Low + random.Intn(w.High-w.Low+1)}
			wanted[n] = NoteToPlace{Pitch: guitar.Pitch(place), Slurred: n > 0 && random.Intn(5) == 0, Bend: random.Intn(5)}
			if random.Intn(6) == 0 {
				wanted[n].At = &place
			}
		}
		path, cost, err := Finger(guitar, w, wanted)
		require.NoError(t, err)
		require.Equal(t, exhaustive(guitar, w, wanted, nil), cost, "%+v in %+v", wanted, w)
		along := 0
		for n, f := range path {
			along += placeCost(w, wanted[n], f)
			if n > 0 {
				along += moveCost(wanted[n-1].Pitch, wanted[n], path[n-1], f)
			}
		}
		require.Equal(t, cost, along, "the path must cost what is said")
	}
}

func TestTheHandStandsInTheFirstBox(t *testing.T) {
	wanted := []NoteToPlace{}
	for _, place := range [][2]int{{3, 8}, {3, 10}, {2, 8}, {2, 11}, {3, 10}} {
		at := Place{String: place[0], Fret: place[1]}
		wanted = append(wanted, NoteToPlace{Pitch: Standard().Pitch(at), At: &at})
	}
	wanted[4].Bend = 4
	path, _, err := FingerPhrase(Standard(), Standard().WindowFrom(7), wanted)
	require.NoError(t, err)
	fingers := ""
	for _, f := range path {
		fingers += fmt.Sprint(f.Finger)
	}
	assert.Equal(t, "13143", fingers, "first finger at the eighth fret, and the third bends")
}

func TestFingerSaysWhichNoteHasNoPlace(t *testing.T) {
	_, _, err := Finger(Standard(), Standard().WindowFrom(7), []NoteToPlace{{Pitch: 60}, {Pitch: 90}})
	var unplaceable *UnplaceableError
	require.ErrorAs(t, err, &unplaceable)
	assert.Equal(t, 1, unplaceable.Index)
	_, _, err = Finger(Standard(), Standard().WindowFrom(0), []NoteToPlace{{Pitch: 40, Fretted: true}})
	assert.ErrorAs(t, err, &unplaceable)
}

func BenchmarkAllChordsInAllPositions(b *testing.B) {
	guitar := Standard()
	chords := []harmony.Chord{mustChord(b, "C7"), mustChord(b, "F7"), mustChord(b, "G7")}
	positions := Positions(guitar, 0)
	b.ReportAllocs()
	for b.Loop() {
		for _, position := range positions {
			for _, chord := range chords {
				PlaceTones(guitar, position.Window, chord.Tones())
			}
		}
	}
}

// The documentation shows the cost table as it is.
func TestTheCostTableIsDocumented(t *testing.T) {
	rules, err := os.ReadFile("../../docs/rules.md")
	require.NoError(t, err)
	assert.Contains(t, string(rules), costTable())
}

// costTable writes the weights as the documentation shows them.
func costTable() string {
	rows := []struct {
		what string
		cost int
	}{
		{"reach up, one fret past the core", costReachUp},
		{"reach back, one fret before the core", costReachBack},
		{"each finger away from one finger per fret", costOffFinger},
		{"one finger rolled over the next string, same fret", costRoll},
		{"one finger on adjacent strings, different frets", costSameFingerAdjacent},
		{"one finger moved along its string", costSameFingerShift},
		{"one finger moved across a skipped string", costSameFingerJump},
		{"fingers crossed", costCrossed},
		{"each string skipped", costSkip},
		{"a bend with the first finger", costBendFirst},
		{"a bend with the second finger", costBendSecond},
		{"a bend with the little finger", costBendLittle},
		{"a held note of a chorus with the little finger", costHeldLittle},
		{"a repeated pitch played elsewhere", costMoveRepeated},
		{"strings against the pitch", costAgainst},
		{"a slide, hammer-on or pull-off broken over two strings", costBrokenSlur},
	}
	table := strings.Builder{}
	for _, row := range rows {
		fmt.Fprintf(&table, "| %s | %d |\n", row.what, row.cost)
	}
	return table.String()
}

// A held note spares the little finger where the third can reach it.
func TestAHeldNoteIsNotLeftToTheLittleFinger(t *testing.T) {
	i := Standard()
	at := Place{String: 3, Fret: 10}
	w := Window{Core: 7, CoreEnd: 10, Low: 6, High: 11}
	for held, finger := range map[bool]int{false: 4, true: 3} {
		fingered, _, err := Finger(i, w, []NoteToPlace{{Pitch: i.Pitch(at), At: &at, Held: held}})
		require.NoError(t, err)
		assert.Equal(t, finger, fingered[0].Finger)
	}
}
