package recording

import (
	"bytes"
	"context"
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"

	"undaris/core/listen"
	"undaris/core/neck"
	"undaris/format/document"
	"undaris/library/pieces"
	"undaris/store"
)

// Heard is what a piece of sound has brought.
type Heard struct {
	// Have is how many bytes have come.
	Have int64
	// Strokes are the notes that have begun since the last piece.
	Strokes  []listen.Stroke
	Sounding listen.Sounding
	Clipped  int
	// Instrument is the one that is played.
	Instrument neck.Instrument
}

// Hear takes the next bytes of a recording in, which begin at so many bytes: samples, a part of a file, or lines of keys,
// as the recording was begun. A start of the tune, in seconds of the sound, is kept where it is given.
func (r *Recordings) Hear(ctx context.Context, id string, at int64, piece []byte, start *float64) (Heard, error) {
	heard := Heard{}
	err := r.withTurn(ctx, id, func(one *recording) error {
		events := []listen.KeyEvent{}
		if one.isKeys() {
			var err error
			if events, err = keysOf(piece); err != nil {
				return err
			}
		}
		if start != nil && *start != one.Draft.Start {
			one.Draft.Start = *start
			if one.kept() {
				if err := r.writeAbout(one.Recording); err != nil {
					return store.OfTheDisk(err)
				}
			}
		}
		if one.listener != nil && len(piece)%2 != 0 {
			return &pieces.InputError{Detail: "samples have 16 bits: a piece has an even number of bytes"}
		}
		if err := r.keep(one, at, piece); err != nil {
			return err
		}
		if heard = one.hearSamples(piece); one.isKeys() {
			heard = one.hearKeys(events)
		}
		return nil
	})
	return heard, err
}

// HearKeys is Hear of what a MIDI instrument sent.
func (r *Recordings) HearKeys(ctx context.Context, id string, at int64, events []listen.KeyEvent) (Heard, error) {
	lines, err := keyLines(events)
	if err != nil {
		return Heard{}, err
	}
	heard := Heard{}
	err = r.withTurn(ctx, id, func(one *recording) error {
		if !one.isKeys() {
			return &pieces.InputError{Detail: "this recording takes sound, and no keys"}
		}
		if len(one.keys)+len(events) > listen.MaxKeyEvents {
			return &pieces.InputError{Detail: fmt.Sprintf("a take has at most %d events: end it and begin another", listen.MaxKeyEvents)}
		}
		if err := r.keep(one, at, lines); err != nil {
			return err
		}
		heard = one.hearKeys(events)
		return nil
	})
	return heard, err
}

// keyLines is events as they are kept: a line of JSON each.
func keyLines(events []listen.KeyEvent) ([]byte, error) {
	lines := []byte{}
	for n, e := range events {
		if err := checkKey(n, e); err != nil {
			return nil, err
		}
		line, err := json.Marshal(e)
		if err != nil {
			return nil, err
		}
		lines = append(append(lines, line...), '\n')
	}
	return lines, nil
}

// keysOf reads lines of keys, each whole.
func keysOf(piece []byte) ([]listen.KeyEvent, error) {
	if len(piece) > 0 && piece[len(piece)-1] != '\n' {
		return nil, &pieces.InputError{Detail: "this recording takes keys: a line of JSON an event, each ended"}
	}
	events := []listen.KeyEvent{}
	for line := range bytes.Lines(piece) {
		var e listen.KeyEvent
		if err := json.Unmarshal(line, &e); err != nil {
			return nil, &pieces.InputError{Detail: fmt.Sprintf("this recording takes keys, and line %d is none: %s", len(events)+1, err)}
		}
		if err := checkKey(len(events), e); err != nil {
			return nil, err
		}
		events = append(events, e)
	}
	return events, nil
}

// checkKey says whether an event can be; n counts from 0.
func checkKey(n int, e listen.KeyEvent) error {
	switch {
	case !(e.Seconds >= 0 && e.Seconds <= listen.MaxSeconds):
		return &pieces.InputError{Detail: fmt.Sprintf("event %d is at %g seconds; a take lasts an hour at most, from 0 to %g", n+1, e.Seconds, listen.MaxSeconds)}
	case e.Channel < 0 || e.Channel > 15 || e.Key < 0 || e.Key > 127 || e.Velocity < 0 || e.Velocity > 127:
		return &pieces.InputError{Detail: fmt.Sprintf("event %d has a channel, key or velocity that there is not; channels are 0 to 15, keys and velocities 0 to 127", n+1)}
	case !(e.Cents >= -mostWheel && e.Cents <= mostWheel):
		return &pieces.InputError{Detail: fmt.Sprintf("event %d has a wheel at %g cents; it moves by %g at most", n+1, e.Cents, mostWheel)}
	}
	return nil
}

// mostWheel is how far a wheel may be set to move, in cents: the most that MIDI has a name for, 96 semitones.
const mostWheel = 9600.0

