package demo

import (
	"context"

	"undaris/format/document"
	"undaris/library"
)

// Fill keeps the licks of the demo set in a library, and with them its tunes, solos, bands and exercises
// where they are wanted.
func Fill(ctx context.Context, l *library.Library, withTunes bool) error {
	ids := map[string]uint{}
	charts := map[string]document.Chart{}
	if withTunes {
		// Tunes first: their addresses stay as they are when licks are added to the set.
		tunes, err := Charts()
		if err != nil {
			return err
		}
		for _, tune := range tunes {
			item, err := library.Charts.Create(ctx, l, tune, 0)
			if err != nil {
				return err
			}
			ids[tune.Title], charts[tune.Title] = item.ID, tune
		}
	}
	licks, err := Licks()
	if err != nil {
		return err
	}
	for _, lick := range licks {
		if _, err := library.Licks.Create(ctx, l, lick, 0); err != nil {
			return err
		}
	}
	if !withTunes {
		return nil
	}
	solos, err := Solos()
	if err != nil {
		return err
	}
	for _, one := range solos {
		if _, err := library.Solos.Create(ctx, l, document.SoloDocument{Solo: one.Solo, Chart: charts[one.Over]}, ids[one.Over]); err != nil {
			return err
		}
	}
	exercises, err := Exercises()
	if err != nil {
		return err
	}
	for _, one := range exercises {
		if _, err := library.Exercises.Create(ctx, l, one, 0); err != nil {
			return err
		}
	}
	bands, err := Bands()
	if err != nil {
		return err
	}
	for _, one := range bands {
		if _, err := library.Bands.Create(ctx, l, one.Band, ids[one.Over]); err != nil {
			return err
		}
	}
	return nil
}
