package bundle

import (
	"archive/zip"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"hash"
	"io"
	"regexp"
	"slices"
	"strings"
	"time"
)

// Format is what a manifest says that it is of; Version is the version of bundles that is written. Every earlier
// version is read.
const (
	Format  = "undaris-bundle"
	Version = 1
)

// manifestPath is where the manifest lies in a bundle; the others are the bounds of what is read (our choice: far above
// what a library of fifty thousand documents needs).
const (
	manifestPath = "manifest.json"
	maxManifest  = 64 << 20
	maxFiles     = 500_000
	// MaxFile is how many bytes a file that is read whole may have.
	MaxFile = 64 << 20
)

// Manifest is what a bundle says of itself.
type Manifest struct {
	Format  string    `json:"format"`
	Version int       `json:"version"`
	Made    time.Time `json:"made"`
	// By names the program that wrote it.
	By string `json:"by"`
	// About is what it holds, in words: everything, or one tune.
	About string `json:"about"`
	Files []File `json:"files"`
}

// File is one file of a bundle.
type File struct {
	Path  string `json:"path"`
	Bytes int64  `json:"bytes"`
	// Hash is its SHA-256, in hexadecimal digits.
	Hash string `json:"sha256"`
}

// Error says what of a bundle cannot be read.
type Error struct {
	// Path is the file in it, empty for the bundle as a whole.
	Path   string
	Detail string
}

func (e *Error) Error() string {
	if e.Path == "" {
		return "the bundle " + e.Detail
	}
	return fmt.Sprintf("%s in the bundle %s", e.Path, e.Detail)
}

// Writer writes a bundle.
type Writer struct {
	zip   *zip.Writer
	files []File
}

// NewWriter begins a bundle.
func NewWriter(to io.Writer) *Writer { return &Writer{zip: zip.NewWriter(to)} }

// Add writes a file from what is read. Sounds are stored as they are: they hardly get smaller.
func (w *Writer) Add(path string, from io.Reader) error {
	if !isPath(path) {
		return &Error{Path: path, Detail: "is no path that a bundle may have"}
	}
	method := zip.Deflate
	if strings.HasSuffix(path, ".wav") {
		method = zip.Store
	}
	file, err := w.zip.CreateHeader(&zip.FileHeader{Name: path, Method: method})
	if err != nil {
		return err
	}
	sum := sha256.New()
	bytes, err := io.Copy(io.MultiWriter(file, sum), from)
	w.files = append(w.files, File{Path: path, Bytes: bytes, Hash: hex.EncodeToString(sum.Sum(nil))})
	return err
}

// Close writes the manifest and ends the bundle.
func (w *Writer) Close(made time.Time, by, about string) error {
	file, err := w.zip.CreateHeader(&zip.FileHeader{Name: manifestPath, Method: zip.Deflate})
	if err != nil {
		return err
	}
	encoder := json.NewEncoder(file)
	encoder.SetIndent("", " ")
	manifest := Manifest{Format: Format, Version: Version, Made: made.UTC().Truncate(time.Second), By: by, About: about, Files: append([]File{}, w.files...)}
	if err := encoder.Encode(manifest); err != nil {
		return err
	}
	return w.zip.Close()
}

// Bundle is a bundle that is read.
type Bundle struct {
	Manifest Manifest
	// Unlisted are files of the zip that its manifest does not name; they are not read.
	Unlisted []string
	entries  map[string]*zip.File
	listed   map[string]File
}

// Open reads the manifest of a bundle of so many bytes, whose files may be of so many bytes together. Its error is an
// *Error where it is none that can be read.
func Open(from io.ReaderAt, size, most int64) (*Bundle, error) {
	archive, err := zip.NewReader(from, size)
	if err != nil {
		return nil, &Error{Detail: "is no zip file that can be read: " + err.Error()}
	}
	if len(archive.File) > maxFiles {
		return nil, &Error{Detail: fmt.Sprintf("has %d files; at most %d are read", len(archive.File), maxFiles)}
	}
	b := &Bundle{entries: map[string]*zip.File{}, listed: map[string]File{}}
	for _, entry := range archive.File {
		if _, twice := b.entries[entry.Name]; twice {
			return nil, &Error{Path: entry.Name, Detail: "is there twice"}
		}
		b.entries[entry.Name] = entry
	}
	if err := b.readManifest(); err != nil {
		return nil, err
	}
	total := int64(0)
	for _, file := range b.Manifest.Files {
		entry := b.entries[file.Path]
		_, twice := b.listed[file.Path]
		switch {
		case !isPath(file.Path) || twice || file.Bytes < 0:
			return nil, &Error{Path: file.Path, Detail: "is listed twice, or has no path that a bundle may have"}
		case entry == nil:
			return nil, &Error{Path: file.Path, Detail: "is listed and not there: the bundle was cut off, or changed"}
		case int64(entry.UncompressedSize64) != file.Bytes: //nolint:gosec // a size that is too large differs
			return nil, &Error{Path: file.Path, Detail: fmt.Sprintf("has %d bytes and is listed with %d", entry.UncompressedSize64, file.Bytes)}
		}
		if total += file.Bytes; total > most {
			return nil, &Error{Detail: fmt.Sprintf("holds more than %d MB, which is the most that is read", most>>20)}
		}
		b.listed[file.Path] = file
	}
	for name := range b.entries {
		if _, known := b.listed[name]; !known && name != manifestPath && !strings.HasSuffix(name, "/") {
			b.Unlisted = append(b.Unlisted, name)
		}
	}
	slices.Sort(b.Unlisted)
	return b, nil
}

