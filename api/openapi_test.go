package api

import (
	"bytes"
	"encoding/json"
	"flag"
	"os"
	"testing"

	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var update = flag.Bool("update", false, "write openapi.json from the Go types")

// openapi.json is what the front end's client is generated from; it must be
// what the Go types say.
func TestOpenAPIFileIsCurrent(t *testing.T) {
	gin.SetMode(gin.ReleaseMode)
	document := humagin.New(gin.New(), apiConfig("0"))
	(&server{}).register(document)
	want, err := json.MarshalIndent(document.OpenAPI(), "", "  ")
	require.NoError(t, err)
	want = append(want, '\n')
	if *update {
		require.NoError(t, os.WriteFile("openapi.json", want, 0o644))
	}
	got, err := os.ReadFile("openapi.json")
	require.NoError(t, err)
	assert.True(t, bytes.Equal(want, got), "openapi.json is not what the Go types say; run: make api")
	assert.Equal(t, "3.1.0", document.OpenAPI().OpenAPI)
}
