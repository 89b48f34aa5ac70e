package practice

import (
	"sync"

	"undaris/core/practice/logbook"
)

// remembered is what was read of the practice and need not be read again until it changes.
type remembered struct {
	cards latest[cardHistory]
	facts latest[[]logbook.Entry]
}

// latest is a value as it was at a count of changes. What is remembered is not to be changed.
type latest[T any] struct {
	mutex   sync.Mutex
	known   bool
	changes int
	value   T
}

// at returns the value at a count of changes, read anew where another count is remembered.
func (l *latest[T]) at(changes int, read func() (T, error)) (T, error) {
	l.mutex.Lock()
	defer l.mutex.Unlock()
	if l.known && l.changes == changes {
		return l.value, nil
	}
	value, err := read()
	if err == nil {
		l.known, l.changes, l.value = true, changes, value
	}
	return value, err
}

func (l *latest[T]) forget() {
	l.mutex.Lock()
	defer l.mutex.Unlock()
	l.known = false
}
