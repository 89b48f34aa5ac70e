package main

import (
	"context"
	"errors"
	"fmt"
	"path/filepath"

	"undaris/library/backup"
	"undaris/store"
)

// inPlainWords says in one sentence what is wrong with a data file or its folder, and what to do.
func inPlainWords(err error, backups *backup.Backups) error {
	data := backups.DataFile
	if errors.Is(err, store.ErrNewer) {
		return fmt.Errorf("the data file %s was written by a later version of Undaris: start that one again, or name another file with --data; nothing was changed", data)
	}
	var file *store.FileError
	if !errors.As(err, &file) {
		return err
	}
	switch file.Cause {
	case store.DiskFull:
		return fmt.Errorf("the disk with %s is full: free some space and start again; what was kept is safe", data)
	case store.ReadOnly:
		return fmt.Errorf("%s, or the folder it is in, is read-only for you: make it writable, or name another file with --data", data)
	case store.NoFolder:
		return fmt.Errorf("the folder %s does not exist: make it, or name another file with --data", filepath.Dir(data))
	case store.Busy:
		return fmt.Errorf("another program holds %s: close it and start again", data)
	case store.Damaged:
		advice := "there is no backup that is whole"
		if newest, found := backups.NewestGood(context.Background()); found {
			advice = fmt.Sprintf("the newest backup that is whole is of %s: undaris restore %s --data %s puts it in its place",
				newest.Made.Local().Format("2 January 2006, 15:04"), newest.Name, data)
		}
		return fmt.Errorf("the data file %s is damaged; %s. What can be read of the damaged file goes into a new one with: undaris check --rescue NEW.db --data %s", data, advice, data)
	}
	return fmt.Errorf("the data file %s cannot be read or written: see whether its disk is still there and what rights its folder has", data)
}
