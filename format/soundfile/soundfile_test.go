package soundfile

import (
	"bytes"
	"encoding/binary"
	"io"
	"math"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func readAll(t testing.TB, s *Stream) []float32 {
	all, piece := []float32{}, make([]float32, 100)
	for {
		n, err := s.Read(piece)
		all = append(all, piece[:n]...)
		if err == io.EOF {
			return all
		}
		require.NoError(t, err)
	}
}

// wavOf is a WAV file of any kind of samples.
func wavOf(kind, channels, rate, bits int, extensible bool, sound []byte, length int) []byte {
	about := binary.LittleEndian.AppendUint16(nil, uint16(kind))
	if extensible {
		about = binary.LittleEndian.AppendUint16(nil, wavExtensible)
	}
	about = binary.LittleEndian.AppendUint16(about, uint16(channels))
	about = binary.LittleEndian.AppendUint32(about, uint32(rate))
	about = binary.LittleEndian.AppendUint32(about, uint32(rate*channels*bits/8))
	about = binary.LittleEndian.AppendUint16(about, uint16(channels*bits/8))
	about = binary.LittleEndian.AppendUint16(about, uint16(bits))
	if extensible {
		about = binary.LittleEndian.AppendUint16(about, 22)
		about = append(about, 0, 0, 0, 0, 0, 0)
		about = binary.LittleEndian.AppendUint16(about, uint16(kind))
		about = append(about, make([]byte, 14)...)
	}
	file := append([]byte("RIFF\xff\xff\xff\xffWAVELIST\x03\x00\x00\x00abc\x00fmt "), binary.LittleEndian.AppendUint32(nil, uint32(len(about)))...)
	file = append(file, about...)
	file = append(file, "data"...)
	file = binary.LittleEndian.AppendUint32(file, uint32(length))
	return append(file, sound...)
}

func TestEveryKindOfSampleIsRead(t *testing.T) {
	float := func(bits int, values ...float64) []byte {
		out := []byte{}
		for _, v := range values {
			if bits == 32 {
				out = binary.LittleEndian.AppendUint32(out, math.Float32bits(float32(v)))
			} else {
				out = binary.LittleEndian.AppendUint64(out, math.Float64bits(v))
			}
		}
		return out
	}
	for name, c := range map[string]struct {
		file []byte
		want []float32
	}{
		"8 bits":               {wavOf(1, 1, 8000, 8, false, []byte{0, 128, 192}, 3), []float32{-1, 0, 0.5}},
		"16 bits":              {wavOf(1, 1, 44100, 16, false, []byte{0, 0x80, 0, 0, 0, 0x40}, 6), []float32{-1, 0, 0.5}},
		"24 bits":              {wavOf(1, 1, 48000, 24, true, []byte{0, 0, 0x80, 0, 0, 0, 0, 0, 0x40}, 9), []float32{-1, 0, 0.5}},
		"32 bits":              {wavOf(1, 1, 96000, 32, false, []byte{0, 0, 0, 0x80, 0, 0, 0, 0x40}, 8), []float32{-1, 0.5}},
		"floating point":       {wavOf(3, 1, 44100, 32, true, float(32, -1, 0.25, math.NaN(), 1e30), 16), []float32{-1, 0.25, 0, 0}},
		"double":               {wavOf(3, 1, 44100, 64, false, float(64, -1, 0.25), 16), []float32{-1, 0.25}},
		"two channels, as one": {wavOf(1, 2, 44100, 16, false, []byte{0, 0x40, 0, 0, 0, 0x40, 0, 0x40}, 8), []float32{0.25, 0.5}},
	} {
		s, err := Open(bytes.NewReader(c.file))
		if assert.NoError(t, err, name) {
			assert.Equal(t, c.want, readAll(t, s), name)
			assert.Empty(t, s.Remarks(), name)
		}
	}
}

func TestFilesThatLieAreReadAndSaidSo(t *testing.T) {
	sound := []byte{0, 0x40, 0, 0x20}
	for want, length := range map[string]int{
		"the file is cut off: 996 bytes of sound that it says it has are not there":      1000,
		"the file does not say how long its sound is; it was read to the end":            0,
		"the file does not say how long its sound is; it was read to the end (the most)": 0xFFFFFFFF,
	} {
		s, err := Open(bytes.NewReader(wavOf(1, 1, 44100, 16, false, sound, length)))
		require.NoError(t, err)
		assert.Equal(t, []float32{0.5, 0.25}, readAll(t, s))
		if assert.Len(t, s.Remarks(), 1) {
			assert.Contains(t, want, s.Remarks()[0])
		}
	}
}

func TestWhatCannotBeReadIsNamed(t *testing.T) {
	for want, file := range map[string][]byte{
		"the file is empty": {},
		`this is neither a WAV nor a FLAC file: it begins with "ID3\x04"`:                                                                   []byte("ID3\x04 and more than that"),
		"the file ends at byte 12 before it says what its sound is":                                                                         []byte("RIFF\x00\x00\x00\x00WAVE"),
		"byte 20: the sound begins before the file says what it is":                                                                         []byte("RIFF\x00\x00\x00\x00WAVEdata\x00\x00\x00\x00"),
		"byte 32: samples of kind 2 with 4 bits cannot be read; whole numbers of 8, 16, 24 and 32 bits and floating point of 32 and 64 can": wavOf(2, 1, 44100, 4, false, nil, 0),
		"byte 32: the file says 0 channels; 1 to 32 can be read":                                                                            wavOf(1, 0, 44100, 16, false, nil, 0),
		"byte 32: the file says 400000 samples a second; 1 to 192000 can be read":                                                           wavOf(1, 1, 400000, 16, false, nil, 0),
	} {
		_, err := Open(bytes.NewReader(file))
		assert.EqualError(t, err, want)
	}
	_, err := Open(bytes.NewReader([]byte("fLaC\x00")))
	assert.ErrorContains(t, err, "the beginning of the FLAC file cannot be read")
}

func TestWrittenFilesAreReadAgain(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		samples := rapid.SliceOfN(rapid.Float32Range(-1, 1), 0, 300).Draw(t, "samples")
		rate := rapid.IntRange(8000, 96000).Draw(t, "rate")
		s, err := Open(bytes.NewReader(WAV(samples, rate)))
		if err != nil {
			t.Fatal(err)
		}
		if s.Rate != rate {
			t.Fatalf("the rate %d came back as %d", rate, s.Rate)
		}
		back := make([]float32, len(samples)+1)
		n, _ := s.Read(back)
		if n != len(samples) {
			t.Fatalf("%d samples came back as %d", len(samples), n)
		}
		for k := range samples {
			if math.Abs(float64(back[k]-samples[k])) > 1.0/16000 {
				t.Fatalf("sample %d, %g, came back as %g", k, samples[k], back[k])
			}
		}
	})
}

