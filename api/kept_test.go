package api

import (
	"bytes"
	"database/sql"
	"fmt"
	"log/slog"
	"net/http"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/demo"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/store"
)

// outside opens the data file a second time, as another program would.
func outside(t testing.TB, path string) *sql.DB {
	t.Helper()
	db, err := sql.Open("sqlite", "file:"+path+"?_pragma=busy_timeout(5000)")
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	return db
}

// kept is the application over a data file that the test can reach as well.
func kept(t testing.TB, log *slog.Logger) (client, *sql.DB) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "kept.db")
	data, err := store.Open(path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = data.Close() })
	tunes, err := demo.Charts()
	require.NoError(t, err)
	licks, err := demo.Licks()
	require.NoError(t, err)
	l := documents.New(data, slog.New(slog.DiscardHandler))
	for n, tune := range tunes {
		_, err := documents.Charts.Create(t.Context(), l, tune, 0)
		require.NoError(t, err)
		_, err = documents.Licks.Create(t.Context(), l, licks[n], 0)
		require.NoError(t, err)
	}
	solos, err := demo.Solos()
	require.NoError(t, err)
	_, err = documents.Solos.Create(t.Context(), l, document.SoloDocument{Solo: solos[0].Solo, Chart: tunes[0]}, 1)
	require.NoError(t, err)
	if log == nil {
		log = slog.New(slog.DiscardHandler)
	}
	return client{t: t, http: New(Config{Store: data, Version: "test", Loopback: true, Log: log}), host: "127.0.0.1:8380"}, outside(t, path)
}

// One row that cannot be read hides nothing but itself: it is listed with what is wrong,
// its text and its versions can be had, and it can be deleted.
func TestADamagedRowHidesNothingButItself(t *testing.T) {
	c, db := kept(t, nil)
	chart := call[KeptChart](c, "GET", "/api/charts/3", nil, 200)
	chart.Chart.Tempo = 99
	call[KeptChart](c, "PUT", "/api/charts/3", map[string]any{"version": 1, "chart": chart.Chart, "keepBefore": true}, 200)
	_, err := db.Exec(`update documents set body='oops' where id in (3, 4)`)
	require.NoError(t, err)

	list := call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)
	require.Len(t, list, 6)
	for n, entry := range list {
		assert.Equal(t, n == 1, entry.Damaged != "", entry.Title)
		assert.NotEmpty(t, entry.Title, "its name is known all the same")
	}
	refused := call[Problem](c, "GET", "/api/charts/3", nil, 422)
	assert.Contains(t, refused.Detail, "this chart cannot be read")
	assert.True(t, refused.Errors[0].Damaged)
	text := c.do("GET", "/api/charts/3/text", nil)
	assert.Equal(t, "oops", text.Body.String())
	versions := call[[]Revision](c, "GET", "/api/charts/3/revisions", nil, 200)
	require.Len(t, versions, 2)
	assert.NotEmpty(t, versions[0].Damaged)
	assert.Empty(t, versions[1].Damaged)
	back := call[KeptChart](c, "POST", "/api/charts/3/revisions/1/restore", map[string]int{"version": 2}, 200)
	assert.NotEqual(t, 99, back.Chart.Tempo)
	assert.Empty(t, call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)[1].Damaged)

	licks := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)
	require.Len(t, licks, 6)
	assert.NotEmpty(t, licks[1].Damaged)
	assert.Equal(t, "Slack water", licks[1].Lick.Name)
	assert.Equal(t, 5, call[FoundLicks](c, "POST", "/api/licks/find", FindLicks{PlayContext: PlayContext{Chart: chart.Chart}}, 200).Of)
	assert.Equal(t, 204, c.do("DELETE", "/api/licks/4?version=1", nil).Code)

	_, err = db.Exec(`update documents set body='{"solo":7}' where kind='solo'`)
	require.NoError(t, err)
	solos := call[[]SoloEntry](c, "GET", "/api/solos", nil, 200)
	require.Len(t, solos, 1)
	assert.NotEmpty(t, solos[0].Damaged)
	assert.NotEmpty(t, call[[]Revision](c, "GET", "/api/solos/"+itoa(solos[0].ID)+"/revisions", nil, 200)[0].Damaged)
	call[Problem](c, "GET", "/api/solos/"+itoa(solos[0].ID), nil, 422)
	assert.Equal(t, 204, c.do("DELETE", "/api/charts/5?version=1", nil).Code)
	_, err = db.Exec(`update documents set body='oops' where id=5`)
	require.NoError(t, err)
	gone := call[[]ChartEntry](c, "GET", "/api/charts/deleted", nil, 200)
	require.Len(t, gone, 1)
	assert.NotEmpty(t, gone[0].Damaged)
}

