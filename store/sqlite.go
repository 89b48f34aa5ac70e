package store

import (
	"errors"
	"fmt"

	"gorm.io/driver/sqlite"
	"gorm.io/gorm"
	driver "modernc.org/sqlite"
	codes "modernc.org/sqlite/lib"
)

// dialector is GORM's SQLite on a driver that needs no C compiler. The official
// one understands only the C driver's errors, so theirs are translated here.
type dialector struct{ *sqlite.Dialector }

func openSQLite(dsn string) gorm.Dialector {
	return dialector{&sqlite.Dialector{DriverName: "sqlite", DSN: dsn}}
}

// Translate turns the driver's constraint errors into GORM's.
func (d dialector) Translate(err error) error {
	var broken *driver.Error
	if !errors.As(err, &broken) {
		return err
	}
	switch broken.Code() {
	case codes.SQLITE_CONSTRAINT_PRIMARYKEY, codes.SQLITE_CONSTRAINT_UNIQUE:
		return gorm.ErrDuplicatedKey
	case codes.SQLITE_CONSTRAINT_FOREIGNKEY:
		return gorm.ErrForeignKeyViolated
	case codes.SQLITE_CONSTRAINT_CHECK:
		return gorm.ErrCheckConstraintViolated
	}
	return asFileError(err)
}

// asFileError is the error as a *FileError, where the driver says that the data file itself
// is what could not be read or written.
func asFileError(err error) error {
	var broken *driver.Error
	if errors.As(err, &broken) {
		if broken.Code() == codes.SQLITE_IOERR_SHMSIZE { // the index of the log found no room
			return &FileError{Cause: DiskFull, err: err}
		}
		if cause, ok := causes[broken.Code()&0xff]; ok {
			return &FileError{Cause: cause, err: err}
		}
	}
	return err
}

// FileCause is what is wrong with the data file as a whole.
type FileCause string

// What may be wrong with it.
const (
	DiskFull   FileCause = "disk full"
	ReadOnly   FileCause = "read-only"
	Damaged    FileCause = "damaged"
	Unreadable FileCause = "unreadable"
	Busy       FileCause = "busy"
	NoFolder   FileCause = "no folder"
)

// causes are the driver's primary codes of them.
var causes = map[int]FileCause{
	codes.SQLITE_FULL: DiskFull, codes.SQLITE_READONLY: ReadOnly, codes.SQLITE_CORRUPT: Damaged, codes.SQLITE_NOTADB: Damaged,
	codes.SQLITE_IOERR: Unreadable, codes.SQLITE_CANTOPEN: Unreadable, codes.SQLITE_BUSY: Busy, codes.SQLITE_LOCKED: Busy,
}

// ErrEmptied says that a data file is empty that held something.
var ErrEmptied error = &FileError{Cause: Damaged, err: errors.New("it is empty")}

// FileError says that the data file itself could not be read or written.
type FileError struct {
	Cause FileCause
	err   error
}

func (e *FileError) Error() string { return fmt.Sprintf("data file %s: %s", e.Cause, e.err) }

func (e *FileError) Unwrap() error { return e.err }
