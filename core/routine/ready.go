package routine

import (
	"fmt"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/pitch"
)

// The routines that are there for every tune. Their lengths and steps are our choice: what
// a player would set first, to be changed.
const (
	fasterBy     = 4
	fasterFrom   = 70 // percent of the tune's tempo
	vampRounds   = 8
	tradeFours   = 4
	ladderMinute = 1
)

// Ready are the ready-made routines for a tune, in the order they are offered.
func Ready(c chart.Chart) []Routine {
	return []Routine{withTheBand(), faster(c), allKeys(), dropTheBand(), oneChord(c), trade(c), eachTone(), timeItYourself(), ladder()}
}

func withTheBand() Routine {
	return Routine{Name: "with the band", Segments: []Segment{{Name: "with the band"}}}
}

func faster(c chart.Chart) Routine {
	from := max(c.Tempo*fasterFrom/100, chart.MinTempo)
	goal := min(c.Tempo+8, chart.MaxTempo)
	return Routine{Name: "faster", Segments: []Segment{
		{Name: "faster", Choruses: 2, Tempo: from, End: End{TempoBy: fasterBy, TempoTo: max(goal, from+1), Wait: true}},
		{Name: "and down again", Choruses: 1, End: End{TempoBy: -fasterBy, TempoTo: from}},
	}}
}

func allKeys() Routine {
	return Routine{Name: "all keys", Segments: []Segment{{Name: "through all keys", Choruses: 2, End: End{KeyBy: Fourths, Again: 11}}}}
}

func dropTheBand() Routine {
	return Routine{Name: "drop the band", Segments: []Segment{
		{Name: "with the band", Choruses: 2},
		{Name: "chords drop", Choruses: 1, Silent: []band.Part{band.Chords}, View: Names},
		{Name: "click only", Choruses: 1, Silent: []band.Part{band.Drums, band.Bass, band.Chords}, View: Names},
		{Name: "silence", Choruses: 1, Silent: []band.Part{band.Drums, band.Bass, band.Chords, band.Click}, View: FormOnly},
		{Name: "and back", Choruses: 1},
	}}
}

func oneChord(c chart.Chart) Routine {
	r := Routine{Name: "one chord"}
	for n, chord := range c.Chords() {
		if n == MaxSegments/3 {
			break
		}
		name := pitch.Signed(chord.Symbol())
		r.Segments = append(r.Segments,
			Segment{Name: name + ", its tones", Chord: n + 1, Bars: vampRounds, View: Tones},
			Segment{Name: name + ", its scale", Chord: n + 1, Bars: vampRounds, View: Scale},
			Segment{Name: name + ", all of it", Chord: n + 1, Bars: vampRounds, View: AllNotes, End: End{Wait: true}},
		)
	}
	return r
}

func trade(c chart.Chart) Routine {
	bars := min(tradeFours, c.Timeline().Bars())
	return Routine{Name: "trade fours", Segments: []Segment{{Name: fmt.Sprintf("%d bars each", bars), Choruses: 4, TradeBars: bars, Licks: true}}}
}

func eachTone() Routine {
	r := Routine{Name: "each tone in turn"}
	for _, aim := range []struct {
		degree int
		name   string
	}{{1, "to the root"}, {3, "to the 3"}, {5, "to the 5"}, {7, "to the 7"}} {
		r.Segments = append(r.Segments, Segment{Name: aim.name, Choruses: 2, Aim: aim.degree, View: LandingOnly})
	}
	return r
}

// bandRests are the parts that rest while the player keeps the time.
var bandRests = []band.Part{band.Drums, band.Bass, band.Chords}

func timeItYourself() Routine {
	return Routine{Name: "time it yourself", Segments: []Segment{
		{Name: "click on 2 and 4", Choruses: 1, Silent: bandRests, Click: band.ClickPattern{On: band.OnTwoAndFour}},
		{Name: "click on 1", Choruses: 1, Silent: bandRests, Click: band.ClickPattern{On: band.OnOne}},
		{Name: "every second bar", Choruses: 1, Silent: bandRests, Click: band.ClickPattern{On: band.EverySecondBar}},
		{Name: "gaps that grow", Choruses: 2, Silent: bandRests, Click: band.ClickPattern{Heard: 2, Gap: 1, Growing: true}},
	}}
}

// ladder steps through the subdivisions at tempos that keep the hand busy but not faster:
// each is about as many notes a second as the one before.
func ladder() Routine {
	r := Routine{Name: "ladder of subdivisions"}
	for _, step := range []struct {
		name           string
		tempo, perBeat int
	}{
		{"quarters", 132, 1}, {"eighths", 120, 2}, {"triplets", 108, 3}, {"sixteenths", 100, 4}, {"quintuplets", 80, 5}, {"sextuplets", 72, 6},
	} {
		r.Segments = append(r.Segments, Segment{
			Name: fmt.Sprintf("%s at %d", step.name, step.tempo), Minutes: ladderMinute, Tempo: step.tempo, Silent: bandRests,
			Click: band.ClickPattern{PerBeat: step.perBeat},
		})
	}
	return r
}
