package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"time"

	"undaris/library/backup"
	"undaris/store"
)

// dataFlags names the data file and the folder of its backups.
type dataFlags struct {
	*flag.FlagSet
	data, backups string
	demo          bool
}

func newDataFlags(command string, stderr io.Writer) *dataFlags {
	f := &dataFlags{FlagSet: flag.NewFlagSet(command, flag.ContinueOnError)}
	f.SetOutput(stderr)
	f.Usage = func() { fmt.Fprint(stderr, usage) }
	f.StringVar(&f.data, "data", "", "")
	f.StringVar(&f.backups, "backups", "", "")
	f.BoolVar(&f.demo, "demo", false, "")
	return f
}

// read reads the arguments, flags before or after the others; help says that help was asked for and given.
func (f *dataFlags) read(args []string, most int) (words []string, help bool, err error) {
	for {
		switch err := f.Parse(args); {
		case errors.Is(err, flag.ErrHelp):
			return nil, true, nil
		case err != nil:
			return nil, false, err
		}
		if f.NArg() == 0 {
			break
		}
		words, args = append(words, f.Arg(0)), f.Args()[1:]
	}
	if len(words) > most {
		return nil, false, fmt.Errorf("%q is one word too many", words[most])
	}
	if f.data, err = dataFileOf(f.FlagSet, f.data, f.demo); err != nil {
		return nil, false, err
	}
	return words, false, nil
}

func (f *dataFlags) backupsOf() *backup.Backups { return backupsOf(f.data, f.backups) }

// backupsOf are the backups of a data file, in a folder or, for "", beside it.
func backupsOf(data, folder string) *backup.Backups {
	if folder == "" {
		folder = backup.BackupsBeside(data)
	}
	return &backup.Backups{Folder: folder, DataFile: data, Sounds: store.SoundsBeside(data), Now: time.Now}
}

// makeBackup makes a backup, while the program may be running.
func makeBackup(args []string, stdout, stderr io.Writer) error {
	flags := newDataFlags("backup", stderr)
	list := flags.Bool("list", false, "")
	_, help, err := flags.read(args, 0)
	if help || err != nil {
		return err
	}
	backups := flags.backupsOf()
	if *list {
		return listBackups(backups, stdout)
	}
	if _, err := os.Stat(flags.data); err != nil {
		return fmt.Errorf("there is no data file %s", flags.data)
	}
	made, err := backups.Make(context.Background(), backup.OnDemand)
	if err != nil {
		return inPlainWords(err, backups)
	}
	fmt.Fprintf(stdout, "made %s (%d kB, %d sounds) in %s\n", made.Name, made.Bytes>>10, len(made.Sounds), backups.Folder)
	return nil
}

func listBackups(backups *backup.Backups, stdout io.Writer) error {
	all, err := backups.List()
	if err != nil {
		return err
	}
	if len(all) == 0 {
		fmt.Fprintf(stdout, "there are no backups in %s\n", backups.Folder)
	}
	for _, one := range all {
		fmt.Fprintf(stdout, "%s  %s  %6d kB  %s\n", one.Name, one.Made.Local().Format("2006-01-02 15:04"), one.Bytes>>10, one.Reason)
	}
	return nil
}

// restoreBackup puts a backup in the place of the data file, which no program may have open; what was there is kept.
func restoreBackup(args []string, stdout, stderr io.Writer) error {
	flags := newDataFlags("restore", stderr)
	words, help, err := flags.read(args, 1)
	if help || err != nil {
		return err
	}
	backups := flags.backupsOf()
	if len(words) == 0 {
		fmt.Fprintln(stdout, "Name the backup to restore:")
		return listBackups(backups, stdout)
	}
	lock, err := store.TakeLock(flags.data)
	if err != nil {
		return inPlainWords(err, backups)
	}
	defer func() { _ = lock.Release() }()
	ctx := context.Background()
	var aside backup.PutAside
	// A path is a copy that was made by hand, a name one of the backups.
	if info, statErr := os.Stat(words[0]); statErr == nil && !info.IsDir() && !isIn(words[0], backups.Folder) {
		aside, err = backups.PutCopyBack(ctx, words[0])
	} else {
		aside, err = backups.RestoreClosed(ctx, filepath.Base(words[0]))
	}
	switch {
	case errors.Is(err, store.ErrNotFound):
		return fmt.Errorf("there is no backup %q in %s; undaris backup --list lists them", words[0], backups.Folder)
	case err != nil:
		return inPlainWords(err, backups)
	}
	fmt.Fprintf(stdout, "restored %s to %s\n", words[0], flags.data)
	if len(aside.Missing) > 0 {
		fmt.Fprintf(stdout, "%d sounds of takes are whole neither in the backup nor in %s.sounds; their takes are there without them\n", len(aside.Missing), flags.data)
	}
	switch {
	case aside.Path != "":
		fmt.Fprintf(stdout, "what was there is kept as %s\n", aside.Path)
	case aside.Backup.Name != "":
		fmt.Fprintf(stdout, "what was there is the backup %s\n", aside.Backup.Name)
	}
	return nil
}

