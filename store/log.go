package store

import (
	"context"
	"database/sql"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"net/url"
	"os"
	"regexp"
	"strings"
	"time"
)

// SQLite keeps what was written in a log beside the data file until it is brought into that (a checkpoint), and takes
// whatever log lies there for the file's own. A player who puts yesterday's copy back, or the log of another file beside
// one, would get a mixture. So the log is tied to its file: with every write a row is written that names the generation
// of the log and the one before, and the data file, without its log, holds one of the two. All checkpoints are our own
// (wal_autocheckpoint 0), each is followed by a new generation, and a note beside the file says that one is under way.

// logOf, checkpointNote are the files beside a data file.
func logOf(path string) string          { return path + "-wal" }
func checkpointNote(path string) string { return path + ".checkpoint" }

// replacedAfter is how much younger than its log a data file must be to be another one that was put in its place. Our own
// checkpoints are noted; files that are copied together may be apart by a moment.
const replacedAfter = 2 * time.Second

// Checkpoint brings what was written into the data file itself, so that a copy of that one file has all of it. It
// waits for nobody for long: where others write at the moment, a part stays beside it.
func (s *Store) Checkpoint(ctx context.Context) error {
	note := checkpointNote(s.path)
	if err := os.WriteFile(note, nil, 0o600); err != nil {
		return OfTheDisk(err)
	}
	// The next write begins a new generation of the log.
	if err := s.db.WithContext(ctx).Exec(`UPDATE generation SET pending = 1`).Error; err != nil {
		return errors.Join(err, os.Remove(note))
	}
	busy, pages, moved := 0, 0, 0
	err := s.db.WithContext(ctx).Raw("PRAGMA wal_checkpoint(TRUNCATE)").Row().Scan(&busy, &pages, &moved)
	if err == nil && busy != 0 {
		err = s.db.WithContext(ctx).Exec(`UPDATE generation SET pending = 0`).Error
	}
	return errors.Join(asFileError(err), os.Remove(note))
}

// LogSize is how many bytes were written that are not in the data file yet, and when the last of them were.
func (s *Store) LogSize() (int64, time.Time) {
	info, err := os.Stat(logOf(s.path))
	if err != nil {
		return 0, time.Time{}
	}
	return info.Size(), info.ModTime()
}

// SetForeignLogAside looks whether the log beside a data file is its own, and puts it aside where it is not. It returns
// the path that it has then, "" where there was nothing to put aside. A file from before logs were tied to their files
// keeps its log. Nobody may have the file open.
func SetForeignLogAside(ctx context.Context, path string, now time.Time) (string, error) {
	own, err := logIsOwn(ctx, path)
	if err != nil || own {
		return "", err
	}
	aside := fmt.Sprintf("%s.not-read-%s", logOf(path), now.UTC().Format("20060102-150405"))
	if err := os.Rename(logOf(path), aside); err != nil {
		return "", err
	}
	if err := RemoveIfThere(path + "-shm"); err != nil {
		return aside, err
	}
	return aside, nil
}

func logIsOwn(ctx context.Context, path string) (bool, error) {
	log, err := os.Stat(logOf(path))
	if errors.Is(err, os.ErrNotExist) || err == nil && log.Size() == 0 {
		return true, nil
	}
	if err != nil {
		return false, err
	}
	data, err := os.Stat(path)
	if errors.Is(err, os.ErrNotExist) {
		return false, nil // SQLite would begin a new file, and throw it away
	}
	if err != nil {
		return false, err
	}
	if _, err := os.Stat(checkpointNote(path)); err == nil {
		return true, nil // the program ended while it was brought in: the file is younger, and all of it is needed
	}
	if data.ModTime().Sub(log.ModTime()) > replacedAfter {
		return false, nil
	}
	now, page, err := generationInFile(ctx, path)
	if err != nil || now == "" {
		return true, nil //nolint:nilerr // of an earlier version, or damaged: that is said when it is opened
	}
	last, found, err := lastOfLog(logOf(path), page)
	if err != nil || !found {
		return false, err
	}
	return strings.Contains(last, now), nil
}

// generationInFile reads the generation that a data file holds without its log, and the page that it lies in; "" for a
// file that has none.
func generationInFile(ctx context.Context, path string) (generation string, page uint32, err error) {
	db, err := sql.Open("sqlite", fileURL(path, url.Values{"immutable": {"1"}, "mode": {"ro"}}))
	if err != nil {
		return "", 0, err
	}
	defer func() { _ = db.Close() }()
	if err := db.QueryRowContext(ctx, "SELECT rootpage FROM sqlite_schema WHERE type = 'table' AND name = 'generation'").Scan(&page); err != nil {
		return "", 0, err
	}
	return generation, page, db.QueryRowContext(ctx, "SELECT now FROM generation").Scan(&generation)
}

// generations are the two names, one behind the other, as they lie in a page.
var generations = regexp.MustCompile(`[0-9a-f]{64}`)

// lastOfLog reads the generations that a page holds in the last commit of a log: the present one, then the one before.
// found is false where no commit has written the page, which each of ours does. The file format of logs is SQLite's
// (https://www.sqlite.org/fileformat2.html, section 4).
func lastOfLog(path string, page uint32) (last string, found bool, err error) {
	file, err := os.Open(path)
	if err != nil {
		return "", false, err
	}
	defer func() { _ = file.Close() }()
	head := make([]byte, 32)
	if _, err := io.ReadFull(file, head); err != nil {
		return "", true, nil //nolint:nilerr // there is no whole log: SQLite reads nothing of it
	}
	size := int64(binary.BigEndian.Uint32(head[8:]))
	if size < 512 || size > 1<<16 {
		return "", false, nil
	}
	frame, commits := make([]byte, 24+size), 0
	pending, isPending := "", false
	for {
		if _, err := io.ReadFull(file, frame); err != nil {
			break // cut off: what was not committed is not read
		}
		if string(frame[8:16]) != string(head[16:24]) { // of an earlier log in the same file
			break
		}
		if binary.BigEndian.Uint32(frame) == page {
			pending, isPending = generationOfPage(frame[24:]), true
		}
		if binary.BigEndian.Uint32(frame[4:]) != 0 {
			commits++
			if isPending {
				last, found = pending, true
			}
		}
	}
	// Without a commit there is nothing that could be read into the file.
	return last, found || commits == 0, nil
}

// generationOfPage finds the generations in a leaf of a table that has one row.
func generationOfPage(page []byte) string {
	if page[0] != 0x0D || binary.BigEndian.Uint16(page[3:]) != 1 {
		return ""
	}
	cell := int(binary.BigEndian.Uint16(page[8:]))
	if cell >= len(page) {
		return ""
	}
	return string(generations.Find(page[cell:]))
}
