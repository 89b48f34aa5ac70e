package exercise

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

// bluesInC is a setting over bars in C, at the E form (frets 7 to 10).
func bluesInC(t testing.TB, bars ...string) Setting {
	t.Helper()
	return settingOver(t, phrasetest.Song(t, "C", harmony.DominantMode, bars...), "E")
}

func settingOver(t testing.TB, c chart.Chart, position string) Setting {
	t.Helper()
	i := neck.Standard()
	p, err := neck.FindPosition(i, c.Key.Tonic.Class(), position)
	require.NoError(t, err)
	return Setting{Tune: c, Instrument: i, Position: p, SpanMM: neck.ComfortableSpanMM}
}

// tabOf writes an exercise as string:fret with its degree over the chord, bars apart by |.
func tabOf(w Written, s Setting) string {
	text := strings.Builder{}
	bar, tick := 0, -1
	labels := w.Phrase.Labels(s.Instrument, w.Chart.Key)
	for n, e := range w.Phrase.Events {
		for at := e.Tick / w.Chart.Meter.BarTicks(); bar < at; bar++ {
			text.WriteString(" |")
		}
		between := " "
		if e.Tick == tick {
			between = "+"
		}
		tick = e.Tick
		fmt.Fprintf(&text, "%s%s%d:%d %s", between, slurOf(e), e.String, e.Fret, labels[n].Degree)
	}
	return strings.TrimSpace(text.String())
}

func slurOf(e phrase.Event) string {
	switch {
	case e.HammerOn:
		return "h"
	case e.PullOff:
		return "p"
	case e.SlideFrom > 0:
		return "/"
	}
	return ""
}
