package api

import (
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/format/document"
)

func TestAnExerciseIsWritten(t *testing.T) {
	c := application(t, nil)
	on := PlayContext{Chart: ferry(c).Chart}
	thirds := document.Exercise{
		Tones: "thirds", Over: document.ExerciseOver{From: 2, Bars: 1}, Where: document.ExerciseWhere{Kind: "along the strings", LowString: 1, HighString: 2},
		Time: document.ExerciseTime{Subdivision: "quarter", NoEnding: true},
	}
	w := call[WrittenExercise](c, "POST", "/api/compute/exercise", ExerciseRequest{PlayContext: on, Exercise: thirds}, 200)
	assert.Equal(t, "thirds, along strings 1 to 2", w.Text)
	assert.Equal(t, 1920, w.Tab.Start)
	assert.Equal(t, 2, w.FirstBar)
	assert.Equal(t, 1, w.Bars)
	assert.Nil(t, w.Chart)
	degrees := []string{}
	for _, e := range w.Tab.Events {
		degrees = append(degrees, e.Degree)
	}
	assert.Equal(t, "R 3 9 11 3 5 11 13", strings.Join(degrees, " "))
	assert.Equal(t, "F7", w.Shapes[0].Chord)
	assert.Len(t, w.Shapes[0].Tones, 8)

	own := call[WrittenExercise](c, "POST", "/api/compute/exercise", ExerciseRequest{PlayContext: on, Exercise: document.Exercise{Over: document.ExerciseOver{Kind: "a progression", Text: "| Dm7 | G7 |"}}}, 200)
	assert.Equal(t, "Dm7", own.Chart.Bars[0].Chords[0].Chord)
	assert.Equal(t, "Dm7", own.Tab.Events[0].Chord)

	moved := call[WrittenExercise](c, "POST", "/api/compute/exercise", ExerciseRequest{PlayContext: on, Position: "E-7", Tonic: "A"}, 200)
	assert.Equal(t, "A7", moved.Tab.Events[0].Chord)
	assert.Equal(t, "E-4", moved.Position.ID, "the hand is in the same form")
	assert.Equal(t, "A", moved.Chart.Key.Tonic)
	call[Problem](c, "POST", "/api/compute/exercise", ExerciseRequest{PlayContext: on, Tonic: "H"}, 422)

	wide := call[WrittenExercise](c, "POST", "/api/compute/exercise", ExerciseRequest{PlayContext: on, Position: "E-7", Exercise: document.Exercise{Tones: "scale of the chord", Where: document.ExerciseWhere{Kind: "so many notes a string"}}}, 200)
	assert.Empty(t, wide.Caution)
	on.Hands = &document.Hands{SpanMM: 60}
	wide = call[WrittenExercise](c, "POST", "/api/compute/exercise", ExerciseRequest{PlayContext: on, Position: "E-7", Exercise: document.Exercise{Tones: "scale of the chord", Where: document.ExerciseWhere{Kind: "so many notes a string"}}}, 200)
	assert.Contains(t, wide.Caution, "past your 60")
	assert.LessOrEqual(t, wide.Easier.StretchMM, 60.0)
}

// What is in the way is named, and the nearest exercise that can be had comes with it.
func TestAnExerciseThatCannotBe(t *testing.T) {
	c := application(t, nil)
	on := PlayContext{Chart: ferry(c).Chart}
	got := call[Problem](c, "POST", "/api/compute/exercise", ExerciseRequest{PlayContext: on, Exercise: document.Exercise{Name: "Mine", Tones: "sixths", Where: document.ExerciseWhere{Kind: "so many notes a string"}}}, 422)
	assert.Equal(t, "body.exercise.where.kind", got.Errors[0].Field)
	assert.Equal(t, "Mine", got.Errors[0].NearestExercise.Name)
	assert.Equal(t, "in position", got.Errors[0].NearestExercise.Where.Kind)
	got = call[Problem](c, "POST", "/api/compute/exercise", ExerciseRequest{PlayContext: on, Exercise: document.Exercise{Over: document.ExerciseOver{Kind: "one chord", Chord: "Hm"}}}, 422)
	assert.Equal(t, "body.exercise.over.chord", got.Errors[0].Field)
}

