package recording

import (
	"context"
	"errors"
	"fmt"
	"io"
	"math"
	"os"

	"undaris/core/listen"
	"undaris/core/listen/leak"
	"undaris/format/document"
	"undaris/format/soundfile"
	"undaris/library/pieces"
	"undaris/store"
)

// MostLeakSeconds is how long a take may be in which the band is looked for: both sounds are held at once.
const MostLeakSeconds = 600

// BandLeak looks for the band in the sound of a take: a recording of kind file is the band's own sound, which begins so
// many seconds after the take's. Where it is found the take's notes are those that are heard without it, and its remarks
// say so; the sound stays as it is.
func (r *Recordings) BandLeak(ctx context.Context, id string, d document.Take, start float64) (document.Take, leak.Leak, error) {
	if d.Sound == nil || d.Sound.Seconds > MostLeakSeconds {
		return d, leak.Leak{}, &pieces.InputError{Detail: fmt.Sprintf("the band is looked for in the sound of takes of up to %d minutes", MostLeakSeconds/60)}
	}
	path, err := r.sounds.PartPath(id + ".part")
	if err != nil {
		return d, leak.Leak{}, store.ErrNotFound
	}
	part, err := os.Open(path)
	if errors.Is(err, os.ErrNotExist) {
		return d, leak.Leak{}, store.ErrNotFound
	}
	if err != nil {
		return d, leak.Leak{}, err
	}
	defer func() { _ = part.Close() }()
	band, err := samplesFrom(ctx, part)
	if err != nil {
		return d, leak.Leak{}, err
	}
	sound, err := r.sounds.Open(d.Sound.Hash)
	if err != nil {
		return d, leak.Leak{}, err
	}
	defer func() { _ = sound.Close() }()
	recording, err := samplesFrom(ctx, sound)
	if err != nil {
		return d, leak.Leak{}, err
	}
	found := leak.Find(recording, band, start)
	if !found.Found {
		return d, found, nil
	}
	notes, err := listen.NotesOf(leak.Without(recording, band, start, found), listen.Rate)
	if err != nil {
		return d, found, err
	}
	d.Notes = document.TakeNotesOf(notes)
	return d.WithRemarks(leakText(found)), found, nil
}

func leakText(l leak.Leak) string {
	than := fmt.Sprintf("%d dB below your guitar", int(math.Round(-l.Decibels)))
	if l.Decibels > 0 {
		than = fmt.Sprintf("%d dB louder than your guitar", int(math.Round(l.Decibels)))
	}
	return "the band comes through the microphone, " + than + "; it was taken out before the notes were heard. With headphones more of them are heard right"
}

// samplesFrom are the samples of a file at listen.Rate, one channel, as long as a leak is looked for.
func samplesFrom(ctx context.Context, file io.Reader) ([]float32, error) {
	stream, err := soundfile.Open(file)
	if err != nil {
		return nil, &pieces.InputError{Detail: err.Error()}
	}
	all, piece := []float32{}, make([]float32, 1<<14)
	for len(all) < MostLeakSeconds*stream.Rate {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		n, err := stream.Read(piece)
		all = append(all, piece[:n]...)
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, err
		}
	}
	resampled, err := listen.Resampled(all, stream.Rate)
	if err != nil {
		return nil, &pieces.InputError{Detail: err.Error()}
	}
	return resampled, nil
}
