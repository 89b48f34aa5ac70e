package bundle

import (
	"archive/zip"
	"bytes"
	"io"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

const manyBytes = 1 << 30

func written(t testing.TB, files map[string]string) []byte {
	t.Helper()
	out := bytes.Buffer{}
	w := NewWriter(&out)
	for path, text := range files {
		require.NoError(t, w.Add(path, strings.NewReader(text)))
	}
	require.NoError(t, w.Close(time.Date(2026, 3, 4, 5, 6, 7, 8, time.UTC), "a test", "everything"))
	return out.Bytes()
}

func opened(text []byte) (*Bundle, error) {
	return Open(bytes.NewReader(text), int64(len(text)), manyBytes)
}

func TestWrittenAndRead(t *testing.T) {
	files := map[string]string{"documents/chart/1.json": `{"a":1}`, "sounds/ab.wav": "RIFF", "log.jsonl": ""}
	b, err := opened(written(t, files))
	require.NoError(t, err)
	assert.Equal(t, Manifest{
		Format: "undaris-bundle", Version: 1, Made: time.Date(2026, 3, 4, 5, 6, 7, 0, time.UTC), By: "a test", About: "everything", Files: b.Manifest.Files,
	}, b.Manifest)
	for path, text := range files {
		read, err := b.Read(path)
		require.NoError(t, err)
		assert.Equal(t, text, string(read))
	}
	assert.Equal(t, []string{"documents/chart/1.json"}, b.Paths("documents/"))
	assert.Equal(t, int64(4), b.Bytes("sounds/"))
	_, err = b.Read("documents/chart/2.json")
	assert.EqualError(t, err, "documents/chart/2.json in the bundle is not there")
}

// zipOf is a zip of entries in order, with a manifest as it is given.
func zipOf(t *testing.T, entries ...string) []byte {
	t.Helper()
	out := bytes.Buffer{}
	z := zip.NewWriter(&out)
	for n := 0; n < len(entries); n += 2 {
		file, err := z.CreateHeader(&zip.FileHeader{Name: entries[n], Method: zip.Store})
		require.NoError(t, err)
		_, err = file.Write([]byte(entries[n+1]))
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return out.Bytes()
}

func TestWhatIsNoBundle(t *testing.T) {
	listed := func(files string) string {
		return `{"format":"undaris-bundle","version":1,"files":[` + files + `]}`
	}
	const empty = `"sha256":"e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855"`
	for want, text := range map[string][]byte{
		"the bundle is no zip file that can be read: zip: not a valid zip file":                           []byte("nothing"),
		"the bundle has no manifest.json: it is not one of Undaris":                                       zipOf(t, "a.json", ""),
		"the bundle is not one of Undaris: its manifest names another format":                             zipOf(t, "manifest.json", `{"format":"other"}`),
		"the bundle was written by a later version of Undaris (bundle version 7; this one reads up to 1)": zipOf(t, "manifest.json", `{"format":"undaris-bundle","version":7}`),
		"manifest.json in the bundle cannot be read: unexpected end of JSON input":                        zipOf(t, "manifest.json", ``),
		"manifest.json in the bundle is there twice":                                                      zipOf(t, "manifest.json", ``, "manifest.json", ""),
		"a.json in the bundle is listed and not there: the bundle was cut off, or changed":                zipOf(t, "manifest.json", listed(`{"path":"a.json"}`)),
		"a.json in the bundle has 1 bytes and is listed with 0":                                           zipOf(t, "manifest.json", listed(`{"path":"a.json"}`), "a.json", "1"),
		"../a.json in the bundle is listed twice, or has no path that a bundle may have":                  zipOf(t, "manifest.json", listed(`{"path":"../a.json"}`), "../a.json", ""),
		"a.json in the bundle is listed twice, or has no path that a bundle may have":                     zipOf(t, "manifest.json", listed(`{"path":"a.json",`+empty+`},{"path":"a.json"}`), "a.json", ""),
		"a.json in the bundle is not what it was when the bundle was written":                             zipOf(t, "manifest.json", listed(`{"path":"a.json","bytes":1,`+empty+`}`), "a.json", "1"),
	} {
		b, err := opened(text)
		if err == nil {
			_, err = b.Read("a.json")
		}
		assert.EqualError(t, err, want)
	}
	large := written(t, map[string]string{"a.json": strings.Repeat("1", 3<<20)})
	_, err := Open(bytes.NewReader(large), int64(len(large)), 2<<20)
	assert.EqualError(t, err, "the bundle holds more than 2 MB, which is the most that is read")
	b, err := opened(zipOf(t, "manifest.json", listed(""), "extra.txt", "x"))
	require.NoError(t, err)
	assert.Equal(t, []string{"extra.txt"}, b.Unlisted, "what is not listed is said")
	assert.Error(t, NewWriter(io.Discard).Add("Über/alles.json", strings.NewReader("")))
}

// Whatever is changed of a bundle, what is read of it is what was written, or an error.
func TestAChangedBundleIsNeverMisread(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		files := map[string]string{
			"a.json": rapid.StringN(0, 60, 300).Draw(rt, "a"), "b/c.wav": rapid.StringN(0, 60, 300).Draw(rt, "c"),
		}
		text := written(t, files)
		for range rapid.IntRange(1, 4).Draw(rt, "changes") {
			switch at := rapid.IntRange(0, len(text)-1).Draw(rt, "at"); rapid.IntRange(0, 3).Draw(rt, "how") {
			case 0:
				text = text[:at+1]
			default:
				text[at] ^= byte(1 << rapid.IntRange(0, 7).Draw(rt, "bit"))
			}
		}
		b, err := opened(text)
		if err != nil {
			return
		}
		for _, path := range b.Paths("") {
			if read, err := b.Read(path); err == nil {
				assert.Equal(rt, files[path], string(read))
			}
		}
	})
}

func FuzzOpen(f *testing.F) {
	f.Add(written(f, map[string]string{"documents/chart/1.json": `{"a":1}`, "sounds/ab.wav": "RIFF"}))
	f.Add([]byte("PK\x05\x06"))
	f.Fuzz(func(t *testing.T, text []byte) {
		b, err := Open(bytes.NewReader(text), int64(len(text)), 1<<20)
		if err != nil {
			return
		}
		for _, path := range b.Paths("") {
			_, _ = b.Read(path)
		}
	})
}
