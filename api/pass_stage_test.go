package api

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
)

// said is what the stage says of what comes next: at which tick of the performance, which chord, into which bar, on what.
func said(p Pass) []string {
	all := []string{}
	for _, span := range p.Stage {
		next := "nothing follows"
		if n := span.Next; n != nil {
			next = fmt.Sprintf("%d %s bar %d", n.Tick, n.Chord, n.Bar)
			if n.Landing != nil {
				next += fmt.Sprintf(" on the %s of %s", n.Landing.Degree, n.Landing.Chord)
			}
		}
		all = append(all, fmt.Sprintf("%d %s: %s", span.Tick, span.Chord, next))
	}
	return all
}

func tuneNamed(t *testing.T, c client, title string) document.Chart {
	t.Helper()
	for _, entry := range call[[]ChartEntry](c, "GET", "/api/charts", nil, 200) {
		if entry.Title == title {
			return call[KeptChart](c, "GET", "/api/charts/"+itoa(entry.ID), nil, 200).Chart
		}
	}
	require.Fail(t, "no tune "+title)
	return document.Chart{}
}

// What comes next is what will sound: of bars that go round their first, and not what is written after them.
func TestTheStageOfALoopGoesBackToItsBeginning(t *testing.T) {
	c := application(t, nil)
	band := document.Routine{Name: "round", Segments: []document.Segment{{Choruses: 4}}}
	kettle := PassRequest{PlayContext: PlayContext{Chart: tuneNamed(t, c, "Cold Kettle")}, Routine: band, Loop: &BarRange{From: 5, To: 6}}
	looped := call[Pass](c, "POST", "/api/compute/band/pass", kettle, 200)
	assert.Equal(t, []string{"0 E7: 5760 E7 bar 5 on the b7 of E7", "2880 E7: 5760 E7 bar 5 on the b7 of E7"}, said(looped))

	ferryLoop := PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: band, Loop: &BarRange{From: 10, To: 12}}
	stage := call[Pass](c, "POST", "/api/compute/band/pass", ferryLoop, 200)
	last := stage.Stage[len(stage.Stage)-1]
	require.NotNil(t, last.Next)
	assert.Equal(t, "F7", last.Next.Chord, "bar 10")
	assert.Equal(t, 10, last.Next.Bar)
	assert.Equal(t, stage.Performance.End, last.Next.Tick)
	require.NotNil(t, last.Next.Landing)
	assert.Equal(t, "F7", last.Next.Landing.Chord)

	// The same bars played once go on into the next chorus.
	ferryLoop.Once = true
	once := call[Pass](c, "POST", "/api/compute/band/pass", ferryLoop, 200)
	last = once.Stage[len(once.Stage)-1]
	assert.Equal(t, "C7", last.Next.Chord)
	assert.Equal(t, 1, last.Next.Bar)

	// With an ending nothing follows.
	ferryLoop.Loop, ferryLoop.Once, ferryLoop.Ending = nil, false, true
	ending := call[Pass](c, "POST", "/api/compute/band/pass", ferryLoop, 200)
	assert.Nil(t, ending.Stage[len(ending.Stage)-1].Next)
}

// Imagined chords are on the stage at their half bars, each with its landing, over what the band plays.
func TestTheStageFollowsImaginedChords(t *testing.T) {
	c := application(t, nil)
	chart := ferry(c).Chart
	all := call[[]Turnaround](c, "POST", "/api/compute/chart/turnarounds", TurnaroundsRequest{Key: chart.Key, Meter: chart.Meter}, 200)
	name := ""
	for _, one := range all {
		if one.Name == "iii7 VI7 ii7 V7" {
			name = one.Name
		}
	}
	require.NotEmpty(t, name)
	edited := call[ReadChart](c, "POST", "/api/compute/chart", EditChart{Chart: chart, Turnaround: &TurnaroundEdit{Bar: 11, Name: name, Imagined: true}}, 200)
	edited.Chart.Imagining = true
	pass := call[Pass](c, "POST", "/api/compute/band/pass", PassRequest{PlayContext: PlayContext{Chart: edited.Chart}, Routine: document.Routine{Name: "r", Segments: []document.Segment{{Choruses: 2}}}}, 200)
	spans := pass.Stage[len(pass.Stage)-4:]
	chords := []string{}
	for _, span := range spans {
		chords = append(chords, span.Chord)
		assert.NotEmpty(t, span.Written, "what the band plays is said beside it")
		require.NotNil(t, span.Next)
		require.NotNil(t, span.Next.Landing, span.Chord)
		assert.Equal(t, span.Next.Chord, span.Next.Landing.Chord)
	}
	assert.Equal(t, []string{"Em7", "A7", "Dm7", "G7"}, chords)
	assert.Equal(t, 960, spans[1].Tick-spans[0].Tick)
	assert.Equal(t, "Em7", pass.Stage[len(pass.Stage)-5].Next.Chord)
}

// Where the key changes the landing is one of the chord that comes, in its key.
func TestTheStageLandsInTheNextKey(t *testing.T) {
	c := application(t, nil)
	all := passes(c, PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: routineNamed(t, c, "all keys")}, 40)
	require.Greater(t, len(all), 12)
	changed := 0
	for n := 0; n+1 < len(all); n++ {
		last := all[n].Stage[len(all[n].Stage)-1]
		require.NotNil(t, last.Next, "pass %d", n)
		first := all[n+1].Stage[0]
		assert.Equal(t, first.Chord, last.Next.Chord, "pass %d", n)
		require.NotNil(t, last.Next.Landing)
		assert.Equal(t, first.Chord, last.Next.Landing.Chord, "pass %d", n)
		if all[n].Chart.Key.Tonic != all[n+1].Chart.Key.Tonic {
			changed++
			assert.Equal(t, all[n+1].Hand[0].Box, last.Next.Box)
		} else {
			assert.Empty(t, last.Next.Box)
		}
	}
	assert.Equal(t, 11, changed)
}

// A new aim is the aim of the landing into its segment.
func TestTheStageAimsWhereTheNextSegmentDoes(t *testing.T) {
	c := application(t, nil)
	all := passes(c, PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: routineNamed(t, c, "each tone in turn")}, 40)
	for n := 0; n+1 < len(all); n++ {
		if all[n].Segment == all[n+1].Segment {
			continue
		}
		into := all[n].Stage[len(all[n].Stage)-1].Next.Landing
		require.NotNil(t, into)
		for _, landing := range all[n+1].Landings {
			if landing.Chord == into.Chord {
				assert.Equal(t, landing.Degree, into.Degree, "into %s", all[n+1].Segment)
			}
		}
	}
}
