package api

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"

	"undaris/format/bundle"
	"undaris/library/backup"
	bundles "undaris/library/bundle"
	"undaris/library/documents"
	"undaris/library/pieces"
	"undaris/store"
)

// BundleBegun is a bundle that is about to be sent.
type BundleBegun struct {
	ID string `json:"id"`
}

// BundleSoFar is how much of a bundle has come.
type BundleSoFar struct {
	Have int64 `json:"have" doc:"How many bytes have come"`
}

// BundleItem is a document of a bundle and how it stands to what is kept.
type BundleItem struct {
	Kind  string    `json:"kind"`
	Name  string    `json:"name"`
	State string    `json:"state" enum:"new,same,differs"`
	Saved time.Time `json:"saved" doc:"When it was saved last, in the bundle"`
	// Here is left out of what is new.
	Here *time.Time `json:"here,omitempty" doc:"When the one that is kept here was saved last"`
}

// BundleCount says how many documents of a kind a bundle has.
type BundleCount struct {
	Kind    string `json:"kind"`
	New     int    `json:"new"`
	Same    int    `json:"same"`
	Differs int    `json:"differs"`
}

// BundlePreview says what reading a bundle would bring.
type BundlePreview struct {
	Made       time.Time     `json:"made"`
	By         string        `json:"by"`
	About      string        `json:"about"`
	Whole      bool          `json:"whole" doc:"It holds everything, and can replace everything"`
	Counts     []BundleCount `json:"counts" doc:"By kind, in a fixed order"`
	Items      []BundleItem  `json:"items" doc:"Those that are not the same, at most 500"`
	Answers    int           `json:"answers" doc:"Answers to cards that are not here"`
	Entries    int           `json:"entries" doc:"Entries of the log that are not here"`
	Settings   []string      `json:"settings" doc:"Settings that differ"`
	Sounds     int           `json:"sounds"`
	SoundBytes int64         `json:"soundBytes"`
	Remarks    []string      `json:"remarks"`
}

// ImportBundle says how a bundle is to be read.
type ImportBundle struct {
	Replace   bool   `json:"replace,omitempty" doc:"Remove everything that is here first"`
	Differing string `json:"differing,omitempty" enum:"mine,theirs,both" doc:"What becomes of documents that differ: mine stays, theirs takes its place with mine among its versions, or both are kept; left out for mine"`
}

// BundleImported says what reading a bundle has brought.
type BundleImported struct {
	New      int    `json:"new"`
	Same     int    `json:"same"`
	Replaced int    `json:"replaced"`
	KeptBoth int    `json:"keptBoth"`
	KeptMine int    `json:"keptMine"`
	Answers  int    `json:"answers"`
	Entries  int    `json:"entries"`
	Sounds   int    `json:"sounds"`
	Before   Backup `json:"before" doc:"The backup of what was there before; restored, it takes this back"`
}

// mostItems is how many documents a preview lists by name.
const mostItems = 500

func previewOf(p bundles.Preview) BundlePreview {
	out := BundlePreview{
		Made: p.Made, By: p.By, About: p.About, Whole: p.Whole, Counts: []BundleCount{}, Items: []BundleItem{}, Answers: p.NewAnswers, Entries: p.NewEntries,
		Settings: append([]string{}, p.Settings...), Sounds: p.Sounds, SoundBytes: p.SoundBytes, Remarks: append([]string{}, p.Remarks...),
	}
	for _, item := range p.Items {
		if len(out.Counts) == 0 || out.Counts[len(out.Counts)-1].Kind != string(item.Kind) {
			out.Counts = append(out.Counts, BundleCount{Kind: string(item.Kind)})
		}
		count := &out.Counts[len(out.Counts)-1]
		switch item.State {
		case bundles.StateSame:
			count.Same++
			continue
		case bundles.StateNew:
			count.New++
		case bundles.StateDiffers:
			count.Differs++
		}
		if len(out.Items) == mostItems {
			continue
		}
		one := BundleItem{Kind: string(item.Kind), Name: item.Name, State: string(item.State), Saved: item.Saved}
		if !item.Here.IsZero() {
			one.Here = &item.Here
		}
		out.Items = append(out.Items, one)
	}
	return out
}

// bundleProblem words what can be wrong with a bundle.
func bundleProblem(err error) error {
	var wrong *bundle.Error
	var gap *pieces.GapError
	var full *pieces.FullError
	var input *pieces.InputError
	switch {
	case errors.As(err, &wrong):
		return problem(http.StatusUnprocessableEntity, wrong.Error(), FieldProblem{Field: "bundle", Message: wrong.Error()})
	case errors.As(err, &input):
		return problem(http.StatusUnprocessableEntity, input.Detail)
	case errors.Is(err, bundles.ErrPartial):
		return problem(http.StatusUnprocessableEntity, err.Error(), FieldProblem{Field: "body.replace", Message: err.Error()})
	case errors.Is(err, store.ErrNotFound):
		return problem(http.StatusNotFound, "this bundle was not sent, or is read already: choose it again")
	case errors.As(err, &gap):
		return problem(http.StatusConflict, gap.Error(), FieldProblem{Field: "query.at", Message: gap.Error(), Value: fmt.Sprint(gap.Have)})
	case errors.As(err, &full):
		return problem(http.StatusInsufficientStorage, err.Error())
	}
	return err
}

