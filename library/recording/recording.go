// Package recording keeps what players record: it takes sound and keys in piece by piece, has them heard as they come,
// makes takes of them, and owns the files of sound of all takes. What has come is on the disk, and is there after the
// program was killed.
//
// Nothing is heard under a lock that anything else waits for: each recording has a turn of its own, which one request
// has at a time, and which nobody waits for longer than somebody waits for the answer. Whoever keeps a sound and then
// what refers to it does both within store.Sounds.WhileKept, so that no sound is cleared in between.
//
// Errors: store.ErrNotFound, *pieces.GapError, *pieces.FullError, *pieces.InputError, and *store.FileError where the disk
// itself fails.
package recording

import (
	"cmp"
	"context"
	"crypto/rand"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"slices"
	"sync"
	"sync/atomic"
	"time"

	"undaris/core/listen"
	"undaris/core/neck"
	"undaris/format/document"
	"undaris/library/pieces"
	"undaris/store"
	"undaris/wholefile"
)

// Recordings are the takes that are being recorded.
type Recordings struct {
	sounds *store.Sounds
	now    func() time.Time
	// mutex guards the map alone, and is never held while something is heard, read or written.
	mutex sync.Mutex
	open  map[string]*recording
}

// New are the recordings of a folder of sounds.
func New(sounds *store.Sounds, now func() time.Time) *Recordings {
	return &Recordings{sounds: sounds, now: now, open: map[string]*recording{}}
}

// The ways that a recording comes in.
const (
	FromSound  = "sound"  // samples of 16 bits, one channel
	FromFile   = "file"   // the bytes of a WAV, FLAC or MIDI file
	FromKeys   = "keys"   // what a MIDI instrument sends
	ListenOnly = "listen" // samples that are heard and not kept: for the tuner and the drills
	// KeysListenOnly is what a MIDI instrument sends, heard and not kept.
	KeysListenOnly = "listen-keys"
)

// The bounds of a recording (our choices).
const (
	// leastFree is how many bytes the disk must have left.
	leastFree = 200 << 20
	// mostFile is how large a file of sound may be: an hour of two channels at 96 kHz with 24 bits.
	mostFile = 2 << 30
	// syncEvery is how often what has come is brought to the disk, so that a power cut costs no more.
	syncEvery = time.Second
	// mostOpen is how many are held in memory; those that nothing comes to make room, and are opened again when they go on.
	mostOpen = 8
	// idleAfter is how long nothing comes until a recording counts as left: its page is gone, or cannot reach us.
	idleAfter = 3 * time.Second
	// listenOnlyTTL is how long nothing comes until one that is only heard is forgotten.
	listenOnlyTTL = time.Minute
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

// kept says whether what comes in is to become a take.
func (r Recording) kept() bool { return r.Kind != ListenOnly && r.Kind != KeysListenOnly }

// isKeys says whether it comes in as keys.
func (r Recording) isKeys() bool { return r.Kind == FromKeys || r.Kind == KeysListenOnly }

// recording is one that is open. What stands below the turn belongs to whoever has it.
type recording struct {
	// came is when something came last, in nanoseconds since 1970, and has how many bytes: for those who do not wait.
	came, has atomic.Int64
	turn      chan struct{}
	Recording
	// ready says that what has come is heard, or there is nothing to hear.
	ready bool
	// gone says that it was ended or closed since it was found.
	gone     bool
	file     *os.File
	listener *listen.Listener
	reported int // strokes that were reported
	synced   time.Time
	keys     []listen.KeyEvent
	down     []int // keys that are pressed, the latest last
	// instrument is the one that is played.
	instrument neck.Instrument
	clipped    int
	// cutOff says that it was heard again from the disk.
	cutOff bool
}

func newRecording(about Recording, now time.Time) *recording {
	one := &recording{Recording: about, turn: make(chan struct{}, 1), instrument: neck.Standard()}
	if over, _, err := document.PlayContextOf(about.Draft.Chart, about.Draft.Hands); err == nil {
		one.instrument = over.Instrument
	}
	one.came.Store(now.UnixNano())
	one.has.Store(about.Bytes)
	return one
}

// take waits for the turn, as long as somebody waits for the answer; the caller gives it back.
func (r *recording) take(ctx context.Context) error {
	select {
	case r.turn <- struct{}{}:
		return nil
	case <-ctx.Done():
		return ctx.Err()
	}
}

// takeNow takes the turn if nobody has it.
func (r *recording) takeNow() bool {
	select {
	case r.turn <- struct{}{}:
		return true
	default:
		return false
	}
}

func (r *recording) giveBack() { <-r.turn }

func (r *recording) idleFor(now time.Time) time.Duration {
	return time.Duration(now.UnixNano() - r.came.Load())
}

// close lets go of what is open of it; the caller has the turn.
func (r *recording) close() {
	r.gone = true
	if r.file != nil {
		_ = r.file.Close()
	}
	r.file, r.listener, r.keys = nil, nil, nil
}

// Begin begins a recording.
func (r *Recordings) Begin(kind string, rate int, draft document.Take) (Recording, error) {
	if err := r.room(); err != nil {
		return Recording{}, err
	}
	now := r.now()
	one := newRecording(Recording{Kind: kind, Rate: rate, Began: now, Draft: draft}, now)
	one.ready = true
	switch kind {
	case FromSound, ListenOnly:
		listener, err := listen.Listen(rate)
		if err != nil {
			return Recording{}, &pieces.InputError{Detail: err.Error()}
		}
		one.listener = listener
	case FromFile, FromKeys, KeysListenOnly:
	default:
		return Recording{}, &pieces.InputError{Detail: fmt.Sprintf("%q is no way a recording comes in; sound, file, keys, listen and listen-keys are", kind)}
	}
	if err := r.makeRoomInMemory(now); err != nil {
		return Recording{}, err
	}
	if err := r.name(one); err != nil {
		return Recording{}, err
	}
	r.mutex.Lock()
	defer r.mutex.Unlock()
	r.open[one.ID] = one
	return one.Recording, nil
}

// name gives a recording an id that none has, and its files where it is to be kept.
func (r *Recordings) name(one *recording) error {
	for {
		digits := [6]byte{}
		if _, err := rand.Read(digits[:]); err != nil {
			return err
		}
		one.ID = one.Began.UTC().Format("20060102-150405") + "-" + hex.EncodeToString(digits[:])
		if !one.kept() {
			return nil
		}
		path, err := r.sounds.PartPath(one.ID + ".part")
		if err != nil {
			return store.OfTheDisk(err)
		}
		one.file, err = os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_RDWR, 0o600)
		if errors.Is(err, fs.ErrExist) {
			continue
		}
		if err == nil {
			err = r.writeAbout(one.Recording)
		}
		return store.OfTheDisk(err)
	}
}

