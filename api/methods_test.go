package api

import (
	"io"
	"net/http"
	"net/http/httptest"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every resource says which methods it has, answers HEAD as GET without a body, and refuses the others by name.
func TestMethods(t *testing.T) {
	c := application(t, nil)
	server := httptest.NewServer(c.http)
	t.Cleanup(server.Close)
	ask := func(method, path string) (*http.Response, string) {
		request, err := http.NewRequest(method, server.URL+path, nil)
		require.NoError(t, err)
		request.Host = c.host
		response, err := server.Client().Do(request)
		require.NoError(t, err)
		defer func() { _ = response.Body.Close() }()
		text, err := io.ReadAll(response.Body)
		require.NoError(t, err)
		return response, string(text)
	}
	for _, path := range []string{"/api/charts", "/api/charts/1", "/api/practice/deck", "/api/charts/1/export/text", "/openapi.json"} {
		get, whole := ask("GET", path)
		head, nothing := ask("HEAD", path)
		assert.Equal(t, get.StatusCode, head.StatusCode, path)
		assert.Equal(t, get.Header.Get("Content-Type"), head.Header.Get("Content-Type"), path)
		assert.Equal(t, get.Header.Get("ETag"), head.Header.Get("ETag"), path)
		assert.NotEmpty(t, whole)
		assert.Empty(t, nothing)
	}
	options, nothing := ask("OPTIONS", "/api/charts/1")
	assert.Equal(t, http.StatusNoContent, options.StatusCode)
	assert.Equal(t, "DELETE, GET, HEAD, OPTIONS, PUT", options.Header.Get("Allow"))
	assert.Empty(t, nothing)
	refused, why := ask("PATCH", "/api/charts/1")
	assert.Equal(t, http.StatusMethodNotAllowed, refused.StatusCode)
	assert.Equal(t, "DELETE, GET, HEAD, OPTIONS, PUT", refused.Header.Get("Allow"))
	assert.Contains(t, why, "PATCH is no method of this resource; it has DELETE, GET, HEAD, OPTIONS, PUT")
	refused, _ = ask("DELETE", "/api/compute/chart")
	assert.Equal(t, http.StatusMethodNotAllowed, refused.StatusCode)
	missing, _ := ask("GET", "/api/nothing")
	assert.Equal(t, http.StatusNotFound, missing.StatusCode)
}
