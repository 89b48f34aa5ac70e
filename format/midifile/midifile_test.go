package midifile

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"
	"pgregory.net/rapid"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/format/formattest"
	"undaris/format/reading"
)

func blues(t testing.TB, scheme, tonic string, feel chart.Feel) chart.Chart {
	t.Helper()
	s, err := chart.FindScheme(scheme)
	require.NoError(t, err)
	key, err := harmony.ParseKey(tonic, s.In)
	require.NoError(t, err)
	c := chart.Chart{Title: "A blues", Key: key, Meter: chart.FourFour, Tempo: 96, Feel: chart.Straight, Swing: 2, Bars: s.Bars(key.Tonic, chart.FourFour)}
	c, err = c.WithFeel(feel)
	require.NoError(t, err)
	return c
}

func TestWhatIsWritten(t *testing.T) {
	c := blues(t, "quick change", "Bb", chart.Shuffle)
	c.Bars[0].Section = "A"
	file, err := smf.ReadFrom(bytes.NewReader(Write(c)))
	require.NoError(t, err)
	assert.Equal(t, smf.MetricTicks(480), file.TimeFormat)
	require.Len(t, file.Tracks, 5)
	names, cues := []string{}, []string{}
	for _, track := range file.Tracks {
		tick := 0
		for _, event := range track {
			tick += int(event.Delta)
			var text string
			var tempo float64
			var count, unit, clocks, per uint8
			var flat bool
			switch m := event.Message; {
			case m.GetMetaTrackName(&text):
				names = append(names, text)
			case m.GetMetaMarker(&text), m.GetMetaCuepoint(&text):
				cues = append(cues, fmt.Sprintf("%d %s", tick, text))
			case m.GetMetaTempo(&tempo):
				assert.InDelta(t, 96, tempo, 0.01)
			case m.GetMetaTimeSig(&count, &unit, &clocks, &per):
				assert.Equal(t, []uint8{4, 4}, []uint8{count, unit})
			case m.GetMetaKeySig(nil, &count, nil, &flat):
				assert.Equal(t, uint8(2), count)
				assert.True(t, flat)
			}
		}
		assert.Equal(t, 12*1920, tick, "every track ends with the chorus")
	}
	assert.Equal(t, []string{"A blues", "Chords", "Bass", "Drums", "Click"}, names)
	assert.Equal(t, []string{"0 A", "0 Bb7", "1920 Eb7", "3840 Bb7"}, cues[:4])
}

// Every note that starts also ends, whatever the chart.
func TestNotesEnd(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := formattest.Chart(t)
		data := Write(c)
		_, err := walk(data)
		require.NoError(t, err)
		file, err := smf.ReadFrom(bytes.NewReader(data))
		require.NoError(t, err)
		for _, track := range file.Tracks {
			on := map[uint8]int{}
			for _, event := range track {
				var channel, key, loudness uint8
				switch m := midi.Message(event.Message); {
				case m.GetNoteOn(&channel, &key, &loudness) && loudness > 0:
					on[key]++
					require.LessOrEqual(t, on[key], 2)
				case m.GetNoteEnd(&channel, &key):
					on[key]--
				}
			}
			for key, count := range on {
				require.Zero(t, count, "key %d", key)
			}
		}
	})
}

func text(bars []chart.Bar) string {
	all := []string{}
	for _, bar := range bars {
		all = append(all, chart.Text(bar.Spans))
	}
	return strings.Join(all, " | ")
}

