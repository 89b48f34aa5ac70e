package recording

import (
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"log/slog"
	"math"
	"os"
	"path/filepath"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/listen"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/library/pieces"
	"undaris/store"
)

const testRate = 8000

// recorded are the recordings of a folder of a test, with a clock that it sets.
func recorded(t testing.TB) (*Recordings, *store.Sounds, func(time.Duration)) {
	t.Helper()
	now := time.Date(2026, 5, 1, 20, 0, 0, 0, time.UTC)
	mutex := sync.Mutex{}
	sounds := store.SoundsBeside(filepath.Join(t.TempDir(), "data.db"))
	clock := func() time.Time { mutex.Lock(); defer mutex.Unlock(); return now }
	return New(sounds, clock), sounds, func(after time.Duration) { mutex.Lock(); defer mutex.Unlock(); now = now.Add(after) }
}

// tone is a string that is struck every half second, as samples of 16 bits.
func tone(seconds float64) []byte {
	out := make([]byte, 2*int(seconds*testRate))
	for n := range len(out) / 2 {
		at := math.Mod(float64(n)/testRate, 0.5)
		value := 12000 * math.Exp(-4*at) * math.Sin(2*math.Pi*220*float64(n)/testRate)
		binary.LittleEndian.PutUint16(out[2*n:], uint16(int16(value)))
	}
	return out
}

func finished(t testing.TB, r *Recordings, id string) Finished {
	t.Helper()
	var out Finished
	require.NoError(t, r.MakeTake(t.Context(), id, func(done Finished) error { out = done; return nil }))
	return out
}

// Two dozen that were begun and never played do not keep anybody from recording; nor do as many that are only heard.
func TestRecordingsWithoutSoundBlockNobody(t *testing.T) {
	r, sounds, _ := recorded(t)
	for n := range 24 {
		_, err := r.Begin([]string{FromSound, ListenOnly, FromKeys}[n%3], testRate, document.Take{})
		require.NoError(t, err, n)
	}
	one, err := r.Begin(FromSound, testRate, document.Take{Name: "the twenty-fifth"})
	require.NoError(t, err)
	_, err = r.Hear(t.Context(), one.ID, 0, tone(1), nil)
	require.NoError(t, err)
	assert.InDelta(t, 1, finished(t, r, one.ID).Sound.Seconds, 0.01)
	names, err := sounds.Parts()
	require.NoError(t, err)
	assert.Less(t, len(names), 2*mostOpen, "those without sound have left nothing behind")
}

// Eight that are being played are as many as there may be; one that was left makes room, and goes on when its next piece
// comes.
func TestARecordingThatWasLeftMakesRoom(t *testing.T) {
	r, _, later := recorded(t)
	ids := []string{}
	for range mostOpen {
		one, err := r.Begin(FromSound, testRate, document.Take{})
		require.NoError(t, err)
		_, err = r.Hear(t.Context(), one.ID, 0, tone(0.5), nil)
		require.NoError(t, err)
		ids = append(ids, one.ID)
	}
	_, err := r.Begin(FromSound, testRate, document.Take{})
	var refused *pieces.InputError
	require.ErrorAs(t, err, &refused)
	later(idleAfter)
	_, err = r.Begin(FromSound, testRate, document.Take{})
	require.NoError(t, err)
	whole := tone(1)
	for _, id := range ids {
		heard, err := r.Hear(t.Context(), id, int64(len(whole)/2), whole[len(whole)/2:], nil)
		require.NoError(t, err)
		assert.Equal(t, int64(len(whole)), heard.Have)
		break // the first was left longest
	}
}

// A start in the same second, and after the program was started again, is a recording of its own.
func TestStartsInTheSameSecond(t *testing.T) {
	r, sounds, _ := recorded(t)
	first, err := r.Begin(FromSound, testRate, document.Take{Name: "first"})
	require.NoError(t, err)
	_, err = r.Hear(t.Context(), first.ID, 0, tone(0.2), nil)
	require.NoError(t, err)
	again := New(sounds, r.now)
	second, err := again.Begin(FromSound, testRate, document.Take{Name: "second"})
	require.NoError(t, err)
	assert.NotEqual(t, first.ID, second.ID)
	left, err := again.Unfinished()
	require.NoError(t, err)
	require.Len(t, left, 1)
	assert.Equal(t, "first", left[0].Draft.Name)
}

