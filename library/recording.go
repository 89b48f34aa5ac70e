package library

import (
	"bytes"
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"slices"
	"strings"
	"sync"
	"time"

	"undaris/core/neck"
	"undaris/core/take"
	"undaris/format/document"
	"undaris/store"
)

// Recordings are the takes that are being recorded: their sound goes into a file as it comes, and is heard as it
// comes. What has come is there after the program was killed.
type Recordings struct {
	sounds *store.Sounds
	now    func() time.Time
	mutex  sync.Mutex
	open   map[string]*recording
	made   int
}

// NewRecordings are the recordings of a folder of sounds.
func NewRecordings(sounds *store.Sounds, now func() time.Time) *Recordings {
	return &Recordings{sounds: sounds, now: now, open: map[string]*recording{}}
}

// The ways that a recording comes in.
const (
	FromSound = "sound" // samples of 16 bits, one channel
	FromFile  = "file"  // the bytes of a WAV, FLAC or MIDI file
	FromKeys  = "keys"  // what a MIDI instrument sends
	ToHear    = "ear"   // samples that are heard and not kept: for the tuner and the drills
	// KeysToHear is what a MIDI instrument sends, heard and not kept.
	KeysToHear = "ear-keys"
)

// The bounds of a recording.
const (
	// leastFree is how many bytes the disk must have left.
	leastFree = 200 << 20
	// mostFile is how large a file of sound may be: an hour of two channels.
	mostFile = 700 << 20
	// syncEvery is how often what has come is brought to the disk, so that a power cut costs no more.
	syncEvery = time.Second
	mostKeys  = 200000
	mostOpen  = 8
)

// Recording is one that has begun.
type Recording struct {
	ID   string
	Kind string
	Rate int
	// Began is when, Bytes how much has come, Seconds how long that is where it is sound.
	Began   time.Time
	Bytes   int64
	Seconds float64
	// Draft is the take that becomes of it, as far as it is known.
	Draft document.Take
}

// recording is one that is open.
type recording struct {
	Recording
	mutex    sync.Mutex
	file     *os.File
	listener *take.Listener
	reported int // strokes that were reported
	synced   time.Time
	heardAt  time.Time
	keys     []take.KeyEvent
	down     []int // keys that are pressed, the latest last
	// instrument is the one that is played.
	instrument neck.Instrument
	clipped    int
}

// GapError says that a piece of a recording does not follow on what has come: Have is how many bytes that is.
type GapError struct{ Given, Have int64 }

func (e *GapError) Error() string {
	return fmt.Sprintf("the piece begins at byte %d; %d have come", e.Given, e.Have)
}

// FullError says that the disk has no room for a recording.
type FullError struct{ Free int64 }

func (e *FullError) Error() string {
	return fmt.Sprintf("the disk has only %d MB left; a take needs %d MB to begin with, and about 6 MB a minute", e.Free>>20, leastFree>>20)
}

// InputError says why a recording cannot be what it is to be.
type InputError struct{ Detail string }

func (e *InputError) Error() string { return e.Detail }

// Begin begins a recording.
func (r *Recordings) Begin(kind string, rate int, draft document.Take) (Recording, error) {
	if err := r.room(); err != nil {
		return Recording{}, err
	}
	one := &recording{Recording: Recording{Kind: kind, Rate: rate, Began: r.now(), Draft: draft}}
	one.instrument = neck.Standard()
	if over, _, err := document.Playing(draft.Chart, draft.Hands); err == nil {
		one.instrument = over.Instrument
	}
	switch kind {
	case FromSound, ToHear:
		listener, err := take.Listen(rate)
		if err != nil {
			return Recording{}, &InputError{err.Error()}
		}
		one.listener = listener
	case FromFile, FromKeys, KeysToHear:
	default:
		return Recording{}, &InputError{fmt.Sprintf("%q is no way a recording comes in; sound, file, keys, ear and ear-keys are", kind)}
	}
	r.mutex.Lock()
	defer r.mutex.Unlock()
	for id, other := range r.open {
		if !other.kept() && one.Began.Sub(other.last()) > forgotten {
			delete(r.open, id)
		}
	}
	if len(r.open) >= mostOpen {
		return Recording{}, &InputError{fmt.Sprintf("%d recordings are open already; end one of them", mostOpen)}
	}
	r.made++
	one.ID = strings.ToLower(one.Began.UTC().Format("20060102-150405")) + fmt.Sprintf("-%03d", r.made%1000)
	if !one.kept() {
		r.open[one.ID] = one
		return one.Recording, nil
	}
	if err := r.writeAbout(one.Recording); err != nil {
		return Recording{}, err
	}
	path, err := r.sounds.PartPath(one.ID + ".part")
	if err != nil {
		return Recording{}, err
	}
	if one.file, err = os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_RDWR, 0o600); err != nil {
		return Recording{}, err
	}
	r.open[one.ID] = one
	return one.Recording, nil
}

func (r *Recordings) room() error {
	if free := r.sounds.Free(); free >= 0 && free < leastFree {
		return &FullError{free}
	}
	return nil
}

// writeAbout keeps what a recording is to become beside it.
func (r *Recordings) writeAbout(one Recording) error {
	path, err := r.sounds.PartPath(one.ID + ".json")
	if err != nil {
		return err
	}
	about, err := json.Marshal(one)
	if err != nil {
		return err
	}
	return os.WriteFile(path, about, 0o600)
}

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

// last is when something came last.
func (r *recording) last() time.Time {
	r.mutex.Lock()
	defer r.mutex.Unlock()
	if r.heardAt.IsZero() {
		return r.Began
	}
	return r.heardAt
}

// forgotten is how long nothing comes until one that is only heard is forgotten.
const forgotten = time.Minute

// clips is the size from which a sample is as loud as can be.
const clips = 0.9995

func samplesOf(piece []byte) []float32 {
	samples := make([]float32, len(piece)/2)
	for n := range samples {
		samples[n] = float32(int16(binary.LittleEndian.Uint16(piece[2*n:]))) / (1 << 15)
	}
	return samples
}

func (r *Recordings) find(id string) (*recording, error) {
	r.mutex.Lock()
	defer r.mutex.Unlock()
	if one := r.open[id]; one != nil {
		return one, nil
	}
	return nil, store.ErrNotFound
}

// Discard ends a recording and removes what has come.
func (r *Recordings) Discard(id string) error {
	r.mutex.Lock()
	one := r.open[id]
	delete(r.open, id)
	r.mutex.Unlock()
	if one != nil {
		one.mutex.Lock()
		defer one.mutex.Unlock()
		if one.file != nil {
			_ = one.file.Close()
			one.file = nil
		}
	}
	if err := r.sounds.RemovePart(id + ".part"); err != nil {
		return err
	}
	return r.sounds.RemovePart(id + ".json")
}
