//go:build !unix

package wholefile

// syncFolder does nothing where a folder cannot be written to the disk by itself.
func syncFolder(string) error { return nil }
