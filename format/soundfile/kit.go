package soundfile

import (
	"encoding/json"
	"fmt"
	"io/fs"

	"undaris/core/listen/evaluation"
)

// highestBass is the pitch from which on a guitar has samples of its own.
const highestBass = 38

// GuitarSamples reads the recorded notes of a guitar, and of a bass below it, from a folder whose samples.json lists
// them.
func GuitarSamples(folder fs.FS) (evaluation.Sampler, error) {
	data, err := fs.ReadFile(folder, "samples.json")
	if err != nil {
		return nil, err
	}
	var parts map[string][]struct {
		File string
		MIDI float64
		Loop [2]float64
	}
	if err := json.Unmarshal(data, &parts); err != nil {
		return nil, fmt.Errorf("samples.json: %w", err)
	}
	sampler := evaluation.Sampler{}
	for _, part := range []string{"line", "bass"} {
		for _, one := range parts[part] {
			if part == "bass" && one.MIDI > highestBass {
				continue
			}
			file, err := fs.ReadFile(folder, one.File)
			if err != nil {
				return nil, err
			}
			samples, rate, err := ReadVorbis(file)
			if err != nil {
				return nil, fmt.Errorf("%s: %w", one.File, err)
			}
			sampler = append(sampler, evaluation.Sample{MIDI: one.MIDI, Samples: samples, Rate: rate, LoopFrom: one.Loop[0], LoopTo: one.Loop[1]})
		}
	}
	return sampler, nil
}