// What the band plays of every scheme, in every key and feel, is heard as the
// chords that are written.
func TestTheBandsOwnChordsAreHeard(t *testing.T) {
	wrong, all, asked := 0, 0, 0
	for _, s := range chart.Schemes {
		for _, tonic := range []string{"C", "F#", "Bb", "Eb"} {
			for _, feel := range chart.Feels {
				asked++
				if testing.Short() && asked%4 != 0 {
					continue
				}
				c := blues(t, s.Name, tonic, feel)
				c.Bars[4%len(c.Bars)].Section = "B"
				r, err := Read(Write(c))
				require.NoError(t, err, "%s in %s", s, tonic)
				assert.Equal(t, c.Tempo, r.Chart.Tempo)
				assert.Equal(t, c.Meter, r.Chart.Meter)
				assert.Equal(t, "A blues", r.Chart.Title)
				require.Len(t, r.Chart.Bars, len(c.Bars), "%s in %s, %s", s, tonic, feel)
				assert.Equal(t, "B", r.Chart.Bars[4%len(c.Bars)].Section)
				for b := range c.Bars {
					all++
					if chart.Text(c.Bars[b].Spans) != chart.Text(r.Chart.Bars[b].Spans) && !same(c.Bars[b], r.Chart.Bars[b]) {
						wrong++
						if wrong < 12 {
							t.Logf("%s in %s, %s, bar %d: %s heard as %s", s, tonic, feel, b+1, chart.Text(c.Bars[b].Spans), chart.Text(r.Chart.Bars[b].Spans))
						}
					}
				}
			}
		}
	}
	t.Logf("%d of %d bars heard otherwise", wrong, all)
	assert.Zero(t, wrong)
}

// same says that both bars have the same chords, however their roots are spelled.
func same(a, b chart.Bar) bool {
	if len(a.Spans) != len(b.Spans) {
		return false
	}
	for n := range a.Spans {
		x, y := a.Spans[n], b.Spans[n]
		if x.Beats != y.Beats || x.Chord.Root.Class() != y.Chord.Root.Class() || x.Chord.Quality != y.Chord.Quality {
			return false
		}
	}
	return true
}

// file is a MIDI file of plain chords, each a list of keys and beats.
func file(t *testing.T, chords ...[]int) []byte {
	t.Helper()
	f := smf.NewSMF1()
	f.TimeFormat = smf.MetricTicks(96)
	track := smf.Track{}
	for _, chord := range chords {
		for _, key := range chord[1:] {
			track.Add(0, midi.NoteOn(0, uint8(key), 90))
		}
		wait := uint32(chord[0] * 96)
		for _, key := range chord[1:] {
			track.Add(wait, midi.NoteOff(0, uint8(key)))
			wait = 0
		}
		if len(chord) == 1 {
			track.Add(wait, smf.MetaText("rest"))
		}
	}
	track.Close(0)
	require.NoError(t, f.Add(track))
	out := &bytes.Buffer{}
	_, err := f.WriteTo(out)
	require.NoError(t, err)
	return out.Bytes()
}

func TestChordsFromElsewhere(t *testing.T) {
	r, err := Read(file(t, []int{4}, []int{4, 57, 60, 64}, []int{2, 50, 57, 60, 65}, []int{2, 52, 56, 62, 71}, []int{4, 57, 61, 67, 70}, []int{4, 60, 61, 62, 67}, []int{4}, []int{4, 57, 60, 64, 67}))
	require.NoError(t, err)
	assert.Equal(t, "Am | Dm7 E7 | A7b9 | Csus2 | N.C. | Am7", text(r.Chart.Bars))
	said := []string{}
	for _, remark := range r.Remarks {
		said = append(said, fmt.Sprintf("%d %s %s", remark.Line, remark.Source, remark.Text))
	}
	assert.Equal(t, []string{
		"0  no meter is given; it is read as 4/4", "0  no tempo is given; it is set to 100", "0  the first 1 bars have no notes and were left out",
		"0  no key is given; A minor is taken from the first chord", "4 Csus2 a guess, with notes that are not its own; it may be Gsus4 or D7sus4",
		"0  no title is given; it is called Untitled",
	}, said)
}

