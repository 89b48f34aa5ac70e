package api

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/library/backup"
	"undaris/store"
)

// Backup is one backup of everything that is kept.
type Backup struct {
	Name   string    `json:"name"`
	Made   time.Time `json:"made"`
	Reason string    `json:"reason" doc:"Why it was made: daily, on demand, before an upgrade, before a restore or before an import"`
	Bytes  int64     `json:"bytes" doc:"Of its data file; its sounds not counted"`
	Sounds int       `json:"sounds"`
}

// Backups are the backups there are, and where data and backups lie.
type Backups struct {
	DataFile string   `json:"dataFile"`
	Folder   string   `json:"folder"`
	Backups  []Backup `json:"backups" doc:"The newest first"`
}

// Restored names the backup of what was there before.
type Restored struct {
	Before Backup `json:"before" doc:"The backup of what was there before; restored, it takes this back"`
	// Missing is left out where none is.
	Missing int `json:"missing,omitempty" doc:"Sounds of takes that are whole neither in the backup nor beside the data file"`
}

func backupOf(b backup.Backup) Backup {
	return Backup{Name: b.Name, Made: b.Made, Reason: string(b.Reason), Bytes: b.Bytes, Sounds: len(b.Sounds)}
}

type byName struct {
	Name string `path:"name" maxLength:"40"`
}

func (s *server) registerBackups(api huma.API) {
	gets(api, "/api/backups", func(context.Context, *struct{}) (*body[Backups], error) {
		all, err := s.backups.List()
		return &body[Backups]{Backups{DataFile: s.backups.DataFile, Folder: s.backups.Folder, Backups: each(all, backupOf)}}, err
	})
	huma.Post(api, "/api/backups", func(ctx context.Context, _ *struct{}) (*body[Backup], error) {
		made, err := s.backups.Make(context.WithoutCancel(ctx), backup.OnDemand)
		return &body[Backup]{backupOf(made)}, err
	}, created)
	huma.Post(api, "/api/backups/{name}/restore", func(ctx context.Context, in *byName) (*body[Restored], error) {
		done, err := s.backups.Restore(context.WithoutCancel(ctx), in.Name)
		if errors.Is(err, store.ErrNotFound) {
			return nil, problem(http.StatusNotFound, "there is no such backup any more")
		}
		var file *store.FileError
		if err != nil && !errors.As(err, &file) {
			return nil, problem(http.StatusUnprocessableEntity, "nothing was restored: "+err.Error())
		}
		s.practice.Forget()
		return &body[Restored]{Restored{Before: backupOf(done.Before), Missing: len(done.Missing)}}, err
	})
}