// makeRoomInMemory closes recordings that nothing comes to, where there are as many as may be: those without sound first,
// which are removed, then those with sound that were left longest, which go on when their next piece comes. Those that
// were only heard are forgotten after a while. Only so many that are played right now are too many.
func (r *Recordings) makeRoomInMemory(now time.Time) error {
	r.mutex.Lock()
	left := []*recording{}
	open := len(r.open)
	for _, one := range r.open {
		if one.has.Load() == 0 || one.idleFor(now) >= idleAfter {
			left = append(left, one)
		}
	}
	r.mutex.Unlock()
	slices.SortFunc(left, func(a, b *recording) int {
		if (a.has.Load() == 0) != (b.has.Load() == 0) {
			if a.has.Load() == 0 {
				return -1
			}
			return 1
		}
		return cmp.Compare(a.came.Load(), b.came.Load())
	})
	for _, one := range left {
		forgotten := !one.kept() && one.idleFor(now) >= listenOnlyTTL
		if open < mostOpen && !forgotten || !one.takeNow() { // something came in the meantime
			continue
		}
		r.mutex.Lock()
		delete(r.open, one.ID)
		r.mutex.Unlock()
		open--
		empty := one.kept() && one.has.Load() == 0
		one.close()
		one.giveBack()
		if empty {
			if err := r.remove(one.ID); err != nil {
				return err
			}
		}
	}
	if open >= mostOpen {
		return &pieces.InputError{Detail: fmt.Sprintf("%d recordings are being played right now; end one of them", mostOpen)}
	}
	return nil
}

// room says whether the disk has room for a recording.
func (r *Recordings) room() error {
	if free := r.sounds.Free(); free >= 0 && free < leastFree {
		return &pieces.FullError{Free: free, Needs: leastFree, What: "a take, which needs about 6 MB a minute,"}
	}
	return nil
}

// writeAbout keeps what a recording is to become beside it: wholly, or as it was.
func (r *Recordings) writeAbout(one Recording) error {
	path, err := r.sounds.PartPath(one.ID + ".json")
	if err != nil {
		return err
	}
	about, err := json.Marshal(one)
	if err != nil {
		return err
	}
	return wholefile.WriteBytes(path, about)
}

// find finds a recording that is open, or opens one that was left by an earlier run of the program, or made room.
func (r *Recordings) find(id string) (*recording, error) {
	r.mutex.Lock()
	one := r.open[id]
	r.mutex.Unlock()
	if one != nil {
		return one, nil
	}
	about, err := r.about(id)
	if err != nil {
		return nil, err
	}
	r.mutex.Lock()
	defer r.mutex.Unlock()
	if one := r.open[id]; one != nil {
		return one, nil
	}
	one = newRecording(about, r.now())
	one.cutOff = about.Bytes > 0
	r.open[id] = one
	return one, nil
}

// withTurn finds a recording and runs what needs its turn, once all that has come is heard.
func (r *Recordings) withTurn(ctx context.Context, id string, do func(*recording) error) error {
	for {
		one, err := r.find(id)
		if err != nil {
			return err
		}
		if err := one.take(ctx); err != nil {
			return err
		}
		if one.gone { // it made room, or was ended, while we waited
			one.giveBack()
			continue
		}
		defer one.giveBack()
		if !one.ready {
			if err := r.hearAgain(ctx, one); err != nil {
				return err
			}
		}
		return do(one)
	}
}

// Discard ends a recording and removes what has come.
func (r *Recordings) Discard(ctx context.Context, id string) error {
	if !store.IsPartName(id + ".part") {
		return store.ErrNotFound
	}
	r.mutex.Lock()
	one := r.open[id]
	delete(r.open, id)
	r.mutex.Unlock()
	if one != nil {
		if err := one.take(ctx); err != nil {
			return err
		}
		defer one.giveBack()
		one.close()
	}
	return r.remove(id)
}

func (r *Recordings) remove(id string) error {
	return errors.Join(r.sounds.RemovePart(id+".part"), r.sounds.RemovePart(id+".json"))
}
