package recording

import (
	"bufio"
	"bytes"
	"context"
	"flag"
	"fmt"
	"io"
	"log/slog"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/listen"
	"undaris/format/document"
	"undaris/format/soundfile"
	"undaris/library/documents"
	"undaris/store"
)

var kills = flag.Int("kills", 3, "how often each kind of recording is killed")

// recordVariable names the kind of recording that this program is started again for, to be killed in the middle of it.
const recordVariable = "UNDARIS_TEST_RECORD"

func TestMain(m *testing.M) {
	flag.Parse()
	if kind := os.Getenv(recordVariable); kind != "" {
		if err := recordAll(context.Background(), kind, os.Getenv("UNDARIS_TEST_FILE")); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		return
	}
	os.Exit(m.Run())
}

// The pieces of a take that is killed: half a second each.
const killedPieces = 8

// killedPiece is one of them, and how a recording of keys has it.
func killedPiece(kind string, n int) (samples []byte, keys []listen.KeyEvent) {
	if kind == FromKeys {
		at := float64(n) / 2
		return nil, []listen.KeyEvent{{Seconds: at, Key: 60 + n, Velocity: 80}, {Seconds: at + 0.3, Key: 60 + n}}
	}
	whole := tone(killedPieces / 2)
	return whole[n*testRate : (n+1)*testRate], nil
}

// sendPiece has a recording hear a piece that begins after so many bytes.
func sendPiece(ctx context.Context, r *Recordings, kind, id string, n int, at int64) (int64, error) {
	samples, keys := killedPiece(kind, n)
	var heard Heard
	var err error
	if kind == FromKeys {
		heard, err = r.HearKeys(ctx, id, at, keys)
	} else {
		heard, err = r.Hear(ctx, id, at, samples, nil)
	}
	return heard.Have, err
}

// keepIn keeps what a recording became as a take, as the program does.
func keepIn(ctx context.Context, l *documents.Library) func(Finished) error {
	return func(done Finished) error {
		over := chart.Chart{Title: "Two Bars", Key: harmony.Key{Mode: harmony.DominantMode}, Meter: chart.FourFour, Tempo: 100, Feel: chart.Straight, Swing: 1, Bars: chart.EmptyBars(2, chart.FourFour)}
		body := document.Take{
			Name: "played", Began: time.Now(), Source: "microphone", Chart: document.ChartOf(over),
			Notes: document.TakeNotesOf(done.Notes), Sound: done.Sound,
		}
		_, err := documents.Takes.Create(ctx, l, body, 0)
		return err
	}
}

// recordAll is what is killed: it records all pieces and keeps them as a take, and says what it has acknowledged.
func recordAll(ctx context.Context, kind, path string) error {
	st, err := store.Open(path)
	if err != nil {
		return err
	}
	defer func() { _ = st.Close() }()
	r := New(store.SoundsBeside(path), time.Now)
	one, err := r.Begin(kind, testRate, document.Take{Name: "played"})
	if err != nil {
		return err
	}
	fmt.Println("begun")
	have := int64(0)
	for n := range killedPieces {
		if have, err = sendPiece(ctx, r, kind, one.ID, n, have); err != nil {
			return err
		}
		fmt.Println("piece", n)
	}
	if err := r.MakeTake(ctx, one.ID, keepIn(ctx, documents.New(st, slog.New(slog.DiscardHandler)))); err != nil {
		return err
	}
	fmt.Println("kept")
	return nil
}

// Whenever the program is killed while it records or while a take becomes of it, every piece that it has acknowledged is
// there afterwards, as a recording that goes on where it was or as the take; the rest is sent, and the take is the same,
// sample for sample, as if nobody had killed anything.
func TestKilledWhileItRecords(t *testing.T) {
	for _, kind := range []string{FromSound, FromKeys} {
		t.Run(kind, func(t *testing.T) {
			random := rand.New(rand.NewPCG(5, uint64(len(kind))))
			empty := emptyDataFile(t)
			longest, _ := recordedAndKilled(t, empty(), kind, time.Minute)
			outcomes := map[string]int{}
			for range *kills {
				path := empty()
				_, said := recordedAndKilled(t, path, kind, time.Duration(random.Int64N(int64(longest)+1)))
				outcomes[afterTheKill(t, path, kind, said)]++
			}
			t.Logf("up to %s: %v", longest.Round(time.Millisecond), outcomes)
		})
	}
}