func TestWhatCannotBeReadIsSaid(t *testing.T) {
	good := Write(blues(t, "quick change", "C", chart.Shuffle))
	spoilt := func(at int, b ...byte) []byte {
		data := append([]byte(nil), good...)
		copy(data[at:], b)
		return data
	}
	lying := spoilt(14+8, 0x00, 0xFF, 0x03, 0xFF, 0xFF, 0xFF, 0x7F) // a name of 268 million characters
	for _, c := range []struct {
		name string
		data []byte
		want string
	}{
		{"empty", nil, "it does not begin as a MIDI file does"}, {"text", []byte("| C7 | F7 | C7 | C7 |"), "it does not begin as a MIDI file does"},
		{"cut", good[:len(good)-9], "it ends in the middle of a track"}, {"a length that lies", lying, "an event is longer than its track"},
		{"tracks", spoilt(10, 0xFF, 0xFF), "it has fewer tracks than it says"}, {"film", spoilt(12, 0xE7, 0x28), "it counts time in frames of film"},
		{"silent", file(t, []int{4}), "there are no notes with a pitch in it"},
	} {
		_, err := Read(c.data)
		assert.ErrorContains(t, err, c.want, c.name)
	}
	c := blues(t, "quick change", "C", chart.Shuffle)
	data := Write(c)
	at := bytes.Index(data, []byte{0xFF, 0x58, 0x04})
	data[at+3] = 7
	_, err := Read(data)
	assert.EqualError(t, err, `"7/4" is not a meter; choose one of: 4/4, 12/8, 3/4, 6/8, 2/4, 5/4, 6/4, 9/8`)
	at = bytes.Index(data, []byte{0xFF, 0x51, 0x03})
	data[bytes.Index(data, []byte{0xFF, 0x58, 0x04})+3] = 4
	binary.BigEndian.PutUint16(data[at+3:], 0x0001)
	_, err = Read(data)
	assert.ErrorContains(t, err, "a tempo is 20 to 400 beats a minute")
}

// Key and meter change where the file says so; the tempo is the average, and the tracks are listed.
func TestASongThatChanges(t *testing.T) {
	c := chart.Chart{Title: "Locked gate", Key: harmony.Key{Mode: harmony.MajorMode}, Meter: chart.FourFour, Feel: chart.Straight, Tempo: 120, Swing: 2, Bars: chart.EmptyBars(6, chart.FourFour)}
	c, err := c.Write(0, "C | F | G | C | Dm7 | G7")
	require.NoError(t, err)
	c, err = c.ChangedMeter(2, 1, chart.TwoFour)
	require.NoError(t, err)
	e, err := harmony.ParseKey("Eb", harmony.MajorMode)
	require.NoError(t, err)
	c, err = c.ChangedKey(3, 0, e, true)
	require.NoError(t, err)
	r, err := Read(Write(c))
	require.NoError(t, err)
	said := []string{}
	for b, bar := range r.Chart.Bars {
		in := r.Chart.SettingOf(b)
		said = append(said, fmt.Sprintf("%s %s %s", in.Key.Tonic, in.Meter, chart.Text(bar.Spans)))
	}
	assert.Equal(t, []string{"C 4/4 C", "C 4/4 F", "C 2/4 G", "Eb 4/4 Eb", "Eb 4/4 Fm7", "Eb 4/4 Bb7"}, said)
	assert.Equal(t, 120, r.Chart.Tempo)
	listed := []string{}
	for _, v := range r.Voices {
		listed = append(listed, fmt.Sprintf("%s %s %s %t", v.ID(), v.Name, v.Plays, v.Used))
	}
	assert.Equal(t, []string{"2.1 Chords chords true", "3.2 Bass single notes true", "4.10 Drums drums false", "5.10 Click drums false"}[:len(listed)], listed)
	alone, err := ReadVoices(Write(c), []reading.VoiceID{{Track: 3, Channel: 2}})
	require.NoError(t, err)
	assert.Equal(t, []bool{false, true}, []bool{alone.Voices[0].Used, alone.Voices[1].Used})
	_, err = ReadVoices(Write(c), []reading.VoiceID{{Track: 9, Channel: 1}})
	assert.ErrorContains(t, err, "no notes with a pitch in the tracks that were chosen; it has 2.1, 3.2")
}

