package demo

import (
	"encoding/json"
	"flag"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/listen"
	"undaris/core/take/judge"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/library/recording"
	"undaris/store"
)

var updateTakes = flag.Bool("update-takes", false, "write what is heard of the demo takes anew")

// What stands in the files is what the ear hears of the sound today, note for note.
func TestTheDemoTakesAreWhatIsHeard(t *testing.T) {
	sounds, _, _, err := takeSounds()
	require.NoError(t, err)
	for n, sound := range sounds {
		heard, err := listen.NotesOf(sound, takeRate)
		require.NoError(t, err)
		notes := document.TakeNotesOf(heard)
		file := filepath.Join("takes", fmt.Sprintf("%d.json", n+1))
		if *updateTakes {
			text, err := json.Marshal(notes)
			require.NoError(t, err)
			require.NoError(t, os.WriteFile(file, append(text, '\n'), 0o600))
			continue
		}
		kept, err := TakeNotes()
		require.NoError(t, err)
		require.Len(t, kept[n], len(notes), "write them anew with -update-takes")
		for k := range notes {
			assert.InDelta(t, notes[k].Onset, kept[n][k].Onset, 0.006)
			assert.InDelta(t, notes[k].Pitch, kept[n][k].Pitch, 0.02)
		}
	}
}

// The second take is better than the first, and both are judged to be what they are.
func TestTheDemoTakesAreJudged(t *testing.T) {
	folder := t.TempDir()
	data, err := store.Open(filepath.Join(folder, "demo.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = data.Close() })
	l := documents.New(data, slog.New(slog.DiscardHandler))
	sounds := store.SoundsBeside(filepath.Join(folder, "demo.db"))
	require.NoError(t, Fill(t.Context(), l, true))
	now := time.Date(2026, 11, 28, 12, 0, 0, 0, time.UTC)
	require.NoError(t, FillTakes(t.Context(), l, sounds, now))
	entries, err := documents.Takes.List(t.Context(), l, 0)
	require.NoError(t, err)
	require.Len(t, entries, 2)
	verdicts := map[string]judge.Verdict{}
	for _, e := range entries {
		item, err := documents.Takes.Read(t.Context(), l, e.ID)
		require.NoError(t, err)
		order, err := item.Body.Order()
		require.NoError(t, err)
		verdicts[e.Name] = judge.Judge(order)
		file, err := sounds.Open(item.Body.Sound.Hash)
		require.NoError(t, err)
		require.NoError(t, file.Close())
	}
	first, second := verdicts[takePlans[0].name], verdicts[takePlans[1].name]
	assert.Greater(t, first.Timing.Spread, 2*second.Timing.Spread)
	assert.InDelta(t, 0.018, second.Timing.Lean, 0.006)
	assert.Less(t, first.Timing.Drift, -0.003)
	freed, err := recording.ClearSounds(t.Context(), l, sounds, now.AddDate(1, 0, 0))
	require.NoError(t, err)
	assert.Zero(t, freed, "both are referred to")
	require.NoError(t, documents.Takes.Delete(t.Context(), l, entries[0].ID, 1))
	freed, err = recording.ClearSounds(t.Context(), l, sounds, time.Now().AddDate(0, 0, 20))
	require.NoError(t, err)
	assert.Zero(t, freed, "a deleted take can be brought back")
	freed, err = recording.ClearSounds(t.Context(), l, sounds, time.Now().AddDate(0, 0, 40))
	require.NoError(t, err)
	assert.Positive(t, freed)
}
