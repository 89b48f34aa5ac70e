package api

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"undaris/core/practice/logbook"
	"undaris/format/logcsv"
	keptpractice "undaris/library/practice"
	"undaris/store"
)

// LogEntry is one entry of the practice log.
type LogEntry struct {
	Began    time.Time `json:"began" doc:"With the offset of where it was played, as in 2026-03-01T19:00:00+01:00"`
	Seconds  int       `json:"seconds"`
	Kind     string    `json:"kind" enum:"warm-up,cards,lick,exercise,tune,free,phrase,other"`
	Item     string    `json:"item,omitempty" doc:"What was practised, by its name"`
	ItemID   uint      `json:"itemId,omitempty" doc:"The id of the lick or the tune"`
	Key      string    `json:"key,omitempty"`
	Position string    `json:"position,omitempty"`
	Tempo    int       `json:"tempo,omitempty" doc:"That which was reached"`
	Goal     int       `json:"goal,omitempty" doc:"The tempo that is wanted"`
	Right    int       `json:"right,omitempty" doc:"How many cards were right"`
	Of       int       `json:"of,omitempty" doc:"How many cards were asked"`
	Went     string    `json:"went,omitempty" enum:"rough,fair,clean" doc:"How it went; left out where nobody said"`
	Note     string    `json:"note,omitempty"`
}

// NewLogEntry is an entry to be added. One that has a name of its own is added once, however
// often it is sent.
type NewLogEntry struct {
	UID string `json:"uid,omitempty" maxLength:"64" doc:"A name for the entry; left out for a new one"`
	LogEntry
}

// KeptLogEntry is an entry as kept.
type KeptLogEntry struct {
	ID  uint   `json:"id"`
	UID string `json:"uid"`
	// Damaged says which parts cannot be read, and have a stand-in.
	Damaged string `json:"damaged,omitempty" doc:"What of it cannot be read and has a stand-in; left out where nothing is damaged"`
	LogEntry
}

// LogText is a log as a text.
type LogText struct {
	Text string `json:"text" doc:"CSV, as the log is written"`
}

// LogImport is what came of a log that was read.
type LogImport struct {
	Added  int        `json:"added"`
	Known  int        `json:"known" doc:"How many entries were there already"`
	Faults []LogFault `json:"faults" doc:"The lines that could not be read"`
	Text   string     `json:"text" doc:"All of it in one sentence"`
}

// LogFault is a line that could not be read.
type LogFault struct {
	Line   int    `json:"line" doc:"From 1, the heading among them"`
	Column string `json:"column,omitempty"`
	Text   string `json:"text"`
}

func (e NewLogEntry) entry() keptpractice.LogEntry {
	uid := e.UID
	if uid == "" {
		uid = uuid.NewString()
	}
	return keptpractice.LogEntry{UID: uid, DocumentID: e.ItemID, Entry: logbook.Entry{
		Began: e.Began, Seconds: e.Seconds, Kind: logbook.Kind(e.Kind), Item: e.Item, Key: e.Key, Position: e.Position,
		Tempo: e.Tempo, Goal: e.Goal, Right: e.Right, Of: e.Of, Went: logbook.Went(e.Went), Note: e.Note,
	}}
}

func logEntryView(e keptpractice.LogEntry) KeptLogEntry {
	return KeptLogEntry{ID: e.ID, UID: e.UID, Damaged: e.Damaged, LogEntry: LogEntry{
		Began: e.Began, Seconds: e.Seconds, Kind: string(e.Kind), Item: e.Item, ItemID: e.DocumentID, Key: e.Key, Position: e.Position,
		Tempo: e.Tempo, Goal: e.Goal, Right: e.Right, Of: e.Of, Went: string(e.Went), Note: e.Note,
	}}
}

