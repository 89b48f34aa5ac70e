package neck

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

func TestTuningsAsPlayersSayThem(t *testing.T) {
	for text, want := range map[string][]pitch.MIDI{
		"E A D G B E":       {64, 59, 55, 50, 45, 40},
		"D A D G A D":       {62, 57, 55, 50, 45, 38},
		"D G D G B D":       {62, 59, 55, 50, 43, 38},
		"E B E G# B E":      {64, 59, 56, 52, 47, 40},
		"Eb Ab Db Gb Bb Eb": {63, 58, 54, 49, 44, 39},
		"B1 E A D G B E":    {64, 59, 55, 50, 45, 40, 35},
		"G4 C4 E4 A4":       {69, 64, 60, 67},
		" E2  A2 D3 G3 ":    {55, 50, 45, 40},
		"Cb4 B#3 C4 D":      {62, 60, 60, 59},
	} {
		got, err := ReadTuning(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	for text, want := range map[string]string{
		"E A H G":   `column 5: "H" is not the note of a string`,
		"E A D2x G": `column 5: "D2x"`,
		"":          "from the lowest up",
		"E99 A D G": `column 1: "E99"`,
	} {
		_, err := ReadTuning(text)
		assert.ErrorContains(t, err, want, text)
	}
}

func FuzzReadTuning(f *testing.F) {
	for _, p := range presets {
		f.Add(p.tuning)
	}
	f.Fuzz(func(t *testing.T, text string) {
		open, err := ReadTuning(text)
		if err != nil {
			return
		}
		i := Instrument{Name: "any", Open: open, Frets: 22, ScaleMM: 648}
		if i.Check() != nil {
			return
		}
		again, err := ReadTuning(i.Tuning())
		if err != nil || i.Tuning() != (Instrument{Open: again}).Tuning() {
			t.Fatalf("%q was written as %q and read as %v, %v", text, i.Tuning(), again, err)
		}
	})
}

func TestPresetsAreWhole(t *testing.T) {
	names := []string{}
	for _, i := range Presets() {
		require.NoError(t, i.Check())
		names = append(names, i.Name)
	}
	assert.Equal(t, []string{"standard", "half step down", "drop D", "open G", "open D", "open E", "DADGAD"}, names)
	assert.Equal(t, Standard(), Presets()[0])
	assert.True(t, Presets()[1].HasNamedForms())
	assert.False(t, Presets()[2].HasNamedForms())
}

func TestWhatNoInstrumentHas(t *testing.T) {
	change := func(how func(*Instrument)) Instrument {
		i := Standard()
		i.Open = append([]pitch.MIDI{}, i.Open...)
		how(&i)
		return i
	}
	for field, i := range map[string]Instrument{
		"name":    change(func(i *Instrument) { i.Name = "" }),
		"tuning":  change(func(i *Instrument) { i.Open[5] = 12 }),
		"frets":   change(func(i *Instrument) { i.Frets = 30 }),
		"scaleMm": change(func(i *Instrument) { i.ScaleMM = math.NaN() }),
	} {
		var fault *InstrumentError
		require.ErrorAs(t, i.Check(), &fault, field)
		assert.Equal(t, field, fault.Field)
		assert.NoError(t, fault.Nearest.Check(), "the nearest works")
	}
	var fault *InstrumentError
	require.ErrorAs(t, change(func(i *Instrument) { i.Open = i.Open[:3] }).Check(), &fault)
	assert.Equal(t, "3 strings are on no instrument here: 4 to 8", fault.Detail)
	assert.Equal(t, "D3 G3 B3 E4", fault.Nearest.Tuning())
	require.ErrorAs(t, change(func(i *Instrument) { i.Open[5] = 12 }).Check(), &fault)
	assert.Equal(t, "string 6 at C0 (MIDI 12) is out of range: Ab0 to F#6", fault.Detail)
}

func TestACapoShortensTheNeck(t *testing.T) {
	i, err := Standard().WithCapo(2)
	require.NoError(t, err)
	assert.Equal(t, "F#2 B2 E3 A3 C#4 F#4", i.Tuning())
	assert.Equal(t, 20, i.Frets)
	assert.InDelta(t, Standard().StretchMM(2, 7), i.StretchMM(0, 5), 1e-9, "the same frets are as far apart")
	p, err := FindPosition(i, pitch.Class(2), "C")
	require.NoError(t, err)
	assert.Equal(t, "C-0", p.ID(), "D with a capo on 2 is played as C")
	_, err = Standard().WithCapo(15)
	assert.ErrorContains(t, err, "at most 14")
}

// In other tunings positions are plain windows, and all else still holds.
func TestOpenG(t *testing.T) {
	openG := Presets()[3]
	ps := Positions(openG, 7)
	require.Len(t, ps, 7)
	assert.Equal(t, "fret-0", ps[0].ID())
	assert.Equal(t, "fret-18", ps[6].ID())
	home, err := FindPosition(openG, 7, "")
	require.NoError(t, err)
	assert.Equal(t, "fret-3", home.ID(), "the lowest G on string 6 is at fret 5")
	shape := PlaceTones(openG, ps[0].Window, mustChord(t, "G7").Tones())
	assert.Equal(t, "6:0 5, 6:3 b7, 5:0 R, 5:4 3*, 4:0 5, 4:3 b7, 3:0 R, 2:0 3, 1:0 5, 1:3 b7", written(shape))
	assert.Empty(t, FormAt(openG, 7, ps[0].Window))
	again := []string{}
	for _, r := range Recurrences(openG, mustChord(t, "G7"), openG.WindowFrom(5), []harmony.Chord{mustChord(t, "G7"), mustChord(t, "C7")}) {
		again = append(again, r.Chord.Symbol()+" "+r.At.ID())
	}
	assert.Equal(t, []string{"G7 fret-17", "C7 fret-10"}, again)
}

func TestAnyWindowOfTheNeck(t *testing.T) {
	p, err := FindPosition(Standard(), 0, "fret-9")
	require.NoError(t, err)
	assert.Equal(t, Window{Core: 9, CoreEnd: 12, Low: 8, High: 13}, p.Window)
	for text, nearest := range map[string]string{"fret-40": "E-19", "fret--3": "C-0", "E-8": "E-7", "Q": "E-7"} {
		_, err := FindPosition(Standard(), 0, text)
		var fault *PositionError
		require.ErrorAs(t, err, &fault, text)
		assert.Equal(t, nearest, fault.Nearest, text)
	}
}

// On any instrument, everything that is laid out is on the neck and sounds what
// it is called.
func TestAnyInstrument(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		i := Instrument{Name: "own", Frets: rapid.IntRange(MinFrets, MaxFrets).Draw(t, "frets"), ScaleMM: rapid.Float64Range(MinScale, MaxScale).Draw(t, "scale")}
		for n := range rapid.IntRange(MinStrings, MaxStrings).Draw(t, "strings") {
			i.Open = append(i.Open, pitch.MIDI(rapid.IntRange(30, 70).Draw(t, "open")-n))
		}
		require.NoError(t, i.Check())
		i, err := i.WithCapo(rapid.IntRange(0, 4).Draw(t, "capo"))
		require.NoError(t, err)
		chord := mustChord2(t, rapid.SampledFrom(harmony.Tonics).Draw(t, "root")+rapid.SampledFrom(harmony.EverySign()).Draw(t, "sign"))
		for _, p := range Positions(i, chord.Root.Class()) {
			shape := PlaceTones(i, p.Window, chord.Tones())
			for _, tone := range shape.Tones {
				assert.True(t, i.Has(tone.Place))
				assert.Equal(t, tone.Pitch, i.Pitch(tone.Place))
				assert.Equal(t, tone.Note.Class(), tone.Pitch.Class())
			}
			for _, kind := range LayoutKinds {
				if laid, err := PlaceInLayout(i, p.Window, chord.Tones(), Layout{Kind: kind, From: "R", Low: 2, High: 4}); err == nil {
					for _, tone := range laid.Tones {
						assert.True(t, i.Has(tone.Place), "%s", kind)
					}
				}
			}
			if easier, ok := shape.Easier(i, p.Window, 80); ok {
				assert.LessOrEqual(t, easier.StretchMM, 80.0)
				assert.Equal(t, len(shape.Tones), len(easier.Tones)+len(easier.Left))
			}
			Structures(i, p.Window, chord)
			Recurrences(i, chord, p.Window, []harmony.Chord{chord})
		}
	})
}

