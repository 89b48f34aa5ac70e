package library

import (
	"context"
	"time"

	"undaris/format/document"
)

// PracticeSettings are how a player practises, as kept; version 0 was never kept.
type PracticeSettings struct {
	Version  int
	Saved    time.Time
	Settings document.PracticeSettings
}

// practiceSetting is the name and the kind that they are kept under.
const practiceSetting = "practice"

// PracticeSettings reads how the player practises. What cannot be read has the usual in its place.
func (l *Library) PracticeSettings(ctx context.Context) (PracticeSettings, error) {
	setting, err := l.store.Setting(ctx, practiceSetting)
	kept := PracticeSettings{Version: setting.Version, Saved: setting.UpdatedAt}
	if err != nil || setting.Version == 0 {
		return kept, err
	}
	if err := open(practiceSetting, setting.Body, &kept.Settings); err != nil || kept.Settings.Check() != nil {
		l.log.Warn("the practice settings cannot be read; the usual ones stand in their place", "error", err)
		kept.Settings = document.PracticeSettings{}
	}
	return kept, nil
}

// ReplacePracticeSettings checks them and saves them over a version.
func (l *Library) ReplacePracticeSettings(ctx context.Context, version int, s document.PracticeSettings) (PracticeSettings, error) {
	if err := s.Check(); err != nil {
		return PracticeSettings{}, &InvalidError{Err: err}
	}
	ctx = context.WithoutCancel(ctx)
	if err := l.setAside(ctx, practiceSetting); err != nil {
		return PracticeSettings{}, err
	}
	kept, err := l.store.KeepSetting(ctx, practiceSetting, version, seal(practiceSetting, s))
	return PracticeSettings{Version: kept.Version, Saved: kept.UpdatedAt, Settings: s}, err
}