// The tempo of a file is kept as its average over the time that is played.
func TestTempoMapsAreAveraged(t *testing.T) {
	r := &reader{Reading: reading.New(), tempos: []tempoChange{{0, 60}, {960, 120}, {1920, 120}}}
	r.setTempo(0, 3840)
	assert.Equal(t, 96, r.Chart.Tempo, "two quarters at 60 and six at 120 last five seconds: 8 quarters in 5 s")
	assert.Equal(t, "the tempo goes from 60 to 120; the chart keeps the average, 96", r.Remarks[0].Text)
}

func TestHeadersThatLie(t *testing.T) {
	data := Write(blues(t, "quick change", "C", chart.Shuffle))
	more := append([]byte(nil), data...)
	binary.BigEndian.PutUint16(more[10:], 2)
	r, err := Read(more)
	require.NoError(t, err)
	assert.Contains(t, r.Remarks, reading.Remark{Text: "the file says it has 2 tracks and has 5; all of them are read"})
	none := append([]byte(nil), data...)
	binary.BigEndian.PutUint16(none[12:], 0)
	_, err = Read(none)
	assert.ErrorContains(t, err, "a division of zero")
}

func FuzzRead(f *testing.F) {
	f.Add(Write(blues(f, "jazz blues", "F", chart.Shuffle)))
	f.Add(Write(blues(f, "minor twelve-bar", "F#", chart.Slow128)))
	f.Add([]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x04\x00\xff\x2f\x00"))
	f.Fuzz(func(t *testing.T, data []byte) {
		r, err := Read(data)
		if err != nil {
			var faults reading.Faults
			require.ErrorAs(t, err, &faults)
			require.NotEmpty(t, faults)
			return
		}
		require.NoError(t, r.Chart.Check())
	})
}

// Passes follow one another at their own tempos and in their own keys; the line keeps its bends.
func TestPassesFollowOneAnother(t *testing.T) {
	c := blues(t, chart.Schemes[0].Name, "C", chart.Straight)
	other := blues(t, chart.Schemes[0].Name, "F", chart.Straight)
	other.Tempo = 120
	line := phrase.Phrase{Meter: chart.FourFour, Events: []phrase.Event{
		{Tick: 480, Ticks: 480, Fingered: neck.Fingered{Place: neck.Place{String: 3, Fret: 7}}, Technique: phrase.Technique{Bend: 4}},
	}}
	passes := []Pass{}
	for _, one := range []chart.Chart{c, other} {
		order := band.Order{Chart: one, Instrument: neck.Standard(), Bars: 2, Line: line}
		passes = append(passes, Pass{Chart: one, Line: line, Performance: band.Perform(order)})
	}
	file, err := smf.ReadFrom(bytes.NewReader(WritePasses("A tune", neck.Standard(), passes)))
	require.NoError(t, err)
	require.Len(t, file.Tracks, 6)
	tempos, cues, starts, bent := []string{}, []string{}, []int{}, false
	for n, track := range file.Tracks {
		tick := 0
		for _, e := range track {
			tick += int(e.Delta)
			var tempo float64
			var text string
			var channel, key, velocity uint8
			var wheel int16
			var absolute uint16
			switch m := e.Message; {
			case m.GetMetaTempo(&tempo):
				tempos = append(tempos, fmt.Sprintf("%d at %d", int(tempo+0.5), tick))
			case m.GetMetaCuepoint(&text):
				cues = append(cues, fmt.Sprintf("%s at %d", text, tick))
			case n == 1 && m.GetNoteOn(&channel, &key, &velocity) && velocity > 0:
				starts = append(starts, tick)
			case n == 1 && m.GetPitchBend(&channel, &wheel, &absolute) && wheel > 0:
				bent = true
			}
		}
		assert.Equal(t, 4*1920, tick, "every track ends with the last pass")
	}
	assert.Equal(t, []string{"96 at 0", "120 at 3840"}, tempos)
	assert.Equal(t, []string{"C7 at 0", "F7 at 1920", "F7 at 3840", "Bb7 at 5760"}, cues)
	assert.Equal(t, []int{480, 3840 + 480}, starts)
	assert.True(t, bent)
}
