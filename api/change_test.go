package api

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
)

// circle is a chart with an imagined circle over its last two bars.
func circle(c client) document.Chart {
	edited := call[ReadChart](c, "POST", "/api/compute/chart", EditChart{Chart: ferry(c).Chart, Turnaround: &TurnaroundEdit{Name: "iii7 VI7 ii7 V7", Bar: 11, Imagined: true}}, 200)
	return edited.Chart
}

func vamp(c client) document.Chart {
	read := call[ReadChart](c, "POST", "/api/compute/chart/scheme", NewChart{Title: "Vamp", Tonic: "A", Scheme: "one-chord vamp", Tempo: 90, Feel: "straight"}, 200)
	return read.Chart
}

func TestLandingsFromAPlace(t *testing.T) {
	c := application(t, nil)
	ask := func(at Place) NearbyTargets {
		return call[NearbyTargets](c, "POST", "/api/compute/change/nearby", NearbyTargetsRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Change: 7680, Here: at}, 200)
	}
	near := ask(Place{String: 3, Fret: 9})
	assert.Equal(t, "3", near.Leaving.Degree, "E is the 3 of C7")
	assert.Equal(t, "7", near.Arriving.Degree)
	assert.Equal(t, "outside", near.Class)
	assert.Empty(t, near.From, "E is no tone of F7")
	assert.Equal(t, "down a fret: Eb, the b7 of F7", near.To[0].Text)
	assert.Equal(t, -1, near.To[0].Semitones)
	target := ask(Place{String: 4, Fret: 7})
	require.NotEmpty(t, target.From)
	assert.Equal(t, "Bb, the b7 of C7, down a fret: A, the 3 of F7", target.From[0].Text)
	assert.True(t, target.From[0].OfChord)
}

func TestApproachesIntoATarget(t *testing.T) {
	c := application(t, nil)
	ask := ApproachesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Change: 7680, Target: Place{String: 3, Fret: 10}, Subdivision: "triplet"}
	got := call[Approaches](c, "POST", "/api/compute/change/approaches", ask, 200)
	assert.Equal(t, "beat 1 of bar 5", got.Lands)
	assert.Equal(t, "R", got.Target.Degree)
	require.Len(t, got.Options, 15)
	require.Len(t, got.Refused, 1)
	assert.Equal(t, "held", got.Refused[0].Name)
	for _, way := range got.Options {
		last := way.Tab.Events[len(way.Tab.Events)-1]
		assert.Equal(t, 7680, way.Tab.Start+last.Tick, way.Name)
		assert.Equal(t, []string{"R", "target", "F7"}, []string{last.Degree, last.Role, last.Chord}, way.Name)
		assert.Equal(t, "approach", way.Tab.Events[0].Role)
		if way.Name == "two half steps below" {
			assert.Equal(t, "the second triplet of beat 4 of bar 4", way.Starts)
			assert.Equal(t, 4, way.Tab.FirstBar)
		}
		if way.Name == "bend a whole step" {
			assert.Equal(t, 2.0, last.Bend)
			assert.Equal(t, 8, last.Fret)
		}
	}
	assert.Equal(t, 2, got.Beats)
	assert.Equal(t, 3, got.MaxBeats)
	require.Len(t, got.ChromaticRuns, 3)
	assert.Equal(t, "R up to the 3 of F7, the first 2 notes struck twice", got.ChromaticRuns[0].Spoken)
	assert.Equal(t, Refused{"root down to 7", "7 notes are too many for 2 half steps: at most 5"}, got.RefusedRuns[0])
	ask.Beats = 1
	assert.Len(t, call[Approaches](c, "POST", "/api/compute/change/approaches", ask, 200).ChromaticRuns, 5)
}

func TestTargetPathsOverHTTP(t *testing.T) {
	c := application(t, nil)
	ask := PathRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}}
	paths := call[Paths](c, "POST", "/api/compute/change/path", ask, 200).Paths
	require.Len(t, paths, 4)
	assert.Equal(t, "thirds first", paths[0].Strategy)
	assert.Equal(t, []int{4, 7, 720}, []int{paths[0].Frets, paths[0].Strings, paths[0].Cost})
	require.Len(t, paths[0].Landings, 9)
	assert.Equal(t, "Bb, the b7 of C7, down a fret to A, the 3 of F7", paths[0].Landings[0].Text)
	ask.Strategies, ask.Pins = []string{"thirds first"}, []Pin{{Change: 7680, Place: Place{String: 2, Fret: 10}}}
	pinned := call[Paths](c, "POST", "/api/compute/change/path", ask, 200).Paths[0]
	assert.True(t, pinned.Landings[2].Pinned)
	assert.Equal(t, Place{String: 2, Fret: 10}, pinned.Landings[2].Place)
	assert.Greater(t, pinned.Cost, paths[0].Cost)
}