func (s *server) registerLog(api huma.API) {
	gets(api, "/api/practice/log", func(ctx context.Context, _ *struct{}) (*body[[]KeptLogEntry], error) {
		all, err := s.practice.Log(ctx)
		return &body[[]KeptLogEntry]{each(all, logEntryView)}, err
	})
	posts(api, "/api/practice/log", func(ctx context.Context, in *body[NewLogEntry]) (*body[KeptLogEntry], error) {
		entry := in.Body.entry()
		added, err := s.practice.AddLog(ctx, []keptpractice.LogEntry{entry})
		if err != nil {
			return nil, logProblem(0, err)
		}
		if len(added) == 0 { // it was sent before
			return &body[KeptLogEntry]{logEntryView(entry)}, nil
		}
		return &body[KeptLogEntry]{logEntryView(added[0])}, nil
	}, created)
	huma.Put(api, "/api/practice/log/{id}", func(ctx context.Context, in *struct {
		ID   uint `path:"id"`
		Body LogEntry
	}) (*body[KeptLogEntry], error) {
		corrected, err := s.practice.CorrectLog(ctx, in.ID, NewLogEntry{LogEntry: in.Body}.entry())
		if err != nil {
			return nil, logProblem(in.ID, err)
		}
		return &body[KeptLogEntry]{logEntryView(corrected)}, nil
	})
	huma.Delete(api, "/api/practice/log/{id}", func(ctx context.Context, in *byID) (*struct{}, error) {
		return nil, logProblem(in.ID, s.practice.RemoveLog(ctx, in.ID))
	})
	huma.Post(api, "/api/practice/log/{id}/restore", func(ctx context.Context, in *byID) (*struct{}, error) {
		return nil, logProblem(in.ID, s.practice.RestoreLog(ctx, in.ID))
	})
	huma.Get(api, logTextPath, func(ctx context.Context, _ *struct{}) (*file, error) {
		all, err := s.practice.Log(ctx)
		if err != nil {
			return nil, err
		}
		lines := each(all, func(e keptpractice.LogEntry) logcsv.Line { return logcsv.Line{ID: e.UID, Entry: e.Entry} })
		out := bytes.Buffer{}
		err = logcsv.Write(&out, lines)
		return &file{Type: "text/csv; charset=utf-8", Disposition: attached("practice log.csv"), Body: out.Bytes()}, err
	}, fileAnswer("text/csv"))
	posts(api, logTextPath, func(ctx context.Context, in *body[LogText]) (*body[LogImport], error) {
		lines, faults, err := logcsv.Read([]byte(in.Body.Text))
		if err != nil {
			return nil, invalid("text", err)
		}
		entries := each(lines, func(l logcsv.Line) keptpractice.LogEntry {
			uid := l.ID
			if uid == "" { // a line without a name is the same line when it is read again
				uid = uuid.NewSHA1(uuid.NameSpaceOID, fmt.Appendf(nil, "%s|%s|%s|%d", l.Began.UTC().Format(time.RFC3339), l.Kind, l.Item, l.Seconds)).String()
			}
			return keptpractice.LogEntry{UID: uid, Entry: l.Entry}
		})
		added, err := s.practice.AddLog(ctx, entries)
		if err != nil {
			return nil, logProblem(0, err)
		}
		out := LogImport{Added: len(added), Known: len(entries) - len(added), Faults: []LogFault{}}
		for _, f := range faults {
			out.Faults = append(out.Faults, LogFault(f))
		}
		out.Text = fmt.Sprintf("%s, %d there already, %s", counted(out.Added, "entry was added", "entries were added"), out.Known, counted(len(faults), "line could not be read", "lines could not be read"))
		return &body[LogImport]{out}, nil
	}, func(o *huma.Operation) { o.MaxBodyBytes = maxImport })
}

// logProblem is the problem for what the log refused.
func logProblem(id uint, err error) error {
	var field *logbook.FieldError
	var stale *store.StaleError
	switch {
	case errors.As(err, &field):
		return problem(http.StatusUnprocessableEntity, field.Detail, FieldProblem{Field: "body." + field.Field, Message: field.Detail})
	case errors.As(err, &stale):
		return problem(http.StatusConflict, "this entry was corrected or removed in between; the log shows what stands now")
	}
	return storeProblem("log entry", id, err)
}

// logTextPath is where the log goes out and comes in as CSV.
const logTextPath = "/api/practice/log/csv"
