package documents

import (
	"encoding/json"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/neck"
	"undaris/format/document"
	"undaris/store"
)

// fresh is a library over a new data file, and the store below it.
func fresh(t testing.TB) (*Library, *store.Store) {
	t.Helper()
	st, err := store.Open(filepath.Join(t.TempDir(), "library.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	return New(st, slog.New(slog.DiscardHandler)), st
}

func fixture(t testing.TB, schema int, kind string) []byte {
	t.Helper()
	text, err := os.ReadFile(fmt.Sprintf("testdata/schema%d/%s.json", schema, kind))
	require.NoError(t, err)
	return text
}

// Every kind has a body of every earlier schema among the fixtures, and all of them are read.
func TestBodiesOfEarlierSchemas(t *testing.T) {
	l, st := fresh(t)
	for schema := 1; schema < Schema; schema++ {
		keep := func(kind store.Kind, chartID *uint) uint {
			d, err := st.Create(t.Context(), store.Document{Kind: kind, Name: string(kind), ChartID: chartID, Body: fixture(t, schema, string(kind))})
			require.NoError(t, err)
			return d.ID
		}
		tune := keep(store.Chart, nil)
		ids := map[store.Kind]uint{store.Lick: keep(store.Lick, nil)}
		for _, kind := range []store.Kind{store.Line, store.Solo, store.Band} {
			ids[kind] = keep(kind, &tune)
		}
		chart, err := Charts.Read(t.Context(), l, tune)
		require.NoError(t, err)
		assert.Equal(t, "Salt Road at Dusk", chart.Body.Title)
		lick, err := Licks.Read(t.Context(), l, ids[store.Lick])
		require.NoError(t, err)
		require.Len(t, lick.Body.Chords, 3, "the chords under it are not lost")
		assert.Equal(t, "F7", lick.Body.Chords[1].Chord)
		solo, err := Solos.Read(t.Context(), l, ids[store.Solo])
		require.NoError(t, err)
		first := solo.Body.Solo.Choruses[0]
		assert.Equal(t, []string{"question-answer", "roots first", "scale of the chord"}, []string{first.Plan.Form, first.Plan.Strategy, first.Stage})
		line, err := Lines.Read(t.Context(), l, ids[store.Line])
		require.NoError(t, err)
		notes := line.Body.Line
		assert.Equal(t, "guide tones", line.Body.Choice.Strategy)
		assert.Equal(t, 7680, notes.Arrival)
		require.Len(t, notes.Roles, len(notes.Phrase.Events))
		assert.Equal(t, []string{"lick", "target"}, []string{notes.Roles[0], notes.Roles[len(notes.Roles)-1]})
		assert.Equal(t, "C7", notes.Phrase.Chords[0].Chord)
		_, err = Bands.Read(t.Context(), l, ids[store.Band])
		require.NoError(t, err)
		for _, kind := range []func() error{
			func() error { _, err := Lines.List(t.Context(), l, 0); return err },
			func() error { _, err := Solos.List(t.Context(), l, tune); return err },
		} {
			assert.NoError(t, kind())
		}
	}
}

func TestTheSettingsOfAnEarlierSchema(t *testing.T) {
	l, st := fresh(t)
	_, err := st.KeepSetting(t.Context(), "player", store.Save{Body: fixture(t, 1, "player")})
	require.NoError(t, err)
	kept, err := PlayerSettings.Read(t.Context(), l)
	require.NoError(t, err)
	assert.Empty(t, kept.Mended)
	assert.True(t, kept.Body.LeftHanded)
	assert.InDelta(t, 105, kept.Body.SpanMM, 0)
	kept, err = PlayerSettings.Replace(t.Context(), l, Save{Version: kept.Version}, kept.Body)
	require.NoError(t, err)
	again, err := PlayerSettings.Read(t.Context(), l)
	require.NoError(t, err)
	assert.Equal(t, kept.Body, again.Body)
}

// What is saved stands in an envelope; a revision from before it is restored as it was.
func TestASaveBringsABodyUpToDate(t *testing.T) {
	l, st := fresh(t)
	d, err := st.Create(t.Context(), store.Document{Kind: store.Lick, Name: "Gangplank", Body: fixture(t, 1, "lick")})
	require.NoError(t, err)
	item, err := Licks.Read(t.Context(), l, d.ID)
	require.NoError(t, err)
	body := item.Body
	body.Name = "Gangplank, lower"
	item, err = Licks.Replace(t.Context(), l, d.ID, Save{Version: 1, KeepBefore: true}, body)
	require.NoError(t, err)
	stored, err := st.Read(t.Context(), store.Lick, d.ID)
	require.NoError(t, err)
	var outer envelope
	require.NoError(t, json.Unmarshal(stored.Body, &outer))
	assert.Equal(t, []any{store.Lick, Schema}, []any{outer.Kind, outer.Schema})
	assert.NotContains(t, string(stored.Body), `"over"`)

	revisions, err := Licks.Revisions(t.Context(), l, d.ID)
	require.NoError(t, err)
	require.Len(t, revisions, 2)
	assert.Empty(t, revisions[1].Damaged)
	assert.Len(t, revisions[1].Body.Chords, 3)
	back, err := Licks.RestoreRevision(t.Context(), l, d.ID, 1, item.Version)
	require.NoError(t, err)
	assert.Equal(t, "Gangplank", back.Body.Name)
	assert.Len(t, back.Body.Chords, 3)
}

func TestBodiesThatCannotBeRead(t *testing.T) {
	l, st := fresh(t)
	for body, want := range map[string]string{
		`oops`:                                  "what is kept cannot be read: invalid character 'o' looking for beginning of value",
		`[1]`:                                   "cannot unmarshal array",
		`{"kind":"lick","schema":99,"body":{}}`: "it was written by a later version of Undaris (schema 99; this one reads up to 2)",
		`{"kind":"solo","schema":2,"body":{}}`:  "it is a solo and not a lick",
		`{"kind":"lick","schema":2,"body":{"name":"x"}}`: "what is kept cannot be read",
	} {
		d, err := st.Create(t.Context(), store.Document{Kind: store.Lick, Name: "A lick", Body: []byte(body)})
		require.NoError(t, err)
		_, err = Licks.Read(t.Context(), l, d.ID)
		var damaged *DamagedError
		require.ErrorAs(t, err, &damaged, body)
		assert.ErrorContains(t, err, want)
		name, text, err := Licks.Text(t.Context(), l, d.ID)
		require.NoError(t, err)
		assert.Equal(t, []string{"A lick", body}, []string{name, string(text)}, "its text can be had")
	}
	all, faults, err := Licks.ReadAllWithDamaged(t.Context(), l, 0)
	require.NoError(t, err)
	assert.Len(t, all, 5)
	assert.Len(t, faults, 5)
	sound, err := Licks.ReadAll(t.Context(), l, 0)
	require.NoError(t, err)
	assert.Empty(t, sound)
	entries, err := Licks.List(t.Context(), l, 0)
	require.NoError(t, err)
	for _, e := range entries {
		assert.NotEmpty(t, e.Damaged)
	}
}

// What cannot be read is never written over: it is kept as a version, though the save does
// not ask for that.
func TestADamagedBodyIsKeptAsAVersion(t *testing.T) {
	l, st := fresh(t)
	d, err := st.Create(t.Context(), store.Document{Kind: store.Lick, Name: "A lick", Body: []byte("oops")})
	require.NoError(t, err)
	var sound document.Lick
	require.NoError(t, Open(store.Lick, fixture(t, 1, "lick"), &sound))
	_, err = Licks.Replace(t.Context(), l, d.ID, Save{Version: 1}, sound)
	require.NoError(t, err)
	revisions, err := st.Revisions(t.Context(), d.ID)
	require.NoError(t, err)
	require.Len(t, revisions, 1)
	assert.Equal(t, "oops", string(revisions[0].Body))
}

func TestWhatMayNotBeKept(t *testing.T) {
	l, _ := fresh(t)
	_, err := Licks.Create(t.Context(), l, document.Lick{Name: "x"}, 0)
	var wrong *InvalidError
	require.ErrorAs(t, err, &wrong)
	_, err = Licks.Replace(t.Context(), l, 7, Save{Version: 1}, document.Lick{Name: "x"})
	require.ErrorAs(t, err, &wrong)
	_, err = PlayerSettings.Replace(t.Context(), l, Save{Version: 0}, document.Player{Hands: document.Hands{SpanMM: 9000}})
	require.ErrorAs(t, err, &wrong)
	assert.Error(t, Licks.LabelVersion(t.Context(), l, 1, 1, string(make([]rune, 61))))
}

// A copy has a name of its own within the length that names have, and belongs to the same tune.
func TestCopies(t *testing.T) {
	l, _ := fresh(t)
	var sound document.Lick
	require.NoError(t, Open(store.Lick, fixture(t, 1, "lick"), &sound))
	for range 60 - len(sound.Name) {
		sound.Name += "x"
	}
	item, err := Licks.Create(t.Context(), l, sound, 0)
	require.NoError(t, err)
	again, err := Licks.Duplicate(t.Context(), l, item.ID)
	require.NoError(t, err)
	assert.Len(t, again.Body.Name, 60)
	assert.Contains(t, again.Body.Name, ", copy")
	assert.Equal(t, sound.Events, again.Body.Events)
}

// All of several writes are kept, or none.
func TestTogether(t *testing.T) {
	l, _ := fresh(t)
	var sound document.Lick
	require.NoError(t, Open(store.Lick, fixture(t, 1, "lick"), &sound))
	err := l.Together(t.Context(), func(l *Library) error {
		if _, err := Licks.Create(t.Context(), l, sound, 0); err != nil {
			return err
		}
		_, err := Licks.Create(t.Context(), l, document.Lick{}, 0)
		return err
	})
	require.Error(t, err)
	all, err := Licks.List(t.Context(), l, 0)
	require.NoError(t, err)
	assert.Empty(t, all)
}

// A solo follows its tune, and comes back to the note with it.
func TestASoloFollowsItsTune(t *testing.T) {
	l, _ := fresh(t)
	var kept document.SoloDocument
	require.NoError(t, Open(store.Solo, fixture(t, 1, "solo"), &kept))
	tune, err := Charts.Create(t.Context(), l, kept.Chart, 0)
	require.NoError(t, err)
	solo, err := Solos.Create(t.Context(), l, kept, tune.ID)
	require.NoError(t, err)
	same, err := l.SoloNow(t.Context(), solo)
	require.NoError(t, err)
	assert.Equal(t, solo.Body.Solo, same.Solo)

	over, _, err := document.PlayContextOf(kept.Chart, nil)
	require.NoError(t, err)
	up := over.Chart.Key
	up.Tonic = up.Spell(up.Tonic.Class() + 2)
	higher := document.ChartOf(over.Chart.Transposed(up))
	_, err = Charts.Replace(t.Context(), l, tune.ID, Save{Version: 1}, higher)
	require.NoError(t, err)
	moved, err := l.SoloNow(t.Context(), solo)
	require.NoError(t, err)
	assert.Equal(t, higher.Key, moved.Chart.Key)
	i := neck.Standard()
	before, err := document.Notes(kept.Solo.Choruses[0].Blocks[0].Notes, over.Chart, i)
	require.NoError(t, err)
	after, err := document.Notes(moved.Solo.Choruses[0].Blocks[0].Notes, over.Chart, i)
	require.NoError(t, err)
	require.Len(t, after, len(before))
	for n := range before {
		assert.Equal(t, before[n].Sounding(i)+2, after[n].Sounding(i), "note %d sounds two half steps higher", n+1)
	}
	require.NoError(t, Charts.Delete(t.Context(), l, tune.ID, 2))
	alone, err := l.SoloNow(t.Context(), solo)
	require.NoError(t, err)
	assert.Equal(t, solo.Body, alone, "it stays as it was kept where the tune is gone")
}

func FuzzOpenAnEnvelope(f *testing.F) {
	for _, kind := range []string{"chart", "lick", "line", "solo", "band"} {
		f.Add(kind, fixture(f, 1, kind))
	}
	f.Add("lick", []byte(`{"kind":"lick","schema":2,"body":{}}`))
	f.Fuzz(func(t *testing.T, kind string, stored []byte) {
		var body any
		if err := Open(store.Kind(kind), stored, &body); err != nil {
			return
		}
		again := Seal(store.Kind(kind), body)
		var same any
		require.NoError(t, Open(store.Kind(kind), again, &same))
		assert.Equal(t, body, same)
	})
}

// Whatever a bad disk changes of a stored body: it is read as it was kept, or not at all.
func TestAChangedBodyIsNeverMisread(t *testing.T) {
	fields := map[string]any{"name": "Slack water", "events": []any{map[string]any{"tick": json.Number("0"), "string": json.Number("3"), "fret": json.Number("8")}}}
	stored := Seal(store.Lick, fields)
	read, unread := 0, 0
	rapid.Check(t, func(rt *rapid.T) {
		changed := slices.Clone(stored)
		for range rapid.IntRange(1, 3).Draw(rt, "bits") {
			changed[rapid.IntRange(0, len(changed)-1).Draw(rt, "at")] ^= byte(1 << rapid.IntRange(0, 7).Draw(rt, "bit"))
		}
		got, err := Fields(store.Lick, changed)
		if err != nil {
			unread++
			return
		}
		read++
		require.Equal(rt, fields, got)
	})
	assert.Greater(t, unread, read)
}
