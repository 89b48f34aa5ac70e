package planner_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/phrase"
	"undaris/core/solo/solotest"
)

// The two notes of a double stop lie on two strings, a third or a sixth apart, and no finger is in
// two places at once.
func TestDoubleStopsLieUnderTheHand(t *testing.T) {
	found := 0
	for _, form := range []string{"E", "A", "C"} {
		for seed := range uint64(25) {
			o := solotest.Request(t, "quick change", "A", form, seed)
			events := solotest.Planned(t, o).Best[0].Line.Events
			for n := 1; n < len(events); n++ {
				if events[n].Tick != events[n-1].Tick {
					continue
				}
				found++
				a, b := events[n-1], events[n]
				assert.Contains(t, []int{3, 4, 8, 9}, apart(int(a.Sounding(o.Instrument)), int(b.Sounding(o.Instrument))))
				assert.True(t, a.String != b.String && (a.Finger != b.Finger || a.Fret == b.Fret), "%s seed %d: fingers %d and %d on frets %d and %d", form, seed, a.Finger, b.Finger, a.Fret, b.Fret)
				assert.False(t, crossed(a, b), "%s seed %d: fingers %d and %d on frets %d and %d", form, seed, a.Finger, b.Finger, a.Fret, b.Fret)
			}
		}
	}
	assert.Positive(t, found)
}

func apart(a, b int) int { return max(a-b, b-a) }

// crossed says whether a lower finger stands above a higher one.
func crossed(a, b phrase.Event) bool {
	return a.Fret < b.Fret && a.Finger > b.Finger || a.Fret > b.Fret && a.Finger < b.Finger
}
