package recording

import (
	"bufio"
	"context"
	"encoding/json"
	"errors"
	"io"
	"os"
	"strings"

	"undaris/core/listen"
	"undaris/library/pieces"
	"undaris/store"
)

// hearAgain opens a recording that an earlier run of the program began, or that made room, and hears what has come, so
// that it goes on: the page is still there, and the player plays on. The caller has the turn. Where nobody waits any more
// it is left as it was.
func (r *Recordings) hearAgain(ctx context.Context, one *recording) error {
	if one.file == nil {
		path, err := r.sounds.PartPath(one.ID + ".part")
		if err != nil {
			return err
		}
		if one.file, err = os.OpenFile(path, os.O_RDWR, 0o600); errors.Is(err, os.ErrNotExist) {
			return store.ErrNotFound
		} else if err != nil {
			return err
		}
	}
	info, err := one.file.Stat()
	if err != nil {
		return err
	}
	one.Bytes = info.Size()
	switch one.Kind {
	case FromSound:
		one.Bytes -= one.Bytes % 2 // half a sample may have been written last
		listener, err := listen.Listen(one.Rate)
		if err != nil {
			return &pieces.InputError{Detail: err.Error()}
		}
		one.clipped = 0
		if err := hearAll(ctx, listener, io.NewSectionReader(one.file, 0, one.Bytes), &one.clipped); err != nil {
			return err
		}
		one.listener, one.reported = listener, len(listener.Strokes())
	case FromKeys:
		whole, events, err := readKeyLines(io.NewSectionReader(one.file, 0, one.Bytes))
		if err != nil {
			return err
		}
		one.Bytes, one.keys, one.down = whole, nil, nil // half a line may have been written last
		one.press(events)
	}
	if err := one.file.Truncate(one.Bytes); err != nil {
		return err
	}
	if _, err := one.file.Seek(one.Bytes, io.SeekStart); err != nil {
		return err
	}
	one.has.Store(one.Bytes)
	one.ready = true
	return nil
}

// readKeyLines reads what a MIDI instrument sent, a line of JSON an event, as far as it is whole: whole is how many bytes
// that is.
func readKeyLines(from io.Reader) (whole int64, events []listen.KeyEvent, err error) {
	lines := bufio.NewReader(from)
	for len(events) < listen.MaxKeyEvents {
		line, err := lines.ReadBytes('\n')
		if errors.Is(err, io.EOF) {
			return whole, events, nil
		}
		if err != nil {
			return whole, events, err
		}
		var e listen.KeyEvent
		if json.Unmarshal(line, &e) != nil {
			return whole, events, nil
		}
		whole += int64(len(line))
		events = append(events, e)
	}
	return whole, events, nil
}

// Unfinished are the recordings that have begun and are not ended, in this run of the program or an earlier one. It waits
// for none of them.
func (r *Recordings) Unfinished() ([]Recording, error) {
	names, err := r.sounds.Parts()
	if err != nil {
		return nil, err
	}
	all := []Recording{}
	for _, name := range names {
		id, isAbout := strings.CutSuffix(name, ".json")
		if !isAbout {
			continue
		}
		r.mutex.Lock()
		running := r.open[id]
		r.mutex.Unlock()
		if running != nil && running.idleFor(r.now()) < idleAfter {
			continue // a page records it now
		}
		if one, err := r.about(id); err == nil && one.Bytes > 0 {
			all = append(all, one)
		}
	}
	return all, nil
}

// about reads from the disk what is known of a recording.
func (r *Recordings) about(id string) (Recording, error) {
	if !store.IsPartName(id + ".json") {
		return Recording{}, store.ErrNotFound
	}
	path, err := r.sounds.PartPath(id + ".json")
	if err != nil {
		return Recording{}, err
	}
	data, err := os.ReadFile(path)
	if errors.Is(err, os.ErrNotExist) {
		return Recording{}, store.ErrNotFound
	}
	one := Recording{}
	if err == nil {
		err = json.Unmarshal(data, &one)
	}
	if err != nil {
		return Recording{}, err
	}
	one.ID = id
	part, err := r.sounds.PartPath(id + ".part")
	if err != nil {
		return Recording{}, err
	}
	info, err := os.Stat(part)
	if err != nil {
		return Recording{}, store.ErrNotFound
	}
	one.Bytes = info.Size()
	if one.Kind == FromSound && one.Rate > 0 {
		one.Seconds = float64(one.Bytes) / 2 / float64(one.Rate)
	}
	return one, nil
}