func (b *Bundle) readManifest() error {
	entry := b.entries[manifestPath]
	if entry == nil {
		return &Error{Detail: "has no manifest.json: it is not one of Undaris"}
	}
	opened, err := entry.Open()
	if err != nil {
		return &Error{Path: manifestPath, Detail: err.Error()}
	}
	defer func() { _ = opened.Close() }()
	text, err := io.ReadAll(io.LimitReader(opened, maxManifest+1))
	switch {
	case err != nil:
		return &Error{Path: manifestPath, Detail: "cannot be read: " + err.Error()}
	case len(text) > maxManifest:
		return &Error{Path: manifestPath, Detail: "is too large"}
	}
	if err := json.Unmarshal(text, &b.Manifest); err != nil {
		return &Error{Path: manifestPath, Detail: "cannot be read: " + err.Error()}
	}
	switch {
	case b.Manifest.Format != Format:
		return &Error{Detail: "is not one of Undaris: its manifest names another format"}
	case b.Manifest.Version < 1 || b.Manifest.Version > Version:
		return &Error{Detail: fmt.Sprintf("was written by a later version of Undaris (bundle version %d; this one reads up to %d)", b.Manifest.Version, Version)}
	}
	return nil
}

// Paths lists the files whose path begins so, as the manifest lists them.
func (b *Bundle) Paths(prefix string) []string {
	paths := []string{}
	for _, file := range b.Manifest.Files {
		if strings.HasPrefix(file.Path, prefix) {
			paths = append(paths, file.Path)
		}
	}
	return paths
}

// Bytes is how many bytes the files whose path begins so have together.
func (b *Bundle) Bytes(prefix string) int64 {
	total := int64(0)
	for _, file := range b.Manifest.Files {
		if strings.HasPrefix(file.Path, prefix) {
			total += file.Bytes
		}
	}
	return total
}

// Read reads a whole file. Its error is an *Error where it is not what the manifest says.
func (b *Bundle) Read(path string) ([]byte, error) {
	if b.listed[path].Bytes > MaxFile {
		return nil, &Error{Path: path, Detail: fmt.Sprintf("has more than %d MB", MaxFile>>20)}
	}
	opened, err := b.Open(path)
	if err != nil {
		return nil, err
	}
	defer func() { _ = opened.Close() }()
	return io.ReadAll(opened)
}

// Open opens a file to be read in pieces. Where it is not what the manifest says, the last read fails with an *Error.
func (b *Bundle) Open(path string) (io.ReadCloser, error) {
	file, listed := b.listed[path]
	if !listed {
		return nil, &Error{Path: path, Detail: "is not there"}
	}
	opened, err := b.entries[path].Open()
	if err != nil {
		return nil, &Error{Path: path, Detail: "cannot be read: " + err.Error()}
	}
	return &checked{ReadCloser: opened, file: file, sum: sha256.New()}, nil
}

// checked reads a file and compares its hash when it has been read.
type checked struct {
	io.ReadCloser
	file File
	sum  hash.Hash
	read int64
}

func (c *checked) Read(into []byte) (int, error) {
	n, err := c.ReadCloser.Read(into)
	c.sum.Write(into[:n])
	c.read += int64(n)
	switch {
	case c.read > c.file.Bytes:
		return 0, &Error{Path: c.file.Path, Detail: "has more bytes than it is listed with"}
	case errors.Is(err, io.EOF) && hex.EncodeToString(c.sum.Sum(nil)) != c.file.Hash:
		return 0, &Error{Path: c.file.Path, Detail: "is not what it was when the bundle was written"}
	case err != nil && !errors.Is(err, io.EOF):
		return n, &Error{Path: c.file.Path, Detail: "cannot be read: " + err.Error()}
	}
	return n, err
}

var pathPattern = regexp.MustCompile(`^[a-z0-9][a-z0-9-]*(/[a-z0-9][a-z0-9-]*)*\.[a-z0-9]{1,8}$`)

func isPath(path string) bool { return len(path) <= 200 && pathPattern.MatchString(path) }
