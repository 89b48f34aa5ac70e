package bundle

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"
	"pgregory.net/rapid"

	"undaris/format/bundle"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/store"
)

// fresh is a library that holds nothing.
func fresh(t testing.TB) (*documents.Library, *store.Store) {
	t.Helper()
	st, err := store.Open(filepath.Join(t.TempDir(), "data.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	return documents.New(st, slog.New(slog.DiscardHandler)), st
}

// fixture is a body of an earlier schema.
func fixture(t testing.TB, schema int, kind string) []byte {
	t.Helper()
	text, err := os.ReadFile(fmt.Sprintf("../documents/testdata/schema%d/%s.json", schema, kind))
	require.NoError(t, err)
	return text
}

// nothingBefore is for imports that are not undone.
func nothingBefore() error { return nil }

// soundsOf is an empty folder of sounds of a test.
func soundsOf(t testing.TB) *store.Sounds {
	return store.SoundsBeside(filepath.Join(t.TempDir(), "data.db"))
}

// bundled is a library as a bundle.
func bundled(t testing.TB, l *documents.Library, sounds *store.Sounds, order Order) *bundle.Bundle {
	t.Helper()
	out := bytes.Buffer{}
	missing, err := Write(context.Background(), l.Store(), &out, sounds, order, time.Unix(1e9, 0), "a test")
	require.NoError(t, err)
	require.Empty(t, missing)
	return readBundle(t, out.Bytes())
}

func readBundle(t testing.TB, text []byte) *bundle.Bundle {
	t.Helper()
	b, err := bundle.Open(bytes.NewReader(text), int64(len(text)), 1<<30)
	require.NoError(t, err)
	return b
}

// filesOf are the files of a bundle with what they hold.
func filesOf(t testing.TB, b *bundle.Bundle) map[string]string {
	t.Helper()
	files := map[string]string{}
	for _, path := range b.Paths("") {
		text, err := b.Read(path)
		require.NoError(t, err)
		files[path] = string(text)
	}
	return files
}

// drawnLibrary fills a store with anything that may be kept: documents of every kind that name others, some deleted or
// damaged, with versions, settings, cards, answers and entries of the log that correct others; and a sound.
func drawnLibrary(rt *rapid.T, st *store.Store, sounds *store.Sounds) {
	ctx := context.Background()
	at := func(label string) time.Time {
		return time.Unix(int64(rapid.IntRange(1_600_000_000, 1_800_000_000).Draw(rt, label)), int64(rapid.IntRange(0, 999).Draw(rt, "ms"))*1e6).UTC()
	}
	word := rapid.StringMatching(`[A-Za-zäß♭" ]{1,12}`)
	ids := map[store.Kind][]uint{}
	some := func(kind store.Kind) uint {
		if len(ids[kind]) == 0 {
			return 0
		}
		return rapid.SampledFrom(ids[kind]).Draw(rt, "refers to")
	}
	hash, _, err := sounds.Keep(strings.NewReader(word.Draw(rt, "sound")))
	require.NoError(rt, err)
	body := func(kind store.Kind) []byte {
		fields := map[string]any{"text": word.Draw(rt, "text"), "number": rapid.Float64Range(-5, 5).Draw(rt, "number")}
		switch kind {
		case store.Line:
			fields["lickId"] = some(store.Lick)
		case store.Band:
			fields["line"] = some(store.Solo)
			fields["routines"] = []any{map[string]any{"segments": []any{map[string]any{"exercise": some(store.Exercise)}}}}
		case store.Session:
			fields["blocks"] = []any{map[string]any{"kind": "lick", "item": some(store.Lick)}, map[string]any{"kind": "tune", "item": some(store.Chart)}}
		case store.Take:
			fields = map[string]any{"name": "t", "sound": map[string]any{"hash": hash}}
		}
		if rapid.IntRange(0, 15).Draw(rt, "damaged") == 0 {
			return []byte("{not JSON \xff")
		}
		return documents.Seal(kind, fields)
	}
	for _, kind := range bundleOrder {
		for range rapid.IntRange(0, 3).Draw(rt, "how many") {
			d := store.Document{
				Kind: kind, Name: word.Draw(rt, "name"), Body: body(kind), Version: rapid.IntRange(1, 9).Draw(rt, "version"),
				CreatedAt: at("created"), UpdatedAt: at("saved"), ID: uint(rapid.IntRange(0, 40).Draw(rt, "id")),
			}
			if tune := some(store.Chart); kind != store.Chart && kind != store.Lick && tune != 0 {
				d.ChartID = &tune
			}
			if rapid.Bool().Draw(rt, "practised") {
				practised := at("practised at")
				d.PractisedAt = &practised
			}
			if rapid.IntRange(0, 4).Draw(rt, "deleted") == 0 {
				d.DeletedAt = gorm.DeletedAt{Time: at("deleted at"), Valid: true}
			}
			id, err := st.Insert(ctx, d)
			if errors.Is(err, store.ErrExists) {
				continue // a second band of a tune
			}
			require.NoError(rt, err)
			ids[kind] = append(ids[kind], id)
			for version := 1; version < d.Version; version++ {
				if rapid.Bool().Draw(rt, "kept version") {
					require.NoError(rt, st.InsertRevisions(ctx, []store.Revision{{DocumentID: id, Version: version, Name: d.Name, Label: word.Draw(rt, "label"), Body: body(kind), SavedAt: at("version saved")}}))
				}
			}
		}
	}
	for _, name := range []string{documents.PlayerSetting, documents.PracticeSetting} {
		if rapid.Bool().Draw(rt, "setting") {
			fields := map[string]any{"goalLick": some(store.Lick), "text": word.Draw(rt, "text")}
			require.NoError(rt, st.PutSetting(ctx, store.Setting{Name: name, Version: rapid.IntRange(1, 5).Draw(rt, "version"), Body: documents.Seal(store.Kind(name), fields), UpdatedAt: at("saved")}))
		}
	}
	cards, reviews, entries := []store.Card{}, []store.Review{}, []store.LogEntry{}
	for n := range rapid.IntRange(0, 3).Draw(rt, "cards") {
		id := fmt.Sprint("card ", n)
		cards = append(cards, store.Card{ID: id, Kind: "k", DueAt: at("due"), LastReviewAt: at("last"), Stability: rapid.Float64Range(0, 9).Draw(rt, "stability"), Reps: 1, Answers: 2})
		for k := range rapid.IntRange(0, 3).Draw(rt, "answers") {
			r := store.Review{CardID: id, Kind: "k", At: at("at").Add(time.Duration(k) * time.Hour), Grade: rapid.IntRange(1, 4).Draw(rt, "grade"), TookMS: 9}
			if k > 0 {
				r.Before = []byte(`{"ID":"x"}`)
			}
			reviews = append(reviews, r)
		}
	}
	for n := range rapid.IntRange(0, 4).Draw(rt, "entries") {
		e := store.LogEntry{UID: fmt.Sprint("entry ", n), BeganAt: at("began"), Seconds: 60, Kind: "tune", Item: word.Draw(rt, "item"), WrittenAt: at("written")}
		if tune := some(store.Chart); tune != 0 {
			e.DocumentID = &tune
		}
		if n > 0 && rapid.Bool().Draw(rt, "corrects") {
			by := uint(n + 1)
			entries[n-1].ReplacedBy = &by
		}
		entries = append(entries, e)
	}
	require.NoError(rt, st.InsertPractice(ctx, cards, reviews, entries))
}

// Whatever a library holds: the bundle of it read into an empty one, and that one's bundle, are equal; read again, it
// brings nothing.
func TestALibraryGoesThroughABundle(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		l, st := fresh(t)
		sounds := soundsOf(t)
		drawnLibrary(rt, st, sounds)
		everything := Order{Versions: true}
		first := bundled(t, l, sounds, everything)

		other, otherStore := fresh(t)
		otherSounds := soundsOf(t)
		_, err := Import(t.Context(), other.Store(), first, otherSounds, ImportOrder{}, nothingBefore)
		require.NoError(rt, err)
		second := bundled(t, other, otherSounds, everything)
		require.Equal(rt, filesOf(t, first), filesOf(t, second))

		for _, differing := range []Differing{KeepMine, TakeTheirs, KeepBoth} {
			again, err := Import(t.Context(), other.Store(), first, otherSounds, ImportOrder{Differing: differing}, nothingBefore)
			require.NoError(rt, err)
			assert.Equal(rt, Imported{Same: again.Same}, again)
		}
		require.Equal(rt, filesOf(t, first), filesOf(t, bundled(t, other, otherSounds, everything)))

		// Into a library that holds other things, and then in the place of all of it.
		drawn := func(seed string) *bundle.Bundle {
			mixed, mixedStore := fresh(t)
			drawnLibrary(rt, mixedStore, otherSounds)
			_, err = Import(t.Context(), mixed.Store(), first, otherSounds, ImportOrder{}, nothingBefore)
			require.NoError(rt, err, seed)
			require.NoError(rt, mixedStore.Check(t.Context(), false))
			_, err = Import(t.Context(), mixed.Store(), first, otherSounds, ImportOrder{Replace: true}, nothingBefore)
			require.NoError(rt, err)
			return bundled(t, mixed, otherSounds, everything)
		}
		require.Equal(rt, filesOf(t, first), filesOf(t, drawn("mixed")))
		require.NoError(rt, otherStore.Check(t.Context(), false))
	})
}

