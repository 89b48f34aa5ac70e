package soundfile

import (
	"bytes"
	"fmt"

	"github.com/jfreymuth/oggvorbis"
)

// ReadVorbis reads an Ogg Vorbis file as one channel, from -1 to 1, and its samples a second.
func ReadVorbis(data []byte) ([]float32, int, error) {
	samples, format, err := oggvorbis.ReadAll(bytes.NewReader(data))
	if err != nil {
		return nil, 0, fmt.Errorf("this is no Ogg Vorbis file that can be read: %w", err)
	}
	return meanOfChannels(samples, format.Channels), format.SampleRate, nil
}

// meanOfChannels is the average of channels that alternate.
func meanOfChannels(samples []float32, channels int) []float32 {
	if channels == 1 {
		return samples
	}
	out := make([]float32, len(samples)/channels)
	for n := range out {
		sum := float32(0)
		for c := range channels {
			sum += samples[n*channels+c]
		}
		out[n] = sum / float32(channels)
	}
	return out
}
