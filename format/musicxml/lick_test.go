package musicxml

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/pitch"
	"undaris/format/formattest"
	"undaris/format/reading"
)

// Whatever a lick is: written and read it is equal, and nothing is remarked.
func TestALickReadsBackEqual(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := formattest.Lick(t)
		r, err := ReadLick(WriteLick(l), reading.Plain())
		require.NoError(t, err)
		require.Equal(t, l, r.Lick, "%s", WriteLick(l))
		require.Empty(t, r.Remarks)
	})
}

// scoreOf is a score of one part with these measures, as other programs write them.
func scoreOf(measures ...string) string {
	out := `<?xml version="1.0"?><score-partwise><part-list><score-part id="P1"><part-name>G</part-name></score-part></part-list><part id="P1">`
	for n, m := range measures {
		out += fmt.Sprintf(`<measure number="%d">%s</measure>`, n+1, m)
	}
	return out + `</part></score-partwise>`
}

const opening44 = `<attributes><divisions>2</divisions><key><fifths>1</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>`

func pitched(name string, octave, duration int, more string) string {
	return fmt.Sprintf(`<note><pitch><step>%s</step><octave>%d</octave></pitch><duration>%d</duration>%s</note>`, name, octave, duration, more)
}

func said(remarks []reading.Remark) string {
	all := []string{}
	for _, remark := range remarks {
		all = append(all, fmt.Sprintf("%d %s", remark.Line, remark.Text))
	}
	return strings.Join(all, "; ")
}

// Scores of other programs: without strings, with a short first bar, ties over a bar
// line, notes at once, two parts, bends too wide.
func TestLicksOfOtherPrograms(t *testing.T) {
	tied := `<tie type="start"/>`
	for name, one := range map[string]struct{ text, notes, said, over string }{
		"no strings, a pickup, a tie, two at once": {
			text: scoreOf(
				opening44+pitched("D", 4, 1, "")+pitched("E", 4, 1, ""),
				`<harmony><root><root-step>G</root-step></root><kind>dominant</kind></harmony>`+pitched("G", 4, 4, "")+pitched("B", 4, 4, tied),
				pitched("B", 4, 2, `<tie type="stop"/>`)+`<note><rest/><duration>2</duration></note>`+pitched("D", 4, 4, "")+`<note><chord/><pitch><step>G</step><octave>4</octave></pitch><duration>4</duration></note><print/><lyrics/>`,
			),
			notes: "-480+240 3:7, -240+240 2:5, 0+960 2:8, 960+1440 1:7, 2880+960 2:8, 2880+960 3:7",
			said:  "1 the first measure is short; it is read as a pickup; 0 6 notes are without string and fret; fingered on frets 4 to 9; 0 1 of these are not used; 0 no title is given; it is called Untitled lick",
			over:  "G7@0",
		},
		"strings on a second staff, techniques": {
			text: scoreOf(`<attributes><divisions>1</divisions><time><beats>3</beats><beat-type>4</beat-type></time><staves>2</staves><clef number="2"><sign>TAB</sign></clef></attributes>` +
				pitched("G", 4, 3, "<staff>1</staff>") + `<backup><duration>3</duration></backup>` +
				pitched("C", 5, 1, `<staff>2</staff><notations><technical><string>2</string><fret>13</fret><bend><bend-alter>4</bend-alter></bend></technical></notations>`) +
				pitched("D", 5, 1, `<notehead>x</notehead><staff>2</staff><notations><glissando type="stop"/><technical><string>2</string><fret>15</fret></technical><ornaments><wavy-line type="start"/></ornaments></notations>`) +
				pitched("C", 5, 1, `<staff>2</staff><notations><technical><string>2</string><fret>13</fret><pull-off type="stop"/></technical><articulations><falloff/></articulations></notations>`)),
			notes: "0+480 2:13 bent three half steps, 480+480 2:15 slid from fret 13 with vibrato muted, 960+480 2:13 slid away downwards pulled off",
			said:  "0 a bend of 4 semitones is read as 3; 0 no key is given; it is taken to be in A; 0 no title is given; it is called Untitled lick",
		},
		"two at once on a string, an open string bent, a hammer-on from nothing": {
			text: scoreOf(`<attributes><divisions>1</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>` +
				pitched("C", 4, 2, `<notations><technical><string>2</string><fret>1</fret><hammer-on type="stop"/></technical></notations>`) + `<backup><duration>1</duration></backup>` +
				pitched("D", 4, 1, `<notations><technical><string>2</string><fret>3</fret></technical></notations>`) +
				pitched("E", 4, 1, `<notations><technical><string>1</string><fret>0</fret><bend><bend-alter>1</bend-alter></bend></technical></notations>`)),
			notes: "0+480 2:1, 480+480 2:3, 960+480 1:0",
			said: "0 note 1 is cut short by the next on its string; 0 note 3 is on an open string, which cannot be bent, slid or shaken; " +
				"0 the hammer-on at note 1 no longer fits: pick it; 0 no title is given; it is called Untitled lick",
		},
	} {
		r, err := ReadLick([]byte(one.text), reading.Plain())
		require.NoError(t, err, name)
		assert.Equal(t, one.notes, formattest.Shown(r.Lick), name)
		assert.Equal(t, one.said, said(r.Remarks), name)
		over := []string{}
		for _, from := range r.Lick.Phrase.Chords {
			over = append(over, fmt.Sprintf("%s@%d", from.Chord.Symbol(), from.Tick))
		}
		assert.Equal(t, one.over, strings.Join(over, " "), name)
	}
}

