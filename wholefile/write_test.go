package wholefile

import (
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A file is written wholly, for its owner alone; one that cannot be is as it was, and nothing is left beside it.
func TestWrite(t *testing.T) {
	path := filepath.Join(t.TempDir(), "kept.json")
	require.NoError(t, WriteBytes(path, []byte("first")))
	info, err := os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())

	full := errors.New("the disk is full")
	assert.ErrorIs(t, Write(path, func(to io.Writer) error {
		_, err := to.Write([]byte("half of the sec"))
		return errors.Join(err, full)
	}), full)
	kept, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, "first", string(kept))
	beside, err := os.ReadDir(filepath.Dir(path))
	require.NoError(t, err)
	assert.Len(t, beside, 1)

	require.NoError(t, WriteBytes(path, []byte("second")))
	kept, err = os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, "second", string(kept))
	assert.Error(t, WriteBytes(filepath.Join(path, "below"), nil), "a file is no folder")
}

func Example() {
	folder, _ := os.MkdirTemp("", "wholefile-*")
	defer func() { _ = os.RemoveAll(folder) }()
	path := filepath.Join(folder, "settings.json")
	fmt.Println(WriteBytes(path, []byte("{}")))
	// Output: <nil>
}
