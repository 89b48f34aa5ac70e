package tabtext

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/format/formattest"
	"undaris/format/reading"
)

// said lists the remarks but for the one that every tab gets, on lengths.
func said(r *reading.Lick) string {
	all := []string{}
	for _, remark := range r.Remarks {
		text := remark.Text
		if remark.Line > 0 {
			text = fmt.Sprintf("line %d: %s", remark.Line, text)
		}
		if !strings.HasPrefix(text, "tab has no lengths") {
			all = append(all, text)
		}
	}
	return strings.Join(all, "; ")
}

func read(t *testing.T, rows ...string) *reading.Lick {
	t.Helper()
	r, err := Read([]byte(strings.Join(rows, "\n")), reading.Plain())
	require.NoError(t, err)
	return r
}

// Every tab here is read by columns; what comes out was checked by hand.
func TestReadingTab(t *testing.T) {
	for name, one := range map[string]struct {
		rows        []string
		notes, said string
		chords      string
	}{
		"counted, with triplets and chords": {[]string{
			"title: Counted", "key: C", "meter: 4/4", "",
			"   C7                     F7",
			"   1  &  2  .  . 3  4    1  2 3 &",
			"E|----------------------|----------|",
			"B|-8-h11-p8----8--------|----------|",
			"G|----------10---9~-----|-10-----8-|",
			"D|----------------------|----------|",
			"A|----------------------|----------|",
			"E|----------------------|----------|",
		}, "0+240 2:8, 240+240 2:11 hammered on, 480+160 2:8 pulled off, 640+160 3:10, 800+160 2:8, 960+960 3:9 with vibrato, 1920+1200 3:10, 3120+720 3:8", "", "C7@0 F7@1920"},
		"counted, every sign": {[]string{
			"key: A", "meter: 4/4",
			"   1      2     3   4     1  2  3 4  ",
			"E|-----------------------|----------|",
			"B|-8b10r8-8pb10-8b+-8b---|-8/-8~-x-5|",
			"G|-----------------------|----------|",
			"D|-----------------------|----------|",
			"A|-----------------------|----------|",
			"E|-----------------------|---------3|",
		}, "0+480 2:8 bent a whole step released, 480+480 2:8 bent beforehand a whole step, 960+480 2:8 bent a quarter tone, 1440+480 2:8 bent a whole step, 1920+480 2:8 slid away upwards, 2400+480 2:8 with vibrato, 2880+480 2:8 muted, 3360+480 2:5, 3360+480 6:3", "line 5: column 21: a bend without its goal is read as a whole step; TITLE", ""},
		"by spacing": {[]string{
			"e|--5---8---5-------|--8---5---------|",
			"B|------------8---5-|----------8-5---|",
			"G|-----------------|----------------|",
			"D|-----------------|----------------|",
			"A|-----------------|----------------|",
			"E|-----------------|----------------|",
		}, "0+480 1:5, 480+480 1:8, 960+240 1:5, 1200+480 2:8, 1680+240 2:5, 2160+480 1:8, 2640+480 1:5, 3120+240 2:8, 3360+480 2:5", "SPACED; METER; KEY; TITLE", ""},
		"without bar lines or names": {[]string{
			"-------5-8--", "---5-8------", "-5----------", "------------", "------------", "------------",
		}, "0+240 3:5, 240+240 2:5, 480+240 2:8, 720+240 1:5, 960+960 1:8", "SPACED; METER; KEY; TITLE", ""},
		"a trill, and ghost notes": {[]string{
			"key: A", "meter: 4/4", "   1     2  3  4  ", "E|---------------|", "B|-8tr10-(5)-8tr-|", "G|---------------|", "D|---------------|", "A|---------------|", "E|---------------|",
		}, "0+480 2:8 trilled with the whole step above, 480+480 2:5 a ghost note, 960+960 2:8 trilled with the whole step above", "line 5: column 14: a trill without its fret is read as a whole step; TITLE", ""},
		"a pickup": {[]string{
			"key: A", "   4 &   1 2 3 4", "E|-----|---------|", "B|-5-8-|---------|", "G|-----|-7-------|", "D|-----|---------|", "A|-----|---------|", "E|-----|---------|",
		}, "-480+240 2:5, -240+240 2:8, 0+1920 3:7", "METER; TITLE", ""},
		"a seven-string by its names": {[]string{
			"E|-----|", "B|-----|", "G|-----|", "D|-----|", "A|-----|", "E|-----|", "B|-1-3-|",
		}, "0+960 7:1, 960+960 7:3", "line 1: the strings are named so: taken for the tuning; SPACED; METER; KEY; TITLE", ""},
		"a slide from nowhere, a hammer-on from nothing, an open string bent": {[]string{
			"key: A", "meter: 4/4", "   1  2  3  4", "E|------------|", "B|-/8-h9-----|", "G|--------0b-|", "D|------------|", "A|------------|", "E|------------|",
		}, "0+480 2:8 slid from fret 6, 480+480 2:9 hammered on, 960+960 3:0", "line 6: column 11: a bend without its goal is read as a whole step; line 5: column 5: the slide has no start; it is read from fret 6; line 6: column 11: the bend is left out: its string does not allow it; TITLE", ""},
		"12/8": {[]string{
			"key: B", "meter: 12/8", "   1 & a 2 & a 3 4", "E|-----------------|", "B|-7-----7-10-----|", "G|---9-7---------9-|", "D|-----------------|", "A|-----------------|", "E|-----------------|",
		}, "0+240 2:7, 240+240 3:9, 480+240 3:7, 720+240 2:7, 960+1200 2:10, 2160+720 3:9", "TITLE", ""},
	} {
		r := read(t, one.rows...)
		over := []string{}
		for _, o := range r.Lick.Phrase.Chords {
			over = append(over, fmt.Sprintf("%s@%d", o.Chord.Symbol(), o.Tick))
		}
		remarks := strings.NewReplacer(
			"SPACED", "the rhythm is taken from the spacing, which need not be meant; shift and lengthen what sounds wrong",
			"METER", "no meter is given; it is read as 4/4", "TITLE", "no title is given; it is called Untitled lick",
			"KEY", "no key is given; it is taken to be in A").Replace(one.said)
		assert.Equal(t, one.notes, formattest.Shown(r.Lick), name)
		assert.Equal(t, remarks, said(r), name)
		assert.Equal(t, one.chords, strings.Join(over, " "), name)
	}
}

