package chorus_test

import (
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/analysis"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
	"undaris/core/solo/solotest"
)

// byHand writes a chorus as "string.fret:eighths" with "-:eighths" for silence.
func byHand(t testing.TB, text string) chorus.Chorus {
	t.Helper()
	b := chorus.Block{Kind: chorus.FreeBlock, Name: "by hand"}
	tick := 0
	for _, one := range strings.Fields(text) {
		what, length, ok := strings.Cut(one, ":")
		require.True(t, ok, one)
		eighths, err := strconv.Atoi(strings.TrimSuffix(length, "~"))
		require.NoError(t, err)
		if what != "-" {
			s, f, _ := strings.Cut(what, ".")
			str, err := strconv.Atoi(s)
			require.NoError(t, err)
			fret, err := strconv.Atoi(f)
			require.NoError(t, err)
			e := phrase.Event{Tick: tick, Ticks: eighths * 240, Fingered: neck.Fingered{Place: neck.Place{String: str, Fret: fret}}}
			e.Vibrato = strings.HasSuffix(length, "~")
			b.Notes = append(b.Notes, e)
		}
		tick += eighths * 240
	}
	b.Ticks = tick
	return chorus.Chorus{Blocks: []chorus.Block{b}}
}

func about(t testing.TB, o chorus.Request, c chorus.Chorus) map[string]int {
	t.Helper()
	complaints, err := o.Issues(c)
	require.NoError(t, err)
	counts := map[string]int{}
	for _, c := range complaints {
		counts[c.About]++
	}
	return counts
}

// Four short choruses written by hand over the eight-bar form C7 G7 F7 F7 C7 G7 C7 G7.
func TestVerdictsOfChorusesWrittenByHand(t *testing.T) {
	o := solotest.Request(t, "eight-bar, V first", "C", "E", 1)
	// The minor box up and down in eighths, whatever the chord.
	box := byHand(t, strings.Repeat("3.8:1 3.10:1 2.8:1 2.11:1 1.8:1 2.11:1 2.8:1 3.10:1 ", 8))
	counts := about(t, o, box)
	review := analysis.ReviewLine(o.Instrument, box.Phrase(o.Chart), o.Chart)
	assert.Equal(t, [2]bool{false, false}, [2]bool{review.EnoughHeard(), review.EnoughSpace()}, "too few chords heard, and no air")
	assert.GreaterOrEqual(t, counts["band"], 4, "the box loses the changes")
	assert.GreaterOrEqual(t, counts["landing"]+counts["strong beat"], 4)
	assert.Positive(t, counts[analysis.FindingPhrases], "it never rests")
	complaints, err := o.Issues(box)
	require.NoError(t, err)
	assert.Contains(t, sentences(complaints), "G7 arrives in bar 2 and lands on Eb, the b13")

	// Arpeggios up and down: every chord told, nothing rests, nothing is held.
	c7 := "4.10:1 3.9:1 2.8:1 2.11:1 1.8:1 2.11:1 2.8:1 3.9:1 "
	g7 := "4.9:1 3.7:1 3.10:1 2.8:1 1.7:1 2.8:1 3.10:1 3.7:1 "
	f7 := "4.7:1 4.10:1 3.8:1 3.10:1 2.10:1 3.10:1 3.8:1 4.10:1 "
	arpeggios := byHand(t, c7+g7+f7+f7+c7+g7+c7+g7)
	counts = about(t, o, arpeggios)
	assert.Zero(t, counts["band"], "every chord is told")
	assert.Zero(t, counts["landing"])
	assert.Zero(t, counts["rested on"])
	assert.Positive(t, counts[analysis.FindingPhrases], "but it never rests")
	assert.Positive(t, counts[analysis.FindingRhythm], "and its rhythm never changes")
	assert.Positive(t, counts[analysis.FindingHolds], "and nothing is held")
	assert.Equal(t, analysis.FindingArpeggios, analysis.ReviewLine(o.Instrument, arpeggios.Phrase(o.Chart), o.Chart).First[0].Name, "it is an exercise")
	assert.Positive(t, counts[analysis.FindingTouch])

	// Short phrases that land on the thirds, hold them, and leave air.
	bars := func(third, chord string) string { return "-:1 2.8:1 " + chord + " " + third + ":3~ -:1 " }
	good := byHand(t, "3.9:3~ -:2 2.11:1 2.8:1 1.8:1 "+"1.7:3~ -:2 2.8:1 3.10:1 3.8:1 "+"2.10:4~ -:4 "+bars("3.8", "3.10:1 2.10:1")+
		"3.9:3~ -:2 2.11:1 2.8:1 1.8:1 "+"1.7:3~ -:5 "+"3.9:1 2.8:2 2.11:1 1.8:4~ "+"3.10:1 1.7:3~ -:4 ")
	counts = about(t, o, good)
	assert.Zero(t, counts["landing"])
	assert.LessOrEqual(t, counts["band"], 1)
	assert.Zero(t, counts[analysis.FindingPhrases])
	assert.Zero(t, counts[analysis.FindingHolds])
	assert.Zero(t, counts[analysis.FindingMotif], "bars 1 and 5 are alike")
	assert.Zero(t, counts[analysis.FindingTouch], "what is held is shaken")

	// Nothing at all over a change, and a note rested on that hurts: B over C7.
	silent := byHand(t, "3.9:1 -:7 -:8 2.12:8 2.10:8 3.9:8 -:24")
	complaints, err = o.Issues(silent)
	require.NoError(t, err)
	assert.NotContains(t, sentences(complaints), "G7 arrives in bar 2", "silence may be meant")
	assert.NotContains(t, sentences(complaints), "nothing is played over")
	over := byHand(t, "3.9:12 -:4 -:8 2.12:8 2.10:8 3.9:8 -:24")
	complaints, err = o.Issues(over)
	require.NoError(t, err)
	assert.Contains(t, sentences(complaints), "G7 arrives in bar 2 and nothing lands on it", "a note is held over it")
}

