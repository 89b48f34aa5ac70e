package bundle

import (
	"encoding/base64"
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"gorm.io/gorm"

	"undaris/library/documents"
	"undaris/store"
)

// bundleOrder is the order in which kinds lie in a bundle and are read from it: what others refer to comes first.
var bundleOrder = []store.Kind{store.Chart, store.Lick, store.Exercise, store.Line, store.Solo, store.Take, store.Band, store.Session}

// What ids and versions there may be (our choice: a number for each is left whatever is read; nobody makes as many).
const (
	mostID      = 1 << 40
	mostVersion = 1 << 40
)

// bundledDocument is a document as it lies in a bundle.
type bundledDocument struct {
	ID        uint       `json:"id"`
	UID       string     `json:"uid"`
	Kind      store.Kind `json:"kind"`
	Name      string     `json:"name"`
	Chart     uint       `json:"chart,omitempty"`
	Version   int        `json:"version"`
	Label     string     `json:"label,omitempty"`
	Created   time.Time  `json:"created"`
	Saved     time.Time  `json:"saved"`
	Practised *time.Time `json:"practised,omitempty"`
	Deleted   *time.Time `json:"deleted,omitempty"`
	keptText
	Revisions []bundledRevision `json:"revisions,omitempty"`
}

// bundledRevision is an earlier version of a document.
type bundledRevision struct {
	Version int       `json:"version"`
	Name    string    `json:"name"`
	Label   string    `json:"label,omitempty"`
	Saved   time.Time `json:"saved"`
	keptText
}

// keptText is a stored body: JSON in its envelope or, where it is damaged, its bytes.
type keptText struct {
	Kept    json.RawMessage `json:"kept,omitempty"`
	Damaged string          `json:"damaged,omitempty"`
}

func keptTextOf(stored []byte) keptText {
	if json.Valid(stored) {
		return keptText{Kept: stored}
	}
	return keptText{Damaged: base64.StdEncoding.EncodeToString(stored)}
}

func (k keptText) stored() ([]byte, error) {
	if k.Kept != nil {
		return k.Kept, nil
	}
	return base64.StdEncoding.DecodeString(k.Damaged)
}

// bundledSetting is what is kept once.
type bundledSetting struct {
	Name    string    `json:"name"`
	Version int       `json:"version"`
	Saved   time.Time `json:"saved"`
	keptText
}

// bundledCard is the memory of a card.
type bundledCard struct {
	ID         string    `json:"id"`
	Kind       string    `json:"kind"`
	Due        time.Time `json:"due"`
	LastReview time.Time `json:"lastReview"`
	Stability  float64   `json:"stability"`
	Difficulty float64   `json:"difficulty"`
	Reps       int       `json:"reps"`
	Lapses     int       `json:"lapses"`
	State      int       `json:"state"`
	Interval   int       `json:"intervalDays"`
	Answers    int       `json:"answers"`
	Right      int       `json:"rightAnswers"`
}

// bundledReview is one answer to a card.
type bundledReview struct {
	Card      string          `json:"card"`
	Kind      string          `json:"kind"`
	At        time.Time       `json:"at"`
	Offset    int             `json:"offsetMinutes"`
	Grade     int             `json:"grade"`
	Got       int             `json:"got"`
	Of        int             `json:"of"`
	Hints     int             `json:"hints"`
	TookMS    int             `json:"tookMs"`
	UID       string          `json:"uid,omitempty"`
	Before    json.RawMessage `json:"before,omitempty"`
	TakenBack *time.Time      `json:"takenBack,omitempty"`
}

// bundledEntry is one entry of the practice log.
type bundledEntry struct {
	UID      string    `json:"uid"`
	Began    time.Time `json:"began"`
	Offset   int       `json:"offsetMinutes"`
	Seconds  int       `json:"seconds"`
	Kind     string    `json:"kind"`
	Item     string    `json:"item"`
	Document uint      `json:"document,omitempty"`
	Tonic    string    `json:"tonic,omitempty"`
	Position string    `json:"position,omitempty"`
	Tempo    int       `json:"tempo,omitempty"`
	Goal     int       `json:"goal,omitempty"`
	Got      int       `json:"got,omitempty"`
	Of       int       `json:"of,omitempty"`
	Went     string    `json:"went,omitempty"`
	Note     string    `json:"note,omitempty"`
	Written  time.Time `json:"written"`
	// ReplacedBy is the uid of the entry that corrects this one.
	ReplacedBy string     `json:"replacedBy,omitempty"`
	Removed    *time.Time `json:"removed,omitempty"`
}

func bundledDocumentOf(d store.Document) bundledDocument {
	b := bundledDocument{
		ID: d.ID, UID: d.UID, Kind: d.Kind, Name: d.Name, Version: d.Version, Label: d.Label,
		Created: inBundle(d.CreatedAt), Saved: inBundle(d.UpdatedAt), Practised: utc(d.PractisedAt), keptText: keptTextOf(d.Body),
	}
	if d.ChartID != nil {
		b.Chart = *d.ChartID
	}
	if d.DeletedAt.Valid {
		b.Deleted = utc(&d.DeletedAt.Time)
	}
	return b
}

