// Package pieces holds what recordings and bundles have in common as they come in piece by piece: the errors of a piece
// that does not follow, of a disk without room, and of a thing that cannot be what it is to be.
package pieces

import "fmt"

// GapError says that a piece does not follow on what has come: Have is how many bytes that is.
type GapError struct{ Given, Have int64 }

func (e *GapError) Error() string {
	return fmt.Sprintf("the piece begins at byte %d; %d have come", e.Given, e.Have)
}

// FullError says that the disk has no room: Free is how many bytes it has left, Needs how many must be.
type FullError struct {
	Free, Needs int64
	// What needs the room, as the subject of a sentence.
	What string
}

func (e *FullError) Error() string {
	return fmt.Sprintf("the disk has only %d MB left; %s needs %d MB", e.Free>>20, e.What, e.Needs>>20)
}

// InputError says why something cannot be what it is to be.
type InputError struct{ Detail string }

func (e *InputError) Error() string { return e.Detail }
