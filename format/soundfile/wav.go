package soundfile

import (
	"bufio"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"math"
)

// The kinds of samples that a WAV file may say it has (Multimedia Programming Interface and Data
// Specifications 1.0, 1991; the extensible kind by Microsoft, 2001).
const (
	wavPCM        = 1
	wavFloat      = 3
	wavExtensible = 0xFFFE
)

// mostChunk is how long a chunk beside the sound may be.
const mostChunk = 16 << 20

func openWAV(r *bufio.Reader) (*Stream, error) {
	if _, err := r.Discard(12); err != nil {
		return nil, err
	}
	s := &Stream{}
	at := int64(12)
	var decode func([]byte) float32
	size := 0 // bytes of a sample
	for {
		header := [8]byte{}
		if _, err := io.ReadFull(r, header[:]); err != nil {
			if decode == nil {
				return nil, fmt.Errorf("the file ends at byte %d before it says what its sound is", at)
			}
			return nil, fmt.Errorf("the file ends at byte %d before its sound begins", at)
		}
		at += 8
		name, length := string(header[:4]), int64(binary.LittleEndian.Uint32(header[4:]))
		switch name {
		case "data":
			if decode == nil {
				return nil, fmt.Errorf("byte %d: the sound begins before the file says what it is", at)
			}
			s.readWAV(r, length, size, decode)
			return s, nil
		case "fmt ":
			if length < 16 || length > 64 {
				return nil, fmt.Errorf("byte %d: the description of the sound has %d bytes; 16 to 64 are usual", at, length)
			}
			about := make([]byte, length)
			if _, err := io.ReadFull(r, about); err != nil {
				return nil, fmt.Errorf("the file ends at byte %d, in the description of its sound", at)
			}
			var err error
			if decode, size, err = s.describe(about); err != nil {
				return nil, fmt.Errorf("byte %d: %w", at, err)
			}
		default:
			if length > mostChunk {
				return nil, fmt.Errorf("byte %d: the part %q says it has %d bytes; nothing beside the sound is so long", at, name, length)
			}
			if _, err := r.Discard(int(length)); err != nil {
				return nil, fmt.Errorf("the file ends in its part %q, which begins at byte %d", name, at)
			}
		}
		at += length
		if length%2 == 1 { // parts begin at even bytes
			if _, err := r.Discard(1); err != nil && !errors.Is(err, io.EOF) {
				return nil, err
			}
			at++
		}
	}
}

// describe reads what the samples are.
func (s *Stream) describe(about []byte) (decode func([]byte) float32, size int, err error) {
	kind := int(binary.LittleEndian.Uint16(about))
	s.Channels = int(binary.LittleEndian.Uint16(about[2:]))
	s.Rate = int(binary.LittleEndian.Uint32(about[4:]))
	bits := int(binary.LittleEndian.Uint16(about[14:]))
	if kind == wavExtensible && len(about) >= 26 {
		kind = int(binary.LittleEndian.Uint16(about[24:]))
	}
	if err := s.check(); err != nil {
		return nil, 0, err
	}
	switch {
	case kind == wavPCM && bits == 8:
		decode = func(b []byte) float32 { return (float32(b[0]) - 128) / 128 }
	case kind == wavPCM && bits == 16:
		decode = func(b []byte) float32 { return float32(int16(binary.LittleEndian.Uint16(b))) / (1 << 15) }
	case kind == wavPCM && bits == 24:
		decode = func(b []byte) float32 {
			return float32(int32(b[0])<<8|int32(b[1])<<16|int32(int8(b[2]))<<24) / (1 << 31)
		}
	case kind == wavPCM && bits == 32:
		decode = func(b []byte) float32 { return float32(float64(int32(binary.LittleEndian.Uint32(b))) / (1 << 31)) }
	case kind == wavFloat && bits == 32:
		decode = func(b []byte) float32 { return math.Float32frombits(binary.LittleEndian.Uint32(b)) }
	case kind == wavFloat && bits == 64:
		decode = func(b []byte) float32 { return float32(math.Float64frombits(binary.LittleEndian.Uint64(b))) }
	default:
		return nil, 0, fmt.Errorf("samples of kind %d with %d bits cannot be read; whole numbers of 8, 16, 24 and 32 bits and floating point of 32 and 64 can", kind, bits)
	}
	s.Kind = fmt.Sprintf("%d bits", bits)
	if kind == wavFloat {
		s.Kind += " floating point"
	}
	return decode, bits / 8, nil
}

