package chartfile

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/harmony"
)

func TestFilesAreKnownByWhatIsInThem(t *testing.T) {
	for _, c := range []struct{ name, data, want string }{
		{"", "| C7 | F7 |", "grid"}, {"", "C7 F7 C7", "grid"}, {"", "[A]\n| C7 |", "grid"}, {"", "{title: A}\n[C7]words", "chordpro"},
		{"", "[C7]words [F7]words", "chordpro"}, {"a.cho", "| C7 |", "chordpro"}, {"a.txt", "key: C\n| C7 |", "grid"},
		{"a.txt", "\ufeff <?xml version='1.0'?><score-partwise/>", "musicxml"}, {"a.txt", "MThd....", "midi"}, {"a.zip", "PK\x03\x04", "mxl"},
		{"a.MID", "nonsense", "midi"}, {"a.xml", "nonsense", "musicxml"}, {"a.mxl", "nonsense", "mxl"}, {"", "", "grid"},
	} {
		assert.Equal(t, c.want, detect(c.name, []byte(c.data)).Name, "%q %q", c.name, c.data)
	}
}

// Whatever is written is known again and read with the same chords.
func TestEveryFormatReadsWhatItWrites(t *testing.T) {
	key, err := harmony.ParseKey("F#", harmony.MinorMode)
	require.NoError(t, err)
	c := chart.Chart{Title: "A test", Key: key, Meter: chart.FourFour, Tempo: 96, Feel: chart.Straight, Swing: 2, Bars: chart.Schemes[2].Bars(key.Tonic, chart.FourFour)}
	for _, f := range Formats {
		r, known, err := Read("", f.Write(c), nil)
		require.NoError(t, err, f.Name)
		assert.Equal(t, f.Title == "MusicXML, compressed", known.Name == "mxl")
		assert.Equal(t, "minor twelve-bar", r.Chart.SchemeOf(), f.Name)
		assert.Equal(t, 96, r.Chart.Tempo, f.Name)
	}
	_, err = Find("pdf")
	assert.ErrorContains(t, err, "is not a format")
}
