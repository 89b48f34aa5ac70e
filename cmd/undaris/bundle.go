package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"os"
	"path/filepath"
	"time"

	"undaris/format/bundle"
	"undaris/library/backup"
	bundles "undaris/library/bundle"
	"undaris/store"
	"undaris/wholefile"
)

// exportBundle writes everything, or one tune with what belongs to it, as a bundle.
func exportBundle(args []string, stdout, stderr io.Writer) error {
	flags := newDataFlags("export", stderr)
	tune := flags.Uint("tune", 0, "")
	withoutVersions := flags.Bool("without-versions", false, "")
	withoutTakes := flags.Bool("without-takes", false, "")
	words, help, err := flags.read(args, 1)
	if help || err != nil {
		return err
	}
	if len(words) == 0 {
		return errors.New("name the file to write, as in undaris export my-library.zip")
	}
	backups := flags.backupsOf()
	ctx := context.Background()
	st, closed, err := openCopy(ctx, flags.data)
	if err != nil {
		return inPlainWords(err, backups)
	}
	defer closed()
	if err := mayBeWritten(words[0]); err != nil {
		return err
	}
	order := bundles.Order{ChartID: *tune, Versions: !*withoutVersions, WithoutTakes: *withoutTakes}
	var missing []string
	err = wholefile.Write(words[0], func(to io.Writer) (err error) {
		missing, err = bundles.Write(ctx, st, to, backups.Sounds, order, time.Now(), "undaris "+version)
		return err
	})
	if errors.Is(err, store.ErrNotFound) {
		return fmt.Errorf("there is no tune with the id %d", *tune)
	}
	if err != nil {
		return err
	}
	for _, hash := range missing {
		fmt.Fprintf(stdout, "the sound %s is missing, and is not in the bundle\n", hash)
	}
	fmt.Fprintf(stdout, "wrote %s\n", words[0])
	return nil
}

// mayBeWritten says whether a bundle may be written to a path: there must be nothing yet, or a bundle that was written
// before.
func mayBeWritten(path string) error {
	info, err := os.Lstat(path)
	if errors.Is(err, os.ErrNotExist) {
		return nil
	}
	if err != nil {
		return err
	}
	if info.Mode().IsRegular() {
		file, err := os.Open(path)
		if err != nil {
			return err
		}
		defer func() { _ = file.Close() }()
		if _, err := bundle.Open(file, info.Size(), bundles.MaxBundle); err == nil {
			return nil
		}
	}
	return fmt.Errorf("%s is there already, and is no bundle: name a new file", path)
}

// openCopy opens a copy of a data file, so that whatever version it is of, and whoever has it open, it stays as it is.
func openCopy(ctx context.Context, data string) (*store.Store, func(), error) {
	if _, err := os.Stat(data); err != nil {
		return nil, nil, fmt.Errorf("there is no data file %s", data)
	}
	folder, err := os.MkdirTemp("", "undaris-copy")
	if err != nil {
		return nil, nil, err
	}
	copied := filepath.Join(folder, "copy.db")
	if err = store.CopyFile(ctx, data, copied); err == nil {
		var st *store.Store
		if st, err = store.Open(copied); err == nil {
			return st, func() { _ = st.Close(); _ = os.RemoveAll(folder) }, nil
		}
	}
	_ = os.RemoveAll(folder)
	return nil, nil, err
}

// importBundle reads a bundle into a data file that no program has open, after a backup.
func importBundle(args []string, stdout, stderr io.Writer) error {
	flags := newDataFlags("import", stderr)
	replace := flags.Bool("replace", false, "")
	preview := flags.Bool("preview", false, "")
	differing := flags.String("differing", string(bundles.KeepMine), "")
	words, help, err := flags.read(args, 1)
	if help || err != nil {
		return err
	}
	choice := bundles.Differing(*differing)
	switch {
	case len(words) == 0:
		return errors.New("name the bundle to read, as in undaris import my-library.zip")
	case choice != bundles.KeepMine && choice != bundles.TakeTheirs && choice != bundles.KeepBoth:
		return fmt.Errorf("--differing %s: there are mine, theirs and both", *differing)
	}
	file, err := os.Open(words[0])
	if err != nil {
		return fmt.Errorf("there is no bundle %s", words[0])
	}
	defer func() { _ = file.Close() }()
	info, err := file.Stat()
	if err != nil {
		return err
	}
	b, err := bundle.Open(file, info.Size(), bundles.MaxBundle)
	if err != nil {
		return err
	}
	ctx := context.Background()
	backups := flags.backupsOf()
	lock, err := store.TakeLock(flags.data)
	if err != nil {
		return inPlainWords(err, backups)
	}
	defer func() { _ = lock.Release() }()
	st, err := backup.OpenKept(ctx, backups, slog.New(slog.NewTextHandler(stderr, nil)))
	if err != nil {
		return inPlainWords(err, backups)
	}
	defer func() { _ = st.Close() }()
	if *preview {
		p, err := bundles.PreviewOf(ctx, st, b)
		if err != nil {
			return err
		}
		for _, item := range p.Items {
			fmt.Fprintf(stdout, "%-8s %-9s %s\n", item.State, item.Kind, item.Name)
		}
		fmt.Fprintf(stdout, "%d answers to cards and %d entries of the log are new\n", p.NewAnswers, p.NewEntries)
		return nil
	}
	backups.Live = st
	done := bundles.Imported{}
	before, err := backups.Replacing(ctx, backup.BeforeImport, func(before func() error) error {
		done, err = bundles.Import(ctx, st, b, backups.Sounds, bundles.ImportOrder{Replace: *replace, Differing: choice}, before)
		return err
	})
	if err != nil {
		return inPlainWords(err, backups)
	}
	fmt.Fprintf(stdout, "new %d, the same %d, replaced %d, kept beside yours %d, yours kept %d; answers to cards %d, entries of the log %d, sounds %d\n",
		done.New, done.Same, done.Replaced, done.KeptBoth, done.KeptMine, done.Answers, done.Entries, done.Sounds)
	fmt.Fprintf(stdout, "what was there before is the backup %s: undaris restore %s takes it back\n", before.Name, before.Name)
	return nil
}
