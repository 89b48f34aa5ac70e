package demo

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/analysis"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/format/document"
	"undaris/format/lickfile"
	"undaris/format/reading"
)

// analysed is what is said of a lick over its own chords: each note's place, degree and
// class, then the figures of its verdict.
func analysed(l lick.Lick) (notes, figures string) {
	c, _ := l.ToChart(100, "straight", 2)
	signs := map[harmony.Class]string{harmony.Colour: "+", harmony.Blue: "~", harmony.Suspension: "?", harmony.Outside: "!"}
	all := []string{}
	for n, label := range l.Phrase.Labels(l.WrittenFor(), c.Key) {
		e := l.Phrase.Events[n]
		all = append(all, fmt.Sprintf("%d:%d=%s%s", e.String, e.Fret, label.Degree, signs[label.Class]))
	}
	v := analysis.Judge(l.Phrase, l.WrittenFor(), c.Key, 100)
	figures = fmt.Sprintf("strong %d/%d, rests %d/%d, passing %d, %s", v.Strong.Good, v.Strong.Of, v.Rests.Good, v.Rests.Of, len(v.Passing), v.Shape.Ends)
	for _, landfall := range v.Landings {
		figures += fmt.Sprintf(", %s %s", landfall.Timing, landfall.Degree)
	}
	return strings.Join(all, " "), figures
}

func TestOurLicksAnalysed(t *testing.T) {
	by := map[string]lick.Lick{}
	for _, l := range licks(t) {
		by[l.Name] = l
	}
	for name, want := range map[string][2]string{
		"Ferry call":         {"3:8=b3~ 3:10=11? 2:8=5 2:11=b7 2:8=5 3:10=11? 3:8=b3~", "strong 1/2, rests 1/2, passing 2, question"},
		"Ballast":            {"3:8=b3~ 3:9=3 2:8=5 1:8=R 2:10=13+ 2:8=5 3:9=3", "strong 2/2, rests 2/2, passing 0, answer"},
		"Half step home":     {"2:8=5 3:9=3 3:10=11? 3:9=3 4:10=R 4:11=b9! 4:10=R", "strong 1/2, rests 1/1, passing 0, answer"},
		"Mooring post":       {"2:11=b7 1:8=R 2:10=13+ 1:8=R 2:9=b13! 1:8=R 2:8=5 1:7=3 2:6=b7", "strong 3/4, rests 3/3, passing 0, open, on 3"},
		"Slack line":         {"1:8=R 3:10=5 2:11=b7 2:8=5 3:10=5 3:8=b3~ 4:10=R", "strong 3/3, rests 3/3, passing 0, answer"},
		"Spring tide":        {"1:8=R 1:7=7! 1:6=b7 2:10=13+ 2:8=5 3:11=b5~ 3:10=11? 3:9=3 3:8=b7", "strong 3/3, rests 1/1, passing 0, open, on b7"},
		"Five to four":       {"2:8=R 3:10=b7 2:8=R 2:8=R 3:10=b7 3:8=b7 4:10=5 3:8=b7", "strong 1/1, rests 2/2, passing 0, open, on b7"},
		"Lee shore":          {"2:5=R 3:7=b7 3:4=5 4:6=3 3:4=5 3:7=b7 3:5=b3", "strong 2/2, rests 2/2, passing 0, answer, on b3"},
		"Undertow":           {"5:7=5 3:5=b3 4:5=b7 2:5=5 1:7=9+ 1:5=R 2:5=5", "strong 2/3, rests 2/2, passing 0, question"},
		"Three-note yard":    {"1:8=R 2:11=R 2:8=5 1:8=R 1:10=b7 1:8=5 2:8=9+ 1:8=5", "strong 2/3, rests 4/4, passing 0, question, on b7"},
		"Long swell":         {"1:11=b3~ 1:8=R 2:11=b7 1:8=R 2:11=b7 2:8=5 2:11=b7 2:8=5 3:10=11? 3:9=3", "strong 2/2, rests 1/1, passing 0, answer"},
		"Low tide":           {"1:8=R 2:11=b7 2:10=13+ 2:9=b13! 2:8=R 3:10=b7 4:9=3", "strong 2/2, rests 1/1, passing 0, answer, on R"},
		"Wet slate":          {"2:8=5 2:9=b13+ 2:8=5 3:10=11+ 3:8=b3 3:7=9+ 4:10=R 4:10=R", "strong 3/3, rests 2/2, passing 0, answer"},
		"Over the weir":      {"1:11=b3~ 1:8=R 2:11=b7 2:8=5 3:10=11? 2:8=5 2:9=b13! 2:10=3 1:8=5 2:10=3 3:10=R", "strong 4/4, rests 2/3, passing 0, answer, on 3"},
		"Gangplank":          {"2:8=R 3:10=b7 3:7=5 4:9=3 2:10=3 1:8=5 1:11=b7 1:8=5 2:10=3 3:8=b7 3:9=3 4:10=R", "strong 4/4, rests 4/4, passing 0, answer, on 3, on 3"},
		"Open shutters":      {"1:0=R 1:3=b3~ 1:0=R 2:3=b7 2:0=5 3:2=11? 3:0=b3~ 3:1=3 4:2=R", "strong 3/3, rests 1/1, passing 0, answer"},
		"Knock at the hatch": {"3:8=b3~ 3:10=11? 2:8=5 2:8=5", "strong 1/1, rests 1/1, passing 1, question"},
		"Voice from below":   {"2:11=b7 2:8=5 3:9=3 4:10=R", "strong 1/1, rests 1/1, passing 0, answer"},
	} {
		notes, figures := analysed(by[name])
		assert.Equal(t, want[0], notes, name)
		assert.Equal(t, want[1], figures, name)
	}
}