func TestHeadingsOfTab(t *testing.T) {
	r := read(t, "Some words", "title: Ferry call", "about: Up and back.", "key: Bb", "meter: 3/4", "tags: box, call", "capo: 3", "; a comment",
		"tuning: D A D G B E", "E|-1---|", "B|-1---", "G|-----|", "D|-----|", "A|-----|", "D|-----|", "the end")
	l := r.Lick
	assert.Equal(t, "Ferry call / Up and back. / Bb / 3/4 / box, call", strings.Join([]string{l.Name, l.About, l.Tonic.String(), l.Phrase.Meter.String(), strings.Join(l.Tags, ", ")}, " / "))
	require.NotNil(t, l.Instrument)
	assert.Equal(t, "D A D G B E", strings.Join(strings.Fields(strings.NewReplacer("2", "", "3", "", "4", "").Replace(l.Instrument.Tuning())), " "))
	for _, want := range []string{"line 7: the capo is not kept with a lick; its frets are counted from the nut", "line 1: this line is not used", "line 16: this line is not used", "the lines are not equally long"} {
		assert.Contains(t, said(r), want)
	}
}

func TestTabThatCannotBeRead(t *testing.T) {
	seven := strings.Repeat("-1-3-5-\n", 7)
	for want, text := range map[string]string{
		"line 1: 7 lines of tab stand together here; the instrument has 6 strings, a line each. Name the strings at the left, or write a tuning: line, if it is another": seven,
		"there is no tab in it: a system is a line of dashes and frets for each string, the highest first, as in E|--8--10--|":                                           "words\n",
		"there is no fret in the tab":                                                  strings.Repeat("---------\n", 6),
		"line 2, column 3: fret 99 is not on the neck; its frets are 0 to 22":          "-----\n--99-\n-----\n-----\n-----\n-----\n",
		"the text has 300000 bytes; tab of a lick has at most 262144":                  strings.Repeat("-", 300000),
		"line 1, column 2: the text is not UTF-8 here; save it as UTF-8 and try again": "-\xff",
	} {
		r, err := Read([]byte(text), reading.Plain())
		assert.EqualError(t, err, want)
		assert.Nil(t, r)
	}
	_, err := Read([]byte("-----\n--99-\n-----\n-----\n-88--\n-----\n"), reading.Plain())
	var faults reading.Faults
	require.ErrorAs(t, err, &faults)
	assert.Len(t, faults, 2, "every fault at once")
}

