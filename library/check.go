package library

import (
	"context"
	"errors"
	"fmt"

	"undaris/format/document"
	"undaris/store"
)

// MaxBundle is how many bytes the files of a bundle may have together (our choice: a hundred hours of takes).
const MaxBundle = 64 << 30

// Report is what a check of everything that is kept has found.
type Report struct {
	Documents, Versions, Sounds int
	// Faults say what is not right, one each.
	Faults []string
}

// CheckAll reads every document, every version and every sound that they refer to. That the file itself is whole is
// the store's to check.
func (l *Library) CheckAll(ctx context.Context, sounds *store.Sounds) (Report, error) {
	report, ids := Report{}, []store.Document{}
	hashes := map[string]string{}
	look := func(kind store.Kind, what string, stored []byte) {
		fields, err := fieldsOf(kind, stored)
		if err != nil {
			report.Faults = append(report.Faults, fmt.Sprintf("%s cannot be read: %s", what, err))
			return
		}
		if kind != store.Take || fields["sound"] == nil {
			return
		}
		d := document.Take{}
		if err := open(kind, stored, &d); err == nil && d.Sound != nil {
			hashes[d.Sound.Hash] = what
		}
	}
	err := l.store.EachDocument(ctx, 0, func(d store.Document) error {
		report.Documents++
		look(d.Kind, fmt.Sprintf("the %s %q (id %d)", d.Kind, d.Name, d.ID), d.Body)
		ids = append(ids, store.Document{ID: d.ID, Kind: d.Kind, Name: d.Name})
		return nil
	})
	if err != nil {
		return report, err
	}
	for _, d := range ids {
		revisions, err := l.store.Revisions(ctx, d.ID)
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
	settings, err := l.store.Settings(ctx)
	for _, s := range settings {
		if s.Name == playerSetting || s.Name == practiceSetting { // the others were set aside because they cannot be read
			look(store.Kind(s.Name), "the setting "+s.Name, s.Body)
		}
	}
	return report, err
}
