package chordpro

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/format/formattest"
	"undaris/format/reading"
)

const song = `{title: Paper Lanterns}
{artist: The house band}
{key: Ab}
{time: 4/4}
{tempo: 84}
# a comment of the file

{start_of_verse: Verse 1}
[Ab]Lanterns on the [Fm7]water, [*softly] [Bbm7]one for every [Eb7]name
{end_of_verse}
{soc}
[Db]Paper and [Ab/C]light
{eoc}
{start_of_tab}
e|--3--|
{end_of_tab}
`

func text(c chart.Chart) string {
	all := []string{}
	for _, bar := range c.Bars {
		said := chart.Text(bar.Spans)
		if bar.Section != "" {
			said = "[" + bar.Section + "] " + said
		}
		all = append(all, said)
	}
	return strings.Join(all, " | ")
}

func TestChordsOverWords(t *testing.T) {
	r, err := Read([]byte(song))
	require.NoError(t, err)
	assert.Equal(t, "[Verse 1] Ab | Fm7 | Bbm7 | Eb7 | [Chorus] Db | Ab/C", text(r.Chart))
	assert.Equal(t, "Paper Lanterns", r.Chart.Title)
	assert.Equal(t, 84, r.Chart.Tempo)
	assert.Equal(t, []reading.Remark{
		{Line: 2, Source: "{artist: The house band}", Text: "this directive is not used"},
		{Line: 9, Source: "", Text: "there are no bars in words; each chord is read as a bar of its own"},
		{Line: 9, Source: "[*softly]", Text: "this annotation is not used"},
		{Line: 9, Source: "Lanterns on the water,  one for every name", Text: "words are not kept"},
		{Line: 12, Source: "Paper and light", Text: "words are not kept"},
		{Line: 15, Source: "e|--3--|", Text: "not a row of bars; not used"},
	}, r.Remarks)
}

func TestGrids(t *testing.T) {
	r, err := Read([]byte(`{t: A blues}
{key: C}
{x_undaris_key: C dominant}
{start_of_grid shape="4x4"}
A  || C7 . . . | F7 . | C7 . A7 . | %  |  count four
|: Dm7 G7 | N.C. . . . |1 C7 . . . :|2 C7 . . G7 |
{end_of_grid}
[C7]Words with [F7]chords
{start_of_grid: label="Ending"}
| C6/9 . . . |.
{eog}
`))
	require.NoError(t, err)
	assert.Equal(t, "C7 | F7 | C7 A7 | C7 A7 | Dm7 G7 | N.C. | C7 | C7 . . G7 | [Ending] C6/9", text(r.Chart))
	assert.Equal(t, harmony.DominantMode, r.Chart.Key.Mode)
	assert.Equal(t, []int{0, 1, 2, 3, 4, 5, 6, 4, 5, 7, 8}, r.Chart.PlayedBars())
	said := []string{}
	for _, remark := range r.Remarks {
		said = append(said, remark.Text)
	}
	assert.Equal(t, []string{
		"what stands before the first bar line is not used", "what stands behind the last bar line is not used",
		"the bars are read from the grid; the chords over the words are not used",
	}, said)
}

// Blanks inside a directive mean nothing; a major key at home on a dominant seventh is a blues', unless the file
// says otherwise itself.
func TestDirectivesWithBlanks(t *testing.T) {
	for _, c := range []struct {
		text string
		mode harmony.Mode
		bars string
	}{
		{"{ title : Weir walk }\n{ key: C }\n{ start_of_grid }\n| C7 . . . | % . . . | F7 . . . |\n{ end_of_grid }\n", harmony.DominantMode, "C7 | C7 | F7"},
		{"{title:Weir walk}\n{key:C}\n{x_undaris_key: C major}\n{sog}\n| C7 | F7 |\n{eog}\n", harmony.MajorMode, "C7 | F7"},
		{"{title:Weir walk}\n{key:C}\n[C]la [F7]la\n", harmony.MajorMode, "C | F7"},
	} {
		r, err := Read([]byte(c.text))
		require.NoError(t, err, c.text)
		assert.Equal(t, "Weir walk", r.Chart.Title)
		assert.Equal(t, c.mode, r.Chart.Key.Mode, c.text)
		assert.Equal(t, c.bars, text(r.Chart), c.text)
	}
	_, err := Read([]byte("{  tempo : 1000 }\n[C]a"))
	assert.ErrorContains(t, err, "line 1, column 12")
}

func TestEveryFaultNamesItsPlace(t *testing.T) {
	for _, c := range []struct{ text, want string }{
		{"[Hm]two [F7x]three", "line 1, column 2: \"Hm\" is not a chord Undaris can read (stopped at character 1); nearest: Bm\n" +
			"line 1, column 12: \"F7x\" is not a chord Undaris can read (stopped at character 3); nearest: F7, F7#5, F"},
		{"{time: 7/8}\n[C]a", `line 1, column 8: "7/8" is not a meter; choose one of: 4/4, 12/8, 3/4, 6/8, 2/4, 5/4, 6/4, 9/8`},
		{"  {tempo: 1000}\n[C]a", `line 1, column 11: "1000" is no tempo; it is 20 to 400 beats a minute`},
		{"{key: X}\n[C]a", `line 1, column 7: "X" is not a key: a tonic from C to B with at most one b or #, and a mode dominant, major or minor`},
		{"{sog}\n| C . . |\n{eog}", "line 2, column 3: 3 beats; a bar of 4/4 has 4"},
		{"[C7 one", "line 1, column 1: a bracket is opened here and not closed"},
		{"only words", "there are no chords in it; ChordPro holds them in brackets, [C7], or in a grid"},
		{"[C]\xffa", "line 1, column 4: the text is not UTF-8 here; save it as UTF-8 and try again"},
	} {
		_, err := Read([]byte(c.text))
		require.Error(t, err, c.text)
		assert.Equal(t, c.want, err.Error(), c.text)
	}
}

// What is written is read with the same bars, key and time; only what the format
// has no place for is gone.
func TestWhatIsWrittenReadsBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := formattest.Chart(t)
		r, err := Read(Write(c))
		require.NoError(t, err, string(Write(c)))
		assert.Equal(t, c.Key, r.Chart.Key, string(Write(c)))
		assert.Equal(t, c.Meter, r.Chart.Meter)
		assert.Equal(t, c.Tempo, r.Chart.Tempo)
		assert.Equal(t, c.Capo, r.Chart.Capo)
		for b := range c.Bars {
			c.Bars[b].Imagined, c.Bars[b].Section, r.Chart.Bars[b].Section = nil, "", ""
			c.Bars[b].Change.Feel, r.Chart.Bars[b].Change.Feel = "", "" // it has no place in the format
		}
		assert.Equal(t, c.Pickup, r.Chart.Pickup)
		assert.Equal(t, c.Bars, r.Chart.Bars, string(Write(c)))
	})
}

func FuzzRead(f *testing.F) {
	f.Add([]byte(song))
	f.Add([]byte("{sog}\n|: C . G . | % :|x3\n{eog}"))
	f.Add([]byte("{start_of_: x}\n[]"))
	f.Fuzz(func(t *testing.T, data []byte) {
		r, err := Read(data)
		if err != nil {
			var faults reading.Faults
			require.ErrorAs(t, err, &faults)
			require.NotEmpty(t, faults)
			return
		}
		require.NoError(t, r.Chart.Check())
		_, err = Read(Write(r.Chart))
		require.NoError(t, err, string(Write(r.Chart)))
	})
}
