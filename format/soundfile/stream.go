package soundfile

import (
	"bufio"
	"errors"
	"fmt"
	"io"
)

// Stream is sound that is read in pieces, its channels mixed to one.
type Stream struct {
	// Rate is how many samples there are a second, Channels how many channels the file has, Kind what its samples are, in words.
	Rate, Channels int
	Kind           string
	read           func(into []float32) (int, error)
	remarks        []string
	// mix is how much of each channel the one has: the mean of all where nothing else is known.
	mix []float32
	// sides measures two channels while they are read; nil otherwise.
	sides *sides
}

// mixed makes one sample of the channels of a moment.
func (s *Stream) mixed(frame []float32) float32 {
	if s.sides != nil && len(frame) == 2 {
		s.sides.add(frame[0], frame[1])
	}
	sum := float32(0)
	for c, value := range frame {
		sum += value * s.mix[c]
	}
	return sum
}

// Read fills a piece with samples from -1 to 1 and says how many it has; io.EOF at the end.
func (s *Stream) Read(into []float32) (int, error) { return s.read(into) }

// Remarks are what was not as the file said, as far as it was read.
func (s *Stream) Remarks() []string { return s.remarks }

// MostRate and MostChannels bound what is read.
const (
	MostRate     = 192000
	MostChannels = 32
)

// Open begins to read a file. Its error says what was found where, and what can be read.
func Open(r io.Reader) (*Stream, error) {
	buffered := bufio.NewReaderSize(r, 1<<16)
	head, err := buffered.Peek(12)
	if err != nil && !errors.Is(err, io.EOF) {
		return nil, err
	}
	switch {
	case len(head) == 0:
		return nil, errors.New("the file is empty")
	case len(head) == 12 && (string(head[:4]) == "RIFF" || string(head[:4]) == "RF64") && string(head[8:]) == "WAVE":
		return openWAV(buffered)
	case len(head) >= 4 && string(head[:4]) == "fLaC":
		return openFLAC(buffered)
	}
	return nil, fmt.Errorf("this is neither a WAV nor a FLAC file: it begins with %q", head[:min(4, len(head))])
}

func (s *Stream) check() error {
	switch {
	case s.Rate < 1 || s.Rate > MostRate:
		return fmt.Errorf("the file says %d samples a second; 1 to %d can be read", s.Rate, MostRate)
	case s.Channels < 1 || s.Channels > MostChannels:
		return fmt.Errorf("the file says %d channels; 1 to %d can be read", s.Channels, MostChannels)
	}
	s.mix = make([]float32, s.Channels)
	for c := range s.mix {
		s.mix[c] = 1 / float32(s.Channels)
	}
	return nil
}
