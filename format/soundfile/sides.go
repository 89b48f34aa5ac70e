package soundfile

import (
	"errors"
	"io"
	"math"
)

// sides measures what two channels have in common.
type sides struct{ left, right, product float64 }

func (s *sides) add(left, right float32) {
	s.left += float64(left) * float64(left)
	s.right += float64(right) * float64(right)
	s.product += float64(left) * float64(right)
}

// The bounds between one guitar on two channels and something else (our choices).
const (
	// turnedOver is the correlation below which one side is the other turned over, as a box with balanced outputs leaves it.
	turnedOver = -0.7
	// silentBelow is the energy of a side, as a share of the other's, below which there is nothing on it: -40 dB.
	silentBelow = 1e-4
)

// mix is how much of each side one guitar has that was recorded on both, and what is said of it; nil where it is the mean.
func (s sides) mix() (mix []float32, remark string) {
	switch {
	case s.left == 0 && s.right == 0:
		return nil, ""
	case s.right < s.left*silentBelow:
		return []float32{1, 0}, "there is nothing on the right side; the left one alone was heard"
	case s.left < s.right*silentBelow:
		return []float32{0, 1}, "there is nothing on the left side; the right one alone was heard"
	case s.product < turnedOver*math.Sqrt(s.left*s.right):
		return []float32{0.5, -0.5}, "one side of the sound is the other turned over, so that both together are silent; it was turned back"
	}
	return nil, ""
}

// OpenGuitar is Open of what one guitar has played. A first reading measures two channels: one that is turned over is
// turned back, and one without sound is left out, so that the guitar is as loud as it was recorded. What was done is said
// among the remarks. proceed is asked from time to time whether anybody still waits; its error ends the reading.
func OpenGuitar(file io.ReadSeeker, proceed func() error) (*Stream, error) {
	measured, err := measureSides(file, proceed)
	if err != nil {
		return nil, err
	}
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return nil, err
	}
	stream, err := Open(file)
	if err != nil {
		return nil, err
	}
	if mix, remark := measured.mix(); mix != nil {
		stream.mix, stream.remarks = mix, append(stream.remarks, remark)
	}
	return stream, nil
}

// measureSides reads a file of two channels to its end, and nothing of any other.
func measureSides(file io.Reader, proceed func() error) (sides, error) {
	measured := sides{}
	stream, err := Open(file)
	if err != nil || stream.Channels != 2 {
		return measured, err
	}
	stream.sides = &measured
	piece := make([]float32, 1<<14)
	for {
		if err := proceed(); err != nil {
			return measured, err
		}
		if _, err := stream.Read(piece); errors.Is(err, io.EOF) {
			return measured, nil
		} else if err != nil {
			return measured, err
		}
	}
}