// withTune is a library with a tune, a lick, a line over both, and a bundle of it.
func withTune(t *testing.T) (*documents.Library, *store.Store, *store.Sounds) {
	t.Helper()
	l, st := fresh(t)
	keep := func(kind store.Kind, chart *uint, body []byte) uint {
		d, err := st.Create(t.Context(), store.Document{Kind: kind, Name: string(kind), ChartID: chart, Body: body})
		require.NoError(t, err)
		return d.ID
	}
	keep(store.Lick, nil, fixture(t, 1, "lick"))
	tune := keep(store.Chart, nil, fixture(t, 1, "chart"))
	lick := keep(store.Lick, nil, documents.Seal(store.Lick, map[string]any{"name": "another"}))
	keep(store.Line, &tune, documents.Seal(store.Line, map[string]any{"lickId": lick}))
	keep(store.Exercise, nil, documents.Seal(store.Exercise, map[string]any{"name": "of nobody"}))
	return l, st, soundsOf(t)
}

// A tune goes to a friend with what belongs to it, and nothing else; there it finds its place among other ids.
func TestATuneAndWhatBelongsToIt(t *testing.T) {
	l, _, sounds := withTune(t)
	part := bundled(t, l, sounds, Order{ChartID: 2})
	assert.Equal(t, []string{"documents/chart-2.json", "documents/lick-3.json", "documents/line-4.json"}, part.Paths(""))
	assert.Equal(t, "the tune chart and what belongs to it", part.Manifest.About)

	friend, friendStore := fresh(t)
	for n := range 6 {
		_, err := friendStore.Create(t.Context(), store.Document{Kind: store.Lick, Name: fmt.Sprint(n), Body: []byte("{}")})
		require.NoError(t, err)
	}
	preview, err := PreviewOf(t.Context(), friend.Store(), part)
	require.NoError(t, err)
	states := []string{}
	for _, item := range preview.Items {
		states = append(states, fmt.Sprintf("%s %s %s", item.Kind, item.Name, item.State))
	}
	assert.Equal(t, []string{"chart chart new", "lick lick new", "line line new"}, states)
	assert.False(t, preview.Whole)
	_, err = Import(t.Context(), friend.Store(), part, soundsOf(t), ImportOrder{Replace: true}, nothingBefore)
	require.ErrorIs(t, err, ErrPartial)
	done, err := Import(t.Context(), friend.Store(), part, soundsOf(t), ImportOrder{}, nothingBefore)
	require.NoError(t, err)
	assert.Equal(t, Imported{New: 3}, done)
	lines, err := friendStore.List(t.Context(), store.Line, 0)
	require.NoError(t, err)
	fields, err := documents.Fields(store.Line, lines[0].Body)
	require.NoError(t, err)
	lick, err := fields["lickId"].(json.Number).Int64()
	require.NoError(t, err)
	found, err := friendStore.Read(t.Context(), store.Lick, uint(lick))
	require.NoError(t, err)
	assert.Equal(t, documents.Seal(store.Lick, map[string]any{"name": "another"}), found.Body, "the line names its own lick, whatever number that has here")
	tune, err := friendStore.Read(t.Context(), store.Chart, *lines[0].ChartID)
	require.NoError(t, err)
	assert.Equal(t, "chart", tune.Name)

	_, err = Write(t.Context(), l.Store(), &bytes.Buffer{}, sounds, Order{ChartID: 99}, time.Now(), "")
	assert.ErrorIs(t, err, store.ErrNotFound)
}

