package store

import (
	"bytes"
	"flag"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// manyLicks is a closed data file with so many documents, each with a body that says which one it is and a version.
func manyLicks(t testing.TB, count int) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), "undaris.db")
	s, err := Open(path)
	require.NoError(t, err)
	for n := 1; n <= count; n++ {
		_, err := s.Create(t.Context(), Document{Kind: Lick, Name: fmt.Sprint("lick ", n), Body: bodyOf(n, "old")})
		require.NoError(t, err)
		_, err = s.Replace(t.Context(), Lick, uint(n), Save{Version: 1, Name: fmt.Sprint("lick ", n), Body: bodyOf(n, "new"), KeepBefore: true})
		require.NoError(t, err)
	}
	require.NoError(t, s.Checkpoint(t.Context()))
	require.NoError(t, s.Close())
	return path
}

func bodyOf(n int, which string) []byte {
	return fmt.Appendf(nil, `{"kind":"lick","schema":2,"body":{"%s":"%s"}}`, which, bytes.Repeat(fmt.Appendf(nil, "%03d", n), 500))
}

// damages change a file as disks and programs do.
var damages = map[string]func(random *rand.Rand, text []byte) []byte{
	"flipped": func(random *rand.Rand, text []byte) []byte {
		for range 1 + random.IntN(30) {
			text[random.IntN(len(text))] ^= byte(1 << random.IntN(8))
		}
		return text
	},
	"cut": func(random *rand.Rand, text []byte) []byte { return text[:random.IntN(len(text))] },
	"a block lost": func(random *rand.Rand, text []byte) []byte {
		at := random.IntN(len(text))
		clear(text[at:min(len(text), at+4096*(1+random.IntN(20)))])
		return text
	},
	"a block of elsewhere": func(random *rand.Rand, text []byte) []byte {
		pages := len(text) / 4096
		copy(text[4096*random.IntN(pages):], text[4096*random.IntN(pages):][:4096])
		return text
	},
}

var damagedFiles = flag.Int("damaged-files", 6, "how many files are damaged in each way")

// Of a file that was damaged in any way nothing is read that was never kept but where the store cannot know: what a body
// says is checked above it. What can be read is rescued.
func TestDamagedFiles(t *testing.T) {
	whole, err := os.ReadFile(manyLicks(t, 60))
	require.NoError(t, err)
	random := rand.New(rand.NewPCG(7, 7))
	folder := t.TempDir()
	for kind, damage := range damages {
		read, right := 0, 0
		files := *damagedFiles
		for n := range files {
			path := filepath.Join(folder, fmt.Sprintf("%s %d.db", kind, n))
			require.NoError(t, os.WriteFile(path, damage(random, bytes.Clone(whole)), 0o600))
			tables, err := Rescue(t.Context(), path, path+".new")
			require.NoError(t, err, "%s %d: %v", kind, n, tables)
			rescued, err := Open(path + ".new")
			require.NoError(t, err)
			require.NoError(t, rescued.Check(t.Context(), false), "what is rescued is a sound file")
			all, err := rescued.List(t.Context(), Lick, 0)
			require.NoError(t, err)
			for _, d := range all {
				read++
				if bytes.Equal(d.Body, bodyOf(int(d.ID), "new")) {
					right++
				}
			}
			require.NoError(t, rescued.Close())
		}
		t.Logf("%s: of %d documents %d were read, %d as they were saved last", kind, 60*files, read, right)
		least := map[string]int{"flipped": 50, "cut": 10, "a block lost": 40, "a block of elsewhere": 55}[kind]
		assert.Greater(t, right, least*files, kind)
	}
}

// The log beside a data file is never read into another file.
func TestALogThatBelongsToAnotherFile(t *testing.T) {
	path := manyLicks(t, 5)
	s, err := Open(path)
	require.NoError(t, err)
	_, err = s.Create(t.Context(), Document{Kind: Lick, Name: "in the log", Body: []byte("{}")})
	require.NoError(t, err)
	other := manyLicks(t, 3)
	log, err := os.ReadFile(path + "-wal")
	require.NoError(t, err)
	require.NotEmpty(t, log)
	require.NoError(t, s.Close())
	require.NoError(t, os.WriteFile(other+"-wal", log, 0o600))
	again, err := Open(other)
	if err != nil {
		return // refused is right too
	}
	defer func() { _ = again.Close() }()
	if again.Check(t.Context(), true) != nil {
		return
	}
	all, err := again.List(t.Context(), Lick, 0)
	require.NoError(t, err)
	assert.Len(t, all, 3)
}
