package lickfile

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/format/formattest"
	"undaris/format/reading"
)

// Every format is known again by what is in it, whatever the file is called; ours and
// MusicXML hold all of a lick.
func TestEveryFormatIsKnownAgain(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := formattest.Lick(t)
		for _, f := range Formats {
			r, as, err := Read("upload", f.Write(l), reading.Plain())
			assert.Equal(t, f.Name, as.Name)
			if f.Name == "json" || f.Name == "musicxml" {
				require.NoError(t, err)
				require.Equal(t, l, r.Lick, f.Name)
			}
		}
	})
}

func TestWhichFormatAFileIsIn(t *testing.T) {
	for want, file := range map[string][2]string{
		"tab": {"a.txt", "E|--3--|"}, "midi": {"a.mid", ""}, "musicxml": {"a.mxl", ""}, "json": {"a.json", ""},
	} {
		assert.Equal(t, want, detect(file[0], []byte(file[1])).Name)
	}
	_, _, err := Read("a.json", []byte(`{"name": 3}`), reading.Plain())
	assert.ErrorContains(t, err, "the JSON cannot be read")
	_, _, err = Read("a.json", []byte(`{"name": "A", "tonic": "C", "meter": "7/8"}`), reading.Plain())
	assert.ErrorContains(t, err, "meter:")
	_, err = Find("wav")
	assert.ErrorContains(t, err, "is not a format")
	assert.Equal(t, []string{"tab", "musicxml", "midi", "json"}, Names())
}
