package library

import (
	"encoding/json"
	"fmt"
	"os"
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
