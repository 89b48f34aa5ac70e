package api

import (
	"bytes"
	"encoding/json"
	"flag"
	"os"
	"testing"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var update = flag.Bool("update", false, "write openapi.json from the Go types")

// description is what the application says of its own API.
func description(t testing.TB) *huma.OpenAPI {
	t.Helper()
	gin.SetMode(gin.ReleaseMode)
	served := humagin.New(gin.New(), apiConfig("0"))
	(&server{}).register(served)
	return served.OpenAPI()
}

// openapi.json is what the front end's client is generated from; it must be
// what the Go types say.
func TestOpenAPIFileIsCurrent(t *testing.T) {
	want, err := json.MarshalIndent(description(t), "", "  ")
	require.NoError(t, err)
	want = append(want, '\n')
	if *update {
		require.NoError(t, os.WriteFile("openapi.json", want, 0o644))
	}
	got, err := os.ReadFile("openapi.json")
	require.NoError(t, err)
	assert.True(t, bytes.Equal(want, got), "openapi.json is not what the Go types say; run: make api")
	assert.Equal(t, "3.1.0", description(t).OpenAPI)
}

// Every operation has a tag and a summary of its own, and no summary is of an operation that
// there is not.
func TestEveryOperationIsDescribed(t *testing.T) {
	described := map[string]bool{}
	summaryOf := map[string]string{}
	for path, item := range description(t).Paths {
		for method, o := range map[string]*huma.Operation{"GET": item.Get, "POST": item.Post, "PUT": item.Put, "DELETE": item.Delete} {
			if o == nil {
				continue
			}
			name := method + " " + path
			described[name] = true
			assert.Len(t, o.Tags, 1, name)
			assert.NotRegexp(t, `(?i)\bapi\b`, o.Summary, "%s has the summary that is made of its path", name)
			assert.Empty(t, summaryOf[o.Summary+o.Tags[0]], "%s has the summary of another", name)
			summaryOf[o.Summary+o.Tags[0]] = name
		}
	}
	for name := range summaries {
		assert.True(t, described[name], "%s is not served", name)
	}
}