type exportBundle struct {
	Tune     uint `query:"tune" doc:"One tune with all that belongs to it; left out for everything"`
	Versions bool `query:"versions" default:"true" doc:"With earlier versions and, of everything, what is deleted"`
	Takes    bool `query:"takes" default:"true" doc:"With the recordings"`
}

func (s *server) registerBundles(api huma.API) {
	huma.Get(api, "/api/bundle", func(ctx context.Context, in *exportBundle) (*huma.StreamResponse, error) {
		name := "undaris-" + s.now().Format("2006-01-02") + ".zip"
		if in.Tune != 0 {
			tune, err := documents.Charts.Read(ctx, s.library, in.Tune)
			if err != nil {
				return nil, storeProblem("chart", in.Tune, err)
			}
			name = tune.Name + ".zip"
		}
		file, err := s.uploads.TempFile()
		if err != nil {
			return nil, err
		}
		remove := func() { _ = file.Close(); _ = os.Remove(file.Name()) }
		order := bundles.Order{ChartID: in.Tune, Versions: in.Versions, WithoutTakes: !in.Takes}
		if _, err := bundles.Write(ctx, s.store, file, s.sounds, order, s.now(), "undaris "+s.version); err != nil {
			remove()
			return nil, err
		}
		return &huma.StreamResponse{Body: func(answer huma.Context) {
			defer remove()
			answer.SetHeader("Content-Type", "application/zip")
			answer.SetHeader("Content-Disposition", attached(name))
			if size, err := file.Seek(0, io.SeekEnd); err == nil {
				answer.SetHeader("Content-Length", fmt.Sprint(size))
			}
			if _, err := file.Seek(0, io.SeekStart); err != nil {
				return
			}
			sendSlowly(humagin.Unwrap(answer).Writer, file)
		}}, nil
	}, fileAnswer("application/zip"))
	huma.Post(api, "/api/bundles", func(context.Context, *struct{}) (*body[BundleBegun], error) {
		id, err := s.uploads.Begin(s.now())
		return &body[BundleBegun]{BundleBegun{ID: id}}, err
	}, created)
	huma.Post(api, "/api/bundles/{id}/piece", func(_ context.Context, in *struct {
		ID      string `path:"id" maxLength:"40"`
		At      int64  `query:"at" minimum:"0" doc:"How many bytes came before"`
		RawBody []byte `contentType:"application/octet-stream"`
	}) (*body[BundleSoFar], error) {
		have, err := s.uploads.Add(in.ID, in.At, in.RawBody)
		return &body[BundleSoFar]{BundleSoFar{Have: have}}, bundleProblem(err)
	})
	gets(api, "/api/bundles/{id}", func(ctx context.Context, in *byTextID) (*body[BundlePreview], error) {
		b, opened, err := s.uploads.Open(in.ID)
		if err != nil {
			return nil, bundleProblem(err)
		}
		defer func() { _ = opened.Close() }()
		preview, err := bundles.PreviewOf(ctx, s.store, b)
		return &body[BundlePreview]{previewOf(preview)}, bundleProblem(err)
	})
	huma.Post(api, "/api/bundles/{id}/import", func(ctx context.Context, in *struct {
		ID   string `path:"id" maxLength:"40"`
		Body ImportBundle
	}) (*body[BundleImported], error) {
		b, opened, err := s.uploads.Open(in.ID)
		if err != nil {
			return nil, bundleProblem(err)
		}
		defer func() { _ = opened.Close() }()
		// What was asked for is done, though the page that asked is closed.
		ctx = context.WithoutCancel(ctx)
		done := bundles.Imported{}
		before, err := s.backups.Replacing(ctx, backup.BeforeImport, func(before func() error) error {
			done, err = bundles.Import(ctx, s.store, b, s.sounds, bundles.ImportOrder{Replace: in.Body.Replace, Differing: bundles.Differing(in.Body.Differing)}, before)
			return err
		})
		if err != nil {
			return nil, bundleProblem(err)
		}
		s.practice.Forget()
		if err := s.uploads.Discard(in.ID); err != nil {
			s.log.Warn("a bundle that was read could not be removed", "error", err)
		}
		return &body[BundleImported]{BundleImported{
			New: done.New, Same: done.Same, Replaced: done.Replaced, KeptBoth: done.KeptBoth, KeptMine: done.KeptMine,
			Answers: done.Answers, Entries: done.Entries, Sounds: done.Sounds, Before: backupOf(before),
		}}, nil
	})
	huma.Delete(api, "/api/bundles/{id}", func(_ context.Context, in *byTextID) (*struct{}, error) {
		return nil, bundleProblem(s.uploads.Discard(in.ID))
	})
}

// sendSlowly sends a file however long it takes, as long as something of it is taken every now and then.
func sendSlowly(to http.ResponseWriter, from io.Reader) {
	const patience = 30 * time.Second
	control := http.NewResponseController(to)
	piece := make([]byte, 256<<10)
	for {
		n, err := from.Read(piece)
		if n > 0 {
			// A writer that knows no deadline, as that of a test, has none.
			_ = control.SetWriteDeadline(time.Now().Add(patience))
			if _, err := to.Write(piece[:n]); err != nil {
				return
			}
		}
		if err != nil {
			return
		}
	}
}