func TestFunctionsOverHTTP(t *testing.T) {
	c := application(t, nil)
	got := call[Functions](c, "POST", "/api/compute/change/functions", FunctionsRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Position: "E-7"}, 200)
	assert.Equal(t, []string{"C7", "F7", "G7"}, got.Chords)
	require.Len(t, got.Rows, 4)
	assert.Equal(t, "Eb", got.Rows[2].Note)
	assert.Equal(t, "bend it a half step to E, the 3 of C7", got.Rows[2].Functions[0].Text)
	assert.Len(t, got.Motif.Events, 48, "four notes over each of twelve bars")
	for _, e := range got.Motif.Events {
		assert.Equal(t, "chordTone", e.Class)
	}
}

func TestRunsOverHTTP(t *testing.T) {
	c := application(t, nil)
	chart := ferry(c).Chart
	run := call[Run](c, "POST", "/api/compute/change/run", RunRequest{PlayContext: PlayContext{Chart: chart}, Arrival: 7680, Notes: 8, Subdivision: "sixteenth", Goal: 120}, 200)
	assert.Equal(t, []string{"the second sixteenth of beat 3 of bar 4", "beat 1 of bar 5"}, []string{run.Starts, run.Lands})
	assert.Equal(t, 5760, run.From)
	assert.InDelta(t, 112.0/60*4, run.PerSecond, 1e-9)
	assert.Equal(t, []Equal{{"quarter", 448}, {"eighth", 224}, {"triplet", 112.0 * 4 / 3}, {"quintuplet", 89.6}, {"sextuplet", 112.0 * 4 / 6}, {"thirty-second", 56}}, run.Equal)
	assert.Equal(t, []int{112, 118, 120}, run.Ladder)

	wrapped := call[Run](c, "POST", "/api/compute/change/run", RunRequest{PlayContext: PlayContext{Chart: chart}, Arrival: 23040 + 480, Notes: 3}, 200)
	assert.Equal(t, []string{"beat 1 of bar 1", "beat 2 of bar 1"}, []string{wrapped.Starts, wrapped.Lands})

	start := 5760 + 960
	ask := RunRequest{PlayContext: PlayContext{Chart: chart}, Arrival: 7680, Start: &start, Subdivision: "sixteenth", From: &Place{String: 4, Fret: 10}, To: &Place{String: 2, Fret: 10}}
	run = call[Run](c, "POST", "/api/compute/change/run", ask, 200)
	assert.Equal(t, 9, run.Notes)
	require.NotNil(t, run.Fitted)
	assert.Equal(t, 5, run.Fitted.Between, "C Eb F G and the A it goes to")
	assert.Equal(t, "5 notes lie there and there is time for 9: put in 4", run.Fitted.Text)
	assert.Equal(t, []string{"D before Eb", "E before F", "F# before G", "G# before A"}, sharpened(run.Fitted.Added))
	last := run.Fitted.Tab.Events[8]
	assert.Equal(t, 7680, run.Fitted.Tab.Start+last.Tick)
	assert.Equal(t, "3", last.Degree)
}

// sharpened leaves the spelling of chromatic notes to the tests of spelling.
func sharpened(added []string) []string {
	out := []string{}
	for _, a := range added {
		switch a {
		case "Gb before G":
			a = "F# before G"
		case "Ab before A":
			a = "G# before A"
		}
		out = append(out, a)
	}
	return out
}

// Over imagined chords everything works on them, and says what each note is over
// the written chord.
func TestChangesOverImaginedChords(t *testing.T) {
	c := application(t, nil)
	on := PlayContext{Chart: circle(c)}
	read := call[ReadChart](c, "POST", "/api/compute/chart", EditChart{Chart: on.Chart}, 200)
	tick := -1
	for _, ch := range read.Changes {
		if ch.Arriving.Chord == "A7" {
			tick = ch.Tick
		}
	}
	require.Positive(t, tick, "the imagined VI7 arrives")
	view := call[ChangeView](c, "POST", "/api/compute/change", ChangeRequest{PlayContext: on, Change: tick}, 200)
	for _, move := range view.Moves {
		require.NotNil(t, move.To.Written)
		assert.Equal(t, "C7", move.To.Written.Chord)
	}
	paths := call[Paths](c, "POST", "/api/compute/change/path", PathRequest{PlayContext: on, Strategies: []string{"thirds first"}}, 200)
	remarks := 0
	for _, l := range paths.Paths[0].Landings {
		if l.Change == tick {
			require.NotNil(t, l.Written)
			assert.Equal(t, "b9", l.Written.Degree, "C#, the 3 of A7, over the written C7")
			assert.Equal(t, "outside", l.Written.Class)
			remarks++
		}
	}
	assert.Equal(t, 1, remarks)
	ways := call[Approaches](c, "POST", "/api/compute/change/approaches", ApproachesRequest{PlayContext: on, Change: tick, Target: view.Moves[0].To.Place}, 200)
	require.NotEmpty(t, ways.Options)
	for _, e := range ways.Options[0].Tab.Events {
		assert.NotNil(t, e.Written)
	}
	functions := call[Functions](c, "POST", "/api/compute/change/functions", FunctionsRequest{PlayContext: on}, 200)
	assert.Contains(t, functions.Chords, "A7")
}

