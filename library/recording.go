package library

import (
	"bufio"
	"bytes"
	"context"
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"slices"
	"strings"
	"sync"
	"time"

	"undaris/core/neck"
	"undaris/core/take"
	"undaris/format/document"
	"undaris/format/midifile"
	"undaris/format/soundfile"
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
	reported int // notes that were reported
	synced   time.Time
	heardAt  time.Time
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
	case FromFile, FromKeys:
	default:
		return Recording{}, &InputError{fmt.Sprintf("%q is no way a recording comes in; sound, file, keys and ear are", kind)}
	}
	r.mutex.Lock()
	defer r.mutex.Unlock()
	for id, other := range r.open {
		if other.Kind == ToHear && one.Began.Sub(other.last()) > forgotten {
			delete(r.open, id)
		}
	}
	if len(r.open) >= mostOpen {
		return Recording{}, &InputError{fmt.Sprintf("%d recordings are open already; end one of them", mostOpen)}
	}
	r.made++
	one.ID = strings.ToLower(one.Began.UTC().Format("20060102-150405")) + fmt.Sprintf("-%03d", r.made%1000)
	if kind == ToHear {
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
	// Notes are those that have become certain since the last piece.
	Notes    []take.Note
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
	if one.file == nil && one.Kind != ToHear {
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
	if one.Kind == ToHear {
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
	if r.Kind == FromKeys {
		heard.Sounding = r.keysDown(piece)
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
	all := r.listener.Notes()
	heard.Notes, r.reported = all[r.reported:], len(all)
	heard.Sounding, heard.Clipped = r.listener.Sounding(), r.clipped
	return heard
}

// keysDown is the key that was pressed last and is not let go, after the events of a piece.
func (r *recording) keysDown(piece []byte) take.Sounding {
	for _, line := range bytes.Split(piece, []byte("\n")) {
		var e take.KeyEvent
		if len(line) == 0 || json.Unmarshal(line, &e) != nil || e.Wheel {
			continue
		}
		r.down = slices.DeleteFunc(r.down, func(key int) bool { return key == e.Key })
		if e.Velocity > 0 {
			r.down = append(r.down, e.Key)
		}
	}
	if len(r.down) == 0 {
		return take.Sounding{Level: -120}
	}
	return take.Sounding{Pitch: float64(r.down[len(r.down)-1]), Voiced: true, Level: -20}
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
		one.reported = len(one.listener.Notes())
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

// Finished is what has become of a recording.
type Finished struct {
	Draft   document.Take
	Notes   []take.Note
	Sound   *document.TakeSound
	Remarks []string
}

// Finish hears a recording to its end and keeps its sound. It stays among the parts until Discard, so that nothing
// is lost if the take cannot be kept.
func (r *Recordings) Finish(ctx context.Context, id string) (Finished, error) {
	one, err := r.about(id)
	if err != nil {
		return Finished{}, err
	}
	out := Finished{Draft: one.Draft}
	var listener *take.Listener
	clipped := 0
	if running, err := r.find(id); err == nil {
		running.mutex.Lock()
		defer running.mutex.Unlock()
		listener, clipped = running.listener, running.clipped
		out.Draft = running.Draft
		if running.file != nil {
			if err := running.file.Sync(); err != nil {
				return out, err
			}
		}
	}
	path, err := r.sounds.PartPath(id + ".part")
	if err != nil {
		return out, err
	}
	file, err := os.Open(path)
	if err != nil {
		return out, err
	}
	defer func() { _ = file.Close() }()
	switch one.Kind {
	case FromKeys:
		return out, finishKeys(file, &out)
	case FromFile:
		return out, r.finishFile(ctx, file, &out)
	}
	bytesOfSound := one.Bytes - one.Bytes%2
	if listener == nil { // the program was ended in between: hear it again
		if listener, err = take.Listen(one.Rate); err != nil {
			return out, &InputError{err.Error()}
		}
		if err := hearAll(ctx, listener, io.LimitReader(file, bytesOfSound)); err != nil {
			return out, err
		}
		out.Remarks = append(out.Remarks, "the recording was cut off; what had come is here")
	}
	out.Notes = listener.Close()
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return out, err
	}
	sound := &document.TakeSound{Rate: one.Rate, Seconds: float64(bytesOfSound) / 2 / float64(one.Rate), Clipped: clipped}
	sound.Hash, sound.Bytes, err = r.sounds.Keep(io.MultiReader(bytes.NewReader(soundfile.WAVHeader(one.Rate, bytesOfSound)), io.LimitReader(file, bytesOfSound)))
	out.Sound = sound
	return out, err
}

// hearAll hears samples of 16 bits to their end.
func hearAll(ctx context.Context, listener *take.Listener, from io.Reader) error {
	piece := make([]byte, 1<<15)
	for {
		if err := ctx.Err(); err != nil {
			return err
		}
		n, err := io.ReadFull(from, piece)
		listener.Hear(samplesOf(piece[:n-n%2]))
		if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
			return nil
		}
		if err != nil {
			return err
		}
	}
}

// finishFile hears a file, and keeps it as one channel of 16 bits.
func (r *Recordings) finishFile(ctx context.Context, file *os.File, out *Finished) error {
	head := make([]byte, 4)
	if _, err := io.ReadFull(file, head); err != nil {
		return &InputError{"the file is empty"}
	}
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return err
	}
	if string(head) == "MThd" {
		data, err := io.ReadAll(io.LimitReader(file, 8<<20))
		if err != nil {
			return err
		}
		keys, remarks, err := midifile.ReadKeys(data)
		if err != nil {
			return &InputError{err.Error()}
		}
		out.Notes, out.Remarks = take.NotesOfKeys(keys), remarks
		return nil
	}
	stream, err := soundfile.Open(file)
	if err != nil {
		return &InputError{err.Error()}
	}
	listener, err := take.Listen(stream.Rate)
	if err != nil {
		return &InputError{err.Error()}
	}
	// Its sound is written as it is heard; the header is made when the length is known.
	heard, written := io.Pipe()
	counted := make(chan int, 1)
	go func() {
		count, err := hearStream(ctx, stream, listener, written)
		counted <- count
		_ = written.CloseWithError(err)
	}()
	temporary, err := os.CreateTemp("", "undaris-sound-*")
	if err != nil {
		return err
	}
	defer func() { _ = os.Remove(temporary.Name()) }()
	defer func() { _ = temporary.Close() }()
	if _, err := io.Copy(temporary, heard); err != nil {
		_ = heard.CloseWithError(err)
		return err
	}
	count := <-counted
	if count == 0 {
		return &InputError{"the file has no sound"}
	}
	if _, err := temporary.Seek(0, io.SeekStart); err != nil {
		return err
	}
	out.Notes, out.Remarks = listener.Close(), append(out.Remarks, stream.Remarks()...)
	sound := &document.TakeSound{Rate: stream.Rate, Seconds: float64(count) / float64(stream.Rate)}
	sound.Hash, sound.Bytes, err = r.sounds.Keep(io.MultiReader(bytes.NewReader(soundfile.WAVHeader(stream.Rate, 2*int64(count))), bufio.NewReader(temporary)))
	out.Sound = sound
	return err
}

// hearStream hears a stream to its end, at most an hour of it, and writes its samples.
func hearStream(ctx context.Context, stream *soundfile.Stream, listener *take.Listener, to io.Writer) (count int, err error) {
	piece := make([]float32, 1<<14)
	for count < int(document.MaxTakeSeconds)*stream.Rate {
		if err := ctx.Err(); err != nil {
			return count, err
		}
		n, err := stream.Read(piece)
		if n > 0 {
			listener.Hear(piece[:n])
			count += n
			if _, err := to.Write(soundfile.PCM16(piece[:n])); err != nil {
				return count, err
			}
		}
		if errors.Is(err, io.EOF) {
			return count, nil
		}
		if err != nil {
			return count, err
		}
	}
	return count, nil
}

// finishKeys reads what a MIDI instrument sent: a line of JSON an event.
func finishKeys(file io.Reader, out *Finished) error {
	events := []take.KeyEvent{}
	lines := bufio.NewScanner(file)
	for lines.Scan() {
		var e take.KeyEvent
		if err := json.Unmarshal(lines.Bytes(), &e); err != nil {
			out.Remarks = append(out.Remarks, "the recording was cut off; what had come is here")
			break
		}
		events = append(events, e)
		if len(events) >= mostKeys {
			break
		}
	}
	out.Notes = take.NotesOfKeys(events)
	return lines.Err()
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
