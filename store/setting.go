package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
)

// Setting is what is kept once for the whole data file, by its name.
type Setting struct {
	Name      string `gorm:"primaryKey"`
	Body      []byte
	Version   int
	UpdatedAt time.Time
}

// Setting reads a setting; one that was never kept has version 0 and no body.
func (s *Store) Setting(ctx context.Context, name string) (Setting, error) {
	kept := Setting{Name: name}
	err := s.db.WithContext(ctx).First(&kept, "name = ?", name).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return Setting{Name: name}, nil
	}
	return kept, err
}

// KeepSetting replaces the given version of a setting. A version that is not the
// current one is a *StaleError, and nothing is overwritten.
func (s *Store) KeepSetting(ctx context.Context, name string, version int, body []byte) (Setting, error) {
	var kept Setting
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		before, err := s.within(tx).Setting(ctx, name)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &StaleError{Given: version, Current: before.Version}
		}
		kept = Setting{Name: name, Body: body, Version: version + 1}
		return tx.Save(&kept).Error
	})
	return kept, err
}