func FuzzOpen(f *testing.F) {
	f.Add(WAV([]float32{0, 0.5, -0.5}, 44100))
	f.Add(wavOf(3, 2, 48000, 32, true, make([]byte, 64), 64))
	f.Add([]byte("fLaC\x00\x00\x00\x22\x10\x00\x10\x00\x00\x00\x00\x00\x00\x00\x0a\xc4\x42\xf0\x00\x00\x00\x00"))
	f.Fuzz(func(t *testing.T, file []byte) {
		s, err := Open(bytes.NewReader(file))
		if err != nil {
			return
		}
		piece := make([]float32, 1000)
		for range 1000 {
			n, err := s.Read(piece)
			for _, x := range piece[:n] {
				if !(x >= -8 && x <= 8) {
					t.Fatalf("a sample of %g", x)
				}
			}
			if err != nil {
				return
			}
		}
	})
}

// Files of the reference encoder (flac 1.4.2): sines of 220 Hz at half and 440 Hz at a quarter of full scale, the latter
// on the second channel alone.
func TestFLACOfTheReferenceEncoder(t *testing.T) {
	for name, want := range map[string]struct {
		rate, channels int
		kind           string
		value          func(seconds float64) float64
	}{
		"mono16":   {22050, 1, "16 bits, FLAC", func(s float64) float64 { return 0.5 * math.Sin(2*math.Pi*220*s) }},
		"stereo24": {48000, 2, "24 bits, FLAC", func(s float64) float64 { return (0.5*math.Sin(2*math.Pi*220*s) + 0.25*math.Sin(2*math.Pi*440*s)) / 2 }},
	} {
		file, err := os.ReadFile("testdata/" + name + ".flac")
		require.NoError(t, err)
		s, err := Open(bytes.NewReader(file))
		require.NoError(t, err)
		assert.Equal(t, want.kind, s.Kind)
		assert.Equal(t, []int{want.rate, want.channels}, []int{s.Rate, s.Channels})
		all := readAll(t, s)
		require.Len(t, all, 6000)
		for n, sample := range all {
			require.InDelta(t, want.value(float64(n)/float64(want.rate)), sample, 1e-4, "%s, sample %d", name, n)
		}
		assert.Empty(t, s.Remarks())

		// One that is cut off is read as far as it goes, and says so.
		s, err = Open(bytes.NewReader(file[:len(file)*2/3]))
		require.NoError(t, err)
		part := readAll(t, s)
		assert.Less(t, len(part), 6000)
		assert.NotEmpty(t, s.Remarks())
		for n, sample := range part {
			require.Equal(t, all[n], sample)
		}
	}
}