func TestSoundAndKeysAreToldApart(t *testing.T) {
	r, _, _ := recorded(t)
	sound, err := r.Begin(FromSound, testRate, document.Take{})
	require.NoError(t, err)
	keys, err := r.Begin(FromKeys, 0, document.Take{})
	require.NoError(t, err)
	var refused *pieces.InputError
	_, err = r.HearKeys(t.Context(), sound.ID, 0, []listen.KeyEvent{{Key: 60, Velocity: 90}})
	require.ErrorAs(t, err, &refused)
	_, err = r.Hear(t.Context(), keys.ID, 0, tone(0.1), nil)
	require.ErrorAs(t, err, &refused)
	for _, wrong := range []listen.KeyEvent{{Seconds: 1e11}, {Seconds: -1}, {Key: 200}, {Wheel: true, Cents: 1e9}, {Seconds: math.NaN()}} {
		_, err = r.HearKeys(t.Context(), keys.ID, 0, []listen.KeyEvent{wrong})
		require.ErrorAs(t, err, &refused, "%+v", wrong)
	}
	// Lines of keys are taken as bytes too, whole or not at all.
	line := []byte(`{"seconds":0.5,"channel":0,"key":60,"velocity":90}` + "\n")
	_, err = r.Hear(t.Context(), keys.ID, 0, line[:20], nil)
	require.ErrorAs(t, err, &refused)
	heard, err := r.Hear(t.Context(), keys.ID, 0, line, nil)
	require.NoError(t, err)
	assert.Equal(t, int64(len(line)), heard.Have)
	assert.Len(t, heard.Strokes, 1)
	assert.Len(t, finished(t, r, keys.ID).Notes, 1)
}

// One that is ended without sound is no take, and is there still.
func TestARecordingWithoutSoundIsNoTake(t *testing.T) {
	r, _, _ := recorded(t)
	for _, kind := range []string{FromSound, FromKeys, FromFile} {
		one, err := r.Begin(kind, testRate, document.Take{})
		require.NoError(t, err)
		err = r.MakeTake(t.Context(), one.ID, func(Finished) error { t.Error("a take of nothing was kept"); return nil })
		var refused *pieces.InputError
		require.ErrorAs(t, err, &refused, kind)
		require.NoError(t, r.Discard(t.Context(), one.ID))
	}
	assert.ErrorIs(t, r.Discard(t.Context(), "x.y"), store.ErrNotFound, "an id that cannot be one")
	assert.ErrorIs(t, r.MakeTake(t.Context(), "../../x", nil), store.ErrNotFound)
}

// An hour is an hour of sound, and said by what has come.
func TestAnHourOfSound(t *testing.T) {
	r, _, _ := recorded(t)
	one, err := r.Begin(FromKeys, 0, document.Take{}) // nothing is heard, so that it is quick
	require.NoError(t, err)
	open, err := r.find(one.ID)
	require.NoError(t, err)
	open.Kind, open.Rate = FromSound, testRate
	open.Bytes = 2 * testRate * 3599
	open.has.Store(open.Bytes)
	require.NoError(t, open.file.Truncate(open.Bytes))
	_, err = r.Hear(t.Context(), one.ID, open.Bytes, make([]byte, 2*testRate), nil)
	require.NoError(t, err, "up to the hour")
	_, err = r.Hear(t.Context(), one.ID, open.Bytes, make([]byte, 2), nil)
	var refused *pieces.InputError
	require.ErrorAs(t, err, &refused)
	assert.Contains(t, refused.Detail, "60 minutes and 0 seconds have come")
}

// A piece of which the disk takes a part alone is taken back: what is sent again lies where it belongs.
func TestAPieceThatIsWrittenHalf(t *testing.T) {
	r, _, _ := recorded(t)
	one, err := r.Begin(FromSound, testRate, document.Take{})
	require.NoError(t, err)
	sound := tone(2)
	_, err = r.Hear(t.Context(), one.ID, 0, sound[:testRate], nil)
	require.NoError(t, err)
	open, err := r.find(one.ID)
	require.NoError(t, err)
	// A file that may not grow beyond so many bytes stands for the full disk.
	limited := limitFileSize(t, int64(testRate)+1000)
	_, err = r.Hear(t.Context(), one.ID, testRate, sound[testRate:3*testRate], nil)
	limited()
	require.Error(t, err)
	info, err := open.file.Stat()
	require.NoError(t, err)
	assert.Equal(t, int64(testRate), info.Size(), "the half piece is taken back")
	for at := testRate; at < len(sound); at += testRate {
		_, err = r.Hear(t.Context(), one.ID, int64(at), sound[at:at+testRate], nil)
		require.NoError(t, err)
	}
	done := finished(t, r, one.ID)
	assert.InDelta(t, 2, done.Sound.Seconds, 1e-9)
	assert.GreaterOrEqual(t, len(done.Notes), 3)
}

// limitFileSize keeps files of this process from growing beyond so many bytes, until it is called.
func limitFileSize(t *testing.T, most int64) func() {
	t.Helper()
	var before syscall.Rlimit
	require.NoError(t, syscall.Getrlimit(syscall.RLIMIT_FSIZE, &before))
	require.NoError(t, syscall.Setrlimit(syscall.RLIMIT_FSIZE, &syscall.Rlimit{Cur: uint64(most), Max: before.Max}))
	return func() { require.NoError(t, syscall.Setrlimit(syscall.RLIMIT_FSIZE, &before)) }
}

