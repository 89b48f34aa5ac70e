package api

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/format/document"
	"undaris/store"
)

func routineNamed(t *testing.T, c client, name string) document.Routine {
	all := call[Routines](c, "POST", "/api/compute/band/routines", RoutinesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}}, 200)
	for _, one := range all.Routines {
		if one.Routine.Name == name {
			return one.Routine
		}
	}
	require.Fail(t, "no routine "+name)
	return document.Routine{}
}

// passes walks a routine over a request.
func passes(c client, r PassRequest, most int) []Pass {
	all := []Pass{}
	for len(all) < most {
		p := call[Pass](c, "POST", "/api/compute/band/pass", r, 200)
		if p.Finished {
			break
		}
		all = append(all, p)
		r.After, r.Skip = &p.Place, false
	}
	return all
}

func partsOf(p Performance) map[string]int {
	count := map[string]int{}
	for _, n := range p.Notes {
		count[n.Part]++
	}
	return count
}

func TestTheReadyMadeRoutinesSayHowLongTheyAre(t *testing.T) {
	c := application(t, nil)
	all := call[Routines](c, "POST", "/api/compute/band/routines", RoutinesRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Own: []document.Routine{
		{Name: "mine", Segments: []document.Segment{{Choruses: 2, End: &document.SegmentEnd{KeyBy: "fourths", Again: 1, TempoBy: 10}}}},
		{Name: "off the end", Segments: []document.Segment{{From: 40, Bars: 2}}},
	}}, 200)
	remarks := map[string]string{}
	for _, r := range all.Routines {
		remarks[r.Routine.Name] = r.Text
		assert.Len(t, r.Segments, len(r.Routine.Segments))
	}
	assert.Contains(t, remarks["mine"], "ends at 122, in F")
	assert.Equal(t, "until you stop or go on", remarks["with the band"])
	last := all.Routines[len(all.Routines)-1]
	assert.True(t, last.Own)
	assert.Contains(t, last.Fault, "bar 40 is not in the tune")
	assert.Equal(t, "2 choruses · +10 each time, 2 times · up a fourth each time, 2 keys", all.Routines[len(all.Routines)-2].Segments[0].Text)
}

func TestTheBandDropsOnTheThirdChorus(t *testing.T) {
	c := application(t, nil)
	all := passes(c, PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: routineNamed(t, c, "drop the band"), Arrangement: Arrangement{Intro: "one bar"}}, 99)
	require.Len(t, all, 6)
	assert.Equal(t, 1920, all[0].Performance.CountIn)
	assert.Zero(t, all[1].Performance.CountIn)
	assert.Positive(t, partsOf(all[1].Performance)["chords"])
	assert.Zero(t, partsOf(all[2].Performance)["chords"])
	assert.Positive(t, partsOf(all[2].Performance)["bass"])
	assert.Equal(t, []string{"click"}, keysOf(partsOf(all[3].Performance)))
	assert.Empty(t, all[4].Performance.Notes)
	assert.Equal(t, "form", all[4].View)
	assert.Len(t, all[4].Performance.Beats, 48, "where one is can be seen while nothing is heard")
	assert.Positive(t, partsOf(all[5].Performance)["chords"])
}

func keysOf(m map[string]int) []string {
	all := []string{}
	for key := range m {
		all = append(all, key)
	}
	return all
}

// Through all keys the position follows by its form, and the bass leads into the next key.
func TestAllKeys(t *testing.T) {
	c := application(t, nil)
	all := passes(c, PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: routineNamed(t, c, "all keys"), Position: "E-7"}, 99)
	require.Len(t, all, 24)
	for n, want := range map[int]string{0: "C", 2: "F", 4: "Bb", 23: "G"} {
		assert.Equal(t, want, all[n].Chart.Key.Tonic)
		assert.Equal(t, "E", all[n].Position[:1])
		assert.Equal(t, want+"7", all[n].Performance.Chords[0].Chord)
		assert.Equal(t, "I", all[n].Performance.Chords[0].Roman)
		assert.NotEmpty(t, all[n].Landings)
	}
}

func TestEachToneInTurnIsSoundedBefore(t *testing.T) {
	c := application(t, nil)
	all := passes(c, PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: routineNamed(t, c, "each tone in turn")}, 99)
	require.Len(t, all, 8)
	for n, want := range []string{"R", "R", "3", "3", "5", "5", "b7", "b7"} {
		cued := 0
		for _, l := range all[n].Landings {
			assert.Equal(t, want, l.Degree)
			for _, note := range all[n].Performance.Notes {
				if note.Part == "line" && note.Tick == max(l.Change-480, 0) {
					cued++
				}
			}
		}
		assert.Equal(t, len(all[n].Landings), cued)
	}
}