func chart0(t *testing.T) document.Chart {
	t.Helper()
	tunes, err := demo.Charts()
	require.NoError(t, err)
	return tunes[0]
}

// A value that no rule of today allows is read as the nearest that is allowed, said, and
// mended with the next save.
func TestValuesThatALaterRuleRefusesAreMended(t *testing.T) {
	c, db := kept(t, nil)
	_, err := db.Exec(`update documents set body=json_set(json_remove(cast(body as text), '$.sum'), '$.body.tempo', 900, '$.body.capo', -2, '$.body.box', 'hexatonic', '$.body.feel', 'bossa', '$.body.title', '  ', '$.body.swing', 9, '$.body.tags', json('["a,b", ""]')) where id=1`)
	require.NoError(t, err)
	got := call[KeptChart](c, "GET", "/api/charts/1", nil, 200)
	assert.Equal(t, []string{
		"it had no title", "its tempo of 900 stands at 400", "its swing of 9 stands at 3", "its capo on fret -2 stands at 0",
		`its box "hexatonic" is the key's own`, `its feel "bossa" stands as straight`, "its tags stand as: a b",
	}, got.Mended)
	assert.NotEmpty(t, call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)[0].Mended)
	call[KeptChart](c, "PUT", "/api/charts/1", map[string]any{"version": got.Version, "chart": got.Chart}, 200)
	assert.Empty(t, call[KeptChart](c, "GET", "/api/charts/1", nil, 200).Mended)
	assert.Empty(t, call[[]ChartEntry](c, "GET", "/api/charts", nil, 200)[0].Mended)
}

func TestThePlayersSettingsAreMended(t *testing.T) {
	c, db := kept(t, nil)
	call[KeptPlayer](c, "PUT", "/api/player", SavePlayer{Player: Player{LeftHanded: true}}, 200)
	_, err := db.Exec(`update settings set body='{"leftHanded":true,"spanMm":4000,"instrument":{"name":"x","tuning":"E2 A2","frets":99,"scaleMm":648},"swaps":[{"degree":"nine","sign":"7","form":"E","from":1,"to":2}]}'`)
	require.NoError(t, err)
	got := call[KeptPlayer](c, "GET", "/api/player", nil, 200)
	assert.True(t, got.Player.LeftHanded, "what can be read stays")
	assert.InDelta(t, 200, got.Player.SpanMM, 0)
	assert.Equal(t, 27, got.Player.Instrument.Frets)
	assert.Len(t, got.Mended, 3)
}

// Settings that cannot be read, for whatever reason, stay among the versions when others are saved, and can be had.
func TestSettingsThatCannotBeReadStayAmongTheVersions(t *testing.T) {
	for name, body := range map[string]string{
		"no JSON": "oops", "a changed byte": `{"kind":"player","schema":2,"sum":"0123456789abcdef","body":{"leftHanded":true}}`,
		"of a later schema": `{"kind":"player","schema":9,"body":{"leftHanded":true}}`, "of another kind": `{"kind":"practice","schema":2,"body":{}}`,
	} {
		c, db := kept(t, nil)
		call[KeptPlayer](c, "PUT", "/api/player", SavePlayer{Player: Player{LeftHanded: true}}, 200)
		_, err := db.Exec(`update settings set body = ? where name = 'player'`, body)
		require.NoError(t, err)
		got := call[KeptPlayer](c, "GET", "/api/player", nil, 200)
		require.Len(t, got.Mended, 1, name)
		assert.Contains(t, got.Mended[0], "what was kept stays among the versions")
		assert.Equal(t, Player{}, got.Player)
		saved := call[KeptPlayer](c, "PUT", "/api/player", SavePlayer{Version: got.Version, Player: Player{LowOnTop: true}}, 200)
		all := call[[]Revision](c, "GET", "/api/player/revisions", nil, 200)
		require.Len(t, all, 2, name)
		assert.True(t, all[0].Current)
		assert.NotEmpty(t, all[1].Damaged, name)
		text := c.do("GET", fmt.Sprintf("/api/player/revisions/%d/text", all[1].Version), nil)
		assert.Equal(t, body, text.Body.String(), name)
		call[Problem](c, "POST", fmt.Sprintf("/api/player/revisions/%d/restore", all[1].Version), map[string]any{"version": saved.Version}, http.StatusUnprocessableEntity)
	}
}

