package library

import (
	"bytes"
	"encoding/binary"
	"encoding/json"
	"errors"
	"slices"

	"undaris/core/neck"
	"undaris/core/take"
	"undaris/format/document"
	"undaris/store"
)

// Heard is what a piece of sound has brought.
type Heard struct {
	// Have is how many bytes have come.
	Have int64
	// Strokes are the notes that have begun since the last piece.
	Strokes  []take.Stroke
	Sounding take.Sounding
	Clipped  int
	// Instrument is the one that is played.
	Instrument neck.Instrument
}

// Hear takes the next piece in, which begins at so many bytes. A start of the tune, in seconds of the sound, is
// kept where it is given.
func (r *Recordings) Hear(id string, at int64, piece []byte, start *float64) (Heard, error) {
	one, err := r.find(id)
	if errors.Is(err, store.ErrNotFound) {
		one, err = r.reopen(id)
	}
	if err != nil {
		return Heard{}, err
	}
	one.mutex.Lock()
	defer one.mutex.Unlock()
	if one.file == nil && one.kept() {
		return Heard{}, store.ErrNotFound
	}
	one.heardAt = r.now()
	if start != nil && *start != one.Draft.Start {
		one.Draft.Start = *start
		if err := r.writeAbout(one.Recording); err != nil {
			return Heard{}, err
		}
	}
	switch {
	case at != one.Bytes:
		return Heard{}, &GapError{at, one.Bytes}
	case one.listener != nil && len(piece)%2 != 0:
		return Heard{}, &InputError{"samples have 16 bits: a piece has an even number of bytes"}
	case one.Kind == FromSound && float64(one.Bytes)/2/float64(one.Rate) > document.MaxTakeSeconds, one.Bytes+int64(len(piece)) > mostFile:
		return Heard{}, &InputError{"a take lasts an hour at most: end it and begin another"}
	}
	if !one.kept() {
		return one.hear(piece), nil
	}
	if now := r.now(); now.Sub(one.synced) >= syncEvery {
		if err := r.room(); err != nil {
			return Heard{}, err
		}
		if err := one.file.Sync(); err != nil {
			return Heard{}, err
		}
		one.synced = now
	}
	if _, err := one.file.Write(piece); err != nil {
		return Heard{}, err
	}
	return one.hear(piece), nil
}

// hear takes a piece in that is on its way to the disk, or is not to be kept.
func (r *recording) hear(piece []byte) Heard {
	r.Bytes += int64(len(piece))
	heard := Heard{Have: r.Bytes, Instrument: r.instrument}
	if r.Kind == FromKeys || r.Kind == KeysToHear {
		heard.Strokes = r.press(piece)
		heard.Sounding = r.keyDown()
		return heard
	}
	if r.listener == nil {
		return heard
	}
	samples := samplesOf(piece)
	for _, s := range samples {
		if s >= clips || s <= -clips {
			r.clipped++
		}
	}
	r.listener.Hear(samples)
	all := r.listener.Strokes()
	heard.Strokes, r.reported = all[r.reported:], len(all)
	heard.Sounding, heard.Clipped = r.listener.Sounding(), r.clipped
	return heard
}

// press takes the events of a piece in, and returns the keys that they press.
func (r *recording) press(piece []byte) []take.Stroke {
	pressed := []take.Stroke{}
	for _, line := range bytes.Split(piece, []byte("\n")) {
		var e take.KeyEvent
		if len(line) == 0 || json.Unmarshal(line, &e) != nil || len(r.keys) >= mostKeys {
			continue
		}
		r.keys = append(r.keys, e)
		if e.Wheel {
			continue
		}
		r.down = slices.DeleteFunc(r.down, func(key int) bool { return key == e.Key })
		if e.Velocity > 0 {
			r.down = append(r.down, e.Key)
			pressed = append(pressed, take.Stroke{Seconds: e.Seconds, Pitch: float64(e.Key)})
		}
	}
	return pressed
}

// keyDown is the key that was pressed last and is not let go.
func (r *recording) keyDown() take.Sounding {
	if len(r.down) == 0 {
		return take.Sounding{Level: -120}
	}
	return take.Sounding{Pitch: float64(r.down[len(r.down)-1]), Voiced: true, Level: -20}
}

// SoFar is all that was played in a recording until now, of seconds of the sound from one to another.
func (r *Recordings) SoFar(id string, from, to float64) ([]take.Note, error) {
	one, err := r.find(id)
	if err != nil {
		return nil, err
	}
	one.mutex.Lock()
	defer one.mutex.Unlock()
	all := []take.Note{}
	switch {
	case one.listener != nil:
		all = one.listener.SoFar()
	case one.Kind == FromKeys || one.Kind == KeysToHear:
		all = take.NotesOfKeys(one.keys)
	}
	return slices.DeleteFunc(all, func(n take.Note) bool { return n.Onset < from || n.Onset >= to }), nil
}

// kept says whether what comes in is to become a take.
func (r *recording) kept() bool { return r.Kind != ToHear && r.Kind != KeysToHear }

// clips is the size from which a sample is as loud as can be.
const clips = 0.9995

func samplesOf(piece []byte) []float32 {
	samples := make([]float32, len(piece)/2)
	for n := range samples {
		samples[n] = float32(int16(binary.LittleEndian.Uint16(piece[2*n:]))) / (1 << 15)
	}
	return samples
}
