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
			block, err := guarded(func() ([]float32, error) { return nextBlock(file, scale) })
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

// nextBlock is the next frame of the file as one channel.
func nextBlock(file *flac.Stream, scale float32) ([]float32, error) {
	frame, err := file.ParseNext()
	if err != nil {
		return nil, err
	}
	if len(frame.Subframes) == 0 {
		return nil, errors.New("a frame has no channels")
	}
	block := make([]float32, len(frame.Subframes[0].Samples))
	for _, channel := range frame.Subframes {
		for n, sample := range channel.Samples {
			if n < len(block) {
				block[n] += float32(sample) / scale / float32(len(frame.Subframes))
			}
		}
	}
	return block, nil
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
