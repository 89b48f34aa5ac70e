package main

import (
	"bufio"
	"bytes"
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"os/exec"
	"strconv"
	"strings"

	"undaris/core/listen"
	"undaris/core/listen/evaluation"
	"undaris/format/soundfile"
	"undaris/web"
)

// ear writes how well notes are heard, as a table in Markdown.
func ear(args []string, stdout, stderr io.Writer) error {
	flags := flag.NewFlagSet("ear", flag.ContinueOnError)
	flags.SetOutput(stderr)
	recorded := flags.Bool("recorded", false, "only the recorded notes that ship, which the ear was not tuned on")
	beside := flags.Bool("beside", false, "the note detector aubionotes on the same sounds beside it, where it is installed")
	switch err := flags.Parse(args); {
	case errors.Is(err, flag.ErrHelp):
		return nil
	case err != nil:
		return err
	case flags.NArg() > 0:
		return errors.New("ear takes --recorded and --beside")
	}
	sampler, err := soundfile.GuitarSamples(web.Samples())
	if err != nil {
		return err
	}
	voices := []evaluation.Voice{{Name: "recorded notes", Render: sampler.Render}}
	if !*recorded {
		voices = append(evaluation.Plucked(), voices...)
	}
	ears := []evaluation.Ear{{Name: "Undaris", Hear: listen.NotesOf}}
	if *beside {
		program, err := exec.LookPath("aubionotes")
		if err != nil {
			return fmt.Errorf("aubionotes is not installed (Debian's package aubio-tools): %w", err)
		}
		other := func(earlier float64) func([]float32, int) ([]listen.Note, error) {
			return func(samples []float32, rate int) ([]listen.Note, error) {
				notes, err := aubioNotes(program, samples, rate)
				for n := range notes {
					notes[n].Onset -= earlier
				}
				return notes, err
			}
		}
		// It reports a note when it is sure of it: taking that off is fair to what it hears.
		ears = append(ears, evaluation.Ear{Name: "aubionotes", Hear: other(0)}, evaluation.Ear{Name: "aubionotes, 45 ms earlier", Hear: other(otherLag)})
	}
	return evaluation.Write(stdout, ears, voices)
}

// otherLag is how many seconds late the other program's onsets are in the middle, measured.
const otherLag = 0.045

// aubioNotes has another program hear a sound: it prints a line a note, its pitch, its beginning and its end.
func aubioNotes(program string, samples []float32, rate int) ([]listen.Note, error) {
	file, err := os.CreateTemp("", "measure-ear-*.wav")
	if err != nil {
		return nil, err
	}
	defer os.Remove(file.Name())
	if _, err := file.Write(soundfile.WAV(samples, rate)); err != nil {
		return nil, err
	}
	if err := file.Close(); err != nil {
		return nil, err
	}
	printed, err := exec.Command(program, "-i", file.Name()).Output()
	if err != nil {
		return nil, fmt.Errorf("%s: %w", program, err)
	}
	notes := []listen.Note{}
	for lines := bufio.NewScanner(bytes.NewReader(printed)); lines.Scan(); {
		words := strings.Fields(lines.Text())
		if len(words) != 3 {
			continue
		}
		values := [3]float64{}
		for n, word := range words {
			if values[n], err = strconv.ParseFloat(word, 64); err != nil {
				return nil, fmt.Errorf("%s printed %q", program, lines.Text())
			}
		}
		notes = append(notes, listen.Note{Pitch: values[0], Onset: values[1], Length: values[2] - values[1], Confidence: 1, Attack: listen.Picked})
	}
	return notes, nil
}
