package wholefile

import (
	"errors"
	"io"
	"os"
	"path/filepath"
)

// Write writes a file that only its owner may read. Where it fails, what had the name has it still, as it was.
func Write(path string, write func(io.Writer) error) (err error) {
	partial := path + ".partial"
	file, err := os.OpenFile(partial, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	defer func() {
		if err != nil {
			_ = os.Remove(partial)
		}
	}()
	if err := errors.Join(write(file), file.Sync(), file.Close()); err != nil {
		return err
	}
	return Name(partial, path)
}

// WriteBytes is Write of these bytes.
func WriteBytes(path string, content []byte) error {
	return Write(path, func(to io.Writer) error {
		_, err := to.Write(content)
		return err
	})
}

// Name gives a file that lies wholly on the disk its name, in the place of what has it.
func Name(from, to string) error {
	if err := os.Rename(from, to); err != nil {
		return err
	}
	return syncFolder(filepath.Dir(to))
}
