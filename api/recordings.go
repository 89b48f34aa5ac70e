package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/listen"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/library/pieces"
	"undaris/library/recording"
	"undaris/store"
)

// BeginRecording asks for a recording to begin.
type BeginRecording struct {
	Kind    string        `json:"kind" enum:"sound,file,keys,listen,listen-keys" doc:"Samples of 16 bits as they are played, the bytes of a WAV, FLAC or MIDI file, or what a MIDI instrument sends; listen and listen-keys are samples and keys that are only heard and not kept"`
	Rate    int           `json:"rate,omitempty" doc:"Samples a second, 8000 to 96000, where it is sound"`
	ChartID uint          `json:"chartId"`
	Take    document.Take `json:"take" doc:"The take that becomes of it, its notes left out"`
}

// RecordingBegun is a recording that has begun.
type RecordingBegun struct {
	ID      string  `json:"id"`
	Name    string  `json:"name"`
	Seconds float64 `json:"seconds" doc:"How much sound has come; 0 where that is not known"`
	Bytes   int64   `json:"bytes"`
	Began   string  `json:"began"`
}

// HeardSoFar is what a piece of sound has brought.
type HeardSoFar struct {
	Have     int64      `json:"have" doc:"How many bytes have come"`
	Strokes  []LiveNote `json:"strokes" doc:"Notes that have begun since the last piece"`
	Sounding *LiveNote  `json:"sounding,omitempty" doc:"What sounds now; left out for nothing"`
	Level    float64    `json:"level" doc:"Of the last 10 ms, in dB below full scale"`
	Clipped  int        `json:"clipped" doc:"Samples so far that were as loud as can be"`
}

// LiveNote is a note as it is heard while it is played.
type LiveNote struct {
	MIDI  int     `json:"midi"`
	Cents float64 `json:"cents" doc:"From that semitone"`
	Note  string  `json:"note" doc:"Its name, sharps as they come" example:"F#4"`
	Onset float64 `json:"onset,omitempty" doc:"Seconds from the beginning"`
	// Places are where it lies on the neck that is played, the highest string first.
	Places []document.Place `json:"places"`
}

// HeardTakeNote is a note that was heard in a recording that goes on, and what it comes to.
type HeardTakeNote struct {
	Note    document.TakeNote `json:"note" doc:"Without its curve"`
	Arrives LiveArrival       `json:"arrives" doc:"The pitch it comes to: of a bend its goal, of others the note itself"`
}

// LiveArrival is the pitch that a note comes to, and when.
type LiveArrival struct {
	MIDI    int     `json:"midi"`
	Seconds float64 `json:"seconds" doc:"From the beginning of the sound"`
}

func heardTakeNotes(notes []listen.Note) []HeardTakeNote {
	written := document.TakeNotesOf(notes)
	out := make([]HeardTakeNote, len(notes))
	for n, note := range notes {
		written[n].Curve = nil
		semitone, seconds := note.Arrival()
		out[n] = HeardTakeNote{Note: written[n], Arrives: LiveArrival{MIDI: semitone, Seconds: seconds}}
	}
	return out
}

// KeyEvent is what a MIDI instrument sends.
type KeyEvent struct {
	Seconds  float64 `json:"seconds" minimum:"0" maximum:"3600" doc:"From the beginning"`
	Channel  int     `json:"channel" minimum:"0" maximum:"15"`
	Key      int     `json:"key,omitempty" minimum:"0" maximum:"127"`
	Velocity int     `json:"velocity,omitempty" minimum:"0" maximum:"127" doc:"0 lets the key go"`
	Wheel    bool    `json:"wheel,omitempty"`
	Cents    float64 `json:"cents,omitempty" minimum:"-9600" maximum:"9600" doc:"Where the wheel stands"`
}

type byTextID struct {
	ID string `path:"id" maxLength:"40"`
}

