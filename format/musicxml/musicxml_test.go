package musicxml

import (
	"archive/zip"
	"bytes"
	"fmt"
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

func bars(c chart.Chart) string {
	all := []string{}
	for _, bar := range c.Bars {
		all = append(all, chart.Text(bar.Spans))
	}
	return strings.Join(all, " | ")
}

// wrap is a score of another program's making around some measures.
func wrap(measures string) string {
	return `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 3.1 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">
<score-partwise version="3.1"><movement-title>From
 elsewhere</movement-title><part-list><score-part id="P1"><part-name>Guitar</part-name></score-part></part-list>
<part id="P1">` + measures + `</part></score-partwise>`
}

const foreign = `<measure number="1"><print/><attributes><divisions>4</divisions><key><fifths>-1</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>
<direction><direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>96</per-minute></metronome></direction-type><sound tempo="96"/></direction>
<direction><direction-type><words>with feeling</words></direction-type></direction>
<harmony><root><root-step>F</root-step></root><kind>dominant</kind></harmony>
<note><pitch><step>A</step><octave>4</octave></pitch><duration>8</duration></note>
<harmony><root><root-step>B</root-step><root-alter>-1</root-alter></root><kind text="9">dominant</kind><degree><degree-value>9</degree-value><degree-alter>0</degree-alter><degree-type>add</degree-type></degree></harmony>
<note><pitch><step>B</step><octave>4</octave></pitch><duration>8</duration></note><backup><duration>16</duration></backup><forward><duration>16</duration></forward></measure>
<measure number="2"><note><rest/><duration>6</duration></note><harmony><root><root-step>C</root-step></root><kind>minor-seventh</kind><bass><bass-step>E</bass-step><bass-alter>-1</bass-alter></bass></harmony><note><rest/><duration>10</duration></note></measure>`

func TestAScoreFromElsewhere(t *testing.T) {
	r, err := Read([]byte(wrap(foreign)))
	require.NoError(t, err)
	assert.Equal(t, "From  elsewhere", r.Chart.Title)
	assert.Equal(t, "F7 Bb9 | Bb9 Cm7/Eb", bars(r.Chart))
	assert.Equal(t, 96, r.Chart.Tempo)
	assert.Equal(t, harmony.DominantMode, r.Chart.Key.Mode)
	said := []string{}
	for _, remark := range r.Remarks {
		said = append(said, fmt.Sprintf("%d %s", remark.Line, remark.Text))
	}
	assert.Equal(t, []string{
		"1 these words are not used", "2 this chord is off the beat; it was moved to beat 3",
		"0 home is a dominant seventh; the key is taken for that of a blues", "0 2 of these were not used; a chart holds chords",
		"0 1 of these were not used; a chart holds chords",
	}, said)
}

func TestEveryQualityIsWrittenAndRead(t *testing.T) {
	for _, sign := range harmony.EverySign() {
		chord, err := harmony.ParseChord("Eb" + sign + "/Bb")
		require.NoError(t, err)
		read, empty, err := mark(chord).chord()
		require.NoError(t, err, sign)
		assert.False(t, empty)
		assert.Equal(t, chord, read, sign)
	}
	assert.Equal(t, kind{"7alt", "dominant", "-5 +b9 +#9 +#11 +b13"}, bySign["7alt"])
}

// Kinds with degrees as programs write them, and what no quality is.
func TestKindsWithDegrees(t *testing.T) {
	for _, c := range []struct{ name, degrees, sign string }{
		{"dominant-13th", "~#11", "13#11"}, {"dominant-13th", "-11", "13"}, {"dominant-ninth", "+#11", "9#11"}, {"dominant", "+b9 +b13", "7b9b13"},
		{"augmented-seventh", "+#9", "7#5#9"}, {"dominant", "~b5 +b9", "7b5b9"}, {"suspended-fourth", "+b7 +b9", "7sus4b9"},
		{"major-seventh", "+#11", "maj7#11"}, {"minor", "+9", "m(add9)"}, {"minor-sixth", "+9", "m6/9"}, {"major-minor", "+9", "m(maj9)"},
	} {
		sign, ok := signOf(c.name, strings.Fields(c.degrees))
		assert.True(t, ok, "%s %s", c.name, c.degrees)
		assert.Equal(t, c.sign, sign, "%s %s", c.name, c.degrees)
	}
	for _, c := range [][2]string{{"Neapolitan", ""}, {"dominant", "-9"}, {"major", "+b9"}, {"power", "+13"}} {
		_, ok := signOf(c[0], strings.Fields(c[1]))
		assert.False(t, ok, c)
	}
	for sign, degrees := range map[string]string{"13#11": "+#11", "7b9b13": "+b9 +b13", "m(add9)": "+9", "7sus4b9": "+b7 +b9"} {
		chord, err := harmony.ParseChord("C" + sign)
		require.NoError(t, err)
		assert.Equal(t, degrees, kindFor(chord.Quality).degrees, sign)
	}
}

// Any chart, written plain or compressed and read, is the same chart.
func TestMusicXMLRoundTripsToAnEqualChart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := formattest.Chart(t)
		text := Write(c)
		if rapid.Bool().Draw(t, "compressed") {
			text = WriteCompressed(c)
		}
		r, err := Read(text)
		require.NoError(t, err, string(Write(c)))
		require.Equal(t, c, r.Chart, string(Write(c)))
		require.Empty(t, r.Remarks)
	})
}

