package bundle

import (
	"bufio"
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"undaris/format/bundle"
	"undaris/library/documents"
	"undaris/store"
)

// State is how a document of a bundle stands to what is kept.
type State string

// How a document of a bundle may stand.
const (
	// StateNew is not here, or was deleted here.
	StateNew State = "new"
	// StateSame is here as it is in the bundle.
	StateSame State = "same"
	// StateDiffers is here, and is different.
	StateDiffers State = "differs"
)

// Differing says what becomes of the documents that differ.
type Differing string

// What may become of documents that differ.
const (
	KeepMine   Differing = "mine"
	TakeTheirs Differing = "theirs"
	KeepBoth   Differing = "both"
)

// BundleItem is a document of a bundle, and how it stands to what is kept.
type BundleItem struct {
	Kind  store.Kind
	Name  string
	State State
	// Saved is when it was saved last in the bundle, Here when the one that is kept here was; zero for what is new.
	Saved, Here time.Time
}

// Preview says what reading a bundle would bring.
type Preview struct {
	Made      time.Time
	By, About string
	Items     []BundleItem
	// NewAnswers and NewEntries are answers to cards and entries of the log that are not here; AllAnswers and AllEntries
	// how many the bundle has.
	NewAnswers, AllAnswers int
	NewEntries, AllEntries int
	// Settings names the settings that differ from what is kept.
	Settings []string
	// Sounds and SoundBytes are the recordings that come along.
	Sounds     int
	SoundBytes int64
	// Whole says that it holds everything, and can replace everything.
	Whole bool
	// Remarks say what of the bundle is not read.
	Remarks []string
}

// planned is a document of a bundle and what is to be done with it.
type planned struct {
	bundledDocument
	state State
	// local is the document here that it is; 0 for none. deleted says that it was deleted here.
	local   uint
	deleted bool
	here    time.Time
	// beside is the uid that it has where both are kept.
	beside string
}

// bundlePlan is what a bundle holds beside what is kept.
type bundlePlan struct {
	documents []planned
	settings  []bundledSetting
	differing []string
	cards     []bundledCard
	reviews   []bundledReview // those that are not here
	entries   []bundledEntry  // those that are not here
	preview   Preview
}

// present is a document that is kept.
type present struct {
	id      uint
	kind    store.Kind
	hash    [32]byte
	deleted bool
	saved   time.Time
	chart   uint
}

// planBundle reads a bundle, checks every hash but those of the sounds, and compares it with what is kept. Its error is
// a *bundle.Error for a bundle that cannot be read.
func planBundle(ctx context.Context, st *store.Store, b *bundle.Bundle) (bundlePlan, error) {
	plan := bundlePlan{}
	byUID, byHash, bands := map[string]present{}, map[[32]byte]present{}, map[uint]present{}
	inBundle := map[string]string{} // the paths of uids
	err := st.EachDocument(ctx, 0, func(d store.Document) error {
		p := present{id: d.ID, kind: d.Kind, hash: contentHash(d.Kind, d.Name, chartOf(d), d.Body), deleted: d.DeletedAt.Valid, saved: d.UpdatedAt, chart: chartOf(d)}
		byUID[d.UID] = p
		if !p.deleted {
			byHash[p.hash] = p
			if d.Kind == store.Band {
				bands[p.chart] = p
			}
		}
		return nil
	})
	if err != nil {
		return plan, err
	}
	ids := idMap{}
	for _, kind := range bundleOrder {
		for _, path := range b.Paths("documents/" + string(kind) + "-") {
			if err := ctx.Err(); err != nil {
				return plan, err
			}
			one := planned{state: StateNew}
			if err := readJSON(b, path, &one.bundledDocument); err != nil {
				return plan, err
			}
			d, err := one.document()
			if d.Kind != kind && slices.Contains(bundleOrder, d.Kind) {
				err = fmt.Errorf("it is a %s", d.Kind)
			}
			if err != nil {
				return plan, &bundle.Error{Path: path, Detail: err.Error()}
			}
			if before := inBundle[d.UID]; before != "" {
				return plan, &bundle.Error{Path: path, Detail: "has the same uid as " + before}
			}
			inBundle[d.UID] = path
			hash := contentHash(kind, d.Name, ids.chart(one.Chart), documents.Remapped(kind, d.Body, ids.of))
			found, known := byUID[d.UID]
			if known && found.kind != kind {
				return plan, &bundle.Error{Path: path, Detail: fmt.Sprintf("has the uid of a %s that is here", found.kind)}
			}
			if !known {
				found, known = byHash[hash]
			}
			if !known && kind == store.Band {
				found, known = bands[ids.chart(one.Chart)] // a tune has one
			}
			if known {
				one.local, one.deleted, one.here = found.id, found.deleted, found.saved
				switch {
				case found.deleted && one.Deleted == nil: // it comes back
				case found.hash == hash || one.Deleted != nil:
					one.state = StateSame
				default:
					one.state = StateDiffers
					one.beside = besideUID(d.UID, hash)
					if kept, ok := byUID[one.beside]; ok && !kept.deleted {
						one.state, one.local, one.here = StateSame, kept.id, kept.saved // it was kept beside the other before
					}
				}
			}
			ids.note(kind, one.ID, one.local)
			plan.documents = append(plan.documents, one)
		}
	}
	if err := plan.practice(ctx, st, b); err != nil {
		return plan, err
	}
	plan.describe(b)
	return plan, nil
}

