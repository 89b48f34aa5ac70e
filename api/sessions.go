package api

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/document"
	"undaris/library/documents"
)

// KeptSession is a practice session as kept.
type KeptSession struct {
	Kept
	Session document.Session `json:"session"`
}

// SessionEntry is a session in a list.
type SessionEntry struct {
	Kept
	Name string `json:"name"`
	documents.SessionSummary
}

// ReplaceSession is a session in the place of a version.
type ReplaceSession struct {
	Replacing
	Session document.Session `json:"session"`
}

func (r ReplaceSession) content() document.Session { return r.Session }

func (s *server) registerSessions(api huma.API) {
	sessions := resource[document.Session, documents.SessionSummary, KeptSession, SessionEntry]{
		path: "sessions", kind: documents.Sessions, view: keptSession,
		entry: func(e documents.Entry[documents.SessionSummary]) SessionEntry {
			entry := SessionEntry{Kept: keptOf(e.Info), Name: e.Name, SessionSummary: e.Summary}
			entry.Damaged = e.Damaged
			return entry
		},
		texts: func(all []documents.Revision[document.Session]) []string {
			return each(all, func(r documents.Revision[document.Session]) string {
				return fmt.Sprintf("%d minutes in %s, %d done", r.Body.Minutes, counted(len(r.Body.Blocks), "block", "blocks"), r.Body.At)
			})
		},
	}
	serve(api, s, sessions)
	serveList(api, s, sessions)
	serveReplace[document.Session, documents.SessionSummary, KeptSession, SessionEntry, ReplaceSession](api, s, sessions, "session")
	creates(api, "/api/sessions", func(ctx context.Context, in *creation[document.Session]) (*tagged[KeptSession], error) {
		item, err := documents.Sessions.CreateOnce(ctx, s.library, in.UID, in.Body, 0)
		if err != nil {
			return nil, saveProblem("session", "", 0, err)
		}
		view, err := keptSession(ctx, item)
		return &tagged[KeptSession]{ETag: etag(item.Version), Body: view}, err
	}, described("sessions", "Keep a practice session or a template"))
}

func keptSession(_ context.Context, item documents.Item[document.Session]) (KeptSession, error) {
	return KeptSession{Kept: keptOf(item.Info), Session: item.Body}, nil
}
