package change

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

func (s setting) goal(t testing.TB, leaving, arriving string, target neck.Place) Goal {
	t.Helper()
	return Goal{
		Instrument: guitar, Window: s.window, Key: s.key, Box: s.box,
		Leaving: chord(t, leaving), Arriving: chord(t, arriving), Target: target,
	}
}

// played writes fingered notes as string:fret/finger, a bend behind.
func played(fingering []neck.Fingered, wanted []neck.NoteToPlace) string {
	notes := make([]string, len(fingering))
	for n, f := range fingering {
		notes[n] = fmt.Sprintf("%d:%d/%d", f.String, f.Fret, f.Finger)
	}
	if bend := wanted[len(wanted)-1].Bend; bend > 0 {
		notes[len(notes)-1] += fmt.Sprintf("+%d", bend/2)
	}
	return strings.Join(notes, " ")
}

func waysOf(g Goal, room int) (ways map[string]string, refused map[string]string) {
	ways, refused = map[string]string{}, map[string]string{}
	all, not := ApproachOptions(g, room)
	for _, w := range all {
		ways[w.Name] = fmt.Sprintf("%s effort %d tension %d", played(w.Fingering, w.Notes), w.Effort, w.Tension)
	}
	for _, r := range not {
		refused[r.Name] = r.Reason
	}
	return ways, refused
}

// Into A, the 3 of F7, on string 4; and into its root on string 3, from the box.
func TestEveryApproachIntoATarget(t *testing.T) {
	s := in(t, "C")
	ways, refused := waysOf(s.goal(t, "C7", "F7", neck.Place{String: 4, Fret: 7}), 4)
	assert.Equal(t, map[string]string{
		"half step below":            "4:6/1 4:7/2 effort 0 tension 3",
		"half step above":            "4:8/2 4:7/1 effort 0 tension 0",
		"scale step below":           "5:10/4 4:7/1 effort 0 tension 0",
		"scale step above":           "4:8/2 4:7/1 effort 0 tension 0",
		"two half steps below":       "5:10/4 4:6/1 4:7/2 effort 2 tension 3",
		"two half steps above":       "4:9/3 4:8/2 4:7/1 effort 0 tension 3",
		"enclosure":                  "4:8/3 4:6/1 4:7/2 effort 0 tension 3",
		"enclosure from below":       "4:6/1 4:8/3 4:7/2 effort 0 tension 3",
		"scale enclosure":            "4:8/2 5:10/4 4:7/1 effort 0 tension 0",
		"scale enclosure from below": "5:10/4 4:8/2 4:7/1 effort 0 tension 0",
		"slide":                      "4:6/1 4:7/2 effort 1 tension 3",
		"bend a half step":           "4:6/3 4:6/3+1 effort 13 tension 3",
	}, ways)
	assert.Equal(t, map[string]string{
		"hammer-on":             "string 4 fret 7 has no note of the box or scale below it on frets 6 to 11 to hammer from",
		"bend a whole step":     "its note a whole step below the target lies outside frets 6 to 11",
		"bend three half steps": "string 4 is too stiff to be bent that far",
		"held":                  "A is not a tone of C7, so it cannot be held over the change",
	}, refused)

	ways, refused = waysOf(s.goal(t, "C7", "F7", neck.Place{String: 3, Fret: 10}), 4)
	for name, want := range map[string]string{
		"hammer-on":             "3:8/2 3:10/4 effort 1 tension 2",
		"bend a whole step":     "3:8/3 3:8/3+2 effort 7 tension 2",
		"bend three half steps": "3:7/3 3:7/3+3 effort 13 tension 1",
		"scale step above":      "2:8/2 3:10/4 effort 0 tension 0",
	} {
		assert.Equal(t, want, ways[name], name)
	}
	assert.Equal(t, map[string]string{"held": "F is not a tone of C7, so it cannot be held over the change"}, refused)

	ways, _ = waysOf(s.goal(t, "C7", "F7", neck.Place{String: 1, Fret: 8}), 4)
	assert.Equal(t, "1:8/2 1:8/2 effort 0 tension 0", ways["held"], "C is in both chords")
	ways, _ = waysOf(s.goal(t, "F7", "C7", neck.Place{String: 3, Fret: 9}), 4)
	assert.Equal(t, "3:8/2 3:9/3 effort 1 tension 0", ways["hammer-on"], "the b3 of the box becomes the 3")
}