func sentences(complaints []chorus.Issue) string {
	all := []string{}
	for _, c := range complaints {
		all = append(all, c.Text)
	}
	return strings.Join(all, "\n")
}

// What a repair mends is mended: a landing lands, a chord comes nearer to being heard, an
// offender is gone; and hands can play the line.
func TestRepairsMend(t *testing.T) {
	made := 0
	rapid.Check(t, func(rt *rapid.T) {
		o := solotest.Request(t, rapid.SampledFrom([]string{"quick change", "eight-bar, I first", "minor twelve-bar"}).Draw(rt, "scheme"), "C", "E", rapid.Uint64().Draw(rt, "seed"))
		o.Blend = []float64{0}
		c := solotest.Planned(t, o).Best[0].Chorus
		o.Blend = []float64{0.5}
		// Some notes are moved by a fret, so that there is something to mend.
		for n := range c.Blocks {
			for k := range c.Blocks[n].Notes {
				e := &c.Blocks[n].Notes[k]
				if rapid.IntRange(0, 4).Draw(rt, "spoil") == 0 && e.Bend == 0 && e.Fret > o.Position.Low+1 {
					e.Fret--
					e.SlideFrom, e.HammerOn, e.PullOff = 0, false, false
				}
			}
		}
		complaints, err := o.Issues(c)
		require.NoError(rt, err)
		of := func(c chorus.Chorus, kind string) int {
			all, err := o.Issues(c)
			require.NoError(rt, err)
			return len(slices.DeleteFunc(all, func(c chorus.Issue) bool { return c.About != kind }))
		}
		for _, complaint := range complaints {
			for _, repair := range complaint.Repairs {
				mended, _, err := solotest.Edit(o, c, repair.Edit)
				require.NoError(rt, err, complaint.Text)
				require.NoError(rt, mended.Phrase(o.Chart).Check(o.Instrument))
				made++
				switch complaint.About {
				case "landing", "rested on", "strong beat":
					require.Less(rt, of(mended, complaint.About), of(c, complaint.About), "%s: %s", complaint.Text, repair.Text)
				}
			}
		}
	})
	assert.Positive(t, made, "something was mended")
}

// A reach past the span is said with a word of caution, and an easier place where the
// position has one.
func TestAWideReachIsSaid(t *testing.T) {
	o := solotest.Request(t, "minor vamp", "C", "E", 1)
	c := byHand(t, "3.6:2 2.11:2 -:4 3.8:2 3.10:2 -:4 -:16")
	complaints, err := o.Issues(c)
	require.NoError(t, err)
	at := slices.IndexFunc(complaints, func(c chorus.Issue) bool { return c.About == "reach" })
	require.GreaterOrEqual(t, at, 0)
	assert.Contains(t, complaints[at].Text, "bar 1: frets 6 to 11 are 115 mm apart, wider than your 100 mm")
	assert.Contains(t, complaints[at].Text, "stop if it hurts")
	require.Len(t, complaints[at].Repairs, 1)
	assert.Equal(t, "play it on string 1 fret 6", complaints[at].Repairs[0].Text)
	mended, _, err := solotest.Edit(o, c, complaints[at].Repairs[0].Edit)
	require.NoError(t, err)
	assert.Zero(t, about(t, o, mended)["reach"])
	o.SpanMM = 130
	assert.Zero(t, about(t, o, c)["reach"], "a wider hand has no trouble")
}

func TestAHoldIsOffered(t *testing.T) {
	o := solotest.Request(t, "minor vamp", "C", "E", 1)
	c := byHand(t, strings.Repeat("3.8:1 3.10:1 2.8:1 -:5 ", 4))
	complaints, err := o.Issues(c)
	require.NoError(t, err)
	at := slices.IndexFunc(complaints, func(c chorus.Issue) bool { return c.About == analysis.FindingHolds })
	require.GreaterOrEqual(t, at, 0)
	require.Len(t, complaints[at].Repairs, 1)
	mended, _, err := solotest.Edit(o, c, complaints[at].Repairs[0].Edit)
	require.NoError(t, err)
	assert.Zero(t, about(t, o, mended)[analysis.FindingHolds])
}

// A repair of one note of a double stop leaves the other.
func TestARepairLeavesTheOtherNoteOfADoubleStop(t *testing.T) {
	o := solotest.Request(t, "quick change", "C", "E", 1)
	c := chorus.Chorus{Blocks: []chorus.Block{{Kind: chorus.FreeBlock, Name: "free notes", Ticks: 960, Notes: []phrase.Event{
		{Ticks: 960, Fingered: neck.Fingered{Place: neck.Place{String: 4, Fret: 7}}}, {Ticks: 960, Fingered: neck.Fingered{Place: neck.Place{String: 5, Fret: 9}}},
	}}}}
	all, err := o.Issues(c)
	require.NoError(t, err)
	at := slices.IndexFunc(all, func(c chorus.Issue) bool { return c.About == "landing" && len(c.Repairs) > 0 && c.Tick == 0 })
	require.GreaterOrEqual(t, at, 0)
	mended, _, err := solotest.Edit(o, c, all[at].Repairs[0].Edit)
	require.NoError(t, err)
	assert.Len(t, mended.Phrase(o.Chart).Events, 2)
}
