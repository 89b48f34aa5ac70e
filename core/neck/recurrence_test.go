package neck

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
)

func TestShapesComeBack(t *testing.T) {
	tune := []harmony.Chord{mustChord(t, "C7"), mustChord(t, "F7"), mustChord(t, "Dm7"), mustChord(t, "G7")}
	p, err := FindPosition(Standard(), 0, "E-7")
	require.NoError(t, err)
	for chord, want := range map[string]string{
		"C7":  "E: C7 19–22, F7 0–3, F7 12–15, G7 2–5, G7 14–17",
		"Dm7": "G: Dm7 19–22", // D lies on string 6 fret 10, so 7–10 is its G form; an octave up is the only other place
	} {
		said := []string{}
		form := Form("")
		for _, r := range Recurrences(Standard(), mustChord(t, chord), p.Window, tune) {
			form = r.At.Form
			said = append(said, fmt.Sprintf("%s %d–%d", r.Chord.Symbol(), r.At.Core, r.At.CoreEnd))
		}
		assert.Equal(t, want, fmt.Sprintf("%s: %s", form, strings.Join(said, ", ")), chord)
	}
}
