package library

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"undaris/format/document"
	"undaris/store"
)

// Player is the player's settings as kept; version 0 was never kept.
type Player struct {
	Version int
	Saved   time.Time
	Player  document.Player
	Mended  []string
}

// playerSetting is the name and the kind that the player's settings are kept under.
const playerSetting = "player"

// Player reads the player's settings. What cannot be read has the standard guitar in its
// place, and says so.
func (l *Library) Player(ctx context.Context) (Player, error) {
	setting, err := l.store.Setting(ctx, playerSetting)
	kept := Player{Version: setting.Version, Saved: setting.UpdatedAt}
	if err != nil || setting.Version == 0 {
		return kept, err
	}
	if err := open(playerSetting, setting.Body, &kept.Player); err != nil {
		kept.Player = document.Player{}
		kept.Mended = []string{fmt.Sprintf("your neck and hands cannot be read (%s); a guitar in standard tuning stands in their place, and what was kept is set aside with the next save", err)}
		return kept, nil
	}
	kept.Player, kept.Mended = kept.Player.Mended()
	return kept, nil
}

// ReplacePlayer checks the player's settings and saves them over a version.
func (l *Library) ReplacePlayer(ctx context.Context, version int, player document.Player) (Player, error) {
	if err := player.Check(); err != nil {
		return Player{}, &InvalidError{Err: err}
	}
	ctx = context.WithoutCancel(ctx)
	if err := l.setAside(ctx, playerSetting); err != nil {
		return Player{}, err
	}
	kept, err := l.store.KeepSetting(ctx, playerSetting, version, seal(playerSetting, player))
	return Player{Version: kept.Version, Saved: kept.UpdatedAt, Player: player}, err
}

// setAside keeps a setting that cannot be read under another name, before a save takes its
// place.
func (l *Library) setAside(ctx context.Context, name string) error {
	before, err := l.store.Setting(ctx, name)
	if err != nil || before.Version == 0 || json.Valid(before.Body) {
		return err
	}
	aside := fmt.Sprintf("%s, version %d, not readable", name, before.Version)
	known, err := l.store.Setting(ctx, aside)
	if err != nil || known.Version > 0 {
		return err
	}
	_, err = l.store.KeepSetting(ctx, aside, 0, before.Body)
	return err
}

// Present is a kept tune as it is now, with the player's hands; false where the tune is gone
// or cannot be read.
func (l *Library) Present(ctx context.Context, chartID uint) (document.Chart, document.Hands, bool, error) {
	item, err := Charts.Read(ctx, l, chartID)
	var damaged *DamagedError
	if errors.Is(err, store.ErrNotFound) || errors.As(err, &damaged) {
		return document.Chart{}, document.Hands{}, false, nil
	}
	if err != nil {
		return document.Chart{}, document.Hands{}, false, err
	}
	player, err := l.Player(ctx)
	return item.Body, player.Player.Hands, err == nil, err
}

// SoloNow is a kept solo moved along to where its tune and the player's neck are now. It stays
// as it was kept where the tune is gone.
func (l *Library) SoloNow(ctx context.Context, item Item[document.SoloDocument]) (document.SoloDocument, error) {
	chart, hands, found, err := l.Present(ctx, item.ChartID)
	if err != nil || !found {
		return item.Body, err
	}
	from, _, err := document.Playing(item.Body.Chart, item.Body.Hands)
	if err != nil {
		return item.Body, err
	}
	to, _, err := document.Playing(chart, &hands)
	if err != nil {
		return item.Body, err
	}
	moved, _, err := item.Body.Solo.Transposed(from, to)
	return document.SoloDocument{Solo: moved, Chart: chart, Hands: &hands}, err
}
