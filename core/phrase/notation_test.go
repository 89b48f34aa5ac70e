package phrase_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/phrase"
	"undaris/core/phrase/phrasetest"
)

func notated(p phrase.Phrase) string {
	bars := []string{}
	for _, bar := range p.Notate() {
		voices := []string{}
		for _, voice := range bar.Voices {
			signs := []string{}
			for _, w := range voice {
				sign := w.Kind + strings.Repeat(".", w.Dots)
				if w.Tuplet > 0 {
					sign += fmt.Sprint("/", w.Tuplet)
				}
				if len(w.Events) == 0 {
					sign = "r" + sign
				}
				if len(w.Graces) > 0 {
					sign = "g" + sign
				}
				if w.Tied {
					sign += "~"
				}
				signs = append(signs, sign)
			}
			voices = append(voices, strings.Join(signs, " "))
		}
		bars = append(bars, strings.Join(voices, " + "))
	}
	return strings.Join(bars, " | ")
}

func TestNotation(t *testing.T) {
	assert.Equal(t, "eighth eighth rhalf.", notated(phrasetest.FourFour(phrasetest.At(0, 3, 8), phrasetest.At(1, 3, 10))))
	late := phrasetest.At(1, 3, 8, phrasetest.Lasting(480))
	assert.Equal(t, "reighth eighth~ eighth reighth rhalf", notated(phrasetest.FourFour(late)), "off the beat it is cut at the next one")
	triplets := phrasetest.FourFour(phrasetest.At(0, 3, 8, phrasetest.Lasting(160)), phrasetest.At(0, 3, 10, phrasetest.Lasting(160)), phrasetest.At(0, 3, 8, phrasetest.Lasting(160)))
	triplets.Events[1].Tick, triplets.Events[2].Tick = 160, 320
	assert.Equal(t, "eighth/3 eighth/3 eighth/3 rhalf.", notated(triplets))
	fives := phrasetest.FourFour()
	for n := range 4 {
		one := phrasetest.At(0, 3, 8, phrasetest.Lasting(96*(1+n/3)))
		one.Tick = 96 * n
		fives.Events = append(fives.Events, one)
	}
	assert.Equal(t, "16th/5 16th/5 16th/5 eighth/5 rhalf.", notated(fives), "five in the time of four")
	over := phrasetest.FourFour(phrasetest.At(7, 3, 8, phrasetest.Lasting(480)))
	assert.Equal(t, "rhalf. reighth eighth~ | eighth reighth rhalf.", notated(over), "over the bar line it is tied")
	pickup := phrasetest.FourFour(phrasetest.At(-1, 3, 8), phrasetest.At(0, 3, 10))
	assert.Equal(t, "rhalf. reighth eighth | eighth reighth rhalf.", notated(pickup))
	both := phrasetest.FourFour(phrasetest.At(0, 2, 8, phrasetest.Lasting(480)), phrasetest.At(0, 3, 8), phrasetest.At(1, 3, 9))
	assert.Equal(t, "quarter rhalf. + eighth eighth rhalf.", notated(both), "what is held under others has a voice of its own")
	grace := phrasetest.FourFour(phrasetest.At(0, 3, 8, phrasetest.Lasting(420)), phrasetest.At(0, 2, 7, phrasetest.Lasting(60)), phrasetest.At(2, 2, 8))
	grace.Events[1].Tick, grace.Events[1].Grace = 420, true
	require.NoError(t, grace.Check(phrasetest.Guitar))
	assert.Equal(t, "quarter geighth reighth rhalf", notated(grace))
	odd := phrasetest.FourFour(phrasetest.At(0, 3, 8, phrasetest.Lasting(7)))
	assert.Equal(t, " r", notated(odd), "no sign is so short: its length alone says it")
}

// Whatever is played, every bar's voices fill it, and every note sounds as long as its
// signs say, what grace notes stole added.
func TestNotationFillsItsBars(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := phrasetest.DrawnOverSeventh(t)
		for n := range p.Events {
			p.Events[n].Tick = 80 * n * rapid.IntRange(1, 4).Draw(t, "step")
		}
		p.Events, _ = phrase.WithoutOverlaps(sortedByTick(p.Events), nil)
		heard := map[int]int{}
		for _, bar := range p.Notate() {
			for _, voice := range bar.Voices {
				now := bar.Tick
				for _, w := range voice {
					assert.Equal(t, now, w.Tick)
					now += w.Ticks
					for _, n := range w.Events {
						heard[n] += w.Ticks
					}
				}
				assert.Equal(t, bar.Tick+p.Meter.BarTicks(), now, "the voice fills its bar")
			}
		}
		for n, e := range p.Events {
			assert.Equal(t, e.Ticks, heard[n])
		}
	})
}

func sortedByTick(events []phrase.Event) []phrase.Event {
	for n := range events {
		for m := n; m > 0 && events[m].Tick < events[m-1].Tick; m-- {
			events[m], events[m-1] = events[m-1], events[m]
		}
	}
	return events
}
