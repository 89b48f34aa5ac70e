package exercise

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

func motif(t testing.TB, c chart.Chart, places []neck.Place, subdivision string) (phrase.Phrase, error) {
	t.Helper()
	p, err := neck.FindPosition(neck.Standard(), c.Key.Tonic.Class(), "E")
	require.NoError(t, err)
	rows, err := change.FunctionTable(c.Key, neck.Standard(), places, c.Chords())
	require.NoError(t, err)
	s, err := c.Meter.Subdivision(subdivision)
	require.NoError(t, err)
	return Motif(c, neck.Standard(), p.Window, rows, c.Chords(), s)
}

// Three fretted notes follow three chords by their bends.
func TestAMotifFollowsTheChords(t *testing.T) {
	c := phrasetest.Song(t, "C", harmony.DominantMode, "C7", "F7 . . G7")
	p, err := motif(t, c, []neck.Place{{String: 3, Fret: 10}, {String: 3, Fret: 8}, {String: 4, Fret: 10}}, "eighth")
	require.NoError(t, err)
	require.NoError(t, p.Check(neck.Standard()))
	labels := p.Labels(neck.Standard(), c.Key)
	said := []string{}
	for n, e := range p.Events {
		note := fmt.Sprintf("%d %d:%d %s", e.Tick, e.String, e.Fret, labels[n].Degree)
		if e.Bend > 0 {
			note += fmt.Sprintf(" bent %d", e.Bend/2)
		}
		if e.Vibrato {
			note += " shaken"
		}
		said = append(said, note)
	}
	assert.Equal(t, []string{
		"0 3:10 5 bent 2", "240 3:8 3 bent 1", "480 4:10 R shaken",
		"1920 3:10 R", "2160 3:8 b7", "2400 4:10 5 shaken",
		"3360 3:10 b7", "3600 3:8 b7 bent 2",
	}, said, "over a chord of one beat the last note is left out")
}

// Over any scheme, key and meter every note of a motif that can be home is home,
// and no open string is bent.
func TestMotifsHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		scheme := rapid.SampledFrom(chart.Schemes).Draw(t, "scheme")
		key, err := harmony.ParseKey(rapid.SampledFrom(scheme.In.Tonics()).Draw(t, "tonic"), scheme.In)
		require.NoError(t, err)
		m := rapid.SampledFrom(chart.Meters).Draw(t, "meter")
		c := chart.Chart{Title: "any", Key: key, Meter: m, Tempo: 100, Feel: chart.Straight, Swing: 2, Bars: scheme.Bars(key.Tonic, m)}
		position := rapid.SampledFrom(neck.Positions(neck.Standard(), key.Tonic.Class())).Draw(t, "position")
		box, err := key.Box("")
		require.NoError(t, err)
		places := []neck.Place{}
		for _, tone := range change.SmallBox(neck.Standard(), position.Window, box) {
			places = append(places, tone.Place)
		}
		require.True(t, len(places) == 3 || len(places) == 4)
		rows, err := change.FunctionTable(key, neck.Standard(), places, c.Chords())
		require.NoError(t, err)
		s := rapid.SampledFrom(m.Subdivisions()).Draw(t, "subdivision")
		p, err := Motif(c, neck.Standard(), position.Window, rows, c.Chords(), s)
		require.NoError(t, err)
		require.NoError(t, p.Check(neck.Standard()))
		for n, label := range p.Labels(neck.Standard(), key) {
			e := p.Events[n]
			for _, row := range rows {
				if row.Place != e.Place {
					continue
				}
				for at, chord := range c.Chords() {
					if chord.Same(label.Chord) && row.Functions[at].IsChordTone {
						assert.Equal(t, harmony.ChordTone, label.Class, "%s over %s", label.Note, chord.Symbol())
					}
				}
			}
		}
	})
}