func TestLicksThatCannotBeRead(t *testing.T) {
	at := func(s, fret int) string {
		return pitched("C", 4, 1, fmt.Sprintf(`<notations><technical><string>%d</string><fret>%d</fret></technical></notations>`, s, fret))
	}
	long := strings.Repeat(pitched("C", 4, 1, ""), 200)
	for want, text := range map[string]string{
		"line 1: string 7 fret 3 is not on the neck; strings are 1 to 6, frets 0 to 22\nline 1: string 1 fret 40 is not on the neck; strings are 1 to 6, frets 0 to 22": scoreOf(at(7, 3) + at(1, 40) + at(7, 3)),
		"there is no part with notes in it":                               scoreOf(`<note><rest/><duration>4</duration></note>`),
		"line 1: the file is no MusicXML score by parts (score-partwise)": `<score-timewise/>`,
		"there are more than 16384 notes in it; a lick has at most 4096":  scoreOf(strings.Repeat(long, 90)),
		"note 1: it goes on past bar 64, where a lick ends at the latest": scoreOf(`<attributes><divisions>1</divisions></attributes>` + pitched("C", 4, 400, "")),
	} {
		r, err := ReadLick([]byte(text), reading.Plain())
		assert.Nil(t, r)
		if assert.Error(t, err) {
			assert.Equal(t, want, err.Error())
		}
	}
}

// Repeats are played out, bars of another meter keep their length, and a transposing part is read as it
// sounds.
func TestLicksWithRepeatsAndChanges(t *testing.T) {
	at := func(fret int) string {
		return pitched("C", 4, 8, fmt.Sprintf(`<notations><technical><string>1</string><fret>%d</fret></technical></notations>`, fret))
	}
	waltz := `<attributes><time><beats>3</beats><beat-type>4</beat-type></time></attributes>`
	again := `<barline location="right"><repeat direction="backward"/></barline>`
	r, err := ReadLick([]byte(scoreOf(opening44+at(3)+again, waltz+strings.Replace(at(5), "<duration>8", "<duration>6", 1), at(7))), reading.Plain())
	require.NoError(t, err)
	assert.Equal(t, []int{0, 1920, 3840, 5280}, []int{r.Lick.Phrase.Events[0].Tick, r.Lick.Phrase.Events[1].Tick, r.Lick.Phrase.Events[2].Tick, r.Lick.Phrase.Events[3].Tick})
	assert.Contains(t, said(r.Remarks), "the repeats are played out: a lick has none")
	assert.Contains(t, said(r.Remarks), "the meter changes to 3/4 here; a lick has one meter, and its bars go on in 4/4")
	low, err := ReadLick([]byte(scoreOf(strings.Replace(opening44, "</time>", "</time><transpose><chromatic>0</chromatic><octave-change>-1</octave-change></transpose>", 1)+pitched("E", 5, 8, ""))), reading.Plain())
	require.NoError(t, err)
	assert.Equal(t, pitch.MIDI(64), low.Lick.Phrase.Events[0].Sounding(low.Lick.WrittenFor()), "a guitar sounds an octave below what is written")
}

// Whatever is given: faults, or a lick that can be kept, and that reads back equal.
func FuzzReadLick(f *testing.F) {
	f.Add([]byte(scoreOf(opening44 + pitched("D", 4, 1, "") + pitched("E", 4, 1, `<tie type="start"/>`))))
	f.Add([]byte(scoreOf(`<note><grace/><pitch><step>C</step><octave>4</octave></pitch></note>` + pitched("D", 4, 1, `<notations><technical><string>2</string><fret>3</fret><bend><bend-alter>1</bend-alter></bend></technical></notations>`))))
	f.Fuzz(func(t *testing.T, data []byte) {
		r, err := ReadLick(data, reading.Plain())
		if err != nil {
			require.IsType(t, reading.Faults{}, err)
			return
		}
		require.NoError(t, r.Lick.Check())
		again, err := ReadLick(WriteLick(r.Lick), reading.Plain())
		require.NoError(t, err)
		require.Equal(t, r.Lick.Phrase, again.Lick.Phrase)
	})
}