// What differs stays, is replaced with the one before among its versions, or is kept beside it.
func TestWhatDiffers(t *testing.T) {
	for differing, want := range map[Differing]struct {
		done   Imported
		bodies []string
	}{
		KeepMine:   {Imported{Same: 4, KeptMine: 1}, []string{"mine"}},
		TakeTheirs: {Imported{Same: 4, Replaced: 1}, []string{"another"}},
		KeepBoth:   {Imported{Same: 4, KeptBoth: 1}, []string{"mine", "another"}},
	} {
		l, st, sounds := withTune(t)
		b := bundled(t, l, sounds, Order{})
		_, err := st.Replace(t.Context(), store.Lick, 3, store.Save{Version: 1, Name: "lick", Body: documents.Seal(store.Lick, map[string]any{"name": "mine"})})
		require.NoError(t, err)
		done, err := Import(t.Context(), l.Store(), b, sounds, ImportOrder{Differing: differing}, nothingBefore)
		require.NoError(t, err)
		assert.Equal(t, want.done, done, differing)
		licks, err := st.List(t.Context(), store.Lick, 0)
		require.NoError(t, err)
		bodies := []string{}
		for _, d := range licks[1:] {
			fields, err := documents.Fields(store.Lick, d.Body)
			require.NoError(t, err)
			bodies = append(bodies, fields["name"].(string))
		}
		assert.Equal(t, want.bodies, bodies, differing)
		revisions, err := st.Revisions(t.Context(), 3)
		require.NoError(t, err)
		if differing == TakeTheirs {
			require.Len(t, revisions, 1, "mine is among the versions")
		}
	}
	// What was deleted here comes back.
	l, st, sounds := withTune(t)
	b := bundled(t, l, sounds, Order{})
	require.NoError(t, st.Delete(t.Context(), store.Lick, 3, 1))
	done, err := Import(t.Context(), l.Store(), b, sounds, ImportOrder{}, nothingBefore)
	require.NoError(t, err)
	assert.Equal(t, Imported{Same: 4, New: 1}, done)
	_, err = st.Read(t.Context(), store.Lick, 3)
	require.NoError(t, err)
}