func TestTradingFours(t *testing.T) {
	c := application(t, nil)
	chosen := document.Lick{}
	for _, entry := range call[[]KeptLick](c, "GET", "/api/licks", nil, 200) {
		if kept := call[KeptLick](c, "GET", "/api/licks/"+itoa(entry.ID), nil, 200); kept.Lick.Phrase.Meter == "4/4" {
			chosen = kept.Lick
		}
	}
	request := PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: routineNamed(t, c, "trade fours"), Licks: []document.Lick{chosen}}
	all := passes(c, request, 99)
	require.Len(t, all, 4)
	assert.Equal(t, []BarRange{{5, 8}}, all[0].Yours)
	assert.Equal(t, []BarRange{{1, 4}, {9, 12}}, all[1].Yours, "turns go on from chorus to chorus")
	for _, p := range all[:2] {
		for _, n := range p.Performance.Notes {
			bar := n.Tick/1920 + 1
			for _, yours := range p.Yours {
				assert.False(t, n.Part == "line" && bar >= yours.From && bar <= yours.To, "the line plays in bar %d", bar)
			}
		}
		assert.Positive(t, partsOf(p.Performance)["line"])
	}
}

// A few bars go round, a chorus later each time, and the bass leads back to their first chord.
func TestALoopOfBars(t *testing.T) {
	c := application(t, nil)
	request := PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: routineNamed(t, c, "with the band"), Loop: &BarRange{4, 5}}
	all := passes(c, request, 3)
	for n, p := range all {
		assert.Equal(t, n, p.Place.Chorus)
		assert.Equal(t, 2*1920, p.Performance.End)
		assert.Equal(t, []string{"C7", "F7"}, []string{p.Performance.Chords[0].Chord, p.Performance.Chords[1].Chord})
		last := 0
		for _, note := range p.Performance.Notes {
			if note.Part == "bass" {
				last = note.MIDI
			}
		}
		assert.Contains(t, []int{11, 1}, last%12, "into C")
	}
	request.Loop = &BarRange{4, 13}
	assert.Contains(t, c.do("POST", "/api/compute/band/pass", request).Body.String(), "bars 4 to 13 are not in the chart; its bars are 1 to 12")
}

// A chorus that is sounding can be asked for again, with an ending; what comes before it stays.
func TestTheEndingOfTheChorusThatSounds(t *testing.T) {
	c := application(t, nil)
	request := PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: routineNamed(t, c, "with the band")}
	second := passes(c, request, 2)[1]
	request.At, request.Ending = &second.Place, true
	ending := call[Pass](c, "POST", "/api/compute/band/pass", request, 200)
	assert.Greater(t, ending.Performance.End, second.Performance.End)
	for n, note := range ending.Performance.Notes {
		if note.Tick > 9*1920 {
			assert.Greater(t, n, 100)
			break
		}
		assert.Equal(t, second.Performance.Notes[n], note)
	}
}

func TestAStyleThatTheMeterDoesNotHave(t *testing.T) {
	c := application(t, nil)
	kettle := call[KeptChart](c, "GET", "/api/charts/"+itoa(ferry(c).ID+1), nil, 200).Chart
	request := PassRequest{PlayContext: PlayContext{Chart: kettle}, Routine: document.Routine{Name: "r", Segments: []document.Segment{{Choruses: 1}}}, Arrangement: Arrangement{Style: "rumba"}}
	p := call[Pass](c, "POST", "/api/compute/band/pass", request, 200)
	assert.Equal(t, "slow 12/8", p.Style)
	assert.Equal(t, "rumba is not played in 12/8: this is slow 12/8", p.Text)
	request.Style = "polka"
	assert.Contains(t, c.do("POST", "/api/compute/band/pass", request).Body.String(), `\"polka\" is not a style; choose one of: shuffle`)
}

// The band of a tune is kept once, versioned, and refused where it is stale or wrong.
func TestTheBandOfATune(t *testing.T) {
	c := application(t, nil)
	kept := call[KeptBand](c, "POST", "/api/bands", KeepBand{ChartID: ferry(c).ID, Band: document.Band{Style: "funk sixteenths", Levels: map[string]int{"drums": 40}}}, 201)
	assert.Equal(t, 1, kept.Version)
	assert.Equal(t, 409, c.do("POST", "/api/bands", KeepBand{ChartID: ferry(c).ID}).Code, "a tune has one band")
	change := ReplaceBand{}
	change.Band, change.Version = kept.Band, kept.Version
	change.Band.Muted = []string{"chords"}
	again := call[KeptBand](c, "PUT", "/api/bands/"+itoa(kept.ID), change, 200)
	assert.Equal(t, 2, again.Version)
	change.Band.Muted = []string{"bass"}
	assert.Equal(t, 412, c.do("PUT", "/api/bands/"+itoa(kept.ID), change).Code)
	all := call[[]KeptBand](c, "GET", "/api/bands?chart="+itoa(ferry(c).ID), nil, 200)
	require.Len(t, all, 1)
	assert.Equal(t, []string{"chords"}, all[0].Band.Muted)
	for says, wrong := range map[string]document.Band{
		`\"polka\" is not a style`:               {Style: "polka"},
		"a level is 0 to 100, not 101":           {Levels: map[string]int{"bass": 101}},
		`\"kazoo\" is not a sound of the chords`: {Sound: "kazoo"},
		"two routines called":                    {Routines: []document.Routine{{Name: "a", Segments: []document.Segment{{}}}, {Name: "a", Segments: []document.Segment{{}}}}},
	} {
		assert.Contains(t, c.do("POST", "/api/bands", KeepBand{ChartID: ferry(c).ID + 1, Band: wrong}).Body.String(), says)
	}
}

