package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/document"
	"undaris/library"
)

// bandIn asks for the band to be looked for in a take: the recording is the band's own sound, of kind file.
type bandIn struct {
	ID   string `path:"id" maxLength:"40"`
	Body struct {
		TakeID  uint    `json:"takeId"`
		Version int     `json:"version" minimum:"1"`
		Start   float64 `json:"start" minimum:"-60" maximum:"600" doc:"Seconds of the take's sound at which the band's begins"`
	}
}

// BandLeak is how much of the band is in a take.
type BandLeak struct {
	Found    bool    `json:"found"`
	Decibels float64 `json:"decibels" doc:"How loud it is beside all else in the take; 0 where none is found"`
	Text     string  `json:"text" doc:"The same in words; empty where none is found"`
}

// punchIn asks for some bars of a take to become what was just recorded.
type punchIn struct {
	ID   string `path:"id" maxLength:"40"`
	Body struct {
		TakeID  uint          `json:"takeId" doc:"The take that is mended"`
		Version int           `json:"version" minimum:"1" doc:"Its version; the one before stays among its versions"`
		From    int           `json:"from" minimum:"1" doc:"The first bar, from 1, on through the choruses"`
		To      int           `json:"to" minimum:"1" doc:"The last bar"`
		Take    document.Take `json:"take" doc:"How the recording was played: from which bar, at which speed, its start; its notes and sound left out"`
	}
}

// registerRecordingMends serves the recordings that mend a take: bars that are played again, and the band's own sound.
func (s *server) registerRecordingMends(api huma.API) {
	huma.Post(api, "/api/recordings/{id}/punch", func(ctx context.Context, in *punchIn) (*tagged[KeptTake], error) {
		before, err := library.Takes.Read(ctx, s.library, in.Body.TakeID)
		if err != nil {
			return nil, storeProblem("take", in.Body.TakeID, err)
		}
		done, err := s.recordings.Finish(ctx, in.ID)
		if err != nil {
			return nil, recordingProblem(err)
		}
		again := in.Body.Take
		again.Notes, again.Sound = document.TakeNotesOf(done.Notes), done.Sound
		punched, splice, err := before.Body.Punched(again, in.Body.From, in.Body.To)
		if err != nil {
			return nil, invalid("", err)
		}
		if punched.Sound != nil {
			sound, err := library.SpliceSound(s.sounds, *before.Body.Sound, *again.Sound, splice)
			if err != nil {
				return nil, recordingProblem(err)
			}
			punched.Sound = &sound
		}
		item, err := library.Takes.Replace(ctx, s.library, in.Body.TakeID, library.Save{Version: in.Body.Version, KeepBefore: true}, punched)
		if err != nil {
			return nil, saveProblem("take", "take", in.Body.TakeID, err)
		}
		if err := s.recordings.Discard(in.ID); err != nil {
			s.log.Error("a part of a recording could not be removed", "error", err)
		}
		view, err := keptTake(ctx, item)
		return &tagged[KeptTake]{ETag: etag(item.Version), Body: view}, err
	})
	huma.Post(api, "/api/recordings/{id}/leak", func(ctx context.Context, in *bandIn) (*body[BandLeak], error) {
		item, err := library.Takes.Read(ctx, s.library, in.Body.TakeID)
		if err != nil {
			return nil, storeProblem("take", in.Body.TakeID, err)
		}
		cleaned, found, err := s.recordings.BandLeak(ctx, in.ID, item.Body, in.Body.Start)
		if err != nil {
			return nil, recordingProblem(err)
		}
		if found.Found {
			if _, err := library.Takes.Replace(ctx, s.library, in.Body.TakeID, library.Save{Version: in.Body.Version, KeepBefore: true}, cleaned); err != nil {
				return nil, saveProblem("take", "take", in.Body.TakeID, err)
			}
		}
		answer := BandLeak{Found: found.Found}
		if found.Found {
			answer.Decibels, answer.Text = found.Decibels, cleaned.Remarks[len(cleaned.Remarks)-1]
		}
		return &body[BandLeak]{answer}, recordingProblem(s.recordings.Discard(in.ID))
	})
}
