package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/format/document"
	"undaris/library/documents"
	"undaris/library/recording"
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
	postsTagged(api, "/api/recordings/{id}/punch", func(ctx context.Context, in *punchIn) (*tagged[KeptTake], error) {
		before, err := documents.Takes.Read(ctx, s.library, in.Body.TakeID)
		if err != nil {
			return nil, storeProblem("take", in.Body.TakeID, err)
		}
		var item documents.Item[document.Take]
		err = s.recordings.MakeTake(ctx, in.ID, func(done recording.Finished) error {
			again := in.Body.Take
			again.Notes, again.Sound = document.TakeNotesOf(done.Notes), done.Sound
			punched, splice, err := before.Body.Punched(again, in.Body.From, in.Body.To)
			if err != nil {
				return invalid("", err)
			}
			if punched.Sound != nil {
				sound, err := recording.SpliceSound(s.sounds, *before.Body.Sound, *again.Sound, splice)
				if err != nil {
					return err
				}
				punched.Sound = &sound
			}
			item, err = documents.Takes.Replace(ctx, s.library, in.Body.TakeID, documents.Save{Version: in.Body.Version, KeepBefore: true}, punched)
			return saveProblem("take", "take", in.Body.TakeID, err)
		})
		if err != nil {
			return nil, recordingProblem(err)
		}
		view, err := keptTake(ctx, item)
		return &tagged[KeptTake]{ETag: etag(item.Version), Body: view}, err
	})
	huma.Post(api, "/api/recordings/{id}/leak", func(ctx context.Context, in *bandIn) (*body[BandLeak], error) {
		item, err := documents.Takes.Read(ctx, s.library, in.Body.TakeID)
		if err != nil {
			return nil, storeProblem("take", in.Body.TakeID, err)
		}
		cleaned, found, err := s.recordings.BandLeak(ctx, in.ID, item.Body, in.Body.Start)
		if err != nil {
			return nil, recordingProblem(err)
		}
		if found.Found {
			if _, err := documents.Takes.Replace(ctx, s.library, in.Body.TakeID, documents.Save{Version: in.Body.Version, KeepBefore: true}, cleaned); err != nil {
				return nil, saveProblem("take", "take", in.Body.TakeID, err)
			}
		}
		answer := BandLeak{Found: found.Found}
		if found.Found {
			answer.Decibels, answer.Text = found.Decibels, cleaned.Remarks[len(cleaned.Remarks)-1]
		}
		return &body[BandLeak]{answer}, recordingProblem(s.recordings.Discard(ctx, in.ID))
	})
}
