package api

import (
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
)

// A card is asked, answered wrong and right, scheduled, and an answer is taken back.
func TestCardsAreAskedAndKept(t *testing.T) {
	c := application(t, nil)
	deck := call[Deck](c, "GET", "/api/practice/deck", nil, 200)
	assert.Zero(t, deck.Due)
	assert.Equal(t, 8, deck.New)
	assert.Equal(t, "find it", deck.Cards[0].Kind)
	assert.Equal(t, "Nothing is due; 8 new cards can come.", deck.Text)
	ask := QuestionRequest{Card: "box and chord|C dominant|E|F7", Seed: 1}
	q := call[Question](c, "POST", "/api/compute/practice/question", ask, 200)
	assert.Equal(t, "what does the box lack?", q.Title)
	assert.Equal(t, "E form, 7–10", q.Label)
	assert.True(t, q.NeedsPlace)
	right := GivenAnswer{Given: []GivenPart{{Place: &Place{String: 2, Fret: 10}}, {Place: &Place{String: 4, Fret: 7}}}}
	wrong := GivenAnswer{Given: []GivenPart{{Place: &Place{String: 2, Fret: 10}}, {Place: &Place{String: 4, Fret: 8}}}}
	mark := call[AnswerMark](c, "POST", "/api/compute/practice/mark", MarkRequest{ask, wrong}, 200)
	assert.False(t, mark.Right)
	assert.Equal(t, [2]int{1, 3}, [2]int{mark.Got, mark.Of})
	assert.Equal(t, "C minor pentatonic lacks the 3 of F7: A.", mark.Text)

	kept := call[KeptReview](c, "POST", "/api/practice/reviews", KeepReview{MarkRequest: MarkRequest{ask, right}, TookMS: 4000, OffsetMinutes: 60}, 201)
	assert.True(t, kept.Mark.Right)
	assert.Equal(t, "good", kept.Grade)
	hinted := call[KeptReview](c, "POST", "/api/practice/reviews", KeepReview{MarkRequest: MarkRequest{ask, right}, TookMS: 4000, Hints: 1}, 201)
	assert.Equal(t, "hard", hinted.Grade)
	slip := call[KeptReview](c, "POST", "/api/practice/reviews", KeepReview{MarkRequest: MarkRequest{ask, wrong}, TookMS: 4000}, 201)
	assert.Equal(t, "again", slip.Grade)
	assert.Equal(t, http.StatusConflict, c.do("POST", "/api/practice/reviews/"+itoa(hinted.ID)+"/takeback", nil).Code, "not the last")
	assert.Equal(t, http.StatusNoContent, c.do("POST", "/api/practice/reviews/"+itoa(slip.ID)+"/takeback", nil).Code)
	assert.Equal(t, http.StatusConflict, c.do("POST", "/api/practice/reviews/"+itoa(slip.ID)+"/takeback", nil).Code, "not twice")
	assert.Equal(t, http.StatusNotFound, c.do("POST", "/api/practice/reviews/999/takeback", nil).Code)
	deck = call[Deck](c, "GET", "/api/practice/deck?kind=box+and+chord", nil, 200)
	assert.Equal(t, 1, deck.Known)
	pictures := call[Pictures](c, "GET", "/api/practice/pictures", nil, 200)
	require.Len(t, pictures.Weakness, 1)
	assert.Equal(t, WeakSpot{Key: "C", Position: "E", Share: 1, Answers: 2, Text: "C, E form: 100 % of 2 answers right"}, pictures.Weakness[0])

	// Tunes that are deleted enrol no cards any more: they rest, and nothing is lost.
	for _, chart := range call[[]ChartEntry](c, "GET", "/api/charts", nil, 200) {
		assert.Equal(t, http.StatusNoContent, c.do("DELETE", "/api/charts/"+itoa(chart.ID)+"?version="+itoa(uint(chart.Version)), nil).Code)
	}
	assert.Zero(t, call[Deck](c, "GET", "/api/practice/deck", nil, 200).All)
	assert.Equal(t, "No tune has cards to ask: write a chord into one.", call[Deck](c, "GET", "/api/practice/deck", nil, 200).Text)
	every := call[Deck](c, "GET", "/api/practice/deck?everyKey=true", nil, 200)
	assert.Greater(t, every.All, 1000)
	assert.Equal(t, 1, every.Known)

	for says, bad := range map[string]QuestionRequest{
		"a card is kind|key|position|chords": {Card: "nothing"},
		"needs the five forms":               {Card: "which form|C dominant|E|C7", Hands: &document.Hands{Instrument: &document.Instrument{Name: "open D", Tuning: "D A D F# A D", Frets: 21, ScaleMM: 648}}},
		"has all of Cm7":                     {Card: "box and chord|C dominant|E|Cm7"},
	} {
		assert.Contains(t, call[Problem](c, "POST", "/api/compute/practice/question", bad, 422).Detail, says)
	}
	assert.Contains(t, call[Problem](c, "POST", "/api/practice/reviews", KeepReview{MarkRequest: MarkRequest{ask, GivenAnswer{Choice: "3"}}}, 422).Detail, "not with a choice")
}

