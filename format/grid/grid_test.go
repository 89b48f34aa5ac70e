package grid

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/format/formattest"
	"undaris/format/reading"
)

const lanterns = `title: Paper Lanterns
key: Ab major
meter: 4/4
tempo: 84
feel: straight

; the band's own words are comments
[A]
|: Ab | Fm7 | Bbm7 Eb7 |1. Ab . . Eb7 :|2. Ab |
imagined: | | | Fb7 . _ . | | A7 |
[Ending]
| Db ♭VI7 | N.C. | % :|x3
nobody plays this line
`

func barsOf(c chart.Chart) []string {
	all := []string{}
	for _, bar := range c.Bars {
		said := chart.Text(bar.Spans)
		if bar.Section != "" {
			said = "[" + bar.Section + "] " + said
		}
		if bar.RepeatFrom {
			said = "|: " + said
		}
		if bar.Ending > 0 {
			said = fmt.Sprintf("%d. %s", bar.Ending, said)
		}
		if bar.RepeatTo > 0 {
			said += fmt.Sprintf(" :|%d", bar.RepeatTo)
		}
		if len(bar.Imagined) > 0 {
			said += " ~ " + chart.ImaginedText(bar.Imagined)
		}
		all = append(all, said)
	}
	return all
}

func TestAGridIsRead(t *testing.T) {
	r, err := Read([]byte(lanterns))
	require.NoError(t, err)
	assert.Equal(t, []string{
		"|: [A] Ab", "Fm7", "Bbm7 Eb7 ~ Fb7 _", "1. Ab . . Eb7 :|2", "2. Ab ~ A7", "[Ending] Db Fb7", "N.C.", "N.C. :|3",
	}, barsOf(r.Chart))
	assert.Equal(t, "Ab major 84 Paper Lanterns", fmt.Sprintf("%s %s %d %s", r.Chart.Key.Tonic, r.Chart.Key.Mode, r.Chart.Tempo, r.Chart.Title))
	assert.Equal(t, []reading.Remark{{Line: 13, Source: "nobody plays this line", Text: "not a row of bars; not used"}}, r.Remarks)
}

func TestWaysPlayersWriteARow(t *testing.T) {
	for _, c := range []struct{ text, want string }{
		{"| C7 | F7 | C7 | % |", "C7, F7, C7, C7"}, {"C7 | F7", "C7, F7"}, {"|C7|F7||", "C7, F7"}, {"[| C7 | F7 |]", "C7, F7"},
		{"|: C7 :|: F7 :|", "|: C7 :|2, |: F7 :|2"}, {"|: C7 | F7 :| x4 G7 |", "|: C7, F7 :|4, G7"}, {"| C7 / / G7 | F7 . . . |", "C7 . . G7, F7"},
		{"| C7 |  | F7 |", "C7, N.C., F7"}, {"C7 F7 C7 G7", "C7, F7, C7, G7"}, {"|:C7|1 F7:|2 G7|", "|: C7, 1. F7 :|2, 2. G7"},
		{"| B♭7 | E♭m7♭5 |", "Bb7, Ebm7b5"}, {"| C7 |\r\n| F7 |", "C7, F7"}, {"|.C7 |", ""}, {"|: C7 | F7 :||", "|: C7, F7 :|2"},
		{"|: C7 |1. F7 | G7 :|2. C7 |", "|: C7, 1. F7, 1. G7 :|2, 2. C7"},
	} {
		r, err := Read([]byte("key: C dominant\n" + c.text))
		if c.want == "" {
			assert.Error(t, err, c.text)
			continue
		}
		require.NoError(t, err, c.text)
		assert.Equal(t, c.want, strings.Join(barsOf(r.Chart), ", "), c.text)
	}
}

func TestAKeyThatIsNotGivenIsSaid(t *testing.T) {
	for text, want := range map[string]string{"| A7 | D7 |": "A dominant", "| Am7 | Dm |": "A minor", "| Ab | Db |": "Ab major", "| N.C. | Ebmaj7 |": "Eb major"} {
		r, err := Read([]byte("title: A\n" + text))
		require.NoError(t, err)
		assert.Equal(t, want, r.Chart.Key.Tonic.String()+" "+string(r.Chart.Key.Mode))
		require.Len(t, r.Remarks, 1)
		assert.Contains(t, r.Remarks[0].Text, "no key is given; "+want)
	}
}

