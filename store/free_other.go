//go:build !unix

package store

func free(string) int64 { return -1 }
