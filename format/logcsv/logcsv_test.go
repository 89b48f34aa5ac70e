package logcsv

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/practice/logbook"
)

const table = "id,began,seconds,kind,item,key,position,tempo,goal,right,of,went,note\n" +
	"a1,2026-03-01T19:00:00+01:00,600,lick,\"Rope, cleat\",C,E,70,112,,,clean,\"two\nlines\"\n" +
	"a2,2026-03-02T19:00:00Z,120,cards,,,,,,9,12,,'=1+1\n"

func TestTheLogAsATable(t *testing.T) {
	lines, faults, err := Read([]byte(table))
	require.NoError(t, err)
	assert.Empty(t, faults)
	require.Len(t, lines, 2)
	assert.Equal(t, "Rope, cleat", lines[0].Item)
	assert.Equal(t, "two\nlines", lines[0].Note)
	assert.Equal(t, 70, lines[0].Tempo)
	assert.Equal(t, "2026-03-01", lines[0].Day())
	assert.Equal(t, [2]int{9, 12}, [2]int{lines[1].Right, lines[1].Of})
	assert.Equal(t, "=1+1", lines[1].Note, "what a spreadsheet would take for a formula is a note")
	out := bytes.Buffer{}
	require.NoError(t, Write(&out, lines))
	assert.Equal(t, table, out.String())

	// As another program writes it: a mark of the encoding, semicolons, other columns, another order.
	other := "\ufeffKind;Began;Mood;Item\nLick;2026-03-01T19:00:00+01:00;good;Low lamp\n"
	lines, faults, err = Read([]byte(other))
	require.NoError(t, err)
	require.Len(t, lines, 1)
	assert.Equal(t, "Low lamp", lines[0].Item)
	require.Len(t, faults, 1)
	assert.Contains(t, faults[0].Text, `the column "mood" is not read`)
}

func TestBadLinesAreNamedAndTheRestIsRead(t *testing.T) {
	lines, faults, err := Read([]byte("began,kind,seconds,tempo,went\n" +
		"yesterday,lick,1,,\n" +
		"2026-03-01T19:00:00Z,song,1,,\n" +
		"2026-03-01T19:00:00Z,lick,many,,\n" +
		"2026-03-01T19:00:00Z,lick,90000,,\n" +
		"2026-03-01T19:00:00Z,lick,60,90,fair\n" +
		"2026-03-01T19:00:00Z,lick,\"60,90\n"))
	require.NoError(t, err)
	require.Len(t, lines, 1)
	assert.Equal(t, 90, lines[0].Tempo)
	places := []string{}
	for _, f := range faults {
		places = append(places, strings.TrimSpace(strings.Join([]string{string(rune('0' + f.Line)), f.Column}, " ")))
	}
	assert.Equal(t, []string{"2 began", "3 kind", "4 seconds", "5 seconds", "7"}, places)
	assert.Contains(t, faults[0].Text, `"yesterday" is no time`)

	for text, says := range map[string]string{"": "no table", "a,b\n1,2\n": `the column "began" is missing`} {
		_, _, err := Read([]byte(text))
		assert.ErrorContains(t, err, says)
	}
}

// Whatever is written is read back the same.
func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		text := rapid.StringMatching(`[ -~äß♭'=+@\-"\n,;]{0,20}`).Filter(func(s string) bool { return strings.TrimSpace(s) == s })
		l := Line{ID: rapid.StringMatching(`[a-z0-9]{0,12}`).Draw(rt, "id"), Entry: logbook.Entry{
			Began:   time.Unix(rapid.Int64Range(100_000, 4_000_000_000).Draw(rt, "at"), 0).In(time.FixedZone("", 60*rapid.IntRange(-720, 840).Draw(rt, "offset"))),
			Seconds: rapid.IntRange(0, logbook.MaxSeconds).Draw(rt, "seconds"), Kind: rapid.SampledFrom(logbook.Kinds).Draw(rt, "kind"),
			Item: text.Draw(rt, "item"), Note: text.Draw(rt, "note"), Key: "Bb", Position: "E+1",
			Tempo: rapid.IntRange(0, 400).Draw(rt, "tempo"), Goal: rapid.IntRange(0, 400).Draw(rt, "goal"), Right: 1, Of: 2, Went: rapid.SampledFrom(append([]logbook.Went{""}, logbook.WentWays...)).Draw(rt, "went"),
		}}
		out := bytes.Buffer{}
		require.NoError(rt, Write(&out, []Line{l}))
		read, faults, err := Read(out.Bytes())
		require.NoError(rt, err)
		require.Empty(rt, faults)
		require.Len(rt, read, 1)
		assert.True(rt, l.Began.Equal(read[0].Began))
		assert.Equal(rt, l.Began.Format(time.RFC3339), read[0].Began.Format(time.RFC3339))
		read[0].Began = l.Began
		assert.Equal(rt, l, read[0])
	})
}

func FuzzRead(f *testing.F) {
	f.Add([]byte(table))
	f.Add([]byte("began;kind\n2026-03-01T19:00:00Z;lick\n"))
	f.Fuzz(func(t *testing.T, text []byte) {
		lines, _, err := Read(text)
		if err != nil {
			return
		}
		out := bytes.Buffer{}
		require.NoError(t, Write(&out, lines))
		again, faults, err := Read(out.Bytes())
		require.NoError(t, err)
		require.Empty(t, faults)
		require.Len(t, again, len(lines))
	})
}
