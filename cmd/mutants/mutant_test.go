package main

import (
	"bytes"
	"io"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMutantsOfAFile(t *testing.T) {
	source := "package a\n\nfunc f(x int) bool { return x < 3 && \"a\"+b != \"\" }\n\nconst share = 0.5\n"
	all, err := mutantsIn("a.go", []byte(source))
	require.NoError(t, err)
	said := []string{}
	for _, m := range all {
		said = append(said, m.String())
		assert.Len(t, m.changed, len(source)+len(m.to)-len(m.from))
	}
	assert.ElementsMatch(t, []string{"a.go:3: && → ||", "a.go:3: < → <=", "a.go:3: 3 → 4", "a.go:5: 0.5 → 0.75"}, said)
	_, err = mutantsIn("a.go", []byte("no go"))
	assert.Error(t, err)
}

// A mutant that the tests notice is not named, one that they do not is; the files stay as they are.
func TestSurvivorsAreNamed(t *testing.T) {
	folder := t.TempDir()
	write := func(name, text string) {
		require.NoError(t, os.WriteFile(filepath.Join(folder, name), []byte(text), 0o600))
	}
	write("go.mod", "module a\n")
	write("a.go", "package a\n\nfunc Least(x int) bool { return x > 2 }\n\nfunc Unseen(x int) bool { return x > 0 }\n")
	write("a_test.go", "package a\n\nimport \"testing\"\n\nfunc TestLeast(t *testing.T) {\n\tif Least(2) || !Least(3) {\n\t\tt.Fatal()\n\t}\n}\n")
	t.Chdir(folder)
	var out bytes.Buffer
	require.NoError(t, run([]string{"-n", "9", "."}, &out, io.Discard))
	assert.Contains(t, out.String(), "survives: a.go:5: > → >=")
	assert.Contains(t, out.String(), "survives: a.go:5: 0 → 1")
	assert.Contains(t, out.String(), "2 of 4 mutants survive")
	assert.EqualError(t, run(nil, &out, io.Discard), "name the folders of the packages, such as ./core/neck")
	assert.ErrorContains(t, run([]string{"nowhere"}, &out, io.Discard), "nowhere has no Go files")
}