type soundPiece struct {
	ID      string  `path:"id" maxLength:"40"`
	At      int64   `query:"at" minimum:"0" doc:"How many bytes came before"`
	Start   float64 `query:"start" doc:"Seconds of the sound at which the tune begins, as soon as it is known"`
	Started bool    `query:"started" doc:"Says that start is given"`
	RawBody []byte  `contentType:"application/octet-stream"`
}

// finished says how a recording is to be kept.
type finishRecording struct {
	ID      string `path:"id" maxLength:"40"`
	AsBegun bool   `query:"asBegun" doc:"Keep it as it was begun: over that tune at that tempo, from that start; for one that was cut off"`
	Body    struct {
		ChartID uint          `json:"chartId"`
		Take    document.Take `json:"take" doc:"The take, its notes and sound left out"`
		// FindStart has bar 1 looked for in what was played.
		FindStart bool `json:"findStart,omitempty" doc:"Look for bar 1 in what was played, instead of taking the take's start"`
		// Passes are how the band went through the tune meanwhile.
		Passes []document.PlayedPass `json:"passes,omitempty" maxItems:"200" doc:"How the band went through the tune meanwhile: where the key or the tempo changes a take of its own begins; left out for one chorus as the take says"`
	}
}

func (s *server) registerRecordings(api huma.API) {
	posts(api, "/api/recordings", func(_ context.Context, in *body[BeginRecording]) (*body[RecordingBegun], error) {
		begun, err := s.recordings.Begin(in.Body.Kind, in.Body.Rate, in.Body.Take)
		return &body[RecordingBegun]{begunOf(begun)}, recordingProblem(err)
	}, created)
	gets(api, "/api/recordings", func(_ context.Context, _ *struct{}) (*body[[]RecordingBegun], error) {
		all, err := s.recordings.Unfinished()
		return &body[[]RecordingBegun]{each(all, begunOf)}, recordingProblem(err)
	})
	huma.Post(api, "/api/recordings/{id}/sound", func(ctx context.Context, in *soundPiece) (*body[HeardSoFar], error) {
		var start *float64
		if in.Started {
			start = &in.Start
		}
		heard, err := s.recordings.Hear(ctx, in.ID, in.At, in.RawBody, start)
		return heardSoFar(heard, err)
	})
	huma.Post(api, "/api/recordings/{id}/keys", func(ctx context.Context, in *struct {
		ID   string     `path:"id" maxLength:"40"`
		At   int64      `query:"at" minimum:"0"`
		Body []KeyEvent `maxItems:"20000"`
	}) (*body[HeardSoFar], error) {
		events := make([]listen.KeyEvent, len(in.Body))
		for n, e := range in.Body {
			events[n] = listen.KeyEvent(e)
		}
		heard, err := s.recordings.HearKeys(ctx, in.ID, in.At, events)
		return heardSoFar(heard, err)
	})
	huma.Get(api, "/api/recordings/{id}/notes", func(ctx context.Context, in *struct {
		ID   string  `path:"id" maxLength:"40"`
		From float64 `query:"from" minimum:"0" doc:"Seconds of the sound"`
		To   float64 `query:"to" minimum:"0" maximum:"3600" default:"3600" doc:"Seconds of the sound"`
	}) (*body[[]HeardTakeNote], error) {
		notes, err := s.recordings.SoFar(ctx, in.ID, in.From, in.To)
		if err != nil {
			return nil, recordingProblem(err)
		}
		return &body[[]HeardTakeNote]{heardTakeNotes(notes)}, nil
	})
	postsTagged(api, "/api/recordings/{id}/take", func(ctx context.Context, in *finishRecording) (*tagged[KeptTake], error) {
		if err := s.needsChart(ctx, in.Body.ChartID); err != nil {
			return nil, err
		}
		var item documents.Item[document.Take]
		err := s.recordings.MakeTake(ctx, in.ID, func(done recording.Finished) (err error) {
			item, err = s.keepTakes(ctx, in, done)
			return err
		})
		if err != nil {
			return nil, recordingProblem(err)
		}
		view, err := keptTake(ctx, item)
		return &tagged[KeptTake]{ETag: etag(item.Version), Body: view}, err
	}, created)
	huma.Delete(api, "/api/recordings/{id}", func(ctx context.Context, in *byTextID) (*struct{}, error) {
		return nil, recordingProblem(s.recordings.Discard(ctx, in.ID))
	})
}