// Settings have versions like everything kept: one is had back, a save names what it replaces by its ETag too.
func TestSettingsHaveVersions(t *testing.T) {
	c, db := kept(t, nil)
	first := call[KeptPlayer](c, "PUT", "/api/player", SavePlayer{Player: Player{LeftHanded: true}}, 200)
	_, err := db.Exec(`update settings set updated_at = '2026-01-01 10:00:00+00:00'`) // another sitting
	require.NoError(t, err)
	second := call[KeptPlayer](c, "PUT", "/api/player", SavePlayer{Version: first.Version, Player: Player{LowOnTop: true}}, 200)
	call[Problem](c, "PUT", "/api/player", SavePlayer{Version: first.Version}, http.StatusPreconditionFailed)
	back := call[KeptPlayer](c, "POST", "/api/player/revisions/1/restore", map[string]any{"version": second.Version}, 200)
	assert.True(t, back.Player.LeftHanded)
	assert.Len(t, call[[]Revision](c, "GET", "/api/player/revisions", nil, 200), 3)
	call[Problem](c, "POST", "/api/player/revisions/77/restore", map[string]any{"version": back.Version}, http.StatusNotFound)

	many := 12
	settings := call[KeptSettings](c, "PUT", "/api/practice/settings", KeptSettings{Settings: document.PracticeSettings{NewCards: &many}}, 200)
	_, err = db.Exec(`update settings set body = '{"kind":"practice","schema":2,"sum":"00","body":{}}' where name = 'practice'`)
	require.NoError(t, err)
	damaged := call[KeptSettings](c, "GET", "/api/practice/settings", nil, 200)
	assert.Len(t, damaged.Mended, 1)
	call[KeptSettings](c, "PUT", "/api/practice/settings", KeptSettings{Version: settings.Version}, 200)
	assert.NotEmpty(t, call[[]Revision](c, "GET", "/api/practice/settings/revisions", nil, 200)[1].Damaged)
}

// A fault says in plain words what can be done, and the log says why.
func TestCausesAreLogged(t *testing.T) {
	var remarks bytes.Buffer
	c, db := kept(t, slog.New(slog.NewTextHandler(&remarks, nil)))
	_, err := db.Exec(`alter table documents rename to lost`)
	require.NoError(t, err)
	got := call[Problem](c, "GET", "/api/charts", nil, http.StatusInternalServerError)
	assert.Equal(t, "something went wrong in Undaris; what you had kept is safe", got.Detail)
	assert.Empty(t, got.Errors)
	assert.Contains(t, remarks.String(), "path=/api/charts")
	assert.Contains(t, remarks.String(), "no such table: documents")
}

func TestAFullDiskIsSaid(t *testing.T) {
	path := filepath.Join(t.TempDir(), "small.db")
	data, err := store.Open(path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = data.Close() })
	c := client{t: t, http: New(Config{Store: data, Loopback: true, Log: slog.New(slog.DiscardHandler)}), host: "127.0.0.1:8380"}
	require.NoError(t, data.LimitPages(30))
	doc := chart0(t)
	for n := range 100 {
		doc.Title = fmt.Sprintf("Tune %d", n)
		response := c.do("POST", "/api/charts", doc)
		if response.Code == http.StatusCreated {
			continue
		}
		got := decoded[Problem](t, response.Body.Bytes())
		assert.Equal(t, http.StatusInsufficientStorage, response.Code)
		assert.Contains(t, got.Detail, "the disk is full, so nothing was saved")
		assert.Len(t, call[[]ChartEntry](c, "GET", "/api/charts", nil, 200), n, "and what was saved before is there")
		return
	}
	t.Fatal("the disk never filled")
}