// A tune that stays on one chord offers its own tones as targets, bar by bar.
func TestAVamp(t *testing.T) {
	c := application(t, nil)
	on := PlayContext{Chart: vamp(c)}
	read := call[ReadChart](c, "POST", "/api/compute/chart", EditChart{Chart: on.Chart}, 200)
	require.NotEmpty(t, read.Changes)
	assert.True(t, read.Changes[0].Stays)
	assert.Empty(t, read.Facts.Changes)
	tick := read.Changes[0].Tick
	view := call[ChangeView](c, "POST", "/api/compute/change", ChangeRequest{PlayContext: on, Change: tick}, 200)
	assert.Equal(t, "The tune stays on A7: aim at one of its own tones on the downbeat.", view.Headline)
	assert.NotEmpty(t, view.Moves)
	ways := call[Approaches](c, "POST", "/api/compute/change/approaches", ApproachesRequest{PlayContext: on, Change: tick, Target: Place{String: 4, Fret: 7}}, 200)
	assert.Contains(t, fmt.Sprint(ways.Options[len(ways.Options)-1].Name), "held", "every tone is common to the chord and itself")
	assert.NotEmpty(t, call[Paths](c, "POST", "/api/compute/change/path", PathRequest{PlayContext: on}, 200).Paths[0].Landings)
	line := lineRequest(c)
	line.PlayContext, line.Change, line.Target, line.Position = on, tick, nil, ""
	call[Line](c, "POST", "/api/compute/line", line, 200)
}

func TestChangesThatCannotBe(t *testing.T) {
	c := application(t, nil)
	on := PlayContext{Chart: ferry(c).Chart}
	early := 100
	for _, bad := range []struct {
		path     string
		in       any
		location string
		says     string
	}{
		{"change", ChangeRequest{PlayContext: on, Change: 9600}, "body.change", "F7 goes on at tick 9600, bar 6: a change of a chord to itself is none; the changes are at"},
		{"change/nearby", NearbyTargetsRequest{PlayContext: on, Change: 7680, Here: Place{String: 8, Fret: 3}}, "body.here", "string 8 fret 3 is not on the neck; its strings are 1 to 6 and its frets 0 to 22"},
		{"change/approaches", ApproachesRequest{PlayContext: on, Change: 7680, Target: Place{String: 3, Fret: 9}}, "body.target", "string 3 fret 9 is no tone of F7; the nearest are string 3 fret 8 (b7)"},
		{"change/approaches", ApproachesRequest{PlayContext: on, Change: 7680, Target: Place{String: 1, Fret: 25}}, "body.target", "string 1 fret 25 is not on the neck"},
		{"change/path", PathRequest{PlayContext: on, Strategies: []string{"old"}}, "body.strategies[0]", "choose one of: thirds first"},
		{"change/path", PathRequest{PlayContext: on, Pins: []Pin{{Change: 1, Place: Place{String: 1, Fret: 8}}}}, "body.pins[0].change", "no landing is planned at tick 1; they are at 1920"},
		{"change/path", PathRequest{PlayContext: on, Pins: []Pin{{Change: 1920, Place: Place{String: 1, Fret: 9}}}}, "body.pins[0]", "bar 2: string 1 fret 9 is not a placed tone of F7"},
		{"change/functions", FunctionsRequest{PlayContext: on, Places: []Place{{String: 3, Fret: 8}, {String: 3, Fret: 8}}}, "body.places", "is there twice"},
		{"change/run", RunRequest{PlayContext: on, Arrival: 7680, Notes: 200}, "body.notes", "longer than the chart, or has none: 1 to 97"},
		{"change/run", RunRequest{PlayContext: on, Arrival: 99999, Notes: 2}, "body.arrival", "it has ticks 0 to 23040"},
		{"change/run", RunRequest{PlayContext: on, Arrival: 7680, Start: &early}, "body.start", "the nearest before is"},
		{"change/run", RunRequest{PlayContext: on, Arrival: 7680, Notes: 4, Goal: 1000}, "body.goal", "20 to 400"},
		{"change/run", RunRequest{PlayContext: on, Arrival: 7680, Notes: 4, From: &Place{String: 6, Fret: 1}, To: &Place{String: 1, Fret: 8}}, "body.from", "does not lie on frets 6 to 11"},
		{"change/run", RunRequest{PlayContext: on, Arrival: 7680, Notes: 4, From: &Place{String: 6, Fret: 8}, To: &Place{String: 1, Fret: 8}, Tones: "air"}, "body.tones", "chord tones, scale of the chord, box"},
	} {
		p := call[Problem](c, "POST", "/api/compute/"+bad.path, bad.in, 422)
		require.NotEmpty(t, p.Errors, bad.location)
		assert.Equal(t, bad.location, p.Errors[0].Field)
		assert.Contains(t, p.Errors[0].Message, bad.says)
	}
}
