package recording

import (
	"bufio"
	"bytes"
	"context"
	"errors"
	"io"
	"math"
	"os"

	"undaris/core/listen"
	"undaris/format/document"
	"undaris/format/midifile"
	"undaris/format/soundfile"
	"undaris/store"

	"undaris/library/pieces"
)

// Finished is what has become of a recording.
type Finished struct {
	Draft   document.Take
	Notes   []listen.Note
	Sound   *document.TakeSound
	Remarks []string
}

// MakeTake hears a recording to its end, keeps its sound, and has the take that becomes of it kept; then what had come
// piece by piece is removed. Where the take cannot be kept it stays, so that nothing is lost. One without sound or keys
// becomes no take.
func (r *Recordings) MakeTake(ctx context.Context, id string, keep func(Finished) error) error {
	err := r.withTurn(ctx, id, func(one *recording) error {
		done, sound, err := r.finish(ctx, one)
		if err != nil {
			return err
		}
		defer sound.close()
		return r.sounds.WhileKept(func() error {
			if done.Sound, err = sound.keep(r.sounds); err != nil {
				return err
			}
			return keep(done)
		})
	})
	if err != nil {
		return err
	}
	return r.Discard(context.WithoutCancel(ctx), id)
}

// unkept is the sound of a recording that is not kept yet; without samples where there is none.
type unkept struct {
	samples io.Reader
	about   document.TakeSound
	// temporary is the file that its samples lie in; nil where that is the recording's own.
	temporary *os.File
}

func (u unkept) keep(sounds *store.Sounds) (*document.TakeSound, error) {
	if u.samples == nil {
		return nil, nil
	}
	var err error
	bytesOfSound := 2 * int64(math.Round(u.about.Seconds*float64(u.about.Rate)))
	u.about.Hash, u.about.Bytes, err = sounds.Keep(io.MultiReader(bytes.NewReader(soundfile.WAVHeader(u.about.Rate, bytesOfSound)), u.samples))
	return &u.about, err
}

func (u unkept) close() {
	if u.temporary != nil {
		_ = u.temporary.Close()
		_ = os.Remove(u.temporary.Name())
	}
}

// finish hears a recording to its end, and makes of it what a take is made from. The caller has the turn.
func (r *Recordings) finish(ctx context.Context, one *recording) (Finished, unkept, error) {
	out := Finished{Draft: one.Draft}
	if one.cutOff {
		out.Remarks = append(out.Remarks, "the recording was cut off; what had come is here")
	}
	if !one.kept() || one.file == nil {
		return out, unkept{}, store.ErrNotFound
	}
	if one.Bytes == 0 {
		return out, unkept{}, &pieces.InputError{Detail: "no sound and no key has come: there is no take to keep"}
	}
	if err := one.file.Sync(); err != nil {
		return out, unkept{}, store.OfTheDisk(err)
	}
	from := io.NewSectionReader(one.file, 0, one.Bytes)
	switch one.Kind {
	case FromKeys:
		out.Notes = listen.NotesOfKeys(one.keys)
		return out, unkept{}, nil
	case FromFile:
		sound, err := r.finishFile(ctx, from, &out)
		return out, sound, err
	}
	// Its notes are known once; if the take cannot be kept, and this is tried again, it is heard again.
	out.Notes = one.listener.Close()
	one.ready = false
	about := document.TakeSound{Rate: one.Rate, Seconds: float64(one.Bytes) / 2 / float64(one.Rate), Clipped: one.clipped}
	return out, unkept{samples: from, about: about}, nil
}

// hearAll hears samples of 16 bits to their end, and counts those that were as loud as can be.
func hearAll(ctx context.Context, listener *listen.Listener, from io.Reader, clipped *int) error {
	piece := make([]byte, 1<<15)
	for {
		if err := ctx.Err(); err != nil {
			return err
		}
		n, err := io.ReadFull(from, piece)
		samples := samplesOf(piece[:n-n%2])
		*clipped += clippedOf(samples)
		listener.Hear(samples)
		if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
			return nil
		}
		if err != nil {
			return err
		}
	}
}

// finishFile hears a file; its sound is one channel of 16 bits.
func (r *Recordings) finishFile(ctx context.Context, file *io.SectionReader, out *Finished) (unkept, error) {
	head := make([]byte, 4)
	if _, err := io.ReadFull(file, head); err != nil {
		return unkept{}, &pieces.InputError{Detail: "the file has only a few bytes"}
	}
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return unkept{}, err
	}
	if string(head) == "MThd" {
		data, err := io.ReadAll(io.LimitReader(file, 8<<20))
		if err != nil {
			return unkept{}, err
		}
		keys, remarks, err := midifile.ReadKeys(ctx, data)
		if ctx.Err() != nil {
			return unkept{}, ctx.Err()
		}
		if err != nil {
			return unkept{}, &pieces.InputError{Detail: err.Error()}
		}
		out.Notes, out.Remarks = listen.NotesOfKeys(keys), append(out.Remarks, remarks...)
		return unkept{}, nil
	}
	stream, err := soundfile.OpenGuitar(file, ctx.Err)
	if ctx.Err() != nil {
		return unkept{}, ctx.Err()
	}
	if err != nil {
		return unkept{}, &pieces.InputError{Detail: err.Error()}
	}
	listener, err := listen.Listen(stream.Rate)
	if err != nil {
		return unkept{}, &pieces.InputError{Detail: err.Error()}
	}
	// Its sound is written as it is heard; the header is made when the length is known.
	temporary, err := r.sounds.TempFile()
	if err != nil {
		return unkept{}, store.OfTheDisk(err)
	}
	sound := unkept{temporary: temporary, samples: temporary}
	samples := bufio.NewWriterSize(temporary, 1<<18)
	count, err := hearStream(ctx, stream, listener, samples)
	if err == nil {
		err = store.OfTheDisk(samples.Flush())
	}
	if err == nil && count == 0 {
		err = &pieces.InputError{Detail: "the file has no sound"}
	}
	if err == nil {
		_, err = temporary.Seek(0, io.SeekStart)
	}
	if err != nil {
		sound.close()
		return unkept{}, err
	}
	if count == mostSamples(stream.Rate) {
		out.Remarks = append(out.Remarks, "the file has an hour of sound or more; its first hour is here")
	}
	out.Notes, out.Remarks = listener.Close(), append(out.Remarks, stream.Remarks()...)
	sound.about = document.TakeSound{Rate: stream.Rate, Seconds: float64(count) / float64(stream.Rate)}
	return sound, nil
}

// hearStream hears a stream to its end, at most an hour of it, and writes its samples.
func hearStream(ctx context.Context, stream *soundfile.Stream, listener *listen.Listener, to io.Writer) (count int, err error) {
	piece := make([]float32, 1<<14)
	for count < mostSamples(stream.Rate) {
		if err := ctx.Err(); err != nil {
			return count, err
		}
		n, err := stream.Read(piece[:min(len(piece), mostSamples(stream.Rate)-count)])
		if n > 0 {
			listener.Hear(piece[:n])
			count += n
			if _, err := to.Write(soundfile.PCM16(piece[:n])); err != nil {
				return count, store.OfTheDisk(err)
			}
		}
		if errors.Is(err, io.EOF) {
			return count, nil
		}
		if err != nil {
			return count, err
		}
	}
	return count, nil
}

// mostSamples is how many samples a take has at most.
func mostSamples(rate int) int { return int(document.MaxTakeSeconds) * rate }
