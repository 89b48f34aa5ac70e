package api

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/format/document"
)

// Every block of a planned chorus can be opened to be written: a hammer-on from a note of the
// block before it is taken away, and said, instead of refusing the whole block.
func TestEveryBlockCanBeWritten(t *testing.T) {
	c := application(t, nil)
	licks := []document.Lick{}
	for _, kept := range call[[]KeptLick](c, "GET", "/api/licks", nil, 200) {
		licks = append(licks, kept.Lick)
	}
	opened, remarks, seeds := 0, 0, uint64(4)
	if testing.Short() {
		seeds = 2
	}
	for n, entry := range call[[]ChartEntry](c, "GET", "/api/charts", nil, 200) {
		tune := call[KeptChart](c, "GET", "/api/charts/"+itoa(entry.ID), nil, 200).Chart
		for seed := range seeds {
			request := SoloRequest{PlayContext: PlayContext{Chart: tune}, Plan: document.ChorusPlan{FromLicks: true, Seed: seed + uint64(n)}, Licks: licks}
			for _, block := range call[PlannedSolo](c, "POST", "/api/compute/solo", request, 200).Best[0].Blocks {
				if len(block.Notes) == 0 {
					continue
				}
				chosen := document.Lick{Name: "notes", Tonic: tune.Key.Tonic, Phrase: document.Phrase{Meter: tune.Meter, Events: block.Notes, Chords: []document.PhraseChord{{Tick: 0, Chord: "C7"}}}}
				for n := range chosen.Events {
					chosen.Events[n].Tick -= block.Start
				}
				opened++
				written := call[WrittenLick](c, "POST", "/api/compute/lick", LickRequest{Lick: chosen, Excerpt: true}, 200)
				assert.Len(t, written.Lick.Events, len(block.Notes))
				remarks += len(written.Remarks)
			}
		}
	}
	assert.Greater(t, opened, 50)
	assert.Positive(t, remarks, "some blocks begin with a slur from the block before")
}