func packed(t *testing.T, files map[string][]byte) []byte {
	t.Helper()
	out := &bytes.Buffer{}
	archive := zip.NewWriter(out)
	for name, data := range files {
		w, err := archive.Create(name)
		require.NoError(t, err)
		_, err = w.Write(data)
		require.NoError(t, err)
	}
	require.NoError(t, archive.Close())
	return out.Bytes()
}

func TestWhatCannotBeReadIsSaid(t *testing.T) {
	container := []byte(`<container><rootfiles><rootfile full-path="a.xml"/></rootfiles></container>`)
	for _, c := range []struct {
		name string
		data []byte
		want string
	}{
		{"a bomb", packed(t, map[string][]byte{containerFile: container, "a.xml": make([]byte, MaxUnpacked+1)}), "the archive unpacks to more than 32 MiB; that is more than a chart can be"},
		{"no container", packed(t, map[string][]byte{"a.xml": nil}), "the archive has no file META-INF/container.xml"},
		{"no score", packed(t, map[string][]byte{containerFile: container}), "the archive has no file a.xml"},
		{"no path", packed(t, map[string][]byte{containerFile: []byte("<container/>")}), "the archive does not say which of its files is the score (META-INF/container.xml)"},
		{"no archive", []byte("PK\x03\x04 and so on"), "the archive cannot be unpacked: zip: not a valid zip file"},
		{"external", []byte("<?xml version=\"1.0\"?>\n<!DOCTYPE score-partwise [<!ENTITY x SYSTEM \"file:///etc/passwd\">]>\n<score-partwise>&x;</score-partwise>"),
			"line 2: the file declares entities of its own; those are not read, and nothing is fetched from elsewhere"},
		{"not XML", []byte("| C7 | F7 |"), "line 1: the file cannot be read: EOF"},
		{"cut short", []byte("<score-partwise>\n<part>"), "line 2: the file is not well-formed XML: unexpected EOF"},
		{"other XML", []byte("<score-timewise/>"), "line 1: the file is no MusicXML score by parts (score-partwise)"},
		{"Latin-1", []byte("<score-partwise>\xe9"), "the file is not UTF-8"},
		{"no parts", []byte("<score-partwise/>"), "there is no part with measures in it"},
		{"no chords", []byte(wrap(`<measure number="1"><note><rest/><duration>4</duration></note></measure>`)), "there are no chord symbols (harmony elements) in it"},
		{"a meter", []byte(wrap(strings.Replace(foreign, "<beats>4", "<beats>7", 1))), `line 1: "7/4" is not a meter; choose one of: 4/4, 12/8, 3/4, 6/8, 2/4, 5/4, 6/4, 9/8`},
		{"a tempo", []byte(wrap(strings.Replace(foreign, `tempo="96"`, `tempo="9600"`, 1))), "line 1: a tempo of 9600; it is 20 to 400 beats a minute"},
		{"too long", []byte(wrap(strings.Repeat("<measure/>", 513))), "there are 513 measures; a chart has at most 512"},
	} {
		_, err := Read(c.data)
		assert.EqualError(t, err, c.want, c.name)
	}
}

// chords is a measure of chords, a whole one each, with elements before and after them.
func chords(number, before, root, after string) string {
	return `<measure number="` + number + `">` + before + `<harmony><root><root-step>` + root + `</root-step></root><kind>dominant</kind></harmony><note><rest measure="yes"/><duration>4</duration></note>` + after + `</measure>`
}

const openingMarks = `<attributes><divisions>1</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes><sound tempo="120"/>`