// In a file nobody can ask for the next segment, and the choruses of a solo go round.
func TestARoutineInAFile(t *testing.T) {
	c := application(t, nil)
	r := document.Routine{Name: "r", Segments: []document.Segment{{Name: "on and on"}, {Name: "once", Choruses: 1}}}
	names := []string{}
	for _, p := range passes(c, PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: r, InFile: true}, 9) {
		names = append(names, p.Segment)
	}
	assert.Equal(t, []string{"on and on", "on and on", "once"}, names)
	line := func(fret int) PlayedLine {
		return PlayedLine{Phrase: document.Phrase{Meter: "4/4", Events: []document.Event{{Tick: 0, Ticks: 480, String: 1, Fret: fret}}}}
	}
	asked := MIDIRequest{PassRequest: PassRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Routine: r}, Lines: []PlayedLine{line(8), line(10)}, Parts: []string{"line"}}
	file, err := smf.ReadFrom(c.do("POST", "/api/compute/band/midi", asked).Body)
	require.NoError(t, err)
	keys := []uint8{}
	for _, e := range file.Tracks[1] {
		var channel, key, velocity uint8
		if e.Message.GetNoteOn(&channel, &key, &velocity) && velocity > 0 {
			keys = append(keys, key)
		}
	}
	assert.Equal(t, []uint8{72, 74, 72}, keys, "one chorus after the other, and from the first again")
}

// A band that cannot be read is said to be damaged; what is saved in its place keeps it among
// the versions.
func TestADamagedBandIsNotWrittenOver(t *testing.T) {
	var st *store.Store
	c := application(t, func(c *Config) { st = c.Store })
	tune := ferry(c).ID
	d, err := st.Create(t.Context(), store.Document{Kind: store.Band, Name: "band", ChartID: &tune, Body: []byte(`{"style": 7}`)})
	require.NoError(t, err)
	all := call[[]KeptBand](c, "GET", "/api/bands", nil, 200)
	require.Len(t, all, 1)
	assert.NotEmpty(t, all[0].Damaged)
	change := ReplaceBand{Replacing: Replacing{Version: 1}}
	call[KeptBand](c, "PUT", "/api/bands/"+itoa(d.ID), change, 200)
	versions, err := st.Revisions(t.Context(), d.ID)
	require.NoError(t, err)
	require.Len(t, versions, 1)
	assert.JSONEq(t, `{"style": 7}`, string(versions[0].Body))
}

// A segment that names an exercise has it played as its line, in the key of the pass; what is not known is left
// out.
func TestAnExerciseInARoutine(t *testing.T) {
	c := application(t, nil)
	scale := IdentifiedExercise{ID: 7, Exercise: document.Exercise{Name: "Scale", Tones: "scale of the chord", Over: document.ExerciseOver{Kind: "one chord"}}}
	request := PassRequest{
		PlayContext: PlayContext{Chart: ferry(c).Chart}, Position: "E-7", Exercises: []IdentifiedExercise{scale},
		Routine: document.Routine{Name: "scales", Segments: []document.Segment{
			{Choruses: 1, Exercise: 7, End: &document.SegmentEnd{KeyBy: "fourths", Again: 1}}, {Choruses: 1, Exercise: 8}, {Choruses: 1},
		}},
	}
	all := passes(c, request, 9)
	require.Len(t, all, 4)
	line := func(p Pass) []int {
		pitches := []int{}
		for _, n := range p.Performance.Notes {
			if n.Part == "line" {
				pitches = append(pitches, n.MIDI)
			}
		}
		return pitches
	}
	first, fourth := line(all[0]), line(all[1])
	assert.Equal(t, []int{48, 50, 52, 53, 55, 57, 58, 60}, first[:8], "C Mixolydian from its root")
	assert.Equal(t, 5, (fourth[0]-first[0]+12)%12, "a fourth up")
	assert.Empty(t, line(all[2]), "an exercise that was not sent")
	assert.Empty(t, line(all[3]))
}
