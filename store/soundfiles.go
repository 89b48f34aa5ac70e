package store

import (
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"
)

// Whole lists the hashes of the whole files, in order.
func (s *Sounds) Whole() ([]string, error) {
	entries, err := os.ReadDir(s.folder)
	if errors.Is(err, os.ErrNotExist) {
		return nil, nil
	}
	hashes := []string{}
	for _, e := range entries {
		if hash, ok := strings.CutSuffix(e.Name(), ".wav"); ok && soundHash.MatchString(hash) {
			hashes = append(hashes, hash)
		}
	}
	slices.Sort(hashes)
	return hashes, err
}

// Has says whether there is a whole file of that hash.
func (s *Sounds) Has(hash string) bool {
	path, err := s.whole(hash)
	if err != nil {
		return false
	}
	_, err = os.Stat(path)
	return err == nil
}

// ErrSoundChanged says that a file of sound is not what its hash says.
var ErrSoundChanged = errors.New("the file of sound is not what it was when it was kept")

// Check reads a whole file and says whether it is what its hash says: ErrNoSound, ErrSoundChanged or nil.
func (s *Sounds) Check(hash string) error {
	file, err := s.Open(hash)
	if err != nil {
		return err
	}
	defer func() { _ = file.Close() }()
	sum := sha256.New()
	if _, err := io.Copy(sum, file); err != nil {
		return err
	}
	if hex.EncodeToString(sum.Sum(nil)) != hash {
		return ErrSoundChanged
	}
	return nil
}

// Remove removes a whole file; one that is not there is no error.
func (s *Sounds) Remove(hash string) error {
	path, err := s.whole(hash)
	if err != nil {
		return err
	}
	return RemoveIfThere(path)
}

// CopyTo copies a whole file to another folder of sounds, unless it is there. It is a copy and no link: what a bad disk
// does to the one it does not do to the other. One that is not what its hash says any more is ErrSoundChanged.
func (s *Sounds) CopyTo(other *Sounds, hash string) error {
	from, err := s.whole(hash)
	if err != nil {
		return err
	}
	if other.Has(hash) {
		return nil
	}
	if err := os.MkdirAll(other.folder, 0o700); err != nil {
		return err
	}
	file, err := os.Open(from)
	if errors.Is(err, os.ErrNotExist) {
		return ErrNoSound
	}
	if err != nil {
		return err
	}
	defer func() { _ = file.Close() }()
	kept, _, err := other.Keep(file)
	if err == nil && kept != hash {
		_ = os.Remove(filepath.Join(other.folder, kept+".wav"))
		return ErrSoundChanged
	}
	return err
}

// SoundsIn is a folder of sounds by its path.
func SoundsIn(folder string) *Sounds { return &Sounds{folder: folder} }
