package api

import (
	"strings"

	"github.com/danielgtaylor/huma/v2"
)

// summaries say what each operation is for, by method and path. Those of kept documents are
// given where they are served (resource.go).
var summaries = map[string]string{
	"GET /api/about":                           "What this server is",
	"GET /api/backups":                         "List the backups, and say where data and backups lie",
	"POST /api/backups":                        "Make a backup",
	"POST /api/backups/{name}/restore":         "Put a backup in the place of everything that is kept, which becomes a backup itself",
	"GET /api/bundle":                          "Everything that is kept, or one tune with what belongs to it, as a bundle",
	"POST /api/bundles":                        "Begin to send a bundle",
	"POST /api/bundles/{id}/piece":             "Take in the next piece of a bundle",
	"GET /api/bundles/{id}":                    "Say what reading a bundle would bring",
	"POST /api/bundles/{id}/import":            "Read a bundle, after a backup",
	"DELETE /api/bundles/{id}":                 "Throw a bundle away that was sent",
	"GET /api/access":                          "How other devices reach this machine, and which were let in",
	"DELETE /api/access/{id}":                  "End the session of a device",
	"POST /api/recordings":                     "Begin to record a take",
	"GET /api/recordings":                      "List the recordings that were begun and not ended",
	"POST /api/recordings/{id}/sound":          "Take in the next piece of a recording, and say what is heard",
	"POST /api/recordings/{id}/keys":           "Take in what a MIDI instrument has sent",
	"GET /api/recordings/{id}/notes":           "List what was played in a recording until now",
	"POST /api/recordings/{id}/punch":          "End a recording, and put its bars in the place of those of a take",
	"POST /api/recordings/{id}/leak":           "Look for the band in the sound of a take, and hear it again without",
	"POST /api/recordings/{id}/take":           "End a recording and keep it as a take",
	"DELETE /api/recordings/{id}":              "End a recording and throw it away",
	"POST /api/compute/take/standin/sound":     "Have the simulated player play a line, as WAV",
	"POST /api/compute/take/verdict":           "Judge a take that is not kept",
	"POST /api/compute/take/standin/keys":      "Have the simulated player play a line, as a MIDI instrument sends it",
	"GET /api/choices":                         "What a player may choose from, with bounds and defaults",
	"POST /api/compute/chart":                  "Read a chart, with an edit made",
	"POST /api/compute/chart/scheme":           "Make a new chart from a scheme",
	"POST /api/compute/chart/turnarounds":      "List the turnarounds of a key and meter",
	"POST /api/compute/chart/import":           "Read a chart from a file or a text, without keeping it",
	"POST /api/compute/chart/map":              "The chords of a tune on the neck, in every position",
	"POST /api/compute/chart/position":         "The position that is meant, though it was kept for another key or instrument",
	"POST /api/compute/chord":                  "One chord in a position, with what lies over it",
	"POST /api/compute/change":                 "A change: its moves, what defines it, what the box lacks",
	"POST /api/compute/change/nearby":          "What lies near a place of the neck at a change",
	"POST /api/compute/change/approaches":      "The approaches into a target, and the chromatic runs on from it",
	"POST /api/compute/change/path":            "A target for every change of the chorus, by one strategy or by all",
	"POST /api/compute/change/functions":       "What a few notes are over every chord, as they lie and bent",
	"POST /api/compute/change/run":             "When a run must start to land in time, and how fast it is",
	"POST /api/compute/line":                   "Lead a lick over a change",
	"POST /api/compute/lick":                   "Read a lick, with an edit made",
	"POST /api/compute/lick/import":            "Read a lick from a file or a text, without keeping it",
	"POST /api/compute/lick/moves":             "A lick over every chord, in three ways",
	"POST /api/compute/lick/variants":          "A lick in other octaves, keys and positions",
	"POST /api/compute/lick/join":              "Join two licks with a run between",
	"POST /api/compute/lick/split":             "Cut a lick into one for each of its chords",
	"POST /api/compute/lick/verdict":           "Judge a lick over its chords, with repairs",
	"POST /api/compute/solo/etude":             "Join licks and exercises over the form of a tune",
	"POST /api/compute/exercise":               "Write an exercise out over a tune",
	"POST /api/compute/exercise/file/{format}": "An exercise as a file",
	"POST /api/compute/solo":                   "Plan choruses",
	"POST /api/compute/solo/whole":             "Plan several choruses as one solo",
	"POST /api/compute/solo/chorus":            "Read a chorus, with an edit made",
	"POST /api/compute/solo/line":              "The line of several choruses, one after the other",
	"POST /api/compute/solo/transposed":        "A solo as it lies after its tune or its neck has changed",
	"POST /api/compute/band/performance":       "What sounds, from a bar on",
	"POST /api/compute/band/pass":              "What sounds in the next pass of a routine",
	"POST /api/compute/band/routines":          "The routines over a tune, with what each segment plays",
	"POST /api/compute/band/midi":              "A routine as a MIDI file",
	"POST /api/compute/practice/question":      "Ask a question about a card",
	"POST /api/compute/practice/lesson":        "Cut a lick into parts to be learned",
	"POST /api/compute/practice/timed":         "What is to be played over a chorus: one tone at each change, and which notes",
	"POST /api/compute/practice/timed/mark":    "Mark what was played over a chorus",
	"POST /api/compute/practice/mark":          "Mark an answer without keeping it",
	"GET /api/practice/deck":                   "The cards that are due, and the new ones that may come",
	"POST /api/practice/reviews":               "Mark an answer and keep it: its card is scheduled",
	"POST /api/practice/reviews/{id}/takeback": "Take the last answer to a card back",
	"GET /api/practice/plan":                   "A plan for the minutes one has",
	"GET /api/practice/pictures":               "What the log and the cards say",
	"GET /api/practice/phrase":                 "The limit that today's phrase is written within",
	"POST /api/compute/practice/phrase":        "Whether a phrase keeps to a limit",
	"GET /api/practice/calendar":               "The practice week as iCalendar",
	"GET /api/practice/settings":               "How the player practises, and what for",
	"PUT /api/practice/settings":               "Replace how the player practises",
	"GET /api/practice/log":                    "The practice log, the latest entry first",
	"POST /api/practice/log":                   "Add an entry to the practice log",
	"PUT /api/practice/log/{id}":               "Correct an entry; the one before is kept",
	"DELETE /api/practice/log/{id}":            "Take an entry out of the log; it can be restored",
	"POST /api/practice/log/{id}/restore":      "Bring an entry of the log back",
	"GET /api/practice/log/csv":                "The practice log as CSV",
	"POST /api/practice/log/csv":               "Read a practice log from CSV",
	"POST /api/licks/find":                     "Find licks by what they are",
	"GET /api/charts/{id}/sheets/{what}":       "A practice sheet, a map or blank necks, to be printed",
	"GET /api/charts/{id}/lesson":              "Chosen parts of a tune as one sheet, to be printed",
}

// describe gives an operation that has none the tag of its part of the API, and its summary.
func describe(_ *huma.OpenAPI, o *huma.Operation) {
	if summary, ok := summaries[o.Method+" "+o.Path]; ok {
		o.Summary = summary
	}
	if len(o.Tags) > 0 {
		return
	}
	parts := strings.Split(strings.TrimPrefix(o.Path, "/api/"), "/")
	if parts[0] == "compute" && len(parts) > 1 {
		o.Tags = []string{"compute " + parts[1]}
		return
	}
	o.Tags = parts[:1]
}