// keepTakes keeps the takes that a recording becomes, one for each time the key or the tempo changed, all or none; the
// first of them is returned.
func (s *server) keepTakes(ctx context.Context, in *finishRecording, done recording.Finished) (documents.Item[document.Take], error) {
	var item documents.Item[document.Take]
	kept := in.Body.Take
	if in.AsBegun && done.Draft.Name != "" {
		kept = done.Draft
	}
	kept = kept.WithRemarks(done.Remarks...)
	kept.Notes, kept.Sound = document.TakeNotesOf(done.Notes), done.Sound
	var err error
	if in.Body.FindStart {
		if kept, err = kept.WithBarOneFound(); err != nil {
			return item, invalid("take", err)
		}
	}
	passes := in.Body.Passes
	if in.AsBegun {
		passes = nil
	}
	all, err := kept.ByPasses(passes)
	if err != nil {
		return item, invalid("", err)
	}
	for _, one := range all {
		if _, err := one.Checked(); err != nil {
			return item, invalid("take", err)
		}
	}
	err = s.library.Together(ctx, func(l *documents.Library) error {
		for n := len(all) - 1; n >= 0; n-- { // the first of them is the answer
			if item, err = documents.Takes.Create(ctx, l, all[n], in.Body.ChartID); err != nil {
				return err
			}
		}
		return nil
	})
	return item, saveProblem("take", "take", 0, err)
}

// heardSoFar says what was heard in a piece.
func heardSoFar(heard recording.Heard, err error) (*body[HeardSoFar], error) {
	if err != nil {
		return nil, recordingProblem(err)
	}
	out := HeardSoFar{Have: heard.Have, Strokes: []LiveNote{}, Level: heard.Sounding.Level, Clipped: heard.Clipped}
	for _, stroke := range heard.Strokes {
		one := liveNote(stroke.Pitch, heard.Instrument)
		one.Onset = stroke.Seconds
		out.Strokes = append(out.Strokes, one)
	}
	if heard.Sounding.Voiced {
		one := liveNote(heard.Sounding.Pitch, heard.Instrument)
		out.Sounding = &one
	}
	return &body[HeardSoFar]{out}, nil
}

func begunOf(r recording.Recording) RecordingBegun {
	return RecordingBegun{ID: r.ID, Name: r.Draft.Name, Seconds: r.Seconds, Bytes: r.Bytes, Began: r.Began.UTC().Format("2006-01-02T15:04:05Z")}
}

func liveNote(p float64, i neck.Instrument) LiveNote {
	n := listen.Note{Pitch: p}
	midi := pitch.MIDI(n.MIDI())
	live := LiveNote{MIDI: int(midi), Cents: 100 * (p - float64(midi)), Note: midi.Named(), Places: []document.Place{}}
	for s, open := range i.Open {
		if at := (neck.Place{String: s + 1, Fret: int(midi - open)}); i.Has(at) {
			live.Places = append(live.Places, document.Place(at))
		}
	}
	return live
}

// recordingProblem words what can go wrong with a recording.
func recordingProblem(err error) error {
	var gap *pieces.GapError
	var full *pieces.FullError
	var input *pieces.InputError
	switch {
	case err == nil:
		return nil
	case errors.Is(err, store.ErrNotFound):
		return problem(http.StatusNotFound, "there is no such recording any more")
	case errors.As(err, &gap):
		return problem(http.StatusConflict, gap.Error(), FieldProblem{Field: "query.at", Message: gap.Error(), Value: fmt.Sprint(gap.Have)})
	case errors.As(err, &full):
		return problem(http.StatusInsufficientStorage, full.Error())
	case errors.As(err, &input):
		return problem(http.StatusUnprocessableEntity, input.Detail, FieldProblem{Field: "body", Message: input.Detail})
	}
	return err
}