func TestApproachesThatDoNotFit(t *testing.T) {
	s := in(t, "C")
	_, refused := waysOf(s.goal(t, "C7", "F7", neck.Place{String: 3, Fret: 10}), 1)
	assert.Equal(t, "out of time: it takes 2 notes, and C7 leaves room for one note", refused["enclosure"])
	assert.NotContains(t, refused, "half step below")

	open := s
	position, err := neck.FindPosition(guitar, 0, "C-0")
	require.NoError(t, err)
	open.window = position.Window
	_, refused = waysOf(open.goal(t, "F7", "C7", neck.Place{String: 2, Fret: 1}), 4)
	assert.Equal(t, "a slide into string 2 fret 1 has no fret below to start from", refused["slide"])
	assert.Equal(t, "the bend up to string 2 fret 1 would start from the open string, which cannot be bent", refused["bend a half step"])
	assert.Equal(t, "a bend up to string 2 fret 1 has no fret to start from", refused["bend a whole step"])
	_, refused = waysOf(s.goal(t, "C7", "G7", neck.Place{String: 6, Fret: 10}), 4)
	assert.Equal(t, "string 6 is too stiff to be bent that far", refused["bend a whole step"])
	assert.EqualError(t, s.goal(t, "C7", "F7", neck.Place{String: 7, Fret: 3}).Check(), "string 7 fret 3 is not on the neck; its strings are 1 to 6 and its frets 0 to 22")
	assert.EqualError(t, s.goal(t, "C7", "F7", neck.Place{String: 3, Fret: 9}).Check(), "string 3 fret 9 is no tone of F7; the nearest are string 3 fret 8 (b7), string 3 fret 10 (R), string 4 fret 10 (5), string 2 fret 10 (3), string 4 fret 7 (3)")
	assert.NoError(t, s.goal(t, "C7", "F7", neck.Place{String: 3, Fret: 10}).Check())
	_, err = FindApproachKind("backflip")
	assert.ErrorContains(t, err, "half step below, half step above")
}

// Every approach that fits, in every key, position, pair of chords and target: it
// ends sounding the target, its notes lie on the neck, its bends on fretted strings
// that bend so far, its slurs on one string; and every approach is either listed
// or refused with a reason.
func TestApproachesHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		g := drawnGoal(t)
		room := rapid.IntRange(0, 4).Draw(t, "room")
		ways, refused := ApproachOptions(g, room)
		require.Len(t, ApproachKinds, len(ways)+len(refused))
		for _, r := range refused {
			assert.NotEmpty(t, r.Reason)
		}
		for _, w := range ways {
			last := len(w.Fingering) - 1
			assert.LessOrEqual(t, last, room)
			assert.Equal(t, guitar.Pitch(g.Target), guitar.Pitch(w.Fingering[last].Place)+pitch.MIDI(w.Notes[last].Bend/2), w.Name)
			for n, f := range w.Fingering {
				assert.True(t, guitar.Has(f.Place))
				assert.Equal(t, w.Notes[n].Pitch, guitar.Pitch(f.Place))
				if w.Notes[n].Bend > 0 {
					assert.Positive(t, f.Fret, "no open string is bent")
					assert.LessOrEqual(t, w.Notes[n].Bend, neck.MostBend(f.Place))
				}
				if w.Arrival != Struck {
					assert.Equal(t, g.Target.String, f.String, "%s stays on its string", w.Name)
				}
			}
			if w.Arrival == HeldOver {
				_, common := g.Leaving.Tone(guitar.Pitch(g.Target).Class())
				assert.True(t, common)
			}
		}
	})
}

func drawnGoal(t *rapid.T) Goal {
	mode := rapid.SampledFrom(harmony.Modes).Draw(t, "mode")
	key, err := harmony.ParseKey(rapid.SampledFrom(mode.Tonics()).Draw(t, "tonic"), mode)
	require.NoError(t, err)
	box, err := key.Box("")
	require.NoError(t, err)
	g := Goal{Instrument: guitar, Key: key, Box: box, Window: rapid.SampledFrom(neck.Positions(guitar, key.Tonic.Class())).Draw(t, "position").Window}
	for _, c := range []*harmony.Chord{&g.Leaving, &g.Arriving} {
		*c, err = harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
		require.NoError(t, err)
	}
	g.Target = rapid.SampledFrom(neck.PlaceTones(guitar, g.Window, g.Arriving.Tones()).Tones).Draw(t, "target").Place
	return g
}