// readWAV reads as much sound as there is, whatever the length says: a recorder that was cut off leaves 0, the most there
// is, or the length of what it had written last.
func (s *Stream) readWAV(r *bufio.Reader, length int64, size int, decode func([]byte) float32) {
	open := length == 0 || length >= 0xFFFFFF00
	if open {
		s.remarks = append(s.remarks, "the file does not say how long its sound is; it was read to the end")
	}
	left := length
	bytes, frame := make([]byte, size*s.Channels), make([]float32, s.Channels)
	said := false
	s.read = func(into []float32) (int, error) {
		for n := range into {
			if !open && left < int64(len(bytes)) {
				if !soundGoesOn(r, left) {
					return n, io.EOF
				}
				open = true
				s.remarks = append(s.remarks, fmt.Sprintf("the file says that its sound has %d bytes, but it goes on after them; it was read to the end", length))
			}
			if _, err := io.ReadFull(r, bytes); err != nil {
				if !errors.Is(err, io.EOF) && !errors.Is(err, io.ErrUnexpectedEOF) {
					return n, err
				}
				if !open && !said {
					said = true
					s.remarks = append(s.remarks, fmt.Sprintf("the file is cut off: %d bytes of sound that it says it has are not there", left))
				}
				return n, io.EOF
			}
			left -= int64(len(bytes))
			for c := range frame {
				value := decode(bytes[c*size:])
				if value != value || value > 8 || value < -8 { // no number, or far out of range
					value = 0
				}
				frame[c] = value
			}
			into[n] = s.mixed(frame)
		}
		return len(into), nil
	}
}

// soundGoesOn says whether what follows the sound, as long as the file says that it is, is more of it: neither the end nor
// another part, which begins with four letters and a length. rest is what is left of the stated length, less than a frame.
func soundGoesOn(r *bufio.Reader, rest int64) bool {
	if rest > 0 { // the stated length is no whole number of frames
		return false
	}
	next, _ := r.Peek(9)
	if len(next) < 8 {
		return false
	}
	return !beginsPart(next[:8]) && (len(next) < 9 || next[0] != 0 || !beginsPart(next[1:9]))
}

// beginsPart says whether these eight bytes are the name and the length of a part of a WAV file.
func beginsPart(header []byte) bool {
	for _, letter := range header[:4] {
		if letter < ' ' || letter > '~' {
			return false
		}
	}
	return binary.LittleEndian.Uint32(header[4:]) <= mostChunk
}

// WAVHeader is the beginning of a WAV file of one channel of 16 bits, with so many bytes of sound after it.
func WAVHeader(rate int, bytes int64) []byte {
	most := int64(math.MaxUint32 - 36)
	bytes = min(bytes, most)
	header := make([]byte, 0, 44)
	header = append(header, "RIFF"...)
	header = binary.LittleEndian.AppendUint32(header, uint32(36+bytes))
	header = append(header, "WAVEfmt "...)
	header = binary.LittleEndian.AppendUint32(header, 16)
	header = binary.LittleEndian.AppendUint16(header, wavPCM)
	header = binary.LittleEndian.AppendUint16(header, 1)
	header = binary.LittleEndian.AppendUint32(header, uint32(rate))
	header = binary.LittleEndian.AppendUint32(header, uint32(2*rate))
	header = binary.LittleEndian.AppendUint16(header, 2)
	header = binary.LittleEndian.AppendUint16(header, 16)
	header = append(header, "data"...)
	return binary.LittleEndian.AppendUint32(header, uint32(bytes))
}

// PCM16 is samples from -1 to 1 as whole numbers of 16 bits; what is louder is cut.
func PCM16(samples []float32) []byte {
	out := make([]byte, 0, 2*len(samples))
	for _, s := range samples {
		value := math.Round(float64(s) * 32767)
		if value != value {
			value = 0
		}
		out = binary.LittleEndian.AppendUint16(out, uint16(int16(math.Max(-32768, math.Min(32767, value)))))
	}
	return out
}

// WAV is a whole file of one channel of 16 bits.
func WAV(samples []float32, rate int) []byte {
	sound := PCM16(samples)
	return append(WAVHeader(rate, int64(len(sound))), sound...)
}
