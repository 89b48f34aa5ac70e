//go:build !unix

package main

// restrictUmask does nothing where files belong to the player's own folder anyway.
func restrictUmask() {}
