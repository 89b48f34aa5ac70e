package documents

import (
	"context"
	"fmt"
	"time"

	"undaris/format/document"
	"undaris/store"
)

// The names of the settings, which are the kinds of their envelopes too.
const (
	// PlayerSetting is the player's neck, hands and how they are drawn.
	PlayerSetting = "player"
	// PracticeSetting is how the player practises.
	PracticeSetting = "practice"
)

// Setting is one kind of what is kept once for the whole data file, and what is done with it.
type Setting[Body any] struct {
	name string
	// noun is what it is called in a sentence, as a plural.
	noun string
	// usual says what stands in its place where it cannot be read.
	usual string
	check func(Body) error
	// mend returns a body with what no rule of today allows brought to the nearest that is allowed, and what was done;
	// nil where a body is either right or not readable.
	mend func(Body) (Body, []string)
}

// The settings.
var (
	// PlayerSettings are the player's neck and hands.
	PlayerSettings = Setting[document.Player]{
		name: PlayerSetting, noun: "your neck and hands", usual: "a guitar in standard tuning stands in their place",
		check: func(p document.Player) error { return p.Check() }, mend: document.Player.Mended,
	}
	// PracticeSettings are how the player practises.
	PracticeSettings = Setting[document.PracticeSettings]{
		name: PracticeSetting, noun: "your goal and how you practise", usual: "the usual stands in its place",
		check: func(s document.PracticeSettings) error { return s.Check() },
	}
)

// KeptSetting is a setting as kept; version 0 was never kept.
type KeptSetting[Body any] struct {
	Version int
	Saved   time.Time
	Body    Body
	// Mended says which values no rule of today allows, or that nothing of it could be read.
	Mended []string
}

// Read reads a setting. What cannot be read has an empty body in its place, and says so; it stays among the versions
// when another one is saved.
func (s Setting[Body]) Read(ctx context.Context, l *Library) (KeptSetting[Body], error) {
	setting, err := l.store.Setting(ctx, s.name)
	kept := KeptSetting[Body]{Version: setting.Version, Saved: setting.UpdatedAt}
	if err != nil || setting.Version == 0 {
		return kept, err
	}
	body, mended, err := s.readable(setting.Body)
	if err != nil {
		l.log.Warn("a setting cannot be read; the usual stands in its place", "setting", s.name, "error", err)
		kept.Mended = []string{fmt.Sprintf("%s cannot be read (%s); %s, and what was kept stays among the versions", s.noun, err, s.usual)}
		return kept, nil
	}
	kept.Body, kept.Mended = body, mended
	return kept, nil
}

// readable opens a stored body; its error says why it cannot be used as it is, nor mended.
func (s Setting[Body]) readable(stored []byte) (Body, []string, error) {
	var body, none Body
	if err := Open(store.Kind(s.name), stored, &body); err != nil {
		return none, nil, err
	}
	if s.mend != nil {
		body, mended := s.mend(body)
		return body, mended, nil
	}
	if err := s.check(body); err != nil {
		return none, nil, err
	}
	return body, nil, nil
}

// Replace checks a setting and saves it over a version. One that cannot be read, or had to be mended, is never written
// over without being kept as a version.
func (s Setting[Body]) Replace(ctx context.Context, l *Library, save Save, body Body) (KeptSetting[Body], error) {
	if err := s.check(body); err != nil {
		return KeptSetting[Body]{}, &InvalidError{Err: err}
	}
	ctx = context.WithoutCancel(ctx)
	before, err := l.store.Setting(ctx, s.name)
	if err != nil {
		return KeptSetting[Body]{}, err
	}
	if _, mended, err := s.readable(before.Body); before.Version > 0 && (err != nil || len(mended) > 0) {
		save.KeepBefore = true
	}
	kept, err := l.store.KeepSetting(ctx, s.name, store.Save{Version: save.Version, Body: Seal(store.Kind(s.name), body), KeepBefore: save.KeepBefore})
	return KeptSetting[Body]{Version: kept.Version, Saved: kept.UpdatedAt, Body: body}, err
}

// Revisions lists the versions of a setting, newest first: the present one, then those that later saves replaced.
func (s Setting[Body]) Revisions(ctx context.Context, l *Library) ([]Revision[Body], error) {
	now, err := l.store.Setting(ctx, s.name)
	if err != nil || now.Version == 0 {
		return []Revision[Body]{}, err
	}
	earlier, err := l.store.SettingRevisions(ctx, s.name)
	if err != nil {
		return nil, err
	}
	all := []Revision[Body]{}
	for _, r := range append([]store.SettingRevision{{Name: s.name, Version: now.Version, Body: now.Body, SavedAt: now.UpdatedAt}}, earlier...) {
		one := Revision[Body]{Version: r.Version, Saved: r.SavedAt, Current: r.Version == now.Version, Name: s.noun}
		if one.Body, _, err = s.readable(r.Body); err != nil {
			one.Damaged = err.Error()
		}
		all = append(all, one)
	}
	return all, nil
}

// RestoreRevision makes an earlier version of a setting the present one again; the present one is kept. A version that
// cannot be read is a *DamagedError, and nothing is changed.
func (s Setting[Body]) RestoreRevision(ctx context.Context, l *Library, revision, version int) (KeptSetting[Body], error) {
	earlier, err := l.store.SettingRevisions(ctx, s.name)
	if err != nil {
		return KeptSetting[Body]{}, err
	}
	for _, r := range earlier {
		if r.Version != revision {
			continue
		}
		body, _, err := s.readable(r.Body)
		if err != nil {
			return KeptSetting[Body]{}, &DamagedError{Kind: store.Kind(s.name), Err: err}
		}
		return s.Replace(ctx, l, Save{Version: version, KeepBefore: true}, body)
	}
	return KeptSetting[Body]{}, store.ErrNotFound
}

// Text is a version of a setting as it is stored, whether it can be read or not.
func (s Setting[Body]) Text(ctx context.Context, l *Library, version int) ([]byte, error) {
	now, err := l.store.Setting(ctx, s.name)
	if err != nil {
		return nil, err
	}
	if now.Version == version && version > 0 {
		return now.Body, nil
	}
	earlier, err := l.store.SettingRevisions(ctx, s.name)
	for _, r := range earlier {
		if r.Version == version {
			return r.Body, nil
		}
	}
	if err == nil {
		err = store.ErrNotFound
	}
	return nil, err
}
