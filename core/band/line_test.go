package band

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Every approach into every tone of every change, in every meter and subdivision,
// straight and swung: the target is heard on the tick of the change, and a bend has
// reached it there. In short every fifth.
func TestEveryApproachIsHeardInTime(t *testing.T) {
	guitar := neck.Standard()
	key, err := harmony.ParseKey("C", harmony.DominantMode)
	require.NoError(t, err)
	box, err := key.Box("")
	require.NoError(t, err)
	position, err := neck.FindPosition(guitar, 0, "E")
	require.NoError(t, err)
	heard, kinds := 0, map[change.Arrival]int{}
	for _, m := range chart.Meters {
		for _, feel := range []chart.Feel{chart.Straight, chart.Shuffle} {
			c := chart.Chart{Title: "A test", Key: key, Meter: m, Tempo: 100, Feel: feel, Swing: 2, Bars: chart.Schemes[0].Bars(key.Tonic, m)}
			for _, s := range m.Subdivisions() {
				for _, ch := range c.Changes() {
					for _, target := range neck.PlaceTones(guitar, position.Window, ch.Arriving.Chord.Tones()).Tones {
						ways, _ := change.ApproachOptions(change.Goal{
							Instrument: guitar, Window: position.Window, Key: key, Box: box, Leaving: ch.Leaving.Chord, Arriving: ch.Arriving.Chord, Target: target.Place,
						}, ch.Leaving.Ticks/s.Ticks(m))
						for n, w := range ways {
							if testing.Short() && (n+ch.Tick/480)%17 != 0 {
								continue
							}
							line, start := change.ApproachPhrase(c, ch, w, s)
							require.NoError(t, line.Check(guitar))
							last := len(line.Events) - 1
							require.Equal(t, ch.Tick, start+line.Events[last].Tick, w.Name)
							for n := range last {
								require.Equal(t, s.Ticks(m), line.Events[n+1].Tick-line.Events[n].Tick)
							}
							p := Perform(Order{Chart: c, Instrument: guitar, From: start / m.BarTicks(), Bars: 3, Line: line, LineStart: start, Silent: []Part{Click, Drums, Bass, Chords}})
							require.Equal(t, target.Pitch, pitchAt(p.Notes, ch.Tick-start), "%s into %d:%d in %s", w.Name, target.String, target.Fret, m)
							require.True(t, begins(p.Notes, last, ch.Tick-start), "%s lands on the tick", w.Name)
							heard++
							kinds[w.Arrival]++
						}
					}
				}
			}
		}
	}
	assert.Greater(t, heard, 1000)
	assert.Len(t, kinds, 5, "every way to arrive was heard: %v", kinds)
}

// pitchAt is what a line sounds at a tick, its curve followed.
func pitchAt(notes []Note, tick int) pitch.MIDI {
	for _, n := range notes {
		if tick < n.Tick || tick >= n.Tick+n.Ticks {
			continue
		}
		cents := 0
		for _, p := range n.Curve {
			// A slide begins below; it is aimed at the note it is written as.
			if n.Tick+p.Ticks <= tick && p.Ticks > 0 {
				cents = p.Cents
			}
		}
		return n.Pitch + pitch.MIDI(cents/100)
	}
	return 0
}

// begins says whether an event begins at a tick, struck or as what a note goes on as.
func begins(notes []Note, event, tick int) bool {
	for _, n := range notes {
		if n.Event == event && n.Tick == tick {
			return true
		}
		for _, on := range n.Continues {
			if on.Event == event && n.Tick+on.Ticks == tick {
				return true
			}
		}
	}
	return false
}

func TestATiedNoteRingsOn(t *testing.T) {
	c := blues(t, "C", chart.Straight)
	at := neck.Fingered{Place: neck.Place{String: 2, Fret: 8}, Finger: 3}
	line := phrase.Phrase{Meter: c.Meter, Events: []phrase.Event{
		{Tick: 0, Ticks: 480, Fingered: at},
		{Tick: 480, Ticks: 960, Fingered: at, Technique: phrase.Technique{Bend: 4, Tied: true}},
		{Tick: 1440, Ticks: 480, Fingered: at},
	}}
	notes := of(Perform(Order{Chart: c, Instrument: neck.Standard(), Bars: 1, Line: line}), Line)
	require.Len(t, notes, 2)
	assert.Equal(t, 1440, notes[0].Ticks)
	assert.Equal(t, []Continuation{{Ticks: 480, Event: 1}}, notes[0].Continues)
	assert.Equal(t, []Point{{0, 0}, {327, 0}, {480, 200}}, notes[0].Curve, "up when the tied note begins")
	assert.Empty(t, notes[1].Continues)
}

// The pickup of a line is heard while it is counted in, and only from bar 1 on.
func TestAPickupIsHeardInTheCountIn(t *testing.T) {
	c := blues(t, "C", chart.Straight)
	line := phrase.Phrase{Meter: c.Meter, Events: []phrase.Event{
		{Tick: -480, Ticks: 480, Fingered: neck.Fingered{Place: neck.Place{String: 3, Fret: 8}}},
		{Tick: 0, Ticks: 480, Fingered: neck.Fingered{Place: neck.Place{String: 3, Fret: 9}}},
	}}
	starts := func(from, countIn int) []int {
		ticks := []int{}
		for _, n := range Perform(Order{Chart: c, Instrument: neck.Standard(), From: from, Bars: 2, CountIn: countIn, Line: line}).Notes {
			if n.Part == Line {
				ticks = append(ticks, n.Tick)
			}
		}
		return ticks
	}
	assert.Equal(t, []int{1440, 1920}, starts(0, 1))
	assert.Equal(t, []int{0}, starts(0, 0), "there is no time for it")
	assert.Empty(t, starts(1, 1))
}
