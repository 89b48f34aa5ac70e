package api

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/format/document"
)

func TestThePlayerIsKeptWithAVersion(t *testing.T) {
	c := application(t, nil)
	kept := call[KeptPlayer](c, "GET", "/api/player", nil, 200)
	assert.Zero(t, kept.Version)
	mine := Player{Hands: document.Hands{Instrument: &document.Instrument{Name: "slide", Tuning: "D G D G B D", Frets: 19, ScaleMM: 630}, SpanMM: 90}, LeftHanded: true}
	saved := call[KeptPlayer](c, "PUT", "/api/player", SavePlayer{Player: mine}, 200)
	assert.Equal(t, 1, saved.Version)
	stale := call[Problem](c, "PUT", "/api/player", SavePlayer{Player: Player{LowOnTop: true}}, 412)
	assert.Contains(t, stale.Detail, "nothing was overwritten")
	again := call[KeptPlayer](c, "GET", "/api/player", nil, 200)
	assert.Equal(t, mine, again.Player)
}

func TestHandsThatNoPlayerHas(t *testing.T) {
	c := application(t, nil)
	for location, hands := range map[string]document.Hands{
		"body.player.instrument.tuning": {Instrument: &document.Instrument{Name: "own", Tuning: "E A D", Frets: 22, ScaleMM: 648}},
		"body.player.instrument.frets":  {Instrument: &document.Instrument{Name: "own", Tuning: "E A D G", Frets: 44, ScaleMM: 648}},
		"body.player.spanMm":            {SpanMM: 10},
		"body.player.swaps[0].degree":   {Swaps: []document.Swap{{Degree: "17", From: 1, To: 2}}},
	} {
		got := call[Problem](c, "PUT", "/api/player", SavePlayer{Player: Player{Hands: hands}}, 422)
		require.NotEmpty(t, got.Errors)
		assert.Equal(t, location, got.Errors[0].Field)
		if strings.Contains(location, "instrument") {
			require.NotNil(t, got.Errors[0].NearestInstrument)
			assert.NotEmpty(t, got.Errors[0].NearestInstrument.Tuning, "the nearest that works")
		}
	}
	assert.Zero(t, call[KeptPlayer](c, "GET", "/api/player", nil, 200).Version, "nothing was half kept")
}

// In open G, above a capo, all that is computed is of that neck.
func TestAnotherInstrument(t *testing.T) {
	c := application(t, nil)
	chart := ferry(c).Chart
	chart.Capo = 2
	hands := &document.Hands{Instrument: &document.Instrument{Name: "open G", Tuning: "D G D G B D", Frets: 22, ScaleMM: 648}, SpanMM: 60}
	m := call[Map](c, "POST", "/api/compute/chart/map", MapRequest{PlayContext: PlayContext{Chart: chart, Hands: hands}}, 200)
	assert.Equal(t, []string{"E", "C#", "A", "E", "A", "E"}, m.Instrument.Strings)
	assert.Equal(t, 20, m.Instrument.Frets)
	assert.False(t, m.Instrument.HasNamedForms)
	assert.Equal(t, "frets", m.Positions[0].Label)
	view := call[ChordView](c, "POST", "/api/compute/chord", ChordRequest{PlayContext: PlayContext{Chart: chart, Hands: hands}, Chord: "C7", Position: m.DefaultPosition}, 200)
	assert.Contains(t, view.Shape.Caution, "past your 60")
	require.NotNil(t, view.Easier)
	assert.LessOrEqual(t, view.Easier.StretchMM, 60.0)
	chosen := call[[]KeptLick](c, "GET", "/api/licks", nil, 200)[0].Lick
	line := call[Line](c, "POST", "/api/compute/line", LineRequest{PlayContext: PlayContext{Chart: chart, Hands: hands}, Lick: chosen, LineChoice: LineChoice{Change: 1920}}, 200)
	assert.NotEmpty(t, line.Events, "a lick of standard tuning is fingered anew")
	got := call[Problem](c, "POST", "/api/compute/chord", ChordRequest{PlayContext: PlayContext{Chart: chart, Hands: hands}, Chord: "C7", Position: "fret-30"}, 422)
	assert.Equal(t, "fret-30", got.Errors[0].Value)
	assert.Equal(t, []string{"fret-15"}, got.Errors[0].Nearest)
	assert.Contains(t, got.Errors[0].Allowed, "fret-15")
}