// What programs write of repeats, endings, jumps and feels, in words or as sound.
func TestASongFromElsewhere(t *testing.T) {
	direction := func(what string) string { return "<direction>" + what + "</direction>" }
	words := func(text string) string { return "<direction-type><words>" + text + "</words></direction-type>" }
	bracket := func(side, number, kind, repeat string) string {
		return `<barline location="` + side + `"><ending number="` + number + `" type="` + kind + `"/>` + repeat + `</barline>`
	}
	r, err := Read([]byte(wrap(
		`<measure number="0" implicit="yes">` + openingMarks + `<harmony><root><root-step>G</root-step></root><kind>dominant</kind></harmony><note><rest/><duration>1</duration></note></measure>` +
			chords("1", direction(words("Swing"))+`<barline location="left"><repeat direction="forward"/></barline>`+direction("<direction-type><segno/></direction-type>"), "C", "") +
			chords("2", bracket("left", "1, 2", "start", ""), "F", bracket("right", "1, 2", "stop", `<repeat direction="backward"/>`)) +
			chords("3", bracket("left", "3", "start", ""), "G", bracket("right", "3", "discontinue", "")+direction(words("To Coda")+`<sound tocoda="coda"/>`)) +
			chords("4", `<attributes><key><fifths>2</fifths></key><time><beats>3</beats><beat-type>4</beat-type></time></attributes>`+direction(words("Straight 8ths")), "D", direction(words("D.S. al Coda")+`<sound dalsegno="segno"/>`)) +
			chords("5", direction("<direction-type><coda/></direction-type>"), "A", ""))))
	require.NoError(t, err)
	assert.Empty(t, r.Unread)
	assert.Equal(t, "G7", chart.PickupText(r.Chart.Pickup))
	assert.Equal(t, []int{0, 1, 0, 1, 0, 2, 3, 0, 2, 4}, r.Chart.PlayedBars())
	assert.Equal(t, chart.Shuffle, r.Chart.Feel)
	assert.Equal(t, "key D major, 3/4, straight", r.Chart.Bars[3].Change.String())
	swung, err := Read([]byte(wrap(chords("1", openingMarks+"<sound><swing><first>3</first><second>2</second></swing></sound>", "C", ""))))
	require.NoError(t, err)
	assert.Equal(t, chart.Shuffle, swung.Chart.Feel)
	assert.Equal(t, 1.5, swung.Chart.Swing)
	transposed, err := Read([]byte(wrap(strings.Replace(chords("1", openingMarks, "C", ""), "</time>", "</time><transpose><diatonic>-1</diatonic><chromatic>-2</chromatic></transpose>", 1))))
	require.NoError(t, err)
	assert.Equal(t, "Bb7", transposed.Chart.Bars[0].Spans[0].Name(), "as it sounds")
}

// A chord that cannot be read marks its measure; the rest of the file stands.
func TestAKindThatCannotBeReadMarksItsMeasure(t *testing.T) {
	r, err := Read([]byte(wrap(strings.Replace(foreign, "minor-seventh", "Tristan", 1))))
	require.NoError(t, err)
	require.Len(t, r.Unread, 1)
	assert.EqualError(t, r.Unread[0], `line 2: measure 2: the kind "Tristan" cannot be read as a chord`)
	assert.Empty(t, r.Chart.Bars[0].Unread)
	assert.NotEmpty(t, r.Chart.Bars[1].Unread)
}

func TestTempoCountsBeats(t *testing.T) {
	c := chart.Chart{Title: "A", Key: harmony.Key{Mode: harmony.DominantMode}, Meter: chart.TwelveEight, Feel: chart.Slow128, Tempo: 54, Swing: 2, Bars: chart.EmptyBars(1, chart.TwelveEight)}
	text := string(Write(c))
	assert.Contains(t, text, `<sound tempo="81">`, "54 dotted quarters are 81 quarters")
	assert.Contains(t, text, "<per-minute>54</per-minute>")
	assert.Contains(t, text, "<beat-unit-dot>")
	marked := strings.Replace(text, `<sound tempo="81"></sound>`, "", 1)
	require.NotEqual(t, text, marked)
	r, err := Read([]byte(marked))
	require.NoError(t, err)
	assert.Equal(t, 54, r.Chart.Tempo, "the metronome mark alone")
}

func FuzzRead(f *testing.F) {
	f.Add([]byte(wrap(foreign)))
	c := chart.Chart{Title: "A", Key: harmony.Key{Mode: harmony.DominantMode}, Meter: chart.FourFour, Feel: chart.Straight, Tempo: 54, Swing: 2, Bars: chart.Schemes[3].Bars(harmony.Key{}.Tonic, chart.FourFour)}
	c.Bars[2].Imagined = c.Bars[11].Spans
	f.Add(Write(c))
	f.Add(WriteCompressed(c))
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
		require.NoError(t, err)
		require.Equal(t, r.Chart, again.Chart)
	})
}
