package backup

import (
	"context"
	"errors"
	"fmt"

	"undaris/format/document"
	"undaris/library/documents"
	"undaris/store"
)

// Report is what a check of everything that is kept has found.
type Report struct {
	Documents, Versions, Sounds int
	// Faults say what is not right, one each.
	Faults []string
}

// CheckAll reads every document, every version and every sound that they refer to. That the file itself is whole is
// the store's to check.
func CheckAll(ctx context.Context, st *store.Store, sounds *store.Sounds) (Report, error) {
	report, ids := Report{}, []store.Document{}
	hashes := map[string]string{}
	look := func(kind store.Kind, what string, stored []byte) {
		fields, err := documents.Fields(kind, stored)
		if err != nil {
			report.Faults = append(report.Faults, fmt.Sprintf("%s cannot be read: %s", what, err))
			return
		}
		if kind != store.Take || fields["sound"] == nil {
			return
		}
		d := document.Take{}
		if err := documents.Open(kind, stored, &d); err == nil && d.Sound != nil {
			hashes[d.Sound.Hash] = what
		}
	}
	err := st.EachDocument(ctx, 0, func(d store.Document) error {
		report.Documents++
		look(d.Kind, fmt.Sprintf("the %s %q (id %d)", d.Kind, d.Name, d.ID), d.Body)
		ids = append(ids, store.Document{ID: d.ID, Kind: d.Kind, Name: d.Name})
		return nil
	})
	if err != nil {
		return report, err
	}
	for _, d := range ids {
		revisions, err := st.Revisions(ctx, d.ID)
		if err != nil {
			return report, err
		}
		for _, r := range revisions {
			report.Versions++
			look(d.Kind, fmt.Sprintf("version %d of the %s %q (id %d)", r.Version, d.Kind, d.Name, d.ID), r.Body)
		}
	}
	for hash, what := range hashes {
		report.Sounds++
		switch err := sounds.Check(hash); {
		case errors.Is(err, store.ErrNoSound), errors.Is(err, store.ErrSoundChanged):
			report.Faults = append(report.Faults, fmt.Sprintf("the sound of %s: %s", what, err))
		case err != nil:
			return report, err
		}
	}
	// What the rows themselves have, beside their bodies: times, numbers; of cards, answers and the log too.
	if err := st.EachDamagedRow(ctx, func(e store.RowError) { report.Faults = append(report.Faults, e.Error()) }); err != nil {
		return report, err
	}
	settings, err := st.Settings(ctx)
	for _, s := range settings {
		if s.Name == documents.PlayerSetting || s.Name == documents.PracticeSetting { // the others were set aside because they cannot be read
			look(store.Kind(s.Name), "the setting "+s.Name, s.Body)
		}
	}
	return report, err
}
