package main

import (
	"bytes"
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTheBillNamesModulesAndPackages(t *testing.T) {
	lock := filepath.Join(t.TempDir(), "package-lock.json")
	require.NoError(t, os.WriteFile(lock, []byte(`{"packages": {"": {"version": "1"},
		"node_modules/b": {"version": "2.0.0", "license": "MIT"}, "node_modules/@a/b": {"version": "1.0.0"},
		"node_modules/b/node_modules/c": {"version": "3.0.0"}, "node_modules/tool": {"version": "9.0.0", "dev": true}}}`), 0o600))
	out := bytes.Buffer{}
	require.NoError(t, run([]string{os.Args[0], lock, "1.2.3"}, &out))
	b := bill{}
	require.NoError(t, json.Unmarshal(out.Bytes(), &b))
	assert.Equal(t, "1.2.3", b.Metadata.Component.Version)
	purls := map[string][]licence{}
	for _, c := range b.Components {
		purls[c.PURL] = c.Licenses
	}
	assert.Equal(t, []licence{{"MIT"}}, purls["pkg:npm/b@2.0.0"])
	assert.Contains(t, purls, "pkg:npm/%40a/b@1.0.0")
	assert.Contains(t, purls, "pkg:npm/c@3.0.0")
	assert.NotContains(t, purls, "pkg:npm/tool@9.0.0", "what the page is only built with is not in it")
	again := bytes.Buffer{}
	require.NoError(t, run([]string{os.Args[0], lock, "1.2.3"}, &again))
	assert.Equal(t, out.String(), again.String())
	assert.Error(t, run(nil, &out))
	assert.Error(t, run([]string{lock, lock, "1"}, &out), "no program")
}