const lockedGate = `title: Locked Gate
key: C major
pickup: N.C. . G7
scale: G7 altered
scale: VI7 half-whole diminished

[Verse]
| {segno} C | Am7 {to coda} | {2/4} G7 | {4/4} % |
key: Eb major
feel: shuffle
[Bridge]
|: Ab |1. Bb7 :|2. Eb :|3. G7 |
{D.S. al coda}
[Coda]
meter: 12/8
| {key A minor} {coda} Am | E7 |
`

// A song whose key, meter and feel change, with everything that leads to another place.
func TestASongIsRead(t *testing.T) {
	r, err := Read([]byte(lockedGate))
	require.NoError(t, err)
	require.Empty(t, r.Remarks)
	c := r.Chart
	assert.Equal(t, "N.C. . G7", chart.PickupText(c.Pickup))
	assert.Equal(t, []string{"G7 altered", "VI7 half-whole diminished"}, []string{c.Scales[0].Name() + " " + c.Scales[0].Scale, c.Scales[1].Name() + " " + c.Scales[1].Scale})
	said := []string{}
	for b := range c.Bars {
		in := c.SettingOf(b)
		said = append(said, fmt.Sprintf("%s %s %s %s", in.Key.Tonic, in.Key.Mode, in.Meter, in.Feel))
	}
	assert.Equal(t, []string{
		"C major 4/4 straight", "C major 4/4 straight", "C major 2/4 straight", "C major 4/4 straight", "Eb major 4/4 shuffle", "Eb major 4/4 shuffle", "Eb major 4/4 shuffle",
		"Eb major 4/4 shuffle", "A minor 12/8 slow 12/8", "A minor 12/8 slow 12/8",
	}, said)
	assert.Equal(t, []int{0, 1, 2, 3, 4, 5, 4, 6, 4, 7, 0, 1, 8, 9}, c.PlayedBars(), "the endings, back to the segno, and over to the coda")
	again, err := Read(Write(c))
	require.NoError(t, err)
	assert.Equal(t, c, again.Chart)
}

// What stands below the first bars is never applied to them; a remark in brackets is no chord.
func TestLaterHeadingsAndRemarks(t *testing.T) {
	for _, c := range []struct{ text, want, remark string }{
		{"key: C blues\n| C7 | F7 |\nkey: G blues\n| G7 |", "C dominant 4/4 3", ""},
		{"key: C blues\nC7 F7\nkey: G blues\n| G7 |", "C dominant 4/4 3", ""},
		{"key: C\n| C | F |\nTime: 3/4\n| G |", "C major 4/4 3", ""},
		{"Key: C\nTime: 3/4\n| C | F | (twice)", "C major 3/4 2", "this remark is not used"},
		{"key: C\n| C | (F7) | (G7)", "C major 4/4 3", ""},
		{"key: C\n| C . . . | % . . . | % / / / | F |", "C major 4/4 4", ""},
	} {
		r, err := Read([]byte("title: x\n" + c.text))
		require.NoError(t, err, c.text)
		assert.Equal(t, c.want, fmt.Sprintf("%s %s %s %d", r.Chart.Key.Tonic, r.Chart.Key.Mode, r.Chart.Meter, len(r.Chart.Bars)), c.text)
		said := ""
		for _, remark := range r.Remarks {
			if !strings.HasPrefix(remark.Text, "there are no bar lines") {
				said += remark.Text
			}
		}
		assert.Equal(t, c.remark, said, c.text)
	}
}

