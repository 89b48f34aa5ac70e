package documents

import (
	"context"
	"errors"

	"undaris/format/document"
	"undaris/store"
)

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
	player, err := PlayerSettings.Read(ctx, l)
	return item.Body, player.Body.Hands, err == nil, err
}

// SoloNow is a kept solo moved along to where its tune and the player's neck are now. It stays
// as it was kept where the tune is gone.
func (l *Library) SoloNow(ctx context.Context, item Item[document.SoloDocument]) (document.SoloDocument, error) {
	chart, hands, found, err := l.Present(ctx, item.ChartID)
	if err != nil || !found {
		return item.Body, err
	}
	from, _, err := document.PlayContextOf(item.Body.Chart, item.Body.Hands)
	if err != nil {
		return item.Body, err
	}
	to, _, err := document.PlayContextOf(chart, &hands)
	if err != nil {
		return item.Body, err
	}
	moved, _, err := item.Body.Solo.Transposed(from, to)
	return document.SoloDocument{Solo: moved, Chart: chart, Hands: &hands}, err
}