// pairsWAV is a file of two channels of 16 bits.
func pairsWAV(left, right []float32) []byte {
	sound := []byte{}
	for n := range left {
		sound = append(append(sound, PCM16(left[n:n+1])...), PCM16(right[n:n+1])...)
	}
	return wavOf(1, 2, 8000, 16, false, sound, len(sound))
}

func scaled(samples []float32, by float32) []float32 {
	out := make([]float32, len(samples))
	for n, s := range samples {
		out[n] = s * by
	}
	return out
}

// One guitar on two channels is heard as loud as it was, whatever the box before it does with its second output.
func TestOneGuitarOnTwoSides(t *testing.T) {
	played, other := make([]float32, 8000), make([]float32, 8000)
	for n := range played {
		played[n] = float32(0.5 * math.Sin(2*math.Pi*220*float64(n)/8000))
		other[n] = float32(0.5 * math.Sin(2*math.Pi*331*float64(n)/8000))
	}
	silence := make([]float32, len(played))
	hiss := scaled(other, 0.004) // -48 dB
	for name, c := range map[string]struct {
		left, right []float32
		loudness    float32 // of the guitar that was played
		remark      string
	}{
		"the same on both":          {played, played, 1, ""},
		"turned over":               {played, scaled(played, -1), 1, "turned over"},
		"turned over and softer":    {played, scaled(played, -0.5), 0.75, "turned over"},
		"left alone":                {played, silence, 1, "nothing on the right side"},
		"right alone, hiss on left": {hiss, played, 1, "nothing on the left side"},
		"softer on the right":       {played, scaled(played, 0.1), 0.55, ""},
	} {
		t.Run(name, func(t *testing.T) {
			s, err := OpenGuitar(bytes.NewReader(pairsWAV(c.left, c.right)), func() error { return nil })
			require.NoError(t, err)
			for n, sample := range readAll(t, s) {
				require.InDelta(t, c.loudness*played[n], sample, 0.001, "sample %d", n)
			}
			if c.remark == "" {
				assert.Empty(t, s.Remarks())
			} else {
				assert.Contains(t, s.Remarks()[0], c.remark)
			}
		})
	}
	s, err := OpenGuitar(bytes.NewReader(pairsWAV(played, other)), func() error { return nil })
	require.NoError(t, err)
	assert.Empty(t, s.Remarks(), "two that have nothing in common are both heard")
	assert.InDelta(t, (played[3]+other[3])/2, readAll(t, s)[3], 0.001)
	_, err = OpenGuitar(bytes.NewReader(pairsWAV(played, other)), func() error { return io.ErrClosedPipe })
	assert.ErrorIs(t, err, io.ErrClosedPipe, "nobody waits any more")
}

// A file whose stated length is short goes on in sound, or in another part, or ends.
func TestWAVsWithAShortLength(t *testing.T) {
	sound := PCM16([]float32{0.5, 0.25, -0.5, 0.125, 0.5, -0.25})
	want := []float32{0.5, 0.25, -0.5, 0.125, 0.5, -0.25}
	for name, c := range map[string]struct {
		file  []byte
		count int
		said  bool
	}{
		"a third of what it has":   {wavOf(1, 1, 8000, 16, false, sound, 4), 6, true},
		"a part after it":          {append(wavOf(1, 1, 8000, 16, false, sound, 12), "LIST\x04\x00\x00\x00abcd"...), 6, false},
		"two bytes after it":       {append(wavOf(1, 1, 8000, 16, false, sound, 12), 1, 2), 6, false},
		"nothing after it":         {wavOf(1, 1, 8000, 16, false, sound, 12), 6, false},
		"odd, padded, then a part": {append(wavOf(1, 1, 8000, 8, false, []byte{192, 160, 64}, 3), "\x00id3 \x02\x00\x00\x00ab"...), 3, false},
	} {
		s, err := Open(bytes.NewReader(c.file))
		require.NoError(t, err, name)
		all := readAll(t, s)
		require.Len(t, all, c.count, name)
		for n := range all {
			assert.InDelta(t, want[n], all[n], 0.001, name)
		}
		assert.Equal(t, c.said, len(s.Remarks()) > 0, name)
	}
}