func TestEveryFaultNamesItsPlace(t *testing.T) {
	for _, c := range []struct{ text, want string }{
		{"key: C\n| Xm7 |", `line 2, column 3: "Xm7" is not a chord Undaris can read (stopped at character 1); nearest: C7, F7, G7`},
		{"key: C\n| C . . |", "line 2, column 3: 3 beats; a bar of 4/4 has 4"},
		{"meter: 7/8\n| C |", `line 1, column 7: "7/8" is not a meter; choose one of: 4/4, 12/8, 3/4, 6/8, 2/4, 5/4, 6/4, 9/8`},
		{"key: C\n| C | {swell} F |", `line 2, column 7: "swell" is no mark; in braces stand segno, coda, to coda, fine, a D.C. or D.S., a key as in {key Ab major}, a meter or a feel`},
		{"key: C\n| C |\nkey: H\n| F |", `line 3, column 5: "H" is not a key: a tonic from C to B with at most one b or #, and a mode dominant, major or minor`},
		{"key: C\n| C | {D.S. al coda} F |", "bar 2: D.S. al coda needs a segno"},
		{"tempo: 19\n| C |", `line 1, column 7: "19" is no tempo; it is 20 to 400 beats a minute`},
		{"tempo: 401\ncapo: 13\n| C |", "line 1, column 7: \"401\" is no tempo; it is 20 to 400 beats a minute\nline 2, column 6: \"13\" is no fret for a capo; it is 0 to 12"},
		{"key: H\n| C |", `line 1, column 5: "H" is not a key: a tonic from C to B with at most one b or #, and a mode dominant, major or minor`},
		{"| IV7 |", "line 1, column 3: a numeral needs a key; put a line such as “key: C dominant” above"},
		{"", "there are no bars in it; write them as | C7 | F7 | C7 | % |"},
		{"key: C\n| C |\nimagined: | Db7 | G7 |", "line 3, column 19: there are more imagined bars than the row above has"},
		{"key: C\n|1. C :|", "bar 1: a first ending needs something before it to repeat"},
		{"title: \xff\n| C |", "line 1, column 8: the text is not UTF-8 here; save it as UTF-8 and try again"},
		{"feel: slow 12/8\nmeter: 4/4\n| C |", `the feel "slow 12/8" does not go with the meter 4/4; slow 12/8 needs 12/8 and 12/8 needs it`},
		{strings.Repeat("| C7 | F7 | C7 | G7 |\n", 129), "line 129, column 3: there are more than 512 bars; a chart has at most 512"},
	} {
		_, err := Read([]byte(c.text))
		assert.EqualError(t, err, c.want, c.text)
	}
	r, err := Read([]byte("key: C\n| Cq | Dm | Eq |\n| . |"))
	require.NoError(t, err, "one bar can be read")
	assert.Len(t, r.Unread, 3, "all of them at once")
	assert.Equal(t, "Cq", r.Unread[0].Symbol)
	assert.Contains(t, r.Unread[0].Nearest, "C")
	assert.Equal(t, []string{"Cq", "", "Eq", "."}, []string{r.Chart.Bars[0].Unread, r.Chart.Bars[1].Unread, r.Chart.Bars[2].Unread, r.Chart.Bars[3].Unread})
	assert.Equal(t, []string{"N.C.", "Dm", "N.C.", "N.C."}, barsOf(r.Chart), "what cannot be read is silent")
	mended, err := r.Chart.Write(2, "E7")
	require.NoError(t, err)
	assert.Empty(t, mended.Bars[2].Unread, "it is mended in place")
	_, err = Read([]byte("key: C\n" + strings.Repeat("| Cq ", 70) + "|"))
	var faults reading.Faults
	require.ErrorAs(t, err, &faults, "nothing can be read")
	assert.Len(t, faults, 51)
	assert.Equal(t, "and 20 more that cannot be read", faults[50].Detail)
}

// Any chart, written and read, is the same chart.
func TestAGridRoundTripsToAnEqualChart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := formattest.Chart(t)
		text := Write(c)
		r, err := Read(text)
		require.NoError(t, err, string(text))
		require.Equal(t, c, r.Chart, string(text))
		require.Empty(t, r.Remarks, string(text))
	})
}

func FuzzRead(f *testing.F) {
	f.Add([]byte(lanterns))
	f.Add([]byte("C7 F7 C7"))
	f.Add([]byte("|: C :|x9\nimagined: . Db7"))
	f.Fuzz(func(t *testing.T, data []byte) {
		r, err := Read(data)
		if err != nil {
			var faults reading.Faults
			require.ErrorAs(t, err, &faults)
			require.NotEmpty(t, faults)
			return
		}
		require.NoError(t, r.Chart.Check())
		again, err := Read(Write(r.Chart))
		require.NoError(t, err, string(Write(r.Chart)))
		require.Equal(t, r.Chart, again.Chart)
	})
}