var update = flag.Bool("update", false, "write the bundle of the present version")

// Every version of bundles that was ever written is read for ever.
func TestBundlesOfEveryVersion(t *testing.T) {
	if *update {
		l, _, sounds := withTune(t)
		file, err := os.Create(fmt.Sprintf("testdata/bundles/version%d.zip", bundle.Version))
		require.NoError(t, err)
		_, err = Write(t.Context(), l.Store(), file, sounds, Order{Versions: true}, time.Now(), "a test")
		require.NoError(t, err)
		require.NoError(t, file.Close())
	}
	for version := 1; version <= bundle.Version; version++ {
		text, err := os.ReadFile(fmt.Sprintf("testdata/bundles/version%d.zip", version))
		require.NoError(t, err, "keep one of each version that is released: go test ./library -run TestBundlesOfEveryVersion -update")
		l, st := fresh(t)
		done, err := Import(t.Context(), l.Store(), readBundle(t, text), soundsOf(t), ImportOrder{}, nothingBefore)
		require.NoError(t, err)
		assert.Equal(t, Imported{New: 5}, done)
		line, err := st.Read(t.Context(), store.Line, 4)
		require.NoError(t, err)
		fields, err := documents.Fields(store.Line, line.Body)
		require.NoError(t, err)
		assert.Equal(t, json.Number("3"), fields["lickId"])
	}
}