// A lick of the set is rested on well, lands where it says, and can be played: what is
// otherwise is meant so, and stands here with the reason.
func TestOurLicksAreSound(t *testing.T) {
	meant := map[string]string{
		"Ferry call":     "a call that is left on the b3",
		"Rope and cleat": "walked back down, and left on the 4 for an answer",
		"Lamp oil":       "left on the 4",
		"Tin gutter":     "left on the b3, as the call it answers is",
		"Over the weir":  "the 4 before the rest leads on into the next chord",
	}
	for _, l := range licks(t) {
		v := analysis.Judge(l.Phrase, l.WrittenFor(), l.Key(), 100)
		if _, ok := meant[l.Name]; !ok {
			assert.Equal(t, v.Rests.Of, v.Rests.Good, "%s rests on what it may rest on", l.Name)
		}
		for _, landfall := range v.Landings {
			assert.Equal(t, analysis.OnTime, landfall.Timing, l.Name)
			assert.Equal(t, harmony.ChordTone, landfall.Class, "%s lands on %s of %s", l.Name, landfall.Degree, landfall.Chord.Symbol())
		}
		if l.Name != "Pier lights" { // the hand moves along with its octaves
			assert.LessOrEqual(t, v.Shape.WidestMM, 100.0, "%s: no reach past a comfortable span", l.Name)
		}
		for n, e := range l.Phrase.Events {
			if e.Bend > 0 {
				assert.LessOrEqual(t, e.Bend, 4, "%s: note %d is bent a whole step at most", l.Name, n+1)
				assert.LessOrEqual(t, e.String, 3, "%s: note %d is bent on a plain string", l.Name, n+1)
			}
		}
		assert.NotEmpty(t, l.Tags, l.Name)
	}
}

// The set has what a player looks for first, and no two licks of it are one.
func TestTheStartingLibrary(t *testing.T) {
	all := licks(t)
	tags, seen := map[string]int{}, map[string]string{}
	for _, l := range all {
		for _, tag := range l.Tags {
			tags[tag]++
		}
		notes, _ := analysed(l)
		assert.Empty(t, seen[notes], l.Name)
		seen[notes] = l.Name
	}
	for _, tag := range []string{
		"minor box", "major box", "blended", "arpeggio", "approach", "9", "double stops", "sixths", "small box", "bends", "I-V", "iii-VI-ii-V",
		"slow blues", "pickup", "call", "answer", "12/8", "octaves", "open strings", "change", "minor",
	} {
		assert.Positive(t, tags[tag], tag)
	}
}

// Taken away and brought back, every lick is what it was in MusicXML and our own format,
// and has its places and times in tab.
func TestOurLicksLeaveAndComeBack(t *testing.T) {
	for _, l := range licks(t) {
		for _, f := range lickfile.Formats {
			terms := reading.Plain()
			low, _ := l.Phrase.Frets()
			terms.Window = terms.Instrument.WindowFrom(max(low, 0))
			r, as, err := lickfile.Read("", f.Write(l), terms)
			require.NoError(t, err, "%s as %s", l.Name, f.Name)
			assert.Equal(t, f.Name, as.Name)
			switch f.Name {
			case "musicxml", "json":
				assert.Equal(t, document.LickOf(l), document.LickOf(r.Lick), "%s as %s", l.Name, f.Name)
			case "midi":
				require.Len(t, r.Lick.Phrase.Events, len(l.Phrase.Events), l.Name)
			case "tab":
				require.Len(t, r.Lick.Phrase.Events, len(l.Phrase.Events), l.Name)
				for n, e := range r.Lick.Phrase.Events {
					assert.Equal(t, l.Phrase.Events[n].Tick, e.Tick, "%s, note %d", l.Name, n+1)
					if !e.Mute {
						assert.Equal(t, l.Phrase.Events[n].Place, e.Place, "%s, note %d", l.Name, n+1)
					}
				}
			}
		}
	}
}
