//go:build unix

package main

import "syscall"

// keepToOneself has every file that is made be readable by the player alone.
func keepToOneself() { syscall.Umask(0o077) }
