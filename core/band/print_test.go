package band

import (
	"flag"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

var update = flag.Bool("update", false, "write the printed choruses anew")

// printed is a performance as a drummer, a bass player and a pianist would read it: bar by
// bar, without what the hands add to it.
func printed(c chart.Chart, o Order) string {
	out := &strings.Builder{}
	if o.Style.Name == "" {
		o.Style = StyleFor(c)
	}
	s := o.layOut()
	names := map[pitch.MIDI]string{
		kick: "kick", stick: "stick", snare: "snare", floorTom: "low tom", midTom: "mid tom", highTom: "high tom",
		closedHat: "hat", pedalHat: "hat foot", openHat: "open hat", crash: "crash", ride: "ride",
	}
	tones := []bassTone{}
	for n, b := range s.bars {
		tones = append(tones, s.bassOf(n, b)...)
	}
	pitches := chooseOctaves(tones)
	comped := s.comping()
	for n, b := range s.bars {
		symbols := []string{}
		for _, sp := range b.spans {
			symbol := sp.chord.Symbol()
			if sp.silent {
				symbol = "N.C."
			}
			symbols = append(symbols, symbol)
		}
		fmt.Fprintf(out, "bar %d of chorus %d: %s\n", b.inChorus+1, b.chorus+1, strings.Join(symbols, " "))
		groove := s.grooveOf(b, s.random(b, forDrums))
		fillFrom, fill := b.meter.Beats(), groove
		if b.fill && !b.stop && !b.last {
			beats := 0
			fill, beats = s.fillOf(b)
			fillFrom -= beats
		}
		hits := s.drumHits(b, groove, fill, fillFrom)
		if s.crashes(n) {
			hits = append(hits, drumHit{crash, 0, 104})
		}
		for _, sound := range []pitch.MIDI{crash, ride, openHat, closedHat, pedalHat, highTom, midTom, snare, stick, floorTom, kick} {
			row := []rune(strings.Repeat(strings.Repeat(".", twelfths)+" ", b.meter.Beats()))
			found := false
			for _, hit := range hits {
				if hit.sound == sound {
					found = true
					row[hit.at+hit.at/twelfths] = map[int]rune{104: 'X', 82: 'x', 38: 'g'}[hit.loudness]
				}
			}
			if found {
				fmt.Fprintf(out, "  %-9s %s\n", names[sound], string(row))
			}
		}
		line := []string{}
		for k, tone := range tones {
			if tone.bar == n {
				at := float64(tone.tick-b.tick)/float64(b.meter.BeatTicks()) + 1
				name := pitchName(pitches[k].begin)
				if pitches[k].end != pitches[k].begin {
					name += "/" + pitchName(pitches[k].end)
				}
				line = append(line, fmt.Sprintf("%s@%.3g", name, at))
			}
		}
		fmt.Fprintf(out, "  bass      %s\n", strings.Join(line, " "))
		strikes, at := []string{}, -1
		for _, note := range comped {
			if note.Tick < b.tick-40 || note.Tick >= b.tick+b.meter.BarTicks()-40 {
				continue
			}
			if note.Tick != at {
				at = note.Tick
				strikes = append(strikes, fmt.Sprintf("%.3g:", float64(at-b.tick)/float64(b.meter.BeatTicks())+1))
			}
			strikes[len(strikes)-1] += pitchName(note.Pitch)
		}
		fmt.Fprintf(out, "  chords    %s\n", strings.Join(strikes, " "))
	}
	return out.String()
}

// pitchName names a pitch with its octave.
func pitchName(p pitch.MIDI) string {
	return fmt.Sprintf("%s%d", []string{"C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"}[p.Class()], int(p)/12-1)
}

// Two choruses of every style stand in testdata, to be read.
func TestPrintedChoruses(t *testing.T) {
	out := &strings.Builder{}
	for _, style := range Styles {
		feel, scheme, mode := chart.Straight, 0, harmony.DominantMode
		switch style.Name {
		case Shuffle, Swing:
			feel = chart.Shuffle
		case SlowBlues:
			feel = chart.Slow128
		case MinorBallad:
			scheme, mode = 2, harmony.MinorMode
		}
		key, err := harmony.ParseKey("C", mode)
		require.NoError(t, err)
		c := chart.Chart{Title: "A test", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Straight, Swing: 2}
		c.Bars = chart.Schemes[scheme].Bars(key.Tonic, c.Meter)
		c, err = c.WithFeel(feel)
		require.NoError(t, err)
		fmt.Fprintf(out, "%s, %s\n\n%s\n", strings.ToUpper(style.Name), c.SchemeOf(), printed(c, Order{Chart: c, Instrument: neck.Standard(), Style: style, Bars: 24, Chorus: 1, Seed: 1}))
	}
	const file = "testdata/choruses.txt"
	if *update {
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile(file, []byte(out.String()), 0o644))
	}
	kept, err := os.ReadFile(file)
	require.NoError(t, err)
	assert.Equal(t, string(kept), out.String(), "the band plays otherwise: read it with go test ./core/band -run TestPrintedChoruses -update")
}
