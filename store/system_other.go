//go:build !unix

package store

import (
	"errors"
	"syscall"
)

func free(string) int64 { return -1 }

// namesOf is not known here.
func namesOf(string) int { return 1 }

func isReadOnlyFolder(error) bool { return false }

// isDiskFull knows Windows' ERROR_HANDLE_DISK_FULL and ERROR_DISK_FULL.
func isDiskFull(err error) bool {
	var number syscall.Errno
	return errors.As(err, &number) && (number == 39 || number == 112)
}