// Headings as players write them are read, or named; none of them is a fault.
func TestHeadingsAsPlayersWriteThem(t *testing.T) {
	const standard, dropD = "E2 A2 D3 G3 B3 E4", "D2 A2 D3 G3 B3 E4"
	for heading, want := range map[string][2]string{
		"Drop D":               {dropD, ""},
		"(drop d tuning)":      {dropD, ""},
		"Tuning: Drop D":       {dropD, ""},
		"Tuning: DADGBE":       {dropD, ""},
		"Tuned to open G":      {"D2 G2 D3 G3 B3 D4", ""},
		"Standard tuning":      {standard, ""},
		"tuning: X Y":          {standard, "line 1: the tuning cannot be read ("},
		"Capo 2nd fret":        {standard, "line 1: the capo is not kept with a lick"},
		"capo: 3":              {standard, "line 1: the capo is not kept with a lick"},
		"♩ = 120":              {standard, "line 1: the tempo is not kept with a lick"},
		"Tempo 96":             {standard, "line 1: the tempo is not kept with a lick"},
		"120 bpm":              {standard, "line 1: the tempo is not kept with a lick"},
		"meter: 9/7":           {standard, "the tab is read without it"},
		"key: H":               {standard, "\"H\" is not a key"},
		"slow, with much room": {standard, "line 1: this line is not used"},
	} {
		r := read(t, heading, "e|-----|", "B|--9--|", "G|-----|", "D|-----|", "A|-----|", "E|-----|")
		tuning := standard
		if r.Lick.Instrument != nil {
			tuning = r.Lick.Instrument.Tuning()
		}
		assert.Equal(t, want[0], tuning, heading)
		assert.Contains(t, said(r), want[1], heading)
	}
}

func TestWritingTab(t *testing.T) {
	chord, err := harmony.ParseChord("C7")
	require.NoError(t, err)
	at := func(tick, ticks, s, fret int) phrase.Event {
		return phrase.Event{Tick: tick, Ticks: ticks, Fingered: neck.Fingered{Place: neck.Place{String: s, Fret: fret}}}
	}
	l := lick.Lick{Name: "Written", Tags: []string{"box"}, Phrase: phrase.Phrase{Meter: chart.FourFour, Chords: []phrase.PhraseChord{{Chord: chord}}, Events: []phrase.Event{
		at(-240, 240, 2, 8), at(0, 240, 3, 8), at(240, 240, 3, 10), at(480, 160, 2, 8), at(640, 320, 3, 10), at(960, 420, 1, 8), at(1380, 60, 2, 10), at(1440, 480, 2, 11), at(1920, 480, 2, 8), at(1920, 480, 3, 9),
	}}}
	l.Phrase.Events[2].HammerOn = true
	l.Phrase.Events[4].Bend, l.Phrase.Events[4].Release = 3, true
	l.Phrase.Events[6].Grace = true
	l.Phrase.Events[7].Accent = true
	l.Phrase.Events[9].SlideFrom, l.Phrase.Events[9].Vibrato = 8, true
	want := `title: Written
key: C
meter: 4/4
tags: box

         C7
   4 &   1  &  2 .         . 3     4
E|-----|---------------------8--------|
B|---8-|-------8---------------g10-11-|
G|-----|-8-h10---10b11+r10------------|
D|-----|------------------------------|
A|-----|------------------------------|
E|-----|------------------------------|

    1  2 3 4
E|-----------|
B|--8--------|
G|-/9~-------|
D|-----------|
A|-----------|
E|-----------|

; note 8 is accented
`
	assert.Equal(t, want, string(Write(l)))
	again, err := Read(Write(l), reading.Plain())
	require.NoError(t, err)
	l.Phrase.Events[7].Accent = false // text has no sign for it
	l.Phrase.Events[9].Ticks, l.Phrase.Events[8].Ticks = 1920, 1920
	for n, e := range again.Lick.Phrase.Events {
		if n == 9 {
			assert.Equal(t, 7, e.SlideFrom, "where a slide begins is not written")
			e.SlideFrom = 8
		}
		assert.Contains(t, l.Phrase.Events, e)
	}
	assert.Equal(t, l.Phrase.Chords, again.Lick.Phrase.Chords)
}

