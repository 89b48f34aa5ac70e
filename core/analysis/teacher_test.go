package analysis

import (
	"bufio"
	"fmt"
	"os"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
	"undaris/core/pitch"
)

// judgedChorus is a chorus of testdata/choruses.txt: what a teacher would say first of it.
type judgedChorus struct {
	name, chords, line, first, because string
}

func judgedChoruses(t *testing.T) []judgedChorus {
	t.Helper()
	file, err := os.Open("testdata/choruses.txt")
	require.NoError(t, err)
	defer file.Close()
	all := []judgedChorus{}
	for lines := bufio.NewScanner(file); lines.Scan(); {
		field, value, found := strings.Cut(lines.Text(), ": ")
		if !found || strings.HasPrefix(field, "#") {
			continue
		}
		if field == "name" {
			all = append(all, judgedChorus{name: value})
			continue
		}
		c := &all[len(all)-1]
		*map[string]*string{"chords": &c.chords, "line": &c.line, "first": &c.first, "because": &c.because}[field] = value
	}
	return all
}

// chart is the chorus's chart, in C.
func (c judgedChorus) chart(t *testing.T) chart.Chart {
	t.Helper()
	bars := strings.Split(c.chords, " | ")
	whole := chart.Chart{Title: c.name, Key: phrasetest.KeyOfC(t), Meter: chart.FourFour, Tempo: 100, Feel: chart.Shuffle, Swing: 2}
	for _, symbol := range bars {
		whole.Bars = append(whole.Bars, chart.Bar{Spans: []chart.Span{{Chord: phrasetest.ChordOf(t, symbol), Beats: 4}}})
	}
	return whole
}

// phrase reads the notes, placed from the seventh to the eleventh fret.
func (c judgedChorus) phrase(t *testing.T, over chart.Chart) phrase.Phrase {
	t.Helper()
	p := phrase.Phrase{Meter: over.Meter}
	for bar, notes := range strings.Split(c.line, " | ") {
		for _, written := range strings.Fields(notes) {
			part := strings.Split(written, ":")
			require.Len(t, part, 3, "%s: %s", c.name, written)
			length := strings.TrimRight(part[2], "bhc/HP~r")
			marks := strings.TrimPrefix(part[2], length)
			e := phrase.Event{Tick: bar*1920 + ticksOf(t, part[0]) - 480, Ticks: ticksOf(t, length)}
			sounding := midiOf(t, part[1])
			for _, mark := range marks {
				switch mark {
				case 'b':
					e.Bend = 4
				case 'h':
					e.Bend = 2
				case 'c':
					e.Bend = 1
				case 'H':
					e.HammerOn = true
				case 'P':
					e.PullOff = true
				case '~':
					e.Vibrato = true
				case 'r':
					e.Release = true
				}
			}
			e.Place = placed(t, sounding-pitch.MIDI(e.Bend/2))
			if strings.Contains(marks, "/") {
				e.SlideFrom = e.Fret - 1
			}
			p.Events = append(p.Events, e)
		}
		p.Chords = append(p.Chords, phrase.PhraseChord{Tick: bar * 1920, Chord: over.Bars[bar].Spans[0].Chord})
	}
	return p
}

func ticksOf(t *testing.T, beats string) int {
	t.Helper()
	number, err := strconv.ParseFloat(beats, 64)
	require.NoError(t, err)
	return int(number*12+0.5) * 40
}

func midiOf(t *testing.T, name string) pitch.MIDI {
	t.Helper()
	note, err := pitch.ParseNote(name[:len(name)-1])
	require.NoError(t, err)
	return pitch.MIDI(int(note.Class()) + 12*(int(name[len(name)-1]-'0')+1))
}

func placed(t *testing.T, p pitch.MIDI) neck.Place {
	t.Helper()
	for s, open := range phrasetest.Guitar.Open {
		if fret := int(p - open); fret >= 7 && fret <= 11 {
			return neck.Place{String: s + 1, Fret: fret}
		}
	}
	for s, open := range phrasetest.Guitar.Open {
		if fret := int(p - open); fret >= 5 && fret <= 13 {
			return neck.Place{String: s + 1, Fret: fret}
		}
	}
	require.Fail(t, "there is no place", "%d", p)
	return neck.Place{}
}

// What is put first agrees with what a teacher would say in at least 36 of 40 choruses.
func TestFirstFindingsAgreeWithATeacher(t *testing.T) {
	agree, choruses := 0, judgedChoruses(t)
	require.Len(t, choruses, 40)
	for _, c := range choruses {
		over := c.chart(t)
		r := ReviewLine(phrasetest.Guitar, c.phrase(t, over), over)
		first := "none"
		if len(r.First) > 0 {
			first = r.First[0].Name
		}
		if first == c.first {
			agree++
			continue
		}
		said := []string{}
		for _, f := range r.First {
			said = append(said, fmt.Sprintf("%s (%s)", f.Name, f.Text))
		}
		t.Logf("%q: a teacher says %s, since %s; here it is %s", c.name, c.first, c.because, strings.Join(said, "; "))
	}
	assert.GreaterOrEqual(t, agree, 36)
	t.Logf("%d of %d agree", agree, len(choruses))
}