func mustChord2(t *rapid.T, symbol string) harmony.Chord {
	c, err := harmony.ParseChord(symbol)
	require.NoError(t, err)
	return c
}

// A swap belongs to the shape: made once for the D form of a dominant, it holds
// for every dominant that makes the D form, and for nothing else.
func TestASwapBelongsToTheShape(t *testing.T) {
	swaps := []Swap{{Sign: "7", Form: "D", Degree: "3", From: 4, To: 3}}
	for name, want := range map[string]string{
		"A-3 F7": "6:5 3, 5:3 5, 5:6 b7, 4:3 R, 3:2 3*, 3:5 5, 2:4 b7, 2:6 R, 1:5 3",
		"G-5 G7": "6:7 3, 5:5 5, 5:8 b7, 4:5 R, 3:4 3*, 3:7 5, 2:6 b7, 2:8 R, 1:7 3",
		"A-3 C7": threeKeys["C"]["A-3 C7"][3:],
	} {
		position, symbol, _ := strings.Cut(name, " ")
		p, err := FindPosition(Standard(), 0, position)
		require.NoError(t, err)
		c := mustChord(t, symbol)
		form := FormAt(Standard(), c.Root.Class(), p.Window)
		assert.Equal(t, want, written(PlaceTones(Standard(), p.Window, c.Tones()).Swapped(Standard(), p.Window, c.Quality.Sign, form, swaps)), name)
	}
}

func TestTheEasierPlacing(t *testing.T) {
	p, err := FindPosition(Standard(), 7, "E-2")
	require.NoError(t, err)
	shape := PlaceTones(Standard(), p.Window, mustChord(t, "G7").Tones())
	assert.InDelta(t, 119.1, shape.StretchMM, 0.1) // 648 (2^(-2/12) - 2^(-6/12)), frets 2 to 6
	easier, ok := shape.Easier(Standard(), p.Window, 100)
	require.True(t, ok)
	assert.Equal(t, "6:3 R, 5:2 3, 5:5 5, 4:3 b7, 4:5 R, 3:4 3, 2:3 5, 1:3 R", written(easier.Shape))
	assert.Equal(t, "Within 100 mm: leave out the b7 on string 2; or play it an octave up, frets 14 to 17.", easier.Text)
	_, ok = shape.Easier(Standard(), p.Window, 140)
	assert.False(t, ok, "within the span nothing is easier")
}