// A bundle that cannot be read whole changes nothing.
func TestABundleThatIsNotWhole(t *testing.T) {
	l, _, sounds := withTune(t)
	out := bytes.Buffer{}
	_, err := Write(t.Context(), l.Store(), &out, sounds, Order{Versions: true}, time.Now(), "")
	require.NoError(t, err)
	for name, files := range map[string]map[string]string{
		"documents/lick-1.json in the bundle its id, uid, version or name is none":                              {"documents/lick-1.json": `{"id":1,"kind":"lick","kept":{}}`},
		`documents/lick-1.json in the bundle it is a chart`:                                                     {"documents/lick-1.json": `{"id":1,"kind":"chart","uid":"u","version":1,"kept":{}}`},
		`documents/lick-1.json in the bundle "poem" is no kind of document`:                                     {"documents/lick-1.json": `{"id":1,"kind":"poem","uid":"u","version":1,"kept":{}}`},
		"log.jsonl in the bundle line 1: an entry has a uid and a kind":                                         {"log.jsonl": `{"began":"2026-03-01T20:00:00Z","written":"2026-03-01T20:00:00Z"}` + "\n"},
		"reviews.jsonl in the bundle line 1: an answer has a card of cards.jsonl and a grade of 1 to 4":         {"reviews.jsonl": "{}\n"},
		"cards.jsonl in the bundle line 1 cannot be read: invalid character 'x' looking for beginning of value": {"cards.jsonl": "x\n"},
		"documents/lick-1.json in the bundle the year 9999 cannot be kept; 1900 to 2199 can":                    {"documents/lick-1.json": `{"id":1,"kind":"lick","uid":"u","version":1,"created":"2026-03-01T20:00:00Z","saved":"9999-12-31T23:00:00-12:00","kept":{}}`},
		"documents/lick-2.json in the bundle its id, uid, version or name is none":                              {"documents/lick-2.json": `{"id":9223372036854775807,"kind":"lick","uid":"u","version":1,"kept":{}}`},
		"documents/session-1.json in the bundle has the same uid as documents/exercise-9.json":                  {"documents/session-1.json": `{"id":1,"kind":"session","uid":"u9","version":1,"created":"2026-03-01T20:00:00Z","saved":"2026-03-01T20:00:00Z","kept":{}}`},
		"sounds/ab.wav in the bundle is not the sound that its name says":                                       {"sounds/ab.wav": "x"},
	} {
		text := bytes.Buffer{}
		w := bundle.NewWriter(&text)
		require.NoError(t, w.Add("documents/exercise-9.json", strings.NewReader(`{"id":9,"kind":"exercise","uid":"u9","version":1,"created":"2026-03-01T20:00:00Z","saved":"2026-03-01T20:00:00Z","kept":{}}`)))
		for path, file := range files {
			require.NoError(t, w.Add(path, strings.NewReader(file)))
		}
		require.NoError(t, w.Close(time.Now(), "", ""))
		empty, emptyStore := fresh(t)
		_, err := Import(t.Context(), empty.Store(), readBundle(t, text.Bytes()), soundsOf(t), ImportOrder{}, nothingBefore)
		require.EqualError(t, err, name)
		isNew, err := emptyStore.New(t.Context())
		require.NoError(t, err)
		assert.True(t, isNew, "nothing is half kept")
	}
}

// "Both" read twice keeps both once.
func TestBothReadTwiceDoublesNothing(t *testing.T) {
	l, st, sounds := withTune(t)
	text := bytes.Buffer{}
	_, err := Write(t.Context(), st, &text, sounds, Order{Versions: true}, time.Now(), "")
	require.NoError(t, err)
	all, err := documents.Licks.ReadAll(t.Context(), l, 0)
	require.NoError(t, err)
	changed := all[0].Body
	changed.About = "changed here since"
	_, err = documents.Licks.Replace(t.Context(), l, all[0].ID, documents.Save{Version: all[0].Version}, changed)
	require.NoError(t, err)
	first, err := Import(t.Context(), st, readBundle(t, text.Bytes()), sounds, ImportOrder{Differing: KeepBoth}, nothingBefore)
	require.NoError(t, err)
	assert.Equal(t, 1, first.KeptBoth)
	again, err := Import(t.Context(), st, readBundle(t, text.Bytes()), sounds, ImportOrder{Differing: KeepBoth}, nothingBefore)
	require.NoError(t, err)
	assert.Zero(t, again.KeptBoth)
	assert.Zero(t, again.New)
	after, err := documents.Licks.ReadAll(t.Context(), l, 0)
	require.NoError(t, err)
	assert.Len(t, after, len(all)+1)
}

// One tune for a friend takes along nothing that was thrown away.
func TestAFriendsTuneTakesNothingDeletedAlong(t *testing.T) {
	l, st, sounds := withTune(t)
	tunes, err := documents.Charts.List(t.Context(), l, 0)
	require.NoError(t, err)
	tune := tunes[0].ID
	hash, _, err := sounds.Keep(strings.NewReader("a take that went wrong"))
	require.NoError(t, err)
	id, err := st.Insert(t.Context(), store.Document{
		Kind: store.Take, UID: "gone", Name: "gone", ChartID: &tune, Version: 1, CreatedAt: time.Now(), UpdatedAt: time.Now(),
		Body: documents.Seal(store.Take, document.Take{Name: "gone", Sound: &document.TakeSound{Hash: hash}}),
	})
	require.NoError(t, err)
	require.NoError(t, st.Delete(t.Context(), store.Take, id, 1))
	b := bundled(t, l, sounds, Order{ChartID: tune, Versions: true})
	assert.Empty(t, b.Paths("documents/take-"))
	assert.Empty(t, b.Paths("sounds/"))
	assert.Len(t, bundled(t, l, sounds, Order{Versions: true}).Paths("sounds/"), 1, "all of it has the deleted too")
}
