package store

import (
	"errors"

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
	return err
}
