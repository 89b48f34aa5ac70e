package store

import (
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"sync"
	"time"

	"undaris/wholefile"
)

// Sounds are files of sound in a folder beside the data file: parts that are being written, and whole ones,
// each under the hash of what it holds.
//
// Whoever keeps a sound and then what refers to it does both within WhileKept; nothing is cleared meanwhile.
type Sounds struct {
	folder string
	// keeping is held for reading by those who keep, for writing by who clears.
	keeping sync.RWMutex
}

// SoundsBeside is the folder of a data file's sounds; it is made when the first sound is.
func SoundsBeside(dataFile string) *Sounds { return &Sounds{folder: dataFile + ".sounds"} }

// ErrNoSound says that there is no such file of sound.
var ErrNoSound = errors.New("there is no such sound")

var (
	soundHash = regexp.MustCompile(`^[0-9a-f]{64}$`)
	partName  = regexp.MustCompile(`^[0-9a-z-]{1,40}\.[a-z]{1,8}$`)
)

func (s *Sounds) whole(hash string) (string, error) {
	if !soundHash.MatchString(hash) {
		return "", ErrNoSound
	}
	return filepath.Join(s.folder, hash+".wav"), nil
}

// IsPartName says whether a part may be called so.
func IsPartName(name string) bool { return partName.MatchString(name) }

// WhileKept runs what keeps sounds and then what refers to them.
func (s *Sounds) WhileKept(keep func() error) error {
	s.keeping.RLock()
	defer s.keeping.RUnlock()
	return keep()
}

// TempFile is a new file on the disk of the sounds; the caller closes and removes it.
func (s *Sounds) TempFile() (*os.File, error) {
	if err := os.MkdirAll(s.folder, 0o700); err != nil {
		return nil, err
	}
	return os.CreateTemp(s.folder, "new-*")
}

// PartPath is where a part that is being written lies; its folder is there.
func (s *Sounds) PartPath(name string) (string, error) {
	if !partName.MatchString(name) {
		return "", fmt.Errorf("%q is no name of a part", name)
	}
	parts := filepath.Join(s.folder, "parts")
	if err := os.MkdirAll(parts, 0o700); err != nil {
		return "", err
	}
	return filepath.Join(parts, name), nil
}

// Parts lists the parts, the oldest first.
func (s *Sounds) Parts() ([]string, error) {
	entries, err := os.ReadDir(filepath.Join(s.folder, "parts"))
	if errors.Is(err, os.ErrNotExist) {
		return nil, nil
	}
	names := []string{}
	for _, e := range entries {
		names = append(names, e.Name())
	}
	return names, err
}

// RemovePart removes a part; one that is not there is no error.
func (s *Sounds) RemovePart(name string) error {
	path, err := s.PartPath(name)
	if err != nil {
		return err
	}
	return RemoveIfThere(path)
}

// RemoveIfThere removes a file; one that is not there is no error.
func RemoveIfThere(path string) error {
	if err := os.Remove(path); !errors.Is(err, os.ErrNotExist) {
		return err
	}
	return nil
}

// Keep writes a whole file from what is read, and returns its hash and how many bytes it has. It is on the disk,
// whole, before it has its name.
func (s *Sounds) Keep(from io.Reader) (hash string, bytes int64, err error) {
	file, err := s.TempFile()
	if err != nil {
		return "", 0, OfTheDisk(err)
	}
	defer func() { _ = os.Remove(file.Name()) }()
	sum := sha256.New()
	bytes, err = io.Copy(io.MultiWriter(file, sum), from)
	if err == nil {
		err = file.Sync()
	}
	if closed := file.Close(); err == nil {
		err = closed
	}
	if err != nil {
		return "", 0, OfTheDisk(err)
	}
	hash = hex.EncodeToString(sum.Sum(nil))
	path, err := s.whole(hash)
	if err != nil {
		return "", 0, err
	}
	return hash, bytes, OfTheDisk(wholefile.Name(file.Name(), path))
}

// Open opens a whole file.
func (s *Sounds) Open(hash string) (*os.File, error) {
	path, err := s.whole(hash)
	if err != nil {
		return nil, err
	}
	file, err := os.Open(path)
	if errors.Is(err, os.ErrNotExist) {
		return nil, ErrNoSound
	}
	return file, err
}

// OfTheDisk is the error as a *FileError where the disk is full.
func OfTheDisk(err error) error {
	if isDiskFull(err) {
		return &FileError{Cause: DiskFull, err: err}
	}
	return err
}

// Clear removes the whole files that are not wanted and that are older than a while, and returns how many bytes that
// freed; none where wanted returns nil. What a program that was killed left half written goes too. While somebody keeps
// a sound nothing is cleared.
func (s *Sounds) Clear(older time.Duration, now time.Time, wanted func() (map[string]bool, error)) (freed int64, err error) {
	if !s.keeping.TryLock() {
		return 0, nil
	}
	defer s.keeping.Unlock()
	inUse, err := wanted()
	if err != nil || inUse == nil {
		return 0, err
	}
	entries, err := os.ReadDir(s.folder)
	if errors.Is(err, os.ErrNotExist) {
		return 0, nil
	}
	for _, e := range entries {
		hash := e.Name()[:max(0, len(e.Name())-len(".wav"))]
		unfinished := strings.HasPrefix(e.Name(), "new-")
		if e.IsDir() || !unfinished && (!soundHash.MatchString(hash) || inUse[hash]) {
			continue
		}
		info, infoErr := e.Info()
		if infoErr != nil {
			continue
		}
		if age := now.Sub(info.ModTime()); age < older || unfinished && age < time.Hour {
			continue
		}
		if removeErr := os.Remove(filepath.Join(s.folder, e.Name())); removeErr != nil {
			err = removeErr
			continue
		}
		freed += info.Size()
	}
	return freed, err
}

// Free is how many bytes the disk has left, -1 where it is not known.
func (s *Sounds) Free() int64 { return free(filepath.Dir(s.folder)) }
