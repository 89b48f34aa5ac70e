//go:build unix

package wholefile

import (
	"errors"
	"os"
)

// syncFolder has the disk hold the names in a folder.
func syncFolder(folder string) error {
	opened, err := os.Open(folder)
	if err != nil {
		return err
	}
	return errors.Join(opened.Sync(), opened.Close())
}