// Exercises are kept like all documents, and written in every format.
func TestExercisesAreKept(t *testing.T) {
	c := application(t, nil)
	mine := document.Exercise{Name: "Thirds for Tuesday", Tags: []string{"warm-up"}, Tones: "thirds", Where: document.ExerciseWhere{Kind: "along the strings", LowString: 1, HighString: 2}}
	kept := call[KeptExercise](c, "POST", "/api/exercises", mine, http.StatusCreated)
	assert.Equal(t, mine, kept.Exercise)
	assert.Equal(t, "thirds, along strings 1 to 2", kept.Text)
	mine.Tones = "sixths"
	call[KeptExercise](c, "PUT", "/api/exercises/"+itoa(kept.ID), map[string]any{"version": kept.Version, "exercise": mine}, 200)
	other := mine
	other.Tones = "fourths"
	call[Problem](c, "PUT", "/api/exercises/"+itoa(kept.ID), map[string]any{"version": kept.Version, "exercise": other}, http.StatusPreconditionFailed)
	all := call[[]KeptExercise](c, "GET", "/api/exercises", nil, 200)
	assert.Equal(t, "sixths", all[len(all)-1].Exercise.Tones)
	revisions := call[[]Revision](c, "GET", "/api/exercises/"+itoa(kept.ID)+"/revisions", nil, 200)
	assert.Contains(t, revisions[0].Text, "sixths, along strings 1 to 2")
	bad := mine
	bad.Name = " "
	got := call[Problem](c, "POST", "/api/exercises", bad, 422)
	assert.Contains(t, got.Detail, "1 to 60 characters")
	bad.Name, bad.Tones = "Wind", "wind"
	got = call[Problem](c, "POST", "/api/exercises", bad, 422)
	assert.Contains(t, got.Detail, "choose one of")

	request := ExerciseRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Exercise: mine}
	for format, start := range map[string]string{"pdf": "%PDF", "tab": "title: Thirds for Tuesday", "musicxml": "<?xml", "midi": "MThd"} {
		response := c.do("POST", "/api/compute/exercise/file/"+format, request)
		assert.Equal(t, 200, response.Code, "%s: %s", format, response.Body.String())
		assert.True(t, strings.HasPrefix(response.Body.String(), start), format)
		assert.Contains(t, response.Header().Get("Content-Disposition"), "Thirds for Tuesday")
	}
	call[Problem](c, "POST", "/api/compute/exercise/file/scroll", request, 422)
}

// Every ready-made exercise can be kept as it is, and is what it was when it is read again.
func TestReadyMadeExercisesAreKeptAsTheyAre(t *testing.T) {
	for _, ready := range exerciseChoices().ReadyMade {
		checked, err := ready.Checked()
		assert.NoError(t, err)
		assert.Equal(t, ready, checked)
	}
}

// Etudes come several at a time, and can be kept as solos as they are.
func TestEtudes(t *testing.T) {
	c := application(t, nil)
	tune := ferry(c)
	licks := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)
	request := EtudeRequest{
		PlayContext: PlayContext{Chart: tune.Chart}, Position: "E-7", Choruses: 2,
		Parts: []EtudePart{{Lick: &licks[0].Lick}, {Exercise: &document.Exercise{Name: "Thirds", Tones: "thirds", Time: document.ExerciseTime{Subdivision: "quarter"}}}},
	}
	made := call[Etudes](c, "POST", "/api/compute/solo/etude", request, 200)
	assert.Len(t, made.Etudes, 2, "two parts have two orders")
	assert.Len(t, made.Etudes[0].Choruses, 2)
	assert.Len(t, made.Etudes[0].Names, 12)
	assert.NotEqual(t, made.Etudes[0].Names, made.Etudes[1].Names)
	kept := call[KeptSolo](c, "POST", "/api/solos", KeepSolo{ChartID: tune.ID, SoloDocument: document.SoloDocument{
		Solo: document.Solo{Name: "Etude", Choruses: made.Etudes[0].Choruses}, Chart: tune.Chart,
	}}, http.StatusCreated)
	assert.Len(t, kept.Solo.Choruses, 2)
	request.Parts = append(request.Parts, EtudePart{})
	got := call[Problem](c, "POST", "/api/compute/solo/etude", request, 422)
	assert.Equal(t, "body.parts[2]", got.Errors[0].Field)
	request.Parts, request.Ending = request.Parts[:2], "loudly"
	got = call[Problem](c, "POST", "/api/compute/solo/etude", request, 422)
	assert.Equal(t, "body.ending", got.Errors[0].Field)
}
