// Package undaris tests the layout of the project: which part may import which, what
// things are called, and what ships under which licence.
package undaris

import (
	"encoding/json"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// mayImport says which parts of the project each part may use; what is not listed
// may use none. Arrows point down only: cmd → api → library → store; api,
// library → format → core; within the core upwards from pitch.
var mayImport = map[string][]string{
	"core/harmony":           {"core/choice", "core/pitch"},
	"core/neck":              {"core/shortestpath", "core/harmony", "core/pitch"},
	"core/chart":             {"core/choice", "core/harmony", "core/pitch"},
	"core/phrase":            {"core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/chart/charttest":   {"core"},
	"core/phrase/phrasetest": {"core"},
	"core/change":            {"core/choice", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/analysis":          {"core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/lick":              {"core/analysis", "core/change", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/exercise":          {"core/shortestpath", "core/change", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/solo/line":         {"core/lick", "core/change", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/solo/chorus":       {"core/choice", "core/solo/line", "core/lick", "core/analysis", "core/change", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/solo/planner":      {"core/solo/chorus", "core/lick", "core/analysis", "core/change", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/solo/etude":        {"core/exercise", "core/solo/chorus", "core/lick", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/solo/survey":       {"core/solo/planner", "core/solo/chorus", "core/lick", "core/change", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/solo/solotest":     {"core"},
	"core/band":              {"core/choice", "core/shortestpath", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/routine":           {"core/band", "core/change", "core/lick", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/practice":          {"core/choice", "core/change", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/practice/schedule": {"core/practice", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/practice/lesson":   {"core/analysis", "core/lick", "core/phrase"},
	"core/practice/plan":     {"core/practice/schedule", "core/practice", "core/chart"},
	"core/listen/leak":       {"core/listen"},
	"core/listen/evaluation": {"core/listen", "core/listen/pluck"},
	"core/take/transcribe":   {"core/listen", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/take/judge":        {"core/listen", "core/take/transcribe", "core/analysis", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"core/take/standin":      {"core/listen", "core/listen/pluck", "core/phrase", "core/neck", "core/chart", "core/harmony", "core/pitch"},
	"format":                 {"core", "format"},
	"store":                  {"wholefile"},
	"library/documents":      {"store", "format/document", "core"},
	"library/pieces":         {},
	"library/practice":       {"library/documents", "store", "format/document", "core"},
	"library/recording":      {"wholefile", "library/documents", "library/pieces", "store", "format/document", "format/midifile", "format/soundfile", "core"},
	"library/bundle":         {"library/documents", "library/pieces", "store", "format/bundle", "format/document"},
	"library/backup":         {"wholefile", "library/documents", "library/recording", "store", "format/document"},
	"demo":                   {"library", "store", "format/document", "format/soundfile", "core/practice", "core/solo/chorus", "core/listen", "core/take"},
	"access":                 {"wholefile"},
	"certificate":            {"wholefile"},
	"api":                    {"access", "library", "store", "format", "core"},
	"cmd":                    {"wholefile", "api", "access", "certificate", "library", "store", "demo", "web", "format", "core"},
}

// arithmetic is what every package of the core may use.
const arithmetic = "core/floor"

// pure is what the core may import beside itself: nothing that reads a clock,
// a file, a network or a database; a context only says
// that nobody waits any more, times are passed in (TestTheCoreReadsNoClock), and the distance of two
// words and the intervals of FSRS are pure. Chance comes from a seed that is passed in: see
// TestChanceIsSeeded.
var pure = []string{"cmp", "context", "errors", "fmt", "io", "math", "math/rand/v2", "slices", "sort", "strconv", "strings", "time", "unicode",
	"github.com/agnivade/levenshtein", "github.com/open-spaced-repetition/go-fsrs/v3", "gonum.org/v1/gonum/dsp/fourier", "gonum.org/v1/gonum/dsp/window", "maps"}

func TestImportsPointDown(t *testing.T) {
	files := 0
	walk := func(path string, entry fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if entry.IsDir() && (entry.Name() == "node_modules" || entry.Name() == ".git") {
			return filepath.SkipDir
		}
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return nil
		}
		files++
		parsed, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		require.NoError(t, err)
		part := filepath.ToSlash(filepath.Dir(path))
		for _, imported := range parsed.Imports {
			name, err := strconv.Unquote(imported.Path.Value)
			require.NoError(t, err)
			if inside, ok := strings.CutPrefix(name, "undaris/"); ok {
				assert.True(t, inside == arithmetic && strings.HasPrefix(part, "core/") || allowed(part, inside), "%s may not import %s", path, name)
			} else if strings.HasPrefix(part, "core/") && !strings.HasSuffix(part, "test") { // fixtures of tests may use a testing library
				assert.Contains(t, pure, name, "%s: the core is pure", path)
			}
		}
		return nil
	}
	require.NoError(t, filepath.WalkDir(".", walk))
	assert.Greater(t, files, 30, "the sources were found")
}

func allowed(part, imported string) bool {
	for owner, uses := range mayImport {
		exact := strings.HasPrefix(owner, "core/") || strings.HasPrefix(owner, "library/")
		if part != owner && (exact || !strings.HasPrefix(part, owner+"/")) {
			continue
		}
		for _, use := range uses {
			if imported == use || strings.HasPrefix(imported, use+"/") {
				return true
			}
		}
	}
	return false
}

// Every package of the core begins with a doc.go and shows itself in a runnable example.
func TestEveryCorePackageHasAnExample(t *testing.T) {
	packages := map[string]bool{}
	require.NoError(t, filepath.WalkDir("core", func(path string, entry fs.DirEntry, err error) error {
		if err == nil && !entry.IsDir() && strings.HasSuffix(path, ".go") && !strings.HasSuffix(filepath.Dir(path), "test") {
			packages[filepath.Dir(path)] = true
		}
		return err
	}))
	assert.Greater(t, len(packages), 10, "the packages were found")
	for folder := range packages {
		assert.FileExists(t, filepath.Join(folder, "doc.go"))
		example, err := os.ReadFile(filepath.Join(folder, "example_test.go"))
		if assert.NoError(t, err) {
			assert.Contains(t, string(example), "// Output:", folder)
		}
	}
}

// A name that says nothing about what is inside is not used for a package.
func TestNamesSayWhatThingsAre(t *testing.T) {
	require.NoError(t, filepath.WalkDir(".", func(path string, entry fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if entry.IsDir() && (entry.Name() == "node_modules" || entry.Name() == ".git" || entry.Name() == "dist") {
			return filepath.SkipDir
		}
		name, _, _ := strings.Cut(entry.Name(), ".")
		assert.NotContains(t, []string{"util", "utils", "common", "helper", "helpers", "manager", "misc"}, strings.ToLower(name), path)
		return nil
	}))
}

// The core draws chance from generators made of a seed, never from the one that the
// machine seeds.
func TestChanceIsSeeded(t *testing.T) {
	seeded := regexp.MustCompile(`\brand\.([A-Za-z]+)`)
	uses := 0
	require.NoError(t, filepath.WalkDir("core", func(path string, entry fs.DirEntry, err error) error {
		if err != nil || entry.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		source, err := os.ReadFile(path)
		require.NoError(t, err)
		for _, use := range seeded.FindAllStringSubmatch(string(source), -1) {
			uses++
			assert.Contains(t, []string{"New", "NewPCG", "Rand"}, use[1], "%s: rand.%s is not seeded by us", path, use[1])
		}
		return nil
	}))
	assert.Positive(t, uses, "the uses were found")
}

// The core is told the time.
func TestTheCoreReadsNoClock(t *testing.T) {
	clock := regexp.MustCompile(`\btime\.(Now|Since|Until|After|AfterFunc|Sleep|Tick|NewTimer|NewTicker|Local|LoadLocation)\b`)
	require.NoError(t, filepath.WalkDir("core", func(path string, entry fs.DirEntry, err error) error {
		if err != nil || entry.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		source, err := os.ReadFile(path)
		require.NoError(t, err)
		assert.Empty(t, clock.FindAllString(string(source), -1), path)
		return nil
	}))
}

// Whatever ships in the page is named with its version and licence in docs/licences.md, and
// in the list that the program itself shows.
func TestLicencesOfThePageAreNamed(t *testing.T) {
	read := func(path string) string {
		text, err := os.ReadFile(path)
		require.NoError(t, err)
		return string(text)
	}
	var of struct{ Dependencies map[string]string }
	require.NoError(t, json.Unmarshal([]byte(read("web/package.json")), &of))
	assert.NotEmpty(t, of.Dependencies)
	documented, shown := read("docs/licences.md"), read("web/public/licences.txt")
	for name, version := range of.Dependencies {
		assert.Contains(t, shown, name+" "+version+" (", "web/public/licences.txt")
		assert.Regexp(t, regexp.QuoteMeta(name)+`[^\n]* `+regexp.QuoteMeta(version), documented, "docs/licences.md")
	}
}
