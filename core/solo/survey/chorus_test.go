package survey_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/solotest"
	"undaris/core/solo/survey"
)

// note is one of a chorus by hand: its beat in the chorus counted from 1, its length in beats.
func note(beat, length float64, str, fret int, with ...func(*phrase.Event)) phrase.Event {
	e := phrase.Event{Tick: int((beat - 1) * 480), Ticks: int(length * 480), Fingered: neck.Fingered{Place: neck.Place{String: str, Fret: fret}}}
	for _, change := range with {
		change(&e)
	}
	return e
}

// A quick change in C (C7 F7 C7 C7 F7 F7 C7 C7 G7 F7 C7 G7), twelve bars, with little in it.
func byHand() survey.Chorus {
	bent := func(e *phrase.Event) { e.Bend, e.Vibrato = 4, true }
	released := func(e *phrase.Event) { e.Bend, e.Release = 4, true }
	curled := func(e *phrase.Event) { e.Bend = 1 }
	request := solotest.BluesInC()
	return survey.Chorus{Chart: request.Chart, Instrument: request.Instrument, Events: []phrase.Event{
		note(2, 0.5, 3, 9),            // E over C7, an eighth after nothing
		note(2.5, 0.5, 2, 8),          // G
		note(4.5, 1.5, 2, 10),         // A, pushed over bar 2: early on the 3 of F7
		note(9, 2, 3, 10),             // F on beat 1 of bar 3: missed, no tone of C7
		note(17.5, 0.5, 3, 8, curled), // Eb, the b7 of F7, an eighth late
		note(18, 0.5, 3, 8),
		note(25, 1, 3, 10, released),             // G bent from F over C7: on, the 5
		note(25, 1, 1, 8),                        // with C above it
		note(41, 2, 2, 13, bent),                 // D bent from C over C7 of bar 11, the highest note
		note(45, 0.5, 1, 7), note(45.5, 1, 1, 7), // B on V, struck again
	}}
}

func TestWhatIsMeasured(t *testing.T) {
	c := byHand()
	starts := []string{}
	for _, tick := range c.PhraseStarts() {
		starts = append(starts, c.PlaceInBar(tick))
	}
	assert.Equal(t, []string{"2", "4&", "1", "1&", "1", "1", "1"}, starts)
	timings, degrees := []string{}, []int{}
	for _, l := range c.Landings() {
		timings, degrees = append(timings, l.Timing), append(degrees, l.Degree)
	}
	assert.Equal(t, []string{survey.Early, survey.Missed, survey.Late, survey.OnTime, survey.Silent, survey.Silent, survey.Missed, survey.OnTime, survey.Late}, timings, "the change back to the top last")
	assert.Equal(t, []int{3, 0, 7, 5, 0, 0, 0, 3, 3}, degrees)
	assert.Equal(t, []survey.Bend{{Kind: "curled b3", Beats: 0.5}, {Kind: "4 to 5, released", Beats: 1}, {Kind: "R to 2", Beats: 2}}, c.Bends())
	assert.Equal(t, survey.Climax{Times: 1, Long: true, Touched: true, At: 40.0 / 48}, c.Climax())
	assert.Equal(t, 1, c.DoubleStops())
	assert.Equal(t, 2, c.Repeats(), "Eb and B")
	assert.Equal(t, 2, c.OffBeatTies(), "the push, and the last note")
	assert.Equal(t, 3, c.LongNotes())
	assert.InDelta(t, 1-10.0/48, c.Silence(), 0.01)
	assert.InDelta(t, 11.0/12, c.NotesPerBar(), 1e-9)
	assert.Zero(t, c.HoldsAlike(), "nothing is held in an even bar")
	played, of := c.GuideTones()
	assert.Equal(t, []int{4, 9}, []int{played, of}, "E, A, Eb and B")
	assert.Len(t, c.Bars(), 12)
	assert.Equal(t, "480:3:9 720:2:8 1680:2:10 ", c.Bars()[0])
	assert.Equal(t, "480 720 1680 ", c.BarRhythms()[0])
	assert.Equal(t, []string{"480 720", "720", "0", "240 480", "0 0", "0", "0 240"}, c.BeatPairs())
}

// What many choruses have in common is the sum of what each has.
func TestASummary(t *testing.T) {
	s := survey.NewSummary()
	s.Add(byHand(), survey.Asked{NotesPerBar: 0.9, Silence: 0.8})
	rows := map[string]float64{}
	for _, r := range s.Rows() {
		rows[r.Name] = r.Value
	}
	assert.InDelta(t, 100*4.0/7, rows["phrases that begin on beat 1"], 0.01)
	assert.InDelta(t, 60, rows["landings on the 3"], 0.01)
	assert.Equal(t, 100.0, rows["choruses with 3 to 6 bends of two kinds"])
	assert.Equal(t, 100.0, rows["choruses of the density asked for"])
	assert.Equal(t, 100.0, rows["choruses whose climax is long, touched, once, in the last third"])
	v := survey.NewVariety()
	v.Add(byHand())
	v.Add(byHand())
	assert.Equal(t, 100.0, v.Rows()[2].Value, "two that are alike share their bars")
}
