package recording

import (
	"bytes"
	"encoding/binary"
	"io"
	"math"
	"os"

	"undaris/format/document"
	"undaris/format/soundfile"
	"undaris/store"
)

// fadeSeconds is how long one sound goes over into another, so that nothing clicks (our choice).
const fadeSeconds = 0.008

// soundHeader is how many bytes of a kept sound come before its samples.
const soundHeader = 44

// SpliceSound writes the sound of a take in which a part of another takes the place of its own. Both have one rate.
func SpliceSound(sounds *store.Sounds, before, again document.TakeSound, s document.Splice) (document.TakeSound, error) {
	old, err := openSamples(sounds, before.Hash)
	if err != nil {
		return before, err
	}
	defer func() { _ = old.file.Close() }()
	later, err := openSamples(sounds, again.Hash)
	if err != nil {
		return before, err
	}
	defer func() { _ = later.file.Close() }()
	place := func(seconds float64) int64 { return int64(math.Round(seconds * float64(before.Rate))) }
	at, until, from := place(s.At), place(s.Until), place(s.From)
	fade := place(fadeSeconds)
	length := until - at
	tail := max(0, old.count-until)
	parts := []io.Reader{old.section(0, at)}
	into, err := crossfade(old, at, later, from, min(fade, length))
	if err != nil {
		return before, err
	}
	parts = append(parts, bytes.NewReader(into), later.section(from+min(fade, length), length-min(fade, length)))
	if tail > 0 {
		out, err := crossfade(later, from+length, old, until, min(fade, tail))
		if err != nil {
			return before, err
		}
		parts = append(parts, bytes.NewReader(out), old.section(until+min(fade, tail), tail-min(fade, tail)))
	}
	size := 2 * (until + tail)
	kept := before
	kept.Seconds = float64(until+tail) / float64(before.Rate)
	kept.Clipped += again.Clipped
	kept.Hash, kept.Bytes, err = sounds.Keep(io.MultiReader(append([]io.Reader{bytes.NewReader(soundfile.WAVHeader(before.Rate, size))}, parts...)...))
	return kept, err
}

// samples are those of a sound that is kept: 16 bits, one channel.
type samples struct {
	file  *os.File
	count int64
}

func openSamples(sounds *store.Sounds, hash string) (samples, error) {
	file, err := sounds.Open(hash)
	if err != nil {
		return samples{}, err
	}
	info, err := file.Stat()
	if err != nil {
		_ = file.Close()
		return samples{}, err
	}
	return samples{file, max(0, info.Size()-soundHeader) / 2}, nil
}

// section reads so many samples from one on, with silence after the last there is.
func (s samples) section(from, count int64) io.Reader {
	have := min(max(0, s.count-from), count)
	return io.MultiReader(io.NewSectionReader(s.file, soundHeader+2*from, 2*have), io.LimitReader(silence{}, 2*(count-have)))
}

// crossfade goes over from one sound to another within so many samples.
func crossfade(one samples, from int64, other samples, to, count int64) ([]byte, error) {
	leaving, err := io.ReadAll(one.section(from, count))
	if err != nil {
		return nil, err
	}
	arriving, err := io.ReadAll(other.section(to, count))
	if err != nil {
		return nil, err
	}
	mixed := make([]byte, 2*count)
	for n := range int(count) {
		share := (float64(n) + 0.5) / float64(count)
		a := float64(int16(binary.LittleEndian.Uint16(leaving[2*n:])))
		b := float64(int16(binary.LittleEndian.Uint16(arriving[2*n:])))
		binary.LittleEndian.PutUint16(mixed[2*n:], uint16(int16(math.Round((1-share)*a+share*b))))
	}
	return mixed, nil
}

// silence reads as samples without sound.
type silence struct{}

func (silence) Read(p []byte) (int, error) {
	clear(p)
	return len(p), nil
}
