package api

import (
	"context"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/choice"
	"undaris/core/practice"
	"undaris/core/practice/logbook"
	"undaris/format/document"
)

// PhraseTask is the limit that today's phrase is written within.
type PhraseTask struct {
	Name    string `json:"name"`
	Text    string `json:"text"`
	Written int    `json:"written" doc:"How many phrases the log has"`
}

// PhraseRequest asks whether a phrase keeps to a limit.
type PhraseRequest struct {
	Lick document.Lick `json:"lick"`
	Task string        `json:"task" doc:"The name of the limit"`
}

// PhraseAnswer says whether it does.
type PhraseAnswer struct {
	Kept bool   `json:"kept"`
	Text string `json:"text"`
}

// phraseQuery says which day it is where the player is.
type phraseQuery struct {
	Offset int `query:"offset" minimum:"-900" maximum:"900" doc:"How many minutes the player's clock is ahead of universal time"`
}

func (s *server) registerPhrases(api huma.API) {
	gets(api, "/api/practice/phrase", func(ctx context.Context, in *phraseQuery) (*body[PhraseTask], error) {
		entries, err := s.practice.LogFacts(ctx)
		if err != nil {
			return nil, err
		}
		written := 0
		for _, e := range entries {
			if e.Kind == logbook.Phrase {
				written++
			}
		}
		day := int(s.now().Add(time.Duration(in.Offset)*time.Minute).Unix() / (24 * 60 * 60))
		task := practice.TaskOfDay(day)
		return &body[PhraseTask]{PhraseTask{Name: task.Name, Text: task.Text, Written: written}}, nil
	})
	posts(api, "/api/compute/practice/phrase", func(_ context.Context, in *body[PhraseRequest]) (*body[PhraseAnswer], error) {
		task, err := choice.Find("a limit", practice.PhraseTasks, func(t practice.PhraseTask) string { return t.Name }, in.Body.Task)
		if err != nil {
			return nil, invalid("task", err)
		}
		l, err := in.Body.Lick.Core()
		if err != nil {
			return nil, invalid("lick", err)
		}
		kept, text := task.Keeps(l.WrittenFor(), l.Key(), l.Phrase)
		return &body[PhraseAnswer]{PhraseAnswer{kept, text}}, nil
	})
}
