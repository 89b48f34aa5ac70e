package documents

import (
	"fmt"
	"time"
)

// What times may be kept (our choice: nobody practised before there was the instrument, and the data file and JSON hold
// years of four digits, whatever the zone).
var (
	earliest = time.Date(1900, 1, 1, 0, 0, 0, 0, time.UTC)
	latest   = time.Date(2200, 1, 1, 0, 0, 0, 0, time.UTC)
)

// TimeError says that a time cannot be kept.
type TimeError struct{ At time.Time }

func (e *TimeError) Error() string {
	return fmt.Sprintf("the year %d cannot be kept; %d to %d can", e.At.Year(), earliest.Year(), latest.Year()-1)
}

// CheckTime says whether a time can be kept: a *TimeError where it cannot.
func CheckTime(at time.Time) error {
	if at.Before(earliest) || !at.Before(latest) {
		return &TimeError{At: at}
	}
	return nil
}

// CheckOptionalTime is CheckTime of a time that may be missing.
func CheckOptionalTime(at *time.Time) error {
	if at == nil {
		return nil
	}
	return CheckTime(*at)
}