// What was left by a program that was killed goes on as if nothing had been: the same notes, and nobody who lists or begins
// another waits while it is heard anew. Where nobody waits any more it is left as it was.
func TestARecordingGoesOnAfterAKill(t *testing.T) {
	r, sounds, _ := recorded(t)
	whole := tone(6)
	one, err := r.Begin(FromSound, testRate, document.Take{Name: "cut"})
	require.NoError(t, err)
	_, err = r.Hear(t.Context(), one.ID, 0, whole[:8*testRate], nil)
	require.NoError(t, err)

	again := New(sounds, r.now)
	gone, leave := context.WithCancel(t.Context())
	leave()
	_, err = again.Hear(gone, one.ID, 8*testRate, whole[8*testRate:], nil)
	require.ErrorIs(t, err, context.Canceled)
	// While one request has its turn, others that need none go on.
	open, err := again.find(one.ID)
	require.NoError(t, err)
	require.NoError(t, open.take(t.Context()))
	_, err = again.Unfinished()
	require.NoError(t, err)
	_, err = again.Begin(ListenOnly, testRate, document.Take{})
	require.NoError(t, err)
	open.giveBack()
	_, err = again.Hear(t.Context(), one.ID, 8*testRate, whole[8*testRate:], nil)
	require.NoError(t, err)
	cut := finished(t, again, one.ID)

	other, err := r.Begin(FromSound, testRate, document.Take{})
	require.NoError(t, err)
	_, err = r.Hear(t.Context(), other.ID, 0, whole, nil)
	require.NoError(t, err)
	unbroken := finished(t, r, other.ID)
	assert.Equal(t, unbroken.Notes, cut.Notes)
	assert.Equal(t, unbroken.Sound.Hash, cut.Sound.Hash)
	assert.Equal(t, []string{"the recording was cut off; what had come is here"}, cut.Remarks)
}

// A take that cannot be kept leaves its recording, which can be ended again.
func TestATakeThatCannotBeKeptIsNotLost(t *testing.T) {
	r, _, _ := recorded(t)
	one, err := r.Begin(FromSound, testRate, document.Take{})
	require.NoError(t, err)
	_, err = r.Hear(t.Context(), one.ID, 0, tone(1), nil)
	require.NoError(t, err)
	refused := errors.New("cannot be kept")
	first := 0
	require.ErrorIs(t, r.MakeTake(t.Context(), one.ID, func(done Finished) error { first = len(done.Notes); return refused }), refused)
	assert.Len(t, finished(t, r, one.ID).Notes, first)
	_, err = r.SoFar(t.Context(), one.ID, 0, 10)
	assert.ErrorIs(t, err, store.ErrNotFound, "it is ended")
}

// The sound of a take stays for thirty days after it was deleted, however long ago it was saved; that of its versions too.
func TestTheSoundOfADeletedTakeStays(t *testing.T) {
	file := filepath.Join(t.TempDir(), "data.db")
	st, err := store.Open(file)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	l := documents.New(st, slog.New(slog.DiscardHandler))
	sounds := store.SoundsBeside(file)
	kept := keptSound(t, sounds, testRate, 1, 2)
	saved := time.Now().Add(-60 * 24 * time.Hour)
	body := documents.Seal(store.Take, document.Take{Name: "old", Sound: &kept})
	id, err := st.Insert(t.Context(), store.Document{Kind: store.Take, UID: "t1", Name: "old", Body: body, Version: 1, CreatedAt: saved, UpdatedAt: saved, Summary: fmt.Appendf(nil, `{"sound":%q}`, kept.Hash)})
	require.NoError(t, err)
	require.NoError(t, os.Chtimes(filepath.Join(file+".sounds", kept.Hash+".wav"), saved, saved))
	require.NoError(t, st.Delete(t.Context(), store.Take, id, 1))
	freed, err := ClearSounds(t.Context(), l, sounds, time.Now())
	require.NoError(t, err)
	assert.Zero(t, freed, "it was deleted a moment ago")
	assert.True(t, sounds.Has(kept.Hash))
	freed, err = ClearSounds(t.Context(), l, sounds, time.Now().Add(29*24*time.Hour))
	require.NoError(t, err)
	assert.Zero(t, freed)
	require.NoError(t, sounds.WhileKept(func() error {
		freed, err = ClearSounds(t.Context(), l, sounds, time.Now().Add(31*24*time.Hour))
		return err
	}))
	assert.Zero(t, freed, "nothing is cleared while somebody keeps a sound")
	freed, err = ClearSounds(t.Context(), l, sounds, time.Now().Add(31*24*time.Hour))
	require.NoError(t, err)
	assert.Positive(t, freed)
}
