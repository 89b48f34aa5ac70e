//go:build unix

package main

import "syscall"

// restrictUmask has every file that is made be readable by the player alone.
func restrictUmask() { syscall.Umask(0o077) }