// A line without rests reads back as it was written: its places, times and techniques;
// what text cannot say is left out.
func TestALineOfTabReadsBackEqual(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := formattest.Line(t)
		end := l.Phrase.Events[len(l.Phrase.Events)-1].End()
		r, err := Read(Write(l), reading.Plain())
		require.NoError(t, err, string(Write(l)))
		require.Len(t, r.Lick.Phrase.Events, len(l.Phrase.Events), string(Write(l)))
		for n, want := range l.Phrase.Events {
			got := r.Lick.Phrase.Events[n]
			want.Finger, want.Accent, want.Staccato, want.Rake = 0, false, false, false
			if leading := want.HammerOn || want.PullOff || want.SlideFrom > 0 || want.Tied || want.Grace; want.Ghost && leading {
				want.Ghost = false // brackets are one sign too many
			}
			for _, before := range l.Phrase.Events[:n] {
				if before.Place == want.Place && before.End() == want.Tick {
					want.Ghost = false // in brackets it would be tied
				}
			}
			if want.Mute { // a muted note has no fret in tab
				want.Fret, want.Bend, want.PreBend, want.Release, want.Vibrato, want.SlideOut = got.Fret, got.Bend, got.PreBend, got.Release, got.Vibrato, got.SlideOut
			}
			if n == len(l.Phrase.Events)-1 && want.End() == end {
				want.Ticks = got.Ticks
			}
			leads := 0
			for _, name := range []string{"hammer-on", "pull-off", "slide", "tie"} {
				if want.Uses(name) {
					leads++
				}
			}
			slid := want.SlideFrom > 0 || leads > 1
			before := slices.ContainsFunc(l.Phrase.Events[:n], func(e phrase.Event) bool { return e.Mute && e.String == want.String })
			if slid || before || want.Mute {
				// Where a slide comes from, and what leads out of a muted note, is a guess.
				want.Technique, got.Technique = phrase.Technique{}, phrase.Technique{}
			}
			require.Equal(t, want, got, "note %d of\n%s", n+1, Write(l))
		}
		assert.Equal(t, l.Tonic, r.Lick.Tonic)
		assert.Equal(t, strings.TrimSpace(l.Name), r.Lick.Name)
		assert.Equal(t, l.Tags, r.Lick.Tags)
	})
}

// Whatever text is given: faults with their places, or a lick that can be kept and
// written again.
func FuzzReadTab(f *testing.F) {
	f.Add("E|-5-h8-|\nB|-----|\nG|-----|\nD|-----|\nA|-----|\nE|-----|\n")
	f.Add("1 & 2 &\n-8b10r8~--g7/9\n-x----\n-(8)--\n------\n------\n------\n")
	f.Add("key: A\nC7 F7\n--|--|--1\n--|--|--\n--|--|--\n--|--|--\n--|--|--\n--|--|--\n4 1 . .\n")
	f.Fuzz(func(t *testing.T, text string) {
		r, err := Read([]byte(text), reading.Plain())
		if err != nil {
			require.IsType(t, reading.Faults{}, err)
			return
		}
		require.NoError(t, r.Lick.Check())
		require.NotEmpty(t, Write(r.Lick))
	})
}

// Lines labelled with the numbers of their strings: the numbers are not frets, and lines that begin
// with the sixth are turned over.
func TestNumberedStrings(t *testing.T) {
	places := func(r *reading.Lick) string {
		all := []string{}
		for _, e := range r.Lick.Phrase.Events {
			all = append(all, fmt.Sprintf("%d:%d", e.Place.String, e.Place.Fret))
		}
		return strings.Join(all, " ")
	}
	for _, sign := range []string{"|", " ", "", " |", ":"} {
		rising := read(t, "1"+sign+"---3-----", "2"+sign+"-----5---", "3"+sign+"---------", "4"+sign+"---------", "5"+sign+"---------", "6"+sign+"-------7-")
		assert.Equal(t, "1:3 2:5 6:7", places(rising), sign)
		assert.NotContains(t, said(rising), "turned over")
	}
	falling := read(t, "6|---3-----", "5|-----5---", "4|---------", "3|---------", "2|---------", "1|-------7-")
	assert.Equal(t, "6:3 5:5 1:7", places(falling))
	assert.Contains(t, said(falling), "line 1: the lines are numbered from the lowest string; they were turned over")
	plain := read(t, "-5-8-----", "-----5-8-", "---------", "---------", "---------", "---------")
	assert.Equal(t, "1:5 1:8 2:5 2:8", places(plain))
	frets := read(t, "1--3-----", "1----5---", "---------", "---------", "---------", "---------")
	assert.Equal(t, "1:1 2:1 1:3 2:5", places(frets), "frets in the first column")
}
