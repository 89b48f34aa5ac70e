//go:build unix

package store

import (
	"errors"
	"os"
	"syscall"
)

func free(folder string) int64 {
	var stat syscall.Statfs_t
	if syscall.Statfs(folder, &stat) != nil {
		return -1
	}
	return int64(stat.Bavail) * int64(stat.Bsize) //nolint:unconvert // the types differ from system to system
}

func isReadOnlyFolder(err error) bool { return errors.Is(err, syscall.EROFS) }

func isDiskFull(err error) bool {
	return errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EDQUOT)
}

// namesOf is how many names (hard links) a file has; 0 where it is not there.
func namesOf(path string) int {
	info, err := os.Stat(path)
	if err != nil {
		return 0
	}
	if stat, ok := info.Sys().(*syscall.Stat_t); ok {
		return int(stat.Nlink) //nolint:unconvert // the types differ from system to system
	}
	return 1
}
