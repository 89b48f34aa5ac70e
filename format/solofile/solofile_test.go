package solofile

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// pickup is a solo of two bars that begins a beat early.
func pickup(t *testing.T) Solo {
	t.Helper()
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	c := chart.Chart{Title: "Any", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Shuffle, Swing: 2}
	for _, numeral := range []string{"I", "IV"} {
		chord, err := key.ParseRoman(numeral)
		require.NoError(t, err)
		c.Bars = append(c.Bars, chart.Bar{Spans: []chart.Span{{Chord: chord, Beats: 4}}})
	}
	line := phrase.Phrase{Meter: c.Meter}
	for n, fret := range []int{8, 10, 9, 10} {
		line.Events = append(line.Events, phrase.Event{Tick: -480 + n*480, Ticks: 480, Fingered: neck.Fingered{Place: neck.Place{String: 3, Fret: fret}}})
	}
	return Solo{Name: "Early", Chart: c, Instrument: neck.Standard(), Line: line.WithChordsOf(c, 0), Choruses: 2}
}

func TestEveryFormatIsWritten(t *testing.T) {
	s := pickup(t)
	for _, name := range []string{"pdf", "tab", "musicxml", "midi"} {
		f, err := Find(name)
		require.NoError(t, err)
		assert.NotEmpty(t, f.Write(s), name)
		assert.Equal(t, f.Write(s), f.Write(s), "%s: the same solo is the same file", name)
	}
	_, err := Find("wax")
	assert.ErrorContains(t, err, "is not a format")
	assert.Equal(t, []string{"pdf", "tab", "musicxml", "midi"}, Names())
}

// The MIDI has the pickup in a bar of click before bar 1, the chords of every chorus, and
// the off-beats swung.
func TestThePickupSoundsInTheCountIn(t *testing.T) {
	f, _ := Find("midi")
	file, err := smf.ReadFrom(bytes.NewReader(f.Write(pickup(t))))
	require.NoError(t, err)
	require.Len(t, file.Tracks, 6)
	first, clicks, cues := -1, 0, []int{}
	for n, track := range file.Tracks {
		tick := 0
		for _, e := range track {
			tick += int(e.Delta)
			var channel, key, velocity uint8
			if e.Message.GetNoteOn(&channel, &key, &velocity) && velocity > 0 {
				if n == 1 && first < 0 {
					first = tick
				}
				if n == 5 {
					clicks++
				}
			}
			var text string
			if e.Message.GetMetaCuepoint(&text) {
				cues = append(cues, tick)
			}
		}
	}
	assert.Equal(t, 1440, first, "the last beat of the bar before")
	assert.Equal(t, 5*4, clicks, "one bar and twice two")
	assert.Equal(t, []int{1920, 3840, 5760, 7680}, cues)
}