// The log is written, corrected without losing what was, taken away as CSV and read again.
func TestThePracticeLog(t *testing.T) {
	c := application(t, nil)
	began := time.Date(2026, 3, 1, 19, 0, 0, 0, time.FixedZone("", 3600))
	entry := NewLogEntry{UID: "one", LogEntry: LogEntry{Began: began, Seconds: 600, Kind: "lick", Item: "Rope and cleat", Tempo: 80, Goal: 112, Went: "clean"}}
	kept := call[KeptLogEntry](c, "POST", "/api/practice/log", entry, 201)
	call[KeptLogEntry](c, "POST", "/api/practice/log", entry, 201) // sent twice, as a page does whose network failed
	all := call[[]KeptLogEntry](c, "GET", "/api/practice/log", nil, 200)
	require.Len(t, all, 1)
	assert.Equal(t, "2026-03-01T19:00:00+01:00", all[0].Began.Format(time.RFC3339), "where it was played")
	better := entry.LogEntry
	better.Tempo = 84
	corrected := call[KeptLogEntry](c, "PUT", "/api/practice/log/"+itoa(kept.ID), better, 200)
	assert.Equal(t, 84, corrected.Tempo)
	assert.Equal(t, http.StatusConflict, c.do("PUT", "/api/practice/log/"+itoa(kept.ID), better).Code, "it has been corrected in between")
	assert.Contains(t, call[Problem](c, "POST", "/api/practice/log", NewLogEntry{LogEntry: LogEntry{Began: began, Kind: "lick", Seconds: -1}}, 422).Detail, "lasts 0 to 86400 seconds")

	table := c.do("GET", "/api/practice/log/csv", nil).Body.String()
	assert.Contains(t, table, "2026-03-01T19:00:00+01:00,600,lick,Rope and cleat")
	assert.Equal(t, http.StatusNoContent, c.do("DELETE", "/api/practice/log/"+itoa(corrected.ID), nil).Code)
	assert.Empty(t, call[[]KeptLogEntry](c, "GET", "/api/practice/log", nil, 200))
	assert.Equal(t, http.StatusNoContent, c.do("POST", "/api/practice/log/"+itoa(corrected.ID)+"/restore", nil).Code)
	read := call[LogImport](c, "POST", "/api/practice/log/csv", LogText{table + "x2,2026-03-02T19:00:00Z,60,lick,Low lamp,,,,,,,,\nx3,never,60,lick,,,,,,,,,\n"}, 200)
	assert.Equal(t, [2]int{1, 1}, [2]int{read.Added, read.Known})
	require.Len(t, read.Faults, 1)
	assert.Equal(t, LogFault{Line: 4, Column: "began", Text: `"never" is no time; one is written as 2026-03-01T19:00:00+01:00`}, read.Faults[0])
	again := call[LogImport](c, "POST", "/api/practice/log/csv", LogText{table}, 200)
	assert.Equal(t, "0 entries were added, 1 there already, 0 lines could not be read", again.Text)
	assert.Contains(t, call[Problem](c, "POST", "/api/practice/log/csv", LogText{"no table"}, 422).Detail, `the column "began" is missing`)
}