func TestConnectorsAreFitted(t *testing.T) {
	g := in(t, "C").goal(t, "C7", "F7", neck.Place{String: 5, Fret: 8})
	for notes, want := range map[int][]string{
		3: {
			"root up to 3: 5:8/3 4:6/1 4:7/2, 2 notes after the first left out", "3 up to 5: 4:7/1 4:9/3 4:10/4, one note after the first left out",
			"5 up to 7: 6:8/1 6:10/3 6:11/4, one note after the first left out", "root down to 7: 5:8/3 5:7/2 5:6/1, ", "7 up to root: 5:6/1 5:7/2 5:8/3, ",
		},
		4: {
			"root up to 3: 5:8/3 5:10/4 4:6/1 4:7/2, one note after the first left out", "3 up to 5: 4:7/1 4:8/2 4:9/3 4:10/4, ", "5 up to 7: 6:8/1 6:9/2 6:10/3 6:11/4, ",
			"root down to 7: 5:8/3 5:8/3 5:7/2 5:6/1, the first note struck twice", "7 up to root: 5:6/1 5:6/1 5:7/2 5:8/3, the first note struck twice",
		},
		7: {
			"root up to 3: 5:8/1 5:8/1 5:9/2 5:9/2 5:10/3 5:11/4 4:7/1, the first 2 notes struck twice",
			"3 up to 5: 4:7/1 4:7/1 4:8/2 4:8/2 4:9/3 4:9/3 4:10/4, the first 3 notes struck twice",
			"5 up to 7: 6:8/1 6:8/1 6:9/2 6:9/2 6:10/3 6:10/3 6:11/4, the first 3 notes struck twice",
			"root down to 7 - 7 notes are too many for 2 half steps: at most 5", "7 up to root - 7 notes are too many for 2 half steps: at most 5",
		},
	} {
		said := []string{}
		fit, refused := ChromaticRuns(g, notes)
		for _, c := range fit {
			said = append(said, c.Name+": "+played(c.Fingering, []neck.NoteToPlace{{}})+", "+c.Fitted)
		}
		for _, r := range refused {
			said = append(said, r.Name+" - "+r.Reason)
		}
		assert.ElementsMatch(t, want, said)
	}
	_, refused := ChromaticRuns(in(t, "C").goal(t, "G7", "C", neck.Place{String: 6, Fret: 8}), 3)
	assert.Contains(t, refused, Unplayable{"5 up to 7", "C has no seventh"})
}

// A fitted run goes from its first pitch to its last in so many notes, a half step
// or nothing at a time but for what was left out after the first.
func TestFittedRunsHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from := pitch.MIDI(rapid.IntRange(40, 80).Draw(t, "from"))
		to := from + pitch.MIDI(rapid.IntRange(-6, 6).Draw(t, "interval"))
		notes := rapid.IntRange(0, 16).Draw(t, "notes")
		run, _, err := ChromaticPitches(from, to, notes)
		if err != nil {
			assert.True(t, notes < 2 || from == to || notes > 2*abs(int(to-from))+1)
			return
		}
		require.Len(t, run, notes)
		assert.Equal(t, from, run[0])
		assert.Equal(t, to, run[notes-1])
		for n := 2; n < notes; n++ {
			assert.LessOrEqual(t, abs(int(run[n]-run[n-1])), 1)
		}
	})
}

func TestARunIsFilled(t *testing.T) {
	key := in(t, "C").key
	box := []pitch.MIDI{60, 63, 65, 67, 70, 72}
	for notes, want := range map[int]string{
		3: "60 70 72 without 63 65 67", 5: "60 65 67 70 72 without 63", 6: "60 63 65 67 70 72", 7: "60 63 65 67 70 71+ 72",
		10: "60 63 64+ 65 66+ 67 69+ 70 71+ 72", 20: "60 61+ 62+ 63 64+ 65 66+ 67 68+ 69+ 70 71+ 72, 7 missing",
	} {
		assert.Equal(t, want, filled(FitRun(key, chord(t, "C7"), box, notes)), "%d notes", notes)
	}
	assert.Equal(t, "72 71+ 70 69+ 68+ 67", filled(FitRun(key, chord(t, "C7"), []pitch.MIDI{72, 70, 67}, 6)), "downwards the half step lies above")
}

func filled(f FittedRun) string {
	parts := []string{}
	for _, n := range f.Notes {
		parts = append(parts, fmt.Sprint(int(n.Pitch))+map[bool]string{true: "+"}[n.Added])
	}
	said := strings.Join(parts, " ")
	for n, p := range f.Dropped {
		said += map[bool]string{true: " without"}[n == 0] + fmt.Sprintf(" %d", int(p))
	}
	if f.Missing > 0 {
		said += fmt.Sprintf(", %d missing", f.Missing)
	}
	return said
}

func TestARunBetweenTwoPlaces(t *testing.T) {
	s := in(t, "C")
	run, err := TonesBetween(guitar, s.window, s.box.Tones, neck.Place{String: 2, Fret: 10}, neck.Place{String: 4, Fret: 10})
	require.NoError(t, err)
	assert.Equal(t, []pitch.MIDI{69, 67, 65, 63, 60}, run, "from A, which the box has not, down to C")
	_, err = TonesBetween(guitar, s.window, s.box.Tones, neck.Place{String: 6, Fret: 1}, neck.Place{String: 4, Fret: 10})
	assert.EqualError(t, err, "string 6 fret 1 does not lie on frets 6 to 11")
	_, err = TonesBetween(guitar, s.window, s.box.Tones, neck.Place{String: 3, Fret: 8}, neck.Place{String: 3, Fret: 8})
	assert.ErrorContains(t, err, "choose another start")
}
