// Package demo holds the demo set as data files: the tunes that the house band
// of the Brass Heron, a made-up riverside pub, has to work up, with its exercises, and the licks
// that every new library begins with. The files are read the way a user's are.
package demo

import (
	"embed"
	"encoding/json"
	"fmt"
	"io/fs"

	"undaris/format/document"
)

//go:embed charts licks solos bands exercises takes
var files embed.FS

// Charts reads the demo tunes in their order.
func Charts() ([]document.Chart, error) { return read[document.Chart]("charts") }

// Licks reads the licks in their order.
func Licks() ([]document.Lick, error) { return read[document.Lick]("licks") }

// Exercises reads the exercises of the house band.
func Exercises() ([]document.Exercise, error) { return read[document.Exercise]("exercises") }

// Solo is a finished solo and the tune it is over.
type Solo struct {
	Over string        `json:"over"`
	Solo document.Solo `json:"solo"`
}

// Solos reads the finished solos.
func Solos() ([]Solo, error) { return read[Solo]("solos") }

// Band is how the band plays a tune, and the routines over it.
type Band struct {
	Over string        `json:"over"`
	Band document.Band `json:"band"`
}

// Bands reads the bands of the demo tunes.
func Bands() ([]Band, error) { return read[Band]("bands") }

func read[T any](folder string) ([]T, error) {
	names, err := fs.Glob(files, folder+"/*.json")
	if err != nil {
		return nil, err
	}
	all := make([]T, len(names))
	for n, name := range names {
		text, err := files.ReadFile(name)
		if err != nil {
			return nil, err
		}
		if err := json.Unmarshal(text, &all[n]); err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
	}
	return all, nil
}
