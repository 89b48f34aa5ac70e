package store

import (
	"bytes"
	"context"
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

// SettingRevision is a setting as it was before a save replaced it.
type SettingRevision struct {
	Name    string `gorm:"primaryKey"`
	Version int    `gorm:"primaryKey"`
	Body    []byte
	SavedAt time.Time
}

// Setting reads a setting; one that was never kept has version 0 and no body.
func (s *Store) Setting(ctx context.Context, name string) (Setting, error) {
	kept := Setting{Name: name}
	return kept, s.eachSetting(ctx, func(one Setting, _ faults) error {
		if one.Name == name {
			kept = one
		}
		return nil
	})
}

// KeepSetting replaces a version of a setting. The version before is kept as that of a document is. A version that is
// not the current one is a *StaleError, and nothing is overwritten.
func (s *Store) KeepSetting(ctx context.Context, name string, save Save) (Setting, error) {
	var kept Setting
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		before, err := s.withTx(tx).Setting(ctx, name)
		if err != nil {
			return err
		}
		if before.Version > 0 && before.Version != save.Version && bytes.Equal(before.Body, save.Body) {
			kept = before // the answer to the first time has been lost on its way
			return nil
		}
		if before.Version != save.Version {
			return &StaleError{Given: save.Version, Current: before.Version}
		}
		if before.Version > 0 && (save.KeepBefore || !inSitting(before.UpdatedAt, s.now())) {
			if err := s.withTx(tx).keepSettingRevision(before); err != nil {
				return err
			}
		}
		kept = Setting{Name: name, Body: save.Body, Version: save.Version + 1}
		return tx.Save(&kept).Error
	})
	return kept, err
}

func (s *Store) keepSettingRevision(before Setting) error {
	return s.db.Exec(`INSERT OR REPLACE INTO setting_revisions (name, version, body, saved_at) VALUES (?, ?, ?, ?)`,
		before.Name, before.Version, before.Body, before.UpdatedAt).Error
}

// SettingRevisions lists the versions of a setting that later saves replaced, newest first.
func (s *Store) SettingRevisions(ctx context.Context, name string) ([]SettingRevision, error) {
	all := []SettingRevision{}
	return all, eachRow(s.db.WithContext(ctx).Table("setting_revisions").Where("name = ?", name).Order("version DESC").Select("name, version, body, saved_at"),
		func(scan func(...any) error) error {
			r, wrong := SettingRevision{}, faults{}
			var saved seenTime
			if err := scan(&r.Name, &r.Version, &r.Body, &saved); err != nil {
				return err
			}
			r.SavedAt = wrong.time("of saving", saved)
			all = append(all, r)
			return nil
		})
}

// Settings lists everything that is kept once, in the order of its names.
func (s *Store) Settings(ctx context.Context) ([]Setting, error) {
	all := []Setting{}
	return all, s.eachSetting(ctx, func(one Setting, _ faults) error {
		all = append(all, one)
		return nil
	})
}
