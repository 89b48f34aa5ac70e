//go:build unix

package store

import "syscall"

func free(folder string) int64 {
	var stat syscall.Statfs_t
	if syscall.Statfs(folder, &stat) != nil {
		return -1
	}
	return int64(stat.Bavail) * int64(stat.Bsize) //nolint:unconvert // the types differ from system to system
}
