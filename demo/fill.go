package demo

import (
	"context"

	"github.com/google/uuid"

	"undaris/format/document"
	"undaris/library/documents"
)

// demoSpace is the namespace of the uids of the demo set.
var demoSpace = uuid.MustParse("6f0f1a52-5c0c-4f43-9a0e-52a6c7f1b1d4")

// uidOf is the same for a lick of the demo set on every machine, so that two libraries that are read into one hold it once.
func uidOf(lick document.Lick) string {
	return uuid.NewSHA1(demoSpace, []byte("lick "+lick.Name)).String()
}

// Fill keeps the licks of the demo set in a library, and with them its tunes, solos, bands and exercises
// where they are wanted.
func Fill(ctx context.Context, l *documents.Library, withTunes bool) error {
	ids := map[string]uint{}
	charts := map[string]document.Chart{}
	if withTunes {
		// Tunes first: their addresses stay as they are when licks are added to the set.
		tunes, err := Charts()
		if err != nil {
			return err
		}
		for _, tune := range tunes {
			item, err := documents.Charts.Create(ctx, l, tune, 0)
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
		if _, err := documents.Licks.CreateOnce(ctx, l, uidOf(lick), lick, 0); err != nil {
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
		if _, err := documents.Solos.Create(ctx, l, document.SoloDocument{Solo: one.Solo, Chart: charts[one.Over]}, ids[one.Over]); err != nil {
			return err
		}
	}
	exercises, err := Exercises()
	if err != nil {
		return err
	}
	for _, one := range exercises {
		if _, err := documents.Exercises.Create(ctx, l, one, 0); err != nil {
			return err
		}
	}
	bands, err := Bands()
	if err != nil {
		return err
	}
	for _, one := range bands {
		if _, err := documents.Bands.Create(ctx, l, one.Band, ids[one.Over]); err != nil {
			return err
		}
	}
	return nil
}
