package solo

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// orderFor is an order with default settings over a scheme.
func orderFor(t testing.TB, scheme, tonic, form string, seed uint64) ChorusOrder {
	t.Helper()
	s, err := chart.FindScheme(scheme)
	require.NoError(t, err)
	key, err := harmony.ParseKey(tonic, s.In)
	require.NoError(t, err)
	c := chart.Chart{Title: scheme, Key: key, Meter: chart.FourFour, Tempo: 112, Feel: chart.Shuffle, Swing: 2, Bars: s.Bars(key.Tonic, chart.FourFour)}
	i := neck.Standard()
	p, err := neck.FindPosition(i, key.Tonic.Class(), form)
	require.NoError(t, err)
	eighths, err := c.Meter.Subdivision("")
	require.NoError(t, err)
	return ChorusOrder{Chart: c, Instrument: i, Position: p, SpanMM: neck.ComfortableSpanMM, School: change.ThirdsFirst,
		Subdivision: eighths, Density: DefaultDensity, Blend: []float64{DefaultBlend}, Form: AAB, Space: DefaultSpace, Seed: seed}
}

// tabOf writes a line as tab, a column for each third of a half beat.
func tabOf(p phrase.Phrase, o ChorusOrder) string {
	b := strings.Builder{}
	grid := o.Chart.Meter.BeatTicks() / 4
	bar := o.Chart.Meter.BarTicks()
	for from := -bar; from < o.Chart.Ticks(); from += 4 * bar {
		if from == -bar {
			from = 0
		}
		fmt.Fprintf(&b, "bar %d\n", from/bar+1)
		for s := 1; s <= 6; s++ {
			for at := from - 2*o.Chart.Meter.BeatTicks(); at < from+4*bar; at += grid {
				if (at-from)%bar == 0 {
					b.WriteString("|")
				}
				cell := "--"
				for _, e := range p.Events {
					if e.String == s && e.Tick >= at && e.Tick < at+grid {
						mark := ""
						switch {
						case e.HammerOn:
							mark = "h"
						case e.PullOff:
							mark = "p"
						case e.SlideFrom > 0:
							mark = "/"
						case e.Bend > 1:
							mark = "b"
						case e.Vibrato:
							mark = "~"
						}
						cell = fmt.Sprintf("%s%d", mark, e.Fret)
						if len(cell) < 2 {
							cell += "-"
						}
					}
				}
				b.WriteString(cell)
			}
			b.WriteString("\n")
		}
	}
	return b.String()
}

func TestZZLook(t *testing.T) {
	if os.Getenv("TAB") == "" {
		t.Skip()
	}
	o := orderFor(t, os.Getenv("TAB"), "C", "E", 41)
	planned, err := o.Plan()
	require.NoError(t, err)
	for _, p := range planned.Best {
		t.Logf("faults %.1f strong %d/%d rests %d/%d space %.2f passing %d notes %d mm %.0f", p.Faults, p.Verdict.Strong.Good, p.Verdict.Strong.Of, p.Verdict.Rests.Good, p.Verdict.Rests.Of, p.Verdict.Shape.Space, len(p.Verdict.Passing), len(p.Line.Events), p.Verdict.Shape.WidestMM)
		for _, d := range p.Dropped {
			t.Logf("  %d %s", d.From/1920+1, d.Sentence)
		}
		for _, f := range p.Lively {
			t.Logf("  %v %s: %s", f.Good, f.Name, f.Sentence)
		}
		t.Log("\n" + tabOf(p.Line, o))
		for _, b := range p.Blocks {
			t.Logf("%6d %5d %s %s %d", b.Start, b.Ticks, b.Kind, b.Name, len(b.Notes))
		}
		if os.Getenv("ALL") == "" {
			break
		}
	}
}

func BenchmarkPlan12(b *testing.B) {
	o := orderFor(b, "quick change", "C", "E", 1)
	b.ReportAllocs()
	for b.Loop() {
		_, err := o.Plan()
		require.NoError(b, err)
	}
}
