package neck

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
)

func structuresIn(t testing.TB, position, chord string) map[string][]string {
	t.Helper()
	p, err := FindPosition(Standard(), 0, position)
	require.NoError(t, err)
	all := map[string][]string{}
	for _, s := range Structures(Standard(), p.Window, mustChord(t, chord)) {
		all[s.Name] = append(all[s.Name], places(s.Shape))
	}
	return all
}

// The structures of C7 in the first box, as players know them.
func TestSmallerStructures(t *testing.T) {
	all := structuresIn(t, "E-7", "C7")
	assert.Equal(t, []string{"5:10 5, 4:10 R, 3:9 3"}, all["triad, second inversion"])
	assert.Contains(t, all["triad, first inversion"], "3:9 3, 2:8 5, 1:8 R")
	assert.Contains(t, all["triad, root position"], "4:10 R, 3:9 3, 2:8 5")
	assert.Equal(t, []string{"6:8 R, 5:7 3", "4:10 R, 3:9 3"}, all["root and third"])
	assert.Equal(t, []string{"6:8 R, 4:8 b7, 3:9 3"}, all["shell: root, 7, 3"])
	assert.Equal(t, []string{"6:8 R, 4:10 R"}, all["octave"])
	assert.Contains(t, all["sixth: third and root"], "3:9 3, 1:8 R")
}

func TestStructuresAreFingeredToBeStrummed(t *testing.T) {
	p, err := FindPosition(Standard(), 0, "E-7")
	require.NoError(t, err)
	fingers := map[string][]int{}
	for _, chord := range []string{"C7", "F7"} {
		for _, s := range Structures(Standard(), p.Window, mustChord(t, chord)) {
			name := chord + " " + places(s.Shape)
			for _, tone := range s.Tones {
				fingers[name] = append(fingers[name], tone.Finger)
			}
		}
	}
	for name, want := range map[string][]int{
		"C7 4:10 R, 3:9 3, 2:8 5": {3, 2, 1}, "F7 4:10 5, 3:10 R, 2:10 3": {1, 1, 1}, "C7 6:8 R, 4:8 b7, 3:9 3": {1, 1, 2}, "C7 3:9 3, 2:8 5, 1:8 R": {2, 1, 1},
		"C7 6:8 R, 4:10 R": {1, 3},
	} {
		assert.Equal(t, want, fingers[name], name)
	}
}

// Every structure rises, lies in the window, and sounds what it is called.
func TestStructuresHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		chord, err := harmony.ParseChord(rapid.SampledFrom(harmony.Tonics).Draw(t, "root") + rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
		require.NoError(t, err)
		p := rapid.SampledFrom(Positions(Standard(), chord.Root.Class())).Draw(t, "position")
		for _, s := range Structures(Standard(), p.Window, chord) {
			used := map[int]bool{}
			for n, tone := range s.Tones {
				assert.Equal(t, tone.Pitch, Standard().Pitch(tone.Place))
				assert.Equal(t, tone.Note.Class(), tone.Pitch.Class())
				assert.True(t, tone.Fret >= p.Low && tone.Fret <= p.High)
				assert.True(t, n == 0 || s.Tones[n-1].Pitch < tone.Pitch, "%s of %s", s.Name, chord.Symbol())
				assert.False(t, used[tone.String], "a string sounds one note")
				used[tone.String] = true
			}
		}
	})
}