// isIn says whether a file lies in a folder.
func isIn(path, folder string) bool {
	at, err := filepath.Abs(filepath.Dir(path))
	in, err2 := filepath.Abs(folder)
	return err == nil && err2 == nil && at == in
}

// checkKept reads everything that is kept and says what of it is not right; asked to, it rescues what can be read.
func checkKept(args []string, stdout, stderr io.Writer) error {
	flags := newDataFlags("check", stderr)
	rescue := flags.String("rescue", "", "")
	_, help, err := flags.read(args, 0)
	if help || err != nil {
		return err
	}
	ctx := context.Background()
	backups := flags.backupsOf()
	if *rescue != "" {
		return rescueTo(ctx, flags.data, *rescue, stdout)
	}
	if _, err := os.Stat(flags.data); err != nil {
		return fmt.Errorf("there is no data file %s", flags.data)
	}
	if err := store.CheckFile(ctx, flags.data); err != nil {
		return inPlainWords(err, backups)
	}
	// A copy is checked, so that the program may run meanwhile, and a file of an earlier version stays as it is.
	folder, err := os.MkdirTemp("", "undaris-check")
	if err != nil {
		return err
	}
	defer func() { _ = os.RemoveAll(folder) }()
	copied := filepath.Join(folder, "copy.db")
	if err := store.CopyFile(ctx, flags.data, copied); err != nil {
		return inPlainWords(err, backups)
	}
	st, err := store.Open(copied)
	if err != nil {
		return inPlainWords(err, backups)
	}
	defer func() { _ = st.Close() }()
	report, err := backup.CheckAll(ctx, st, store.SoundsBeside(flags.data))
	if err != nil {
		return inPlainWords(err, backups)
	}
	fmt.Fprintf(stdout, "%s: the file is sound; %d documents and %d versions, %d sounds, and all cards, answers and entries of the log were read\n", flags.data, report.Documents, report.Versions, report.Sounds)
	for _, fault := range report.Faults {
		fmt.Fprintln(stdout, "-", fault)
	}
	all, err := backups.List()
	if err != nil {
		return err
	}
	for _, one := range all {
		_, damaged, err := backups.Verify(ctx, one.Name)
		if err == nil && len(damaged) > 0 {
			err = fmt.Errorf("the backup %s: %d of its sounds are not whole; all else can be restored", one.Name, len(damaged))
		}
		if err != nil {
			report.Faults = append(report.Faults, err.Error())
			fmt.Fprintln(stdout, "-", err)
		}
	}
	fmt.Fprintf(stdout, "%d backups in %s were read\n", len(all), backups.Folder)
	if len(report.Faults) > 0 {
		return fmt.Errorf("%d things are not right", len(report.Faults))
	}
	return nil
}

func rescueTo(ctx context.Context, from, to string, stdout io.Writer) error {
	tables, err := store.Rescue(ctx, from, to)
	if err != nil {
		return err
	}
	for _, table := range tables {
		fmt.Fprintf(stdout, "%-12s %7d read, about %d not\n", table.Name, table.Rows, table.Unread)
	}
	fmt.Fprintf(stdout, "What could be read of %s is in %s; start with it by --data %s.\nThe damaged file stays as it is. Sounds of takes lie in %s.sounds: copy them to %s.sounds.\n", from, to, to, from, to)
	return nil
}