// hearKeys is what events bring that were kept, or are not to be.
func (r *recording) hearKeys(events []listen.KeyEvent) Heard {
	return Heard{Have: r.Bytes, Instrument: r.instrument, Strokes: r.press(events), Sounding: r.keyDown()}
}

// keep writes a piece to the disk, wholly or not at all, and counts it. One that is only heard is counted alone.
func (r *Recordings) keep(one *recording, at int64, piece []byte) error {
	now := r.now()
	one.came.Store(now.UnixNano())
	after := one.Bytes + int64(len(piece))
	switch {
	case at != one.Bytes:
		return &pieces.GapError{Given: at, Have: one.Bytes}
	case one.Kind == FromSound && float64(after)/2/float64(one.Rate) > document.MaxTakeSeconds:
		return &pieces.InputError{Detail: fmt.Sprintf("a take lasts an hour at most, and %s have come: end it and begin another", minutesAndSeconds(float64(one.Bytes)/2/float64(one.Rate)))}
	case one.Kind == FromFile && after > mostFile:
		return &pieces.InputError{Detail: fmt.Sprintf("a file has at most %d MB; this one has more", mostFile>>20)}
	}
	if one.kept() {
		sync := now.Sub(one.synced) >= syncEvery
		if sync {
			if err := r.room(); err != nil {
				return err
			}
		}
		if err := one.write(piece, sync); err != nil {
			return store.OfTheDisk(err)
		}
		if sync {
			one.synced = now
		}
	}
	one.Bytes = after
	one.has.Store(after)
	return nil
}

func minutesAndSeconds(seconds float64) string {
	return fmt.Sprintf("%d minutes and %d seconds", int(seconds)/60, int(seconds)%60)
}

// write adds a piece to the file. Where the disk takes only a part of it that part is taken back: what is sent again goes
// where it belongs.
func (r *recording) write(piece []byte, sync bool) error {
	_, err := r.file.Write(piece)
	if err == nil && sync {
		err = r.file.Sync()
	}
	if err == nil {
		return nil
	}
	_, sought := r.file.Seek(r.Bytes, io.SeekStart)
	return errors.Join(err, r.file.Truncate(r.Bytes), sought)
}

// hearSamples hears a piece that was kept, or is not to be.
func (r *recording) hearSamples(piece []byte) Heard {
	heard := Heard{Have: r.Bytes, Instrument: r.instrument}
	if r.listener == nil {
		return heard
	}
	samples := samplesOf(piece)
	r.clipped += clippedOf(samples)
	r.listener.Hear(samples)
	all := r.listener.Strokes()
	heard.Strokes, r.reported = all[r.reported:], len(all)
	heard.Sounding, heard.Clipped = r.listener.Sounding(), r.clipped
	return heard
}

// clips is the size from which a sample is as loud as can be.
const clips = 0.9995

func clippedOf(samples []float32) int {
	count := 0
	for _, s := range samples {
		if s >= clips || s <= -clips {
			count++
		}
	}
	return count
}

// samplesOf are samples of 16 bits as numbers from -1 to 1.
func samplesOf(piece []byte) []float32 {
	samples := make([]float32, len(piece)/2)
	for n := range samples {
		samples[n] = float32(int16(binary.LittleEndian.Uint16(piece[2*n:]))) / 32768
	}
	return samples
}

// press takes events in, and returns the keys that they press.
func (r *recording) press(events []listen.KeyEvent) []listen.Stroke {
	pressed := []listen.Stroke{}
	for _, e := range events {
		r.keys = append(r.keys, e)
		if e.Wheel {
			continue
		}
		r.down = slices.DeleteFunc(r.down, func(key int) bool { return key == e.Key })
		if e.Velocity > 0 {
			r.down = append(r.down, e.Key)
			pressed = append(pressed, listen.Stroke{Seconds: e.Seconds, Pitch: float64(e.Key)})
		}
	}
	return pressed
}

// keyDown is the key that was pressed last and is not let go.
func (r *recording) keyDown() listen.Sounding {
	if len(r.down) == 0 {
		return listen.Sounding{Level: -120}
	}
	return listen.Sounding{Pitch: float64(r.down[len(r.down)-1]), Voiced: true, Level: -20}
}

// SoFar is all that was played in a recording until now, of seconds of the sound from one to another.
func (r *Recordings) SoFar(ctx context.Context, id string, from, to float64) ([]listen.Note, error) {
	all := []listen.Note{}
	err := r.withTurn(ctx, id, func(one *recording) error {
		switch {
		case one.listener != nil:
			all = one.listener.SoFar()
		case one.isKeys():
			all = listen.NotesOfKeys(one.keys)
		}
		return nil
	})
	return slices.DeleteFunc(all, func(n listen.Note) bool { return n.Onset < from || n.Onset >= to }), err
}
