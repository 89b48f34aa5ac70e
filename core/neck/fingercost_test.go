package neck

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/pitch"
)

// What a finger costs on a place, counted by hand from the table in docs/rules.md, on both sides of every bound. The window
// is that of the first position of C: its core is frets 7 to 10, and 6 and 11 are reached for.
func TestWhatAPlaceCosts(t *testing.T) {
	w := Window{Low: 6, High: 11, Core: 7, CoreEnd: 10}
	open := Window{Low: 0, High: 4, Core: 0, CoreEnd: 3}
	for name, c := range map[string]struct {
		window Window
		note   NoteToPlace
		fret   int
		finger int
		want   int
	}{
		"first finger on the first fret":           {w, NoteToPlace{}, 7, 1, 0},
		"little finger on the last fret":           {w, NoteToPlace{}, 10, 4, 0},
		"one finger away":                          {w, NoteToPlace{}, 10, 3, 2},
		"three fingers away":                       {w, NoteToPlace{}, 7, 4, 6},
		"the last fret of the core is no reach":    {w, NoteToPlace{}, 10, 4, 0},
		"reached up, a fret past the core":         {w, NoteToPlace{}, 11, 4, 2},
		"reached back, a fret before the core":     {w, NoteToPlace{}, 6, 1, 5},
		"an open string":                           {open, NoteToPlace{}, 0, 0, 0},
		"at the nut the first finger takes fret 1": {open, NoteToPlace{}, 1, 1, 0},
		"and the third fret 3":                     {open, NoteToPlace{}, 3, 3, 0},
		"a quarter tone is bent with any finger":   {w, NoteToPlace{Bend: 1}, 7, 1, 0},
		"a half step with the first":               {w, NoteToPlace{Bend: 2}, 7, 1, 12},
		"a half step with the second":              {w, NoteToPlace{Bend: 2}, 8, 2, 4},
		"a half step with the third":               {w, NoteToPlace{Bend: 2}, 9, 3, 0},
		"a half step with the little finger":       {w, NoteToPlace{Bend: 2}, 10, 4, 4},
		"held with the little finger":              {w, NoteToPlace{Held: true}, 10, 4, 3},
		"held with the third":                      {w, NoteToPlace{Held: true}, 9, 3, 0},
	} {
		assert.Equal(t, c.want, placeCost(c.window, c.note, Fingered{Place{3, c.fret}, c.finger}), name)
	}
}

// What it costs to go from one fingered place to the next, counted by hand from the same table.
func TestWhatAMoveCosts(t *testing.T) {
	at := func(s, fret, finger int) Fingered { return Fingered{Place{s, fret}, finger} }
	for name, c := range map[string]struct {
		slurred bool
		rises   int // half steps from the first note to the second
		a, b    Fingered
		want    int
	}{
		"one finger a fret, up a string":                {false, 3, at(3, 9, 3), at(2, 8, 2), 0},
		"to a lower string while it rises":              {false, 1, at(3, 9, 3), at(4, 8, 2), 40},
		"to a higher string while it falls":             {false, -1, at(3, 9, 3), at(2, 8, 2), 40},
		"the next string is no skip":                    {false, 8, at(4, 7, 1), at(3, 9, 3), 0},
		"one string skipped":                            {false, 12, at(4, 7, 1), at(2, 8, 2), 3},
		"two strings skipped":                           {false, 17, at(4, 7, 1), at(1, 8, 2), 6},
		"rolled over the next string":                   {false, 5, at(3, 8, 2), at(2, 8, 2), 1},
		"the same fret and finger across a string":      {false, 9, at(3, 8, 2), at(1, 8, 2), 3},
		"one finger along its string":                   {false, 2, at(3, 7, 2), at(3, 9, 2), 6},
		"one finger on the next string, another fret":   {false, 6, at(3, 7, 2), at(2, 9, 2), 5},
		"one finger across a string, another fret":      {false, 11, at(3, 7, 2), at(1, 9, 2), 3 + 2},
		"fingers crossed: lower finger, higher fret":    {false, -2, at(3, 9, 2), at(3, 7, 3), 8},
		"fingers crossed: higher finger, lower fret":    {false, 2, at(3, 7, 3), at(3, 9, 2), 8},
		"another finger on the same place":              {false, 0, at(3, 7, 1), at(3, 7, 2), 8},
		"the same place and finger":                     {false, 0, at(3, 7, 1), at(3, 7, 1), 0},
		"a repeated pitch at another place":             {false, 0, at(3, 9, 3), at(2, 5, 1), 5},
		"a slur that stays on its string":               {true, 2, at(3, 7, 1), at(3, 9, 3), 0},
		"a slur that leaves it":                         {true, 5, at(3, 7, 1), at(2, 8, 2), 100},
		"from an open string no finger is in the way":   {false, 7, at(3, 0, 0), at(3, 7, 1), 0},
		"to an open string two strings on is two skips": {false, 5, at(4, 7, 1), at(1, 0, 0), 6},
	} {
		note := NoteToPlace{Pitch: 60, Slurred: c.slurred}
		assert.Equal(t, c.want, moveCost(pitch.MIDI(60-c.rises), note, c.a, c.b), name)
	}
}