func TestVersionsAreNamed(t *testing.T) {
	c, _ := kept(t, nil)
	chart := call[KeptChart](c, "GET", "/api/charts/1", nil, 200)
	assert.Equal(t, 204, c.do("PUT", "/api/charts/1/revisions/1/label", VersionLabel{" for Friday "}).Code)
	for version := 1; version <= 4; version++ {
		chart.Chart.Tempo = 100 + version
		call[KeptChart](c, "PUT", "/api/charts/1", map[string]any{"version": version, "chart": chart.Chart}, 200)
	}
	versions := call[[]Revision](c, "GET", "/api/charts/1/revisions", nil, 200)
	require.Len(t, versions, 2, "saves of one sitting are one version, but for the named one")
	assert.Equal(t, "for Friday", versions[1].Label)
	assert.Equal(t, "tempo 112 → 104", versions[0].Text)
	assert.Equal(t, 422, c.do("PUT", "/api/charts/1/revisions/1/label", VersionLabel{string(make([]byte, 61))}).Code)
	assert.Equal(t, 404, c.do("PUT", "/api/charts/1/revisions/3/label", VersionLabel{"none"}).Code)
}

// A solo goes with its tune: what is kept of it stays, and lies there again when the tune
// comes back.
func TestASoloGoesWithItsTune(t *testing.T) {
	c, _ := kept(t, nil)
	solo := call[KeptSolo](c, "GET", "/api/solos/"+itoa(call[[]SoloEntry](c, "GET", "/api/solos", nil, 200)[0].ID), nil, 200)
	home := PlayContext{Chart: solo.Chart, Hands: solo.Hands}
	in := func(tonic string, capo int) PlayContext {
		to := edited(c, solo.Chart, EditChart{Tonic: tonic})
		to.Chart.Capo = capo
		return PlayContext{Chart: to.Chart}
	}
	for _, there := range []PlayContext{in("A", 0), in("C", 3), in("F#", 0), {Chart: solo.Chart, Hands: &document.Hands{Instrument: &necks[6]}}, {Chart: solo.Chart, Hands: &document.Hands{Instrument: &necks[0]}}} {
		moved := call[TransposedSolo](c, "POST", "/api/compute/solo/transposed", TransposeSolo{Solo: solo.Solo, From: home, To: there}, 200)
		require.Len(t, moved.Solo.Choruses, len(solo.Solo.Choruses))
		for _, current := range moved.Solo.Choruses {
			call[ChorusView](c, "POST", "/api/compute/solo/chorus", ChorusRequest{PlayContext: there, Chorus: current}, 200)
		}
	}
	same := call[TransposedSolo](c, "POST", "/api/compute/solo/transposed", TransposeSolo{Solo: solo.Solo, From: home, To: home}, 200)
	assert.Equal(t, solo.Solo, same.Solo)
	assert.Empty(t, same.Concessions)
	capo := call[TransposedSolo](c, "POST", "/api/compute/solo/transposed", TransposeSolo{Solo: solo.Solo, From: home, To: in("C", 3)}, 200)
	first := func(s document.Solo) document.Event {
		for _, b := range s.Choruses[0].Blocks {
			if len(b.Notes) > 0 {
				return b.Notes[0]
			}
		}
		return document.Event{}
	}
	assert.Equal(t, first(solo.Solo).Fret-3, first(capo.Solo).Fret, "a capo keeps what sounds")

	// What is taken away is in the tune's present key.
	call[KeptChart](c, "PUT", "/api/charts/1", map[string]any{"version": 1, "chart": in("D", 0).Chart}, 200)
	file := c.do("GET", "/api/solos/"+itoa(solo.ID)+"/export/tab", nil)
	require.Equal(t, 200, file.Code)
	assert.Contains(t, file.Body.String(), "D7")
	assert.NotContains(t, file.Body.String(), "C7")
}

