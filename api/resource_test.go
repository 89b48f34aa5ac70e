package api

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What GET gives PUT takes, with the ETag in place of a version; a stale one changes nothing,
// and a save that names no version is refused.
func TestAResourceIsReplacedByItsETag(t *testing.T) {
	c := application(t, nil)
	got := c.do("GET", "/api/licks/1", nil)
	require.Equal(t, 200, got.Code)
	require.Equal(t, `"1"`, got.Header().Get("ETag"))
	whole := map[string]any{}
	require.NoError(t, json.Unmarshal(got.Body.Bytes(), &whole))
	whole["lick"].(map[string]any)["name"] = "Ferry call, again"
	delete(whole, "version")

	assert.Equal(t, 428, c.do("PUT", "/api/licks/1", whole).Code, "a save says which version it replaces")
	saved := c.do("PUT", "/api/licks/1", whole, "If-Match", `"1"`)
	require.Equal(t, 200, saved.Code, saved.Body.String())
	assert.Equal(t, `"2"`, saved.Header().Get("ETag"))
	assert.Equal(t, `"2"`, c.do("PUT", "/api/licks/1", whole, "If-Match", `"1"`).Header().Get("ETag"), "asked for again it is done")
	whole["lick"].(map[string]any)["name"] = "Another"
	assert.Equal(t, 412, c.do("PUT", "/api/licks/1", whole, "If-Match", `"1"`).Code)
	assert.Equal(t, 422, c.do("PUT", "/api/licks/1", whole, "If-Match", "soon").Code)
	assert.Equal(t, 412, c.do("DELETE", "/api/licks/1", nil, "If-Match", `"1"`).Code)
	assert.Equal(t, 204, c.do("DELETE", "/api/licks/1", nil, "If-Match", `"2"`).Code)
	deleted := call[[]LickEntry](c, "GET", "/api/licks/deleted", nil, 200)
	require.Len(t, deleted, 1)
	assert.Equal(t, "Ferry call, again", deleted[0].Name)
}

// Every kind is served alike: each has the verbs of the others.
func TestKindsAreServedAlike(t *testing.T) {
	paths := description(t).Paths
	for _, kind := range []string{"charts", "licks", "lines", "solos", "bands"} {
		for _, path := range []string{"", "/{id}", "/{id}/restore", "/{id}/revisions", "/{id}/revisions/{revision}/restore", "/{id}/revisions/{revision}/label", "/{id}/text"} {
			assert.NotNil(t, paths["/api/"+kind+path], "%s%s", kind, path)
		}
		if kind != "bands" { // a tune has one band, which is deleted with nothing and copied to nothing
			assert.NotNil(t, paths["/api/"+kind+"/deleted"], kind)
			assert.NotNil(t, paths["/api/"+kind+"/{id}/duplicate"], kind)
		}
	}
	c := application(t, nil)
	copied := call[KeptChart](c, "POST", "/api/charts/"+itoa(ferry(c).ID)+"/duplicate", nil, 201)
	assert.Equal(t, "Tin Roof Ferry, copy", copied.Chart.Title)
}
