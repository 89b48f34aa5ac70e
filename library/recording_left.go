package library

import (
	"context"
	"encoding/json"
	"errors"
	"io"
	"os"
	"strings"
	"time"

	"undaris/core/neck"
	"undaris/core/take"
	"undaris/format/document"
	"undaris/store"
)

// reopen goes on with a recording that an earlier run of the program began: the page is still there, and the player
// plays on. What has come is heard again.
func (r *Recordings) reopen(id string) (*recording, error) {
	r.mutex.Lock()
	defer r.mutex.Unlock()
	if one := r.open[id]; one != nil {
		return one, nil
	}
	about, err := r.about(id)
	if err != nil {
		return nil, err
	}
	path, err := r.sounds.PartPath(id + ".part")
	if err != nil {
		return nil, err
	}
	one := &recording{Recording: about, instrument: neck.Standard()}
	if over, _, err := document.Playing(about.Draft.Chart, about.Draft.Hands); err == nil {
		one.instrument = over.Instrument
	}
	if one.file, err = os.OpenFile(path, os.O_RDWR|os.O_APPEND, 0o600); err != nil {
		return nil, err
	}
	if about.Kind == FromSound {
		one.Bytes -= one.Bytes % 2 // half a sample may have been written last
		if err := one.file.Truncate(one.Bytes); err != nil {
			return nil, err
		}
		if one.listener, err = take.Listen(about.Rate); err != nil {
			return nil, &InputError{err.Error()}
		}
		if err := hearAll(context.Background(), one.listener, io.NewSectionReader(one.file, 0, one.Bytes)); err != nil {
			return nil, err
		}
		one.reported = len(one.listener.Strokes())
	}
	if about.Kind == FromKeys {
		sent, err := io.ReadAll(io.NewSectionReader(one.file, 0, one.Bytes))
		if err != nil {
			return nil, err
		}
		one.press(sent)
	}
	r.open[id] = one
	return one, nil
}

// Unfinished are the recordings that have begun and are not ended, in this run of the program or an earlier one.
func (r *Recordings) Unfinished() ([]Recording, error) {
	names, err := r.sounds.Parts()
	if err != nil {
		return nil, err
	}
	all := []Recording{}
	for _, name := range names {
		if id, isAbout := strings.CutSuffix(name, ".json"); isAbout {
			if running, err := r.find(id); err == nil && r.now().Sub(running.last()) < stillComing {
				continue // another page records it now
			}
			if one, err := r.about(id); err == nil && one.Bytes > 0 {
				all = append(all, one)
			}
		}
	}
	return all, nil
}

// stillComing is how long nothing comes until a recording counts as left.
const stillComing = 3 * time.Second

// about reads what is known of a recording, whether it is open or was left.
func (r *Recordings) about(id string) (Recording, error) {
	path, err := r.sounds.PartPath(id + ".json")
	if err != nil {
		return Recording{}, store.ErrNotFound
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