// besideUID is the uid of a document that is kept beside the one here: the same whenever the same is read.
func besideUID(uid string, content [32]byte) string {
	sum := sha256.Sum256(append([]byte(uid+"\x00"), content[:]...))
	return hex.EncodeToString(sum[:16])
}

// mostUnlisted is how many names a preview says that nothing is done with.
const mostUnlisted = 20

// describe fills the preview in.
func (p *bundlePlan) describe(b *bundle.Bundle) {
	v := &p.preview
	v.Made, v.By, v.About = b.Manifest.Made, b.Manifest.By, b.Manifest.About
	for _, d := range p.documents {
		if d.Deleted == nil {
			v.Items = append(v.Items, BundleItem{Kind: d.Kind, Name: d.Name, State: d.state, Saved: d.Saved, Here: d.here})
		}
	}
	v.NewAnswers, v.NewEntries, v.Settings = len(p.reviews), len(p.entries), p.differing
	v.Sounds, v.SoundBytes = len(b.Paths("sounds/")), b.Bytes("sounds/")
	v.Whole = len(b.Paths("settings.jsonl")) > 0
	left := 0
	remark := func(text string) {
		if len(v.Remarks) >= mostUnlisted {
			left++
			return
		}
		v.Remarks = append(v.Remarks, text)
	}
	for _, name := range b.Unlisted {
		remark(name + " is not listed in the manifest, and is not read")
	}
	for _, file := range b.Manifest.Files {
		if !isBundlePath(file.Path) {
			remark(file.Path + " is nothing that this version reads")
		}
	}
	if left > 0 {
		v.Remarks = append(v.Remarks, fmt.Sprintf("%d more files are not read either", left))
	}
}

func isBundlePath(path string) bool {
	switch path {
	case "settings.jsonl", "cards.jsonl", "reviews.jsonl", "log.jsonl":
		return true
	}
	if strings.HasPrefix(path, "sounds/") {
		return true
	}
	for _, kind := range bundleOrder {
		if strings.HasPrefix(path, "documents/"+string(kind)+"-") {
			return true
		}
	}
	return false
}

// practice reads what belongs to no document.
func (p *bundlePlan) practice(ctx context.Context, st *store.Store, b *bundle.Bundle) error {
	var err error
	if p.settings, err = readLines[bundledSetting](b, "settings.jsonl"); err != nil {
		return err
	}
	kept, err := st.Settings(ctx)
	if err != nil {
		return err
	}
	for _, s := range p.settings {
		stored, err := s.stored()
		err = errors.Join(err, documents.CheckTime(s.Saved))
		if err != nil || s.Name == "" || len(s.Name) > 200 || s.Version < 1 || s.Version > mostVersion {
			return &bundle.Error{Path: "settings.jsonl", Detail: fmt.Sprintf("has a setting %q that cannot be read", s.Name)}
		}
		for _, mine := range kept {
			if mine.Name == s.Name && !bytes.Equal(mine.Body, stored) {
				p.differing = append(p.differing, s.Name)
			}
		}
	}
	if p.cards, err = readLines[bundledCard](b, "cards.jsonl"); err != nil {
		return err
	}
	for n, c := range p.cards {
		if err := errors.Join(documents.CheckTime(c.Due), documents.CheckTime(c.LastReview)); err != nil {
			return &bundle.Error{Path: "cards.jsonl", Detail: fmt.Sprintf("line %d: %s", n+1, err)}
		}
	}
	reviews, err := readLines[bundledReview](b, "reviews.jsonl")
	if err != nil {
		return err
	}
	cards := map[string]bool{}
	for _, c := range p.cards {
		cards[c.ID] = true
	}
	type answer struct {
		card string
		at   int64
	}
	known := map[answer]bool{}
	if err := st.EachReview(ctx, func(r store.Review) error {
		known[answer{r.CardID, r.At.UnixNano()}] = true
		return nil
	}); err != nil {
		return err
	}
	p.preview.AllAnswers = len(reviews)
	for n, r := range reviews {
		if !cards[r.Card] || r.Grade < 1 || r.Grade > 4 {
			return &bundle.Error{Path: "reviews.jsonl", Detail: fmt.Sprintf("line %d: an answer has a card of cards.jsonl and a grade of 1 to 4", n+1)}
		}
		if err := errors.Join(documents.CheckTime(r.At), documents.CheckOptionalTime(r.TakenBack)); err != nil || len(r.UID) > 64 {
			return &bundle.Error{Path: "reviews.jsonl", Detail: fmt.Sprintf("line %d: %v", n+1, err)}
		}
		if at := (answer{r.Card, r.At.UnixNano()}); !known[at] {
			known[at] = true
			p.reviews = append(p.reviews, r)
		}
	}
	return p.logEntries(ctx, st, b)
}