// Positions are kept by form, which means the same in every key.
func TestPositionsOfAPlanAreKeptByForm(t *testing.T) {
	c, _ := kept(t, nil)
	keep := twoChoruses(c)
	keep.ChartID = 1
	keep.Solo.Choruses[0].Plan.Position = "E-7"
	keep.Solo.Choruses[1].Plan.Position = "G-17"
	got := call[KeptSolo](c, "POST", "/api/solos", keep, 201)
	assert.Equal(t, "E", got.Solo.Choruses[0].Plan.Position)
	assert.Equal(t, "G+1", got.Solo.Choruses[1].Plan.Position)
}

func TestATuneWithoutATitleIsNamed(t *testing.T) {
	c := application(t, nil)
	for _, named := range []struct {
		ask  NewChart
		want string
	}{
		{NewChart{Tonic: "A", Scheme: "slow change", Tempo: 90, Feel: "straight"}, "Slow change in A"},
		{NewChart{Title: "  ", Tonic: "F#", Scheme: "minor twelve-bar", Tempo: 90, Feel: "straight"}, "Minor twelve-bar in F# minor"},
		{NewChart{Tonic: "Eb", Mode: "major", Bars: 12, Tempo: 90, Feel: "straight"}, "12 bars in Eb major"},
		{NewChart{Title: "Mine", Tonic: "A", Scheme: "slow change", Tempo: 90, Feel: "straight"}, "Mine"},
	} {
		assert.Equal(t, named.want, call[ReadChart](c, "POST", "/api/compute/chart/scheme", named.ask, 200).Chart.Title)
	}
}

// A page may ask for refusals as answers: they are no failed requests to its browser.
func TestRefusalsAsAnswers(t *testing.T) {
	c := application(t, nil)
	bad := EditChart{Chart: ferry(c).Chart, Scheme: "polka"}
	response := c.do("POST", "/api/compute/chart", bad, "Prefer", "refusal-as-answer")
	assert.Equal(t, http.StatusOK, response.Code)
	assert.Equal(t, "refusal-as-answer", response.Header().Get("Preference-Applied"))
	assert.Equal(t, "application/problem+json", response.Header().Get("Content-Type"))
	assert.Equal(t, http.StatusUnprocessableEntity, decoded[Problem](t, response.Body.Bytes()).Status)
	good := c.do("POST", "/api/compute/chart", EditChart{Chart: ferry(c).Chart}, "Prefer", "refusal-as-answer")
	assert.Empty(t, good.Header().Get("Preference-Applied"))
	missing := c.do("GET", "/api/charts/999", nil, "Prefer", "refusal-as-answer")
	assert.Equal(t, http.StatusNotFound, missing.Code, "only what is refused")
}

// A library of 50,000 tunes with two versions each is listed and searched page by page.
func BenchmarkFiftyThousandTunes(b *testing.B) {
	c, db := kept(b, nil)
	_, err := db.Exec(`WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 49996)
		INSERT INTO documents (uid, kind, name, body, summary, version, created_at, updated_at)
		SELECT 'uid' || i, 'chart', 'Tune ' || i, body, summary, 3, created_at, updated_at FROM documents, n WHERE id = 1`)
	require.NoError(b, err)
	_, err = db.Exec(`INSERT INTO revisions (document_id, version, name, body, saved_at) SELECT d.id, v.n, d.name, d.body, d.updated_at FROM documents d, (SELECT 1 AS n UNION SELECT 2) v WHERE d.version = 3`)
	require.NoError(b, err)
	for name, path := range map[string]string{"all": "/api/charts", "a page": "/api/charts?limit=100", "a late page": "/api/charts?limit=100&after=45000", "search": "/api/charts?limit=100&search=une+4999"} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				response := c.do("GET", path, nil)
				require.Equal(b, 200, response.Code)
			}
		})
	}
}

// Listing a library of 5,000 tunes reads no body of it.
func BenchmarkListFiveThousandTunes(b *testing.B) {
	c, db := kept(b, nil)
	_, err := db.Exec(`WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 4996)
		INSERT INTO documents (kind, name, body, summary, version, created_at, updated_at)
		SELECT 'chart', 'Tune ' || i, body, summary, 1, created_at, updated_at FROM documents, n WHERE id = 1`)
	require.NoError(b, err)
	for b.Loop() {
		response := c.do("GET", "/api/charts", nil)
		require.Equal(b, 200, response.Code)
	}
}
