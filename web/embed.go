// Package web embeds the built front end.
package web

import (
	"embed"
	"io/fs"
)

//go:embed src/sound/samples
var sources embed.FS

// Samples are the recorded notes that the page plays, with the list of them in samples.json.
func Samples() fs.FS {
	files, err := fs.Sub(sources, "src/sound/samples")
	if err != nil {
		panic("the recorded notes are embedded: " + err.Error())
	}
	return files
}

//go:embed all:dist
var dist embed.FS

// Files is the built front end, its index.html at the root.
func Files() fs.FS {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		panic("the front end is embedded under dist: " + err.Error())
	}
	return files
}
