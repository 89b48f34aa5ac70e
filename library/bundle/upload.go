package bundle

import (
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"regexp"
	"sync"
	"time"

	"undaris/format/bundle"
	"undaris/library/pieces"
	"undaris/store"
)

// MaxBundle is how many bytes the files of a bundle may have together (our choice: a hundred hours of takes).
const MaxBundle = 64 << 30

// Uploads are bundles that come in piece by piece, in a folder of their own.
type Uploads struct {
	folder string
	mutex  sync.Mutex
	count  int
}

// UploadsBeside is the folder of a data file's uploads. What a program before has left there is removed.
func UploadsBeside(dataFile string) *Uploads {
	folder := dataFile + ".uploads"
	_ = os.RemoveAll(folder)
	return &Uploads{folder: folder}
}

var uploadName = regexp.MustCompile(`^[0-9]{8}-[0-9]{6}-[0-9]+$`)

func (u *Uploads) path(id string) (string, error) {
	if !uploadName.MatchString(id) {
		return "", store.ErrNotFound
	}
	return filepath.Join(u.folder, id+".zip"), nil
}

// Begin begins an upload and returns its id.
func (u *Uploads) Begin(now time.Time) (string, error) {
	u.mutex.Lock()
	defer u.mutex.Unlock()
	if err := os.MkdirAll(u.folder, 0o700); err != nil {
		return "", err
	}
	u.count++
	id := fmt.Sprintf("%s-%d", now.UTC().Format("20060102-150405"), u.count)
	path, err := u.path(id)
	if err != nil {
		return "", err
	}
	file, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return "", err
	}
	return id, file.Close()
}

// Add writes the next piece, which begins after so many bytes. Its error is a *pieces.GapError where it does not go on from
// what has come.
func (u *Uploads) Add(id string, at int64, piece []byte) (have int64, err error) {
	u.mutex.Lock()
	defer u.mutex.Unlock()
	path, err := u.path(id)
	if err != nil {
		return 0, err
	}
	file, err := os.OpenFile(path, os.O_WRONLY, 0o600)
	if errors.Is(err, os.ErrNotExist) {
		return 0, store.ErrNotFound
	}
	if err != nil {
		return 0, err
	}
	defer func() { err = errors.Join(err, file.Close()) }()
	have, err = file.Seek(0, io.SeekEnd)
	switch {
	case err != nil:
		return 0, err
	case have != at:
		return have, &pieces.GapError{Given: at, Have: have}
	case have+int64(len(piece)) > MaxBundle:
		return have, &pieces.InputError{Detail: fmt.Sprintf("a bundle has at most %d GB", int64(MaxBundle)>>30)}
	}
	n, err := file.Write(piece)
	if err != nil {
		// A full disk: what was written of the piece is taken back.
		return have, store.OfTheDisk(errors.Join(err, file.Truncate(have)))
	}
	return have + int64(n), nil
}

// Open opens an upload as a bundle; the caller closes it.
func (u *Uploads) Open(id string) (*bundle.Bundle, io.Closer, error) {
	path, err := u.path(id)
	if err != nil {
		return nil, nil, err
	}
	file, err := os.Open(path)
	if errors.Is(err, os.ErrNotExist) {
		return nil, nil, store.ErrNotFound
	}
	if err != nil {
		return nil, nil, err
	}
	info, err := file.Stat()
	if err == nil {
		var b *bundle.Bundle
		if b, err = bundle.Open(file, info.Size(), MaxBundle); err == nil {
			return b, file, nil
		}
	}
	_ = file.Close()
	return nil, nil, err
}

// Discard removes an upload; one that is not there is no error.
func (u *Uploads) Discard(id string) error {
	path, err := u.path(id)
	if err != nil {
		return err
	}
	return store.RemoveIfThere(path)
}

// TempFile is a new file in the folder for what is about to be sent; the caller closes and removes it.
func (u *Uploads) TempFile() (*os.File, error) {
	if err := os.MkdirAll(u.folder, 0o700); err != nil {
		return nil, err
	}
	return os.CreateTemp(u.folder, "export-*")
}
