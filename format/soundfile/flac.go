package soundfile

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"math"

	"github.com/mewkiz/flac"
)

func openFLAC(r *bufio.Reader) (*Stream, error) {
	file, err := guarded(func() (*flac.Stream, error) { return flac.New(r) })
	if err != nil {
		return nil, fmt.Errorf("the beginning of the FLAC file cannot be read: %w", err)
	}
	s := &Stream{Rate: int(file.Info.SampleRate), Channels: int(file.Info.NChannels), Kind: fmt.Sprintf("%d bits, FLAC", file.Info.BitsPerSample)}
	if err := s.check(); err != nil {
		return nil, err
	}
	scale := float32(math.Exp2(float64(file.Info.BitsPerSample) - 1))
	waiting := []float32{}
	ended := false
	s.read = func(into []float32) (int, error) {
		n := 0
		for n < len(into) {
			if len(waiting) > 0 {
				k := copy(into[n:], waiting)
				waiting = waiting[k:]
				n += k
				continue
			}
			if ended {
				return n, io.EOF
			}
			block, err := guarded(func() ([]float32, error) { return s.nextBlock(file, scale) })
			if err != nil {
				ended = true
				if !errors.Is(err, io.EOF) {
					s.remarks = append(s.remarks, fmt.Sprintf("the FLAC file can be read no further: %s", err))
				}
				continue
			}
			waiting = block
		}
		return n, nil
	}
	return s, nil
}

// nextBlock is the next block of the file as one channel.
func (s *Stream) nextBlock(file *flac.Stream, scale float32) ([]float32, error) {
	block, err := file.ParseNext()
	if err != nil {
		return nil, err
	}
	if len(block.Subframes) != s.Channels {
		return nil, fmt.Errorf("a block has %d channels, and the file says %d", len(block.Subframes), s.Channels)
	}
	out, frame := make([]float32, len(block.Subframes[0].Samples)), make([]float32, s.Channels)
	for n := range out {
		for c, channel := range block.Subframes {
			frame[c] = 0
			if n < len(channel.Samples) {
				frame[c] = float32(channel.Samples[n]) / scale
			}
		}
		out[n] = s.mixed(frame)
	}
	return out, nil
}

// guarded turns a panic of the decoder over a file that lies into an error.
func guarded[T any](read func() (T, error)) (result T, err error) {
	defer func() {
		if p := recover(); p != nil {
			err = fmt.Errorf("what it says cannot be: %v", p)
		}
	}()
	return read()
}
