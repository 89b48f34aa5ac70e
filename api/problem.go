package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"

	"undaris/core/chart"
	"undaris/library/documents"
	"undaris/store"
)

// saveProblem is the problem for what may not be kept, named below a field of the request, or
// for what the store refused.
func saveProblem(noun, field string, id uint, err error) error {
	var wrong *documents.InvalidError
	if errors.As(err, &wrong) {
		return invalid(field, wrong.Err)
	}
	return storeProblem(noun, id, err)
}

// storeProblem is the problem for what the store refused.
func storeProblem(noun string, id uint, err error) error {
	var stale *store.StaleError
	switch {
	case errors.Is(err, store.ErrNotFound) && id == 0:
		return problem(http.StatusNotFound, fmt.Sprintf("there is no %s", noun))
	case errors.Is(err, store.ErrNotFound):
		return problem(http.StatusNotFound, fmt.Sprintf("there is no %s with the id %d", noun, id))
	case errors.Is(err, store.ErrExists):
		return problem(http.StatusConflict, fmt.Sprintf("there is another %s already, and there can only be one; nothing was changed", noun))
	case errors.As(err, &stale):
		return problem(http.StatusPreconditionFailed,
			fmt.Sprintf("this %s was saved elsewhere in the meantime; nothing was overwritten", noun),
			FieldProblem{Field: "body.version", Message: stale.Error(), Version: stale.Current})
	}
	var damaged *documents.DamagedError
	if errors.As(err, &damaged) {
		detail := fmt.Sprintf("this %s cannot be read: %s; its earlier versions and its text can be had", noun, damaged.Err)
		return problem(http.StatusUnprocessableEntity, detail, FieldProblem{Field: "kept", Message: damaged.Error(), Damaged: true})
	}
	var field *chart.FieldError
	if errors.As(err, &field) {
		return invalid("", err)
	}
	return err
}

// fileWords says in plain words what is wrong with the data file, and what can be done.
var fileWords = map[store.FileCause]string{
	store.DiskFull:   "the disk is full, so nothing was saved: free some space, and it is tried again",
	store.ReadOnly:   "the data file is read-only, so nothing was saved: make it writable, or start Undaris with another --data",
	store.Damaged:    "the data file is damaged: stop Undaris and put a copy of the file in its place",
	store.Unreadable: "the data file could not be read or written: see whether its disk is still there",
	store.Busy:       "another program holds the data file: close it, and it is tried again",
}

// faultWords is what is said of any other fault of the server.
const faultWords = "something went wrong in Undaris; what you had kept is safe"

func init() {
	huma.NewError = func(status int, detail string, errs ...error) huma.StatusError {
		return problemOf(status, detail, errs...)
	}
	// A fault that no handler has put into words is put into plain ones here, and its cause
	// is given to the log with the request.
	huma.NewErrorWithContext = func(ctx huma.Context, status int, detail string, errs ...error) huma.StatusError {
		if status != http.StatusInternalServerError {
			return problemOf(status, detail, errs...)
		}
		cause := errors.Join(errs...)
		if ctx != nil && cause != nil {
			_ = humagin.Unwrap(ctx).Error(cause)
		}
		var large *http.MaxBytesError
		if errors.As(cause, &large) {
			return problem(http.StatusRequestEntityTooLarge, tooLarge(large.Limit))
		}
		switch {
		case errors.Is(cause, errBusy):
			return problem(http.StatusServiceUnavailable, "Undaris computes as much as it can at the moment: try again in a few seconds")
		case errors.Is(cause, context.Canceled), errors.Is(cause, context.DeadlineExceeded):
			return problem(http.StatusServiceUnavailable, "this took too long, or nobody waits for it any more")
		}
		var file *store.FileError
		if !errors.As(cause, &file) {
			return problem(status, faultWords)
		}
		if file.Cause == store.DiskFull {
			status = http.StatusInsufficientStorage
		}
		return problem(status, fileWords[file.Cause])
	}
}

// indexed is the path of one of a list.
func indexed(list string, n int) string { return fmt.Sprintf("%s[%d]", list, n) }