// document is what lies in a bundle as a row. Its error names what of it cannot be.
func (b bundledDocument) document() (store.Document, error) {
	stored, err := b.stored()
	if err != nil {
		err = fmt.Errorf("its bytes cannot be read: %w", err)
	}
	d := store.Document{
		ID: b.ID, UID: b.UID, Kind: b.Kind, Name: b.Name, Body: stored, Version: b.Version, Label: b.Label,
		CreatedAt: b.Created, UpdatedAt: b.Saved, PractisedAt: b.Practised,
	}
	if b.Chart != 0 {
		d.ChartID = &b.Chart
	}
	if b.Deleted != nil {
		d.DeletedAt = gorm.DeletedAt{Time: *b.Deleted, Valid: true}
	}
	switch {
	case err != nil:
		return d, err
	case !slices.Contains(bundleOrder, b.Kind):
		return d, fmt.Errorf("%q is no kind of document", b.Kind)
	case b.ID == 0 || b.ID > mostID || b.Version < 1 || b.Version > mostVersion || b.UID == "" || len(b.UID) > 64 || len(b.Name) > 4000:
		return d, fmt.Errorf("its id, uid, version or name is none")
	}
	return d, b.checkTimes()
}

// checkTimes says whether all of its times can be kept.
func (b bundledDocument) checkTimes() error {
	times := []*time.Time{&b.Created, &b.Saved, b.Practised, b.Deleted}
	for n := range b.Revisions {
		times = append(times, &b.Revisions[n].Saved)
	}
	for _, at := range times {
		if err := documents.CheckOptionalTime(at); err != nil {
			return err
		}
	}
	return nil
}

// inBundle is a time of a row as it lies in a bundle: the beginning of 1970 for one that could not be read.
func inBundle(at time.Time) time.Time {
	if documents.CheckTime(at) != nil {
		return time.Unix(0, 0).UTC()
	}
	return at.UTC()
}

func utc(t *time.Time) *time.Time {
	if t == nil {
		return nil
	}
	in := inBundle(*t)
	return &in
}

func bundledCardOf(c store.Card) bundledCard {
	return bundledCard{
		ID: c.ID, Kind: c.Kind, Due: inBundle(c.DueAt), LastReview: inBundle(c.LastReviewAt), Stability: c.Stability, Difficulty: c.Difficulty,
		Reps: c.Reps, Lapses: c.Lapses, State: c.State, Interval: c.IntervalDays, Answers: c.Answers, Right: c.RightAnswers,
	}
}

func (b bundledCard) card() store.Card {
	return store.Card{
		ID: b.ID, Kind: b.Kind, DueAt: b.Due, LastReviewAt: b.LastReview, Stability: b.Stability, Difficulty: b.Difficulty,
		Reps: b.Reps, Lapses: b.Lapses, State: b.State, IntervalDays: b.Interval, Answers: b.Answers, RightAnswers: b.Right,
	}
}

func bundledReviewOf(r store.Review) bundledReview {
	return bundledReview{
		Card: r.CardID, Kind: r.Kind, At: inBundle(r.At), Offset: r.OffsetMinutes, Grade: r.Grade, Got: r.Got, Of: r.OfParts, Hints: r.Hints,
		TookMS: r.TookMS, UID: r.UID, Before: r.Before, TakenBack: utc(r.TakenBackAt),
	}
}

func (b bundledReview) review() store.Review {
	return store.Review{
		CardID: b.Card, Kind: b.Kind, At: b.At, OffsetMinutes: b.Offset, Grade: b.Grade, Got: b.Got, OfParts: b.Of, Hints: b.Hints,
		TookMS: b.TookMS, UID: b.UID, Before: b.Before, TakenBackAt: b.TakenBack,
	}
}

func bundledEntryOf(e store.LogEntry, uids map[uint]string) bundledEntry {
	b := bundledEntry{
		UID: e.UID, Began: inBundle(e.BeganAt), Offset: e.OffsetMinutes, Seconds: e.Seconds, Kind: e.Kind, Item: e.Item, Tonic: e.Tonic, Position: e.Position,
		Tempo: e.Tempo, Goal: e.Goal, Got: e.Got, Of: e.OfCards, Went: e.Went, Note: e.Note, Written: inBundle(e.WrittenAt), Removed: utc(e.RemovedAt),
	}
	if e.DocumentID != nil {
		b.Document = *e.DocumentID
	}
	if e.ReplacedBy != nil {
		b.ReplacedBy = uids[*e.ReplacedBy]
	}
	return b
}

func (b bundledEntry) entry() store.LogEntry {
	e := store.LogEntry{
		UID: b.UID, BeganAt: b.Began, OffsetMinutes: b.Offset, Seconds: b.Seconds, Kind: b.Kind, Item: b.Item, Tonic: b.Tonic, Position: b.Position,
		Tempo: b.Tempo, Goal: b.Goal, Got: b.Got, OfCards: b.Of, Went: b.Went, Note: b.Note, WrittenAt: b.Written, RemovedAt: b.Removed,
	}
	if b.Document != 0 {
		e.DocumentID = &b.Document
	}
	return e
}
