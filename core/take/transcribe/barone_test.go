package transcribe_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/listen"
	"undaris/core/take/transcribe"
)

// lineOver is a line of eighths over a chart from a tick on that mostly takes chord tones, as long as drawn.
func lineOver(chance *rand.Rand, c chart.Chart, start, perTick float64) []listen.Note {
	line, spans := c.Timeline(), c.ChordSpans()
	notes := []listen.Note{}
	for tick := 240 * chance.IntN(4); tick < line.Ticks(); tick += 240 {
		if chance.IntN(5) == 0 {
			continue
		}
		span := 0
		for n := range spans {
			if spans[n].Tick <= tick {
				span = n
			}
		}
		tones := spans[span].Chord.Tones()
		class := int(tones[chance.IntN(len(tones))].Note.Class())
		if chance.IntN(7) == 0 {
			class++
		}
		late := 0.012 * chance.NormFloat64()
		notes = append(notes, listen.Note{Onset: start + float64(line.Swung(tick))*perTick + late, Length: 0.2, Pitch: float64(60 + class%12), Confidence: 1})
	}
	return notes
}

// Wherever a chorus begins in the sound, bar 1 is found, most often: lines without accents, with rests anywhere and one
// note in seven outside, may fit elsewhere by chance. Where it says that it is sure it is right.
func TestBarOneIsFound(t *testing.T) {
	tried, found, sure, wrongThoughSure := 0, 0, 0, 0
	key, _ := harmony.ReadKey("C dominant")
	for n := range 200 {
		chance := rand.New(rand.NewPCG(uint64(n), 3))
		bars := chart.Schemes[chance.IntN(3)].Bars(key.Tonic, chart.FourFour)
		c := chart.Chart{Title: "t", Key: key, Meter: chart.FourFour, Tempo: 70 + chance.IntN(100), Feel: []chart.Feel{chart.Shuffle, chart.Straight}[n%2], Swing: 2, Bars: bars}
		start, perTick := 0.2+9*chance.Float64(), 60/float64(c.Tempo*480)
		got, ok := transcribe.FindBarOne(lineOver(chance, c, start, perTick), c, perTick)
		right := ok && math.Abs(got.Start-start) < 0.015
		tried++
		if right {
			found++
		}
		if got.Sure {
			sure++
			if !right {
				wrongThoughSure++
			}
		}
	}
	t.Logf("%d tried, %d found, %d sure, %d wrong though sure", tried, found, sure, wrongThoughSure)
	assert.GreaterOrEqual(t, float64(found)/float64(tried), 0.85)
	assert.GreaterOrEqual(t, float64(sure)/float64(tried), 0.25)
	assert.LessOrEqual(t, wrongThoughSure, 2)
}

func TestBarOneOfTooLittle(t *testing.T) {
	key, _ := harmony.ReadKey("C dominant")
	c := chart.Chart{Title: "t", Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Straight, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, chart.FourFour)}
	_, ok := transcribe.FindBarOne([]listen.Note{{Onset: 1, Length: 1, Pitch: 60, Confidence: 1}}, c, 0.001)
	assert.False(t, ok)
}