// emptyDataFile makes data files to record beside.
func emptyDataFile(t *testing.T) func() string {
	t.Helper()
	template := filepath.Join(t.TempDir(), "undaris.db")
	st, err := store.Open(template)
	require.NoError(t, err)
	require.NoError(t, st.Close())
	return func() string {
		folder := t.TempDir()
		require.NoError(t, os.CopyFS(folder, os.DirFS(filepath.Dir(template))))
		return filepath.Join(folder, "undaris.db")
	}
}

// recordedAndKilled has a program of its own record, killed so long after it began, and returns how long it took and what
// it said.
func recordedAndKilled(t *testing.T, path, kind string, killedAfter time.Duration) (time.Duration, []string) {
	t.Helper()
	command := exec.Command(os.Args[0])
	command.Env = append(os.Environ(), recordVariable+"="+kind, "UNDARIS_TEST_FILE="+path)
	command.Stderr = os.Stderr
	out, err := command.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, command.Start())
	lines := bufio.NewScanner(out)
	require.True(t, lines.Scan())
	start := time.Now()
	kill := time.AfterFunc(killedAfter, func() { _ = command.Process.Kill() })
	defer kill.Stop()
	said := []string{}
	for lines.Scan() {
		said = append(said, lines.Text())
	}
	_ = command.Wait() // a program that was killed says so
	return time.Since(start), said
}

// afterTheKill looks at what is there, sends the pieces that were not acknowledged, and holds the take against the whole.
func afterTheKill(t *testing.T, path, kind string, said []string) string {
	t.Helper()
	ctx := t.Context()
	st, err := store.Open(path)
	require.NoError(t, err)
	defer func() { require.NoError(t, st.Close()) }()
	require.NoError(t, st.Check(ctx, false))
	l, sounds := documents.New(st, slog.New(slog.DiscardHandler)), store.SoundsBeside(path)
	r := New(sounds, time.Now)
	left, err := r.Unfinished()
	require.NoError(t, err)
	kept, err := documents.Takes.ReadAll(ctx, l, 0)
	require.NoError(t, err)
	outcome := "as the take"
	acknowledged := 0
	for _, line := range said {
		if strings.HasPrefix(line, "piece") {
			acknowledged++
		}
	}
	if len(kept) == 0 {
		outcome = "goes on"
		if acknowledged == 0 && len(left) == 0 {
			return "nothing had come"
		}
		require.Len(t, left, 1, "%d pieces were acknowledged", acknowledged)
		// The page sends from where the program says that it is.
		have, next := left[0].Bytes, acknowledged
		if after := wholeLength(t, kind, acknowledged+1); have >= after && acknowledged < killedPieces {
			next++ // it was written, and killed before it was acknowledged
		}
		require.GreaterOrEqual(t, have, wholeLength(t, kind, acknowledged))
		if half := have - wholeLength(t, kind, next); half > 0 {
			// Half a piece was written; the page sends the whole of it from where it began, or its second half.
			t.Logf("%d bytes of a piece", half)
			samples, _ := killedPiece(kind, next)
			require.NotEmpty(t, samples, "keys come whole or are cut back")
			heard, err := r.Hear(ctx, left[0].ID, have, samples[half:], nil)
			require.NoError(t, err)
			have, next = heard.Have, next+1
		}
		for ; next < killedPieces; next++ {
			have, err = sendPiece(ctx, r, kind, left[0].ID, next, have)
			require.NoError(t, err)
		}
		require.NoError(t, r.MakeTake(ctx, left[0].ID, keepIn(ctx, l)))
		kept, err = documents.Takes.ReadAll(ctx, l, 0)
		require.NoError(t, err)
	}
	require.Len(t, kept, 1)
	_, err = ClearSounds(ctx, l, sounds, time.Now().Add(48*time.Hour))
	require.NoError(t, err)
	if kind == FromKeys {
		assert.Len(t, kept[0].Body.Notes, killedPieces)
		return outcome
	}
	file, err := sounds.Open(kept[0].Body.Sound.Hash)
	require.NoError(t, err)
	defer func() { _ = file.Close() }()
	whole, err := io.ReadAll(file)
	require.NoError(t, err)
	want := tone(killedPieces / 2)
	assert.True(t, bytes.Equal(whole, append(soundfile.WAVHeader(testRate, int64(len(want))), want...)), "the sound is what was played, from its first sample to its last")
	return outcome
}

// wholeLength is how many bytes so many pieces are as they are kept.
func wholeLength(t *testing.T, kind string, count int) int64 {
	t.Helper()
	length := int64(0)
	for n := range min(count, killedPieces) {
		samples, keys := killedPiece(kind, n)
		if kind == FromKeys {
			lines, err := keyLines(keys)
			require.NoError(t, err)
			samples = lines
		}
		length += int64(len(samples))
	}
	return length
}
