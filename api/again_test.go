package api

import (
	"encoding/json"
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
)

// What is asked for twice, because the answer to the first time was lost on its way, is done once and answered the same.
func TestAskedForAgain(t *testing.T) {
	c, _ := kept(t, nil)
	for n, path := range []string{"charts", "licks", "exercises", "solos", "bands", "sessions"} {
		key := fmt.Sprintf("8c6f3c52-0b0e-4c86-9a32-1f4a5b1d7e%02d", n)
		body := creationOf(c, path)
		first := c.do("POST", "/api/"+path, body, "Idempotency-Key", key)
		require.Equal(t, http.StatusCreated, first.Code, "%s: %s", path, first.Body)
		again := c.do("POST", "/api/"+path, body, "Idempotency-Key", key)
		assert.Equal(t, http.StatusCreated, again.Code)
		assert.JSONEq(t, first.Body.String(), again.Body.String(), "the same document")
		if path == "bands" { // a tune has one
			continue
		}
		other := call[Kept](c, "POST", "/api/"+path, body, http.StatusCreated)
		var one Kept
		require.NoError(t, json.Unmarshal(first.Body.Bytes(), &one))
		assert.NotEqual(t, one.ID, other.ID, "without a key a second one is kept")
		assert.Equal(t, 204, c.do("DELETE", "/api/"+path+"/"+itoa(one.ID)+"?version=1", nil).Code)
		assert.Equal(t, http.StatusConflict, c.do("POST", "/api/"+path, body, "Idempotency-Key", key).Code, "the one with this key is deleted")
	}
	assert.Equal(t, 422, c.do("POST", "/api/charts", creationOf(c, "charts"), "Idempotency-Key", "a").Code)
}

// creationOf is what a new document of a kind is made from.
func creationOf(c client, path string) any {
	c.t.Helper()
	tune := ferry(c)
	switch path {
	case "charts":
		return tune.Chart
	case "licks":
		return call[[]KeptLick](c, "GET", "/api/licks", nil, 200)[0].Lick
	case "exercises":
		return document.Exercise{Name: "Up", Tones: "thirds"}
	case "solos":
		return twoChoruses(c)
	case "bands":
		return map[string]any{"chartId": tune.ID, "band": map[string]any{}}
	default:
		return document.Session{Name: "Evening", Minutes: 20, Blocks: []document.SessionBlock{{Kind: "free", Minutes: 20, Title: "Play"}}}
	}
}

// A save that is asked for again is no conflict; another one in its place is.
func TestASaveAskedForAgain(t *testing.T) {
	c, _ := kept(t, nil)
	tune := ferry(c)
	tune.Chart.Tempo = 77
	change := ReplaceChart{Chart: tune.Chart, Replacing: Replacing{Version: tune.Version}}
	first := call[KeptChart](c, "PUT", "/api/charts/"+itoa(tune.ID), change, 200)
	again := call[KeptChart](c, "PUT", "/api/charts/"+itoa(tune.ID), change, 200)
	assert.Equal(t, first.Version, again.Version)
	change.Chart.Tempo = 78
	assert.Equal(t, 412, c.do("PUT", "/api/charts/"+itoa(tune.ID), change).Code)

	player := SavePlayer{Player: Player{LeftHanded: true}}
	saved := call[KeptPlayer](c, "PUT", "/api/player", player, 200)
	assert.Equal(t, saved.Version, call[KeptPlayer](c, "PUT", "/api/player", player, 200).Version)
}
