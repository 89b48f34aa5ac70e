package store

import (
	"errors"
	"fmt"
	"io/fs"
	"os"
	"strings"

	"github.com/gofrs/flock"
)

// Lock keeps other programs from a data file for as long as this one has it open. The machine lets go of it when the
// program ends, however it ends.
type Lock struct {
	file *flock.Flock
	// note is where the holder says what address it serves at.
	note string
}

// HeldError says that another program has the data file open.
type HeldError struct {
	Path string
	// Address is where it serves, empty where that is not known.
	Address string
}

func (e *HeldError) Error() string {
	if e.Address == "" {
		return fmt.Sprintf("another Undaris has the data file %s open: close it first", e.Path)
	}
	return fmt.Sprintf("another Undaris has the data file %s open, at %s", e.Path, e.Address)
}

// TakeLock takes the lock of a data file, in a file beside it. Its error is a *HeldError where another program has it.
func TakeLock(path string) (*Lock, error) {
	l := &Lock{file: flock.New(path+".lock", flock.SetPermissions(0o600)), note: path + ".address"}
	// A file of two names would have two locks, and two logs.
	if names := namesOf(path); names > 1 {
		return nil, fmt.Errorf("the data file %s has %d names (hard links): remove all but one, or copy it", path, names)
	}
	taken, err := l.file.TryLock()
	if err != nil {
		return nil, lockProblem(path, err)
	}
	if !taken {
		address, _ := os.ReadFile(l.note)
		return nil, &HeldError{Path: path, Address: strings.TrimSpace(string(address))}
	}
	return l, nil
}

func lockProblem(path string, err error) error {
	cause := Unreadable
	switch {
	case errors.Is(err, fs.ErrNotExist):
		cause = NoFolder
	case errors.Is(err, fs.ErrPermission), isReadOnlyFolder(err):
		cause = ReadOnly
	case isDiskFull(err):
		cause = DiskFull
	}
	return fmt.Errorf("the data file %s: %w", path, &FileError{Cause: cause, err: err})
}

// ServesAt tells those who find the lock held where to go.
func (l *Lock) ServesAt(address string) error {
	return os.WriteFile(l.note, []byte(address+"\n"), 0o600)
}

// Release lets go of the data file.
func (l *Lock) Release() error {
	if err := RemoveIfThere(l.note); err != nil {
		return errors.Join(err, l.file.Unlock())
	}
	return l.file.Unlock()
}