// A plan for the minutes one has, kept as a session and gone on with.
func TestPlansAndSessions(t *testing.T) {
	c := application(t, nil)
	plan := call[PracticePlan](c, "GET", "/api/practice/plan?minutes=20", nil, 200)
	sum := 0
	for _, b := range plan.Blocks {
		sum += b.Minutes
		assert.NotEmpty(t, b.Why)
	}
	assert.Equal(t, 20, sum)
	assert.Contains(t, call[Problem](c, "GET", "/api/practice/plan?minutes=3", nil, 422).Detail, "a plan is for 5 to 120 minutes")
	began := time.Date(2026, 3, 1, 19, 0, 0, 0, time.FixedZone("", 3600))
	kept := call[KeptSession](c, "POST", "/api/sessions", document.Session{Minutes: 20, Blocks: plan.Blocks, Began: &began, Zone: "Europe/Berlin"}, 201)
	assert.Equal(t, "20 minutes", kept.Session.Name)
	path := "/api/sessions/" + itoa(kept.ID)
	on := kept.Session
	on.At = 1
	on.Blocks[0].Seconds = 120
	call[KeptSession](c, "PUT", path, ReplaceSession{Replacing{Version: 1}, on}, 200)
	on.Blocks[0].Seconds = 60
	assert.Equal(t, http.StatusPreconditionFailed, c.do("PUT", path, ReplaceSession{Replacing{Version: 1}, on}).Code, "another window has gone on")
	assert.Equal(t, 1, call[KeptSession](c, "GET", path, nil, 200).Session.At)
	listed := call[[]SessionEntry](c, "GET", "/api/sessions", nil, 200)
	require.Len(t, listed, 1)
	assert.Equal(t, began.UTC(), listed[0].Began.UTC())
	on.At = 99
	assert.Contains(t, call[Problem](c, "PUT", path, ReplaceSession{Replacing{Version: 2}, on}, 422).Detail, "the block that is on is 0 to")

	// What the player works towards comes first.
	assert.Equal(t, "lick", plan.Others[0].Kind)
	task := call[PhraseTask](c, "GET", "/api/practice/phrase", nil, 200)
	assert.NotEmpty(t, task.Text)
	phrase := call[PhraseAnswer](c, "POST", "/api/compute/practice/phrase", PhraseRequest{Lick: firstLick(c).Lick, Task: "begin off the beat"}, 200)
	assert.NotEmpty(t, phrase.Text)
	assert.Contains(t, call[Problem](c, "POST", "/api/compute/practice/phrase", PhraseRequest{Lick: firstLick(c).Lick, Task: "sing"}, 422).Detail, "sing")
	many := 3
	call[KeptSettings](c, "PUT", "/api/practice/settings", KeptSettings{Settings: document.PracticeSettings{NewCards: &many, GoalTempo: 120}}, 200)
	assert.Equal(t, 3, call[Deck](c, "GET", "/api/practice/deck", nil, 200).New)
	assert.Contains(t, call[Problem](c, "PUT", "/api/practice/settings", KeptSettings{Version: 1, Settings: document.PracticeSettings{GoalDay: "soon"}}, 422).Detail, "a day is written as")
	assert.True(t, strings.HasPrefix(plan.Blocks[0].Title, "Warm"))
	week := c.do("GET", "/api/practice/calendar?days=mon,thu&at=19:15&minutes=20", nil)
	assert.Contains(t, week.Body.String(), "RRULE:FREQ=WEEKLY;BYDAY=MO,TH")
	assert.Contains(t, call[Problem](c, "GET", "/api/practice/calendar?days=someday&at=19:15", nil, 422).Detail, "is no weekday")
	assert.Contains(t, call[Problem](c, "GET", "/api/practice/calendar?days=mon&at=late", nil, 422).Detail, "a time is written as 19:00")

	lick := firstLick(c).Lick
	lesson := call[Lesson](c, "POST", "/api/compute/practice/lesson", LessonRequest{Lick: lick, Goal: 80}, 200)
	assert.Equal(t, "the whole", lesson.Steps[len(lesson.Steps)-1].Title)
	assert.Equal(t, []int{40, 44, 48, 52, 56, 60, 64, 68, 72, 76, 80}, lesson.Tempos)
	over := TimedRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Degree: 3}
	timed := call[Timed](c, "POST", "/api/compute/practice/timed", over, 200)
	require.Len(t, timed.Targets, 9)
	assert.Equal(t, [3]any{0, "C7", "E"}, [3]any{timed.Targets[0].Tick, timed.Targets[0].Chord, timed.Targets[0].Note})
	assert.Equal(t, [3]any{1920, "F7", "A"}, [3]any{timed.Targets[1].Tick, timed.Targets[1].Chord, timed.Targets[1].Note})
	assert.Equal(t, 12, timed.Bars)
	// At 112 a beat of 480 ticks lasts 536 ms: 54 ticks are 60 ms.
	marks := call[TimedMarks](c, "POST", "/api/compute/practice/timed/mark", MarkTimedRequest{TimedRequest: over, Hits: []TimedHit{{0, 64}, {1920 + 56, 69}, {3000, 61}}}, 200)
	assert.Equal(t, "on", marks.Targets[0].Timing)
	assert.Equal(t, [2]any{"late", 63}, [2]any{marks.Targets[1].Timing, marks.Targets[1].OffMS})
	assert.Equal(t, []bool{true, true, false}, []bool{marks.Hits[0].Right, marks.Hits[1].Right, marks.Hits[2].Right})
	assert.Equal(t, "1 of 9 changes were met on time; 2 of 3 notes were asked for.", marks.Text)
	assert.Contains(t, call[Problem](c, "POST", "/api/compute/practice/timed", TimedRequest{PlayContext: PlayContext{Chart: ferry(c).Chart}, Position: "Q"}, 422).Detail, "Q")

	assert.Contains(t, call[Problem](c, "POST", "/api/compute/practice/lesson", LessonRequest{Lick: lick, Goal: 5}, 422).Detail, "a tempo is 20 to 400")
}