func (p *bundlePlan) logEntries(ctx context.Context, st *store.Store, b *bundle.Bundle) error {
	entries, err := readLines[bundledEntry](b, "log.jsonl")
	if err != nil {
		return err
	}
	here := map[string]bool{}
	if err := st.EachLogEntry(ctx, func(e store.LogEntry) error {
		here[e.UID] = true
		return nil
	}); err != nil {
		return err
	}
	p.preview.AllEntries = len(entries)
	for n, e := range entries {
		if err := errors.Join(documents.CheckTime(e.Began), documents.CheckTime(e.Written), documents.CheckOptionalTime(e.Removed)); err != nil {
			return &bundle.Error{Path: "log.jsonl", Detail: fmt.Sprintf("line %d: %s", n+1, err)}
		}
		if e.UID == "" || len(e.UID) > 200 || e.Kind == "" {
			return &bundle.Error{Path: "log.jsonl", Detail: fmt.Sprintf("line %d: an entry has a uid and a kind", n+1)}
		}
		if !here[e.UID] {
			here[e.UID] = true
			p.entries = append(p.entries, e)
		}
	}
	return nil
}

// idMap says which id the documents of a bundle have here. Those that are not here yet have none that anything has.
type idMap map[uint]uint

// placeholderIDBase is added to the ids of documents that are not here yet.
const placeholderIDBase = 1 << 40

func (m idMap) note(_ store.Kind, inBundle, here uint) {
	if here == 0 {
		here = inBundle + placeholderIDBase
	}
	m[inBundle] = here
}

func (m idMap) of(_ store.Kind, id uint) (uint, bool) {
	to, ok := m[id]
	return to, ok
}

func (m idMap) chart(id uint) uint {
	if to, ok := m[id]; ok {
		return to
	}
	return 0
}

func chartOf(d store.Document) uint {
	if d.ChartID == nil {
		return 0
	}
	return *d.ChartID
}

// contentHash is the same for documents that hold the same, whatever schema they were written in.
func contentHash(kind store.Kind, name string, chart uint, stored []byte) [32]byte {
	text := stored
	if fields, err := documents.Fields(kind, stored); err == nil {
		if sorted, err := json.Marshal(fields); err == nil {
			text = sorted
		}
	}
	sum := sha256.New()
	fmt.Fprintf(sum, "%s\x00%s\x00%d\x00", kind, name, chart)
	sum.Write(text)
	return [32]byte(sum.Sum(nil))
}

func readJSON(b *bundle.Bundle, path string, value any) error {
	text, err := b.Read(path)
	if err != nil {
		return err
	}
	if err := json.Unmarshal(text, value); err != nil {
		return &bundle.Error{Path: path, Detail: "cannot be read: " + err.Error()}
	}
	return nil
}

// readLines reads the values of a file, one a line; none where the bundle has no such file.
func readLines[T any](b *bundle.Bundle, path string) ([]T, error) {
	opened, err := b.Open(path)
	var wrong *bundle.Error
	if errors.As(err, &wrong) && len(b.Paths(path)) == 0 {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	defer func() { _ = opened.Close() }()
	all := []T{}
	lines := bufio.NewScanner(opened)
	lines.Buffer(nil, 16<<20)
	for lines.Scan() {
		var one T
		if err := json.Unmarshal(lines.Bytes(), &one); err != nil {
			return nil, &bundle.Error{Path: path, Detail: fmt.Sprintf("line %d cannot be read: %s", len(all)+1, err)}
		}
		all = append(all, one)
	}
	if err := lines.Err(); err != nil {
		if errors.As(err, &wrong) {
			return nil, err
		}
		return nil, &bundle.Error{Path: path, Detail: err.Error()}
	}
	return all, nil
}
