package backup

import (
	"context"
	"errors"
	"log/slog"
	"os"
	"time"

	"undaris/library/documents"
	"undaris/library/recording"
	"undaris/store"
)

// Upkeep is what is done for the data file while the program runs: backups, thinning out of versions, and bringing what
// was written into the data file itself.
type Upkeep struct {
	Library *documents.Library
	Backups *Backups
	Log     *slog.Logger
}

// How often it is looked at (our choice): a moment is quiet when nothing was written for so long, so that after ten quiet
// seconds the data file has all of it.
const (
	lookEvery  = time.Second
	quietAfter = 5 * time.Second
	// longLog is how many bytes are brought in though something is written all the time.
	longLog   = 16 << 20
	tidyEvery = 6 * time.Hour
	// firstTidy leaves the start, and whoever opens the page then, alone.
	firstTidy = 15 * time.Second
)

// Run keeps at it until the context ends.
func (u Upkeep) Run(ctx context.Context) {
	ticks := time.NewTicker(lookEvery)
	defer ticks.Stop()
	tidied := time.Now().Add(firstTidy - tidyEvery)
	for {
		select {
		case <-ctx.Done():
			return
		case <-ticks.C:
		}
		u.checkpointWhenQuiet(ctx)
		if time.Since(tidied) > tidyEvery {
			u.tidy(ctx)
			tidied = time.Now()
		}
	}
}

// tidy makes the backup of the day, and thins out what is no longer needed. What fails is tried again the next time.
func (u Upkeep) tidy(ctx context.Context) {
	if made, err := u.Backups.MakeDaily(ctx); err != nil {
		u.Log.Warn("no backup could be made", "folder", u.Backups.Folder, "error", err)
	} else if made {
		u.Log.Info("made a backup", "folder", u.Backups.Folder)
	}
	st := u.Backups.Live
	removed, err := st.PruneRevisions(ctx)
	if err != nil {
		u.Log.Warn("earlier versions could not be thinned out", "error", err)
	}
	freed, err := recording.ClearSounds(ctx, u.Library, u.Backups.Sounds, time.Now())
	if err != nil {
		u.Log.Warn("sounds that nothing refers to could not be cleared", "error", err)
	}
	shrunk, err := st.Shrink(ctx)
	if err != nil {
		u.Log.Warn("the data file could not be made smaller", "error", err)
	}
	if removed > 0 || freed > 0 || shrunk {
		u.Log.Info("tidied", "versions", removed, "bytes of sound", freed, "data file written anew", shrunk)
	}
}

// checkpointWhenQuiet brings what was written into the data file itself when nothing was written for a while, or much.
func (u Upkeep) checkpointWhenQuiet(ctx context.Context) {
	size, last := u.Backups.Live.LogSize()
	if size == 0 || size < longLog && time.Since(last) < quietAfter {
		return
	}
	if err := u.Backups.Live.Checkpoint(ctx); err != nil {
		u.Log.Warn("the data file could not be brought up to date", "error", err)
	}
}

// OpenKept opens a data file to be served: checked, backed up where a migration is about to change it, and migrated. A
// log beside it that is of another file, or of what a copy was put in the place of, is put aside, and told to the log.
func OpenKept(ctx context.Context, b *Backups, log *slog.Logger) (*store.Store, error) {
	aside, err := store.SetForeignLogAside(ctx, b.DataFile, b.Now())
	if err != nil {
		return nil, err
	}
	if aside != "" {
		log.Warn("the log that lay beside the data file does not belong to it: it was not read, and put aside", "data", b.DataFile, "aside", aside)
	}
	// An empty file is one that was just begun; where there are backups it has lost what it held.
	if info, err := os.Stat(b.DataFile); err == nil && info.Size() == 0 {
		if all, err := b.List(); err != nil || len(all) > 0 {
			return nil, store.ErrEmptied
		}
	}
	pending, err := store.PendingMigrations(b.DataFile)
	if err != nil {
		return nil, err
	}
	if len(pending) > 0 {
		if err := store.CheckFile(ctx, b.DataFile); err != nil {
			return nil, err
		}
		if _, err := b.Make(ctx, BeforeMigration); err != nil {
			return nil, err
		}
	}
	st, err := store.Open(b.DataFile)
	if err != nil {
		return nil, err
	}
	if err := errors.Join(st.Check(ctx, true), st.CheckWritable(ctx)); err != nil {
		_ = st.Close()
		return nil, err
	}
	b.Live = st
	return st, nil
}
