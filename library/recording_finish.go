package library

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"io"
	"os"

	"undaris/core/take"
	"undaris/format/document"
	"undaris/format/midifile"
	"undaris/format/soundfile"
)

// Finished is what has become of a recording.
type Finished struct {
	Draft   document.Take
	Notes   []take.Note
	Sound   *document.TakeSound
	Remarks []string
}

// Finish hears a recording to its end and keeps its sound. It stays among the parts until Discard, so that nothing
// is lost if the take cannot be kept.
func (r *Recordings) Finish(ctx context.Context, id string) (Finished, error) {
	one, err := r.about(id)
	if err != nil {
		return Finished{}, err
	}
	out := Finished{Draft: one.Draft}
	var listener *take.Listener
	clipped := 0
	if running, err := r.find(id); err == nil {
		running.mutex.Lock()
		defer running.mutex.Unlock()
		listener, clipped = running.listener, running.clipped
		out.Draft = running.Draft
		if running.file != nil {
			if err := running.file.Sync(); err != nil {
				return out, err
			}
		}
	}
	path, err := r.sounds.PartPath(id + ".part")
	if err != nil {
		return out, err
	}
	file, err := os.Open(path)
	if err != nil {
		return out, err
	}
	defer func() { _ = file.Close() }()
	switch one.Kind {
	case FromKeys:
		return out, finishKeys(file, &out)
	case FromFile:
		return out, r.finishFile(ctx, file, &out)
	}
	bytesOfSound := one.Bytes - one.Bytes%2
	if listener == nil { // the program was ended in between: hear it again
		if listener, err = take.Listen(one.Rate); err != nil {
			return out, &InputError{err.Error()}
		}
		if err := hearAll(ctx, listener, io.LimitReader(file, bytesOfSound)); err != nil {
			return out, err
		}
		out.Remarks = append(out.Remarks, "the recording was cut off; what had come is here")
	}
	out.Notes = listener.Close()
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return out, err
	}
	sound := &document.TakeSound{Rate: one.Rate, Seconds: float64(bytesOfSound) / 2 / float64(one.Rate), Clipped: clipped}
	sound.Hash, sound.Bytes, err = r.sounds.Keep(io.MultiReader(bytes.NewReader(soundfile.WAVHeader(one.Rate, bytesOfSound)), io.LimitReader(file, bytesOfSound)))
	out.Sound = sound
	return out, err
}

// hearAll hears samples of 16 bits to their end.
func hearAll(ctx context.Context, listener *take.Listener, from io.Reader) error {
	piece := make([]byte, 1<<15)
	for {
		if err := ctx.Err(); err != nil {
			return err
		}
		n, err := io.ReadFull(from, piece)
		listener.Hear(samplesOf(piece[:n-n%2]))
		if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
			return nil
		}
		if err != nil {
			return err
		}
	}
}

// finishFile hears a file, and keeps it as one channel of 16 bits.
func (r *Recordings) finishFile(ctx context.Context, file *os.File, out *Finished) error {
	head := make([]byte, 4)
	if _, err := io.ReadFull(file, head); err != nil {
		return &InputError{"the file is empty"}
	}
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return err
	}
	if string(head) == "MThd" {
		data, err := io.ReadAll(io.LimitReader(file, 8<<20))
		if err != nil {
			return err
		}
		keys, remarks, err := midifile.ReadKeys(data)
		if err != nil {
			return &InputError{err.Error()}
		}
		out.Notes, out.Remarks = take.NotesOfKeys(keys), remarks
		return nil
	}
	stream, err := soundfile.Open(file)
	if err != nil {
		return &InputError{err.Error()}
	}
	listener, err := take.Listen(stream.Rate)
	if err != nil {
		return &InputError{err.Error()}
	}
	// Its sound is written as it is heard; the header is made when the length is known.
	heard, written := io.Pipe()
	counted := make(chan int, 1)
	go func() {
		count, err := hearStream(ctx, stream, listener, written)
		counted <- count
		_ = written.CloseWithError(err)
	}()
	temporary, err := os.CreateTemp("", "undaris-sound-*")
	if err != nil {
		return err
	}
	defer func() { _ = os.Remove(temporary.Name()) }()
	defer func() { _ = temporary.Close() }()
	if _, err := io.Copy(temporary, heard); err != nil {
		_ = heard.CloseWithError(err)
		return err
	}
	count := <-counted
	if count == 0 {
		return &InputError{"the file has no sound"}
	}
	if _, err := temporary.Seek(0, io.SeekStart); err != nil {
		return err
	}
	out.Notes, out.Remarks = listener.Close(), append(out.Remarks, stream.Remarks()...)
	sound := &document.TakeSound{Rate: stream.Rate, Seconds: float64(count) / float64(stream.Rate)}
	sound.Hash, sound.Bytes, err = r.sounds.Keep(io.MultiReader(bytes.NewReader(soundfile.WAVHeader(stream.Rate, 2*int64(count))), bufio.NewReader(temporary)))
	out.Sound = sound
	return err
}

// hearStream hears a stream to its end, at most an hour of it, and writes its samples.
func hearStream(ctx context.Context, stream *soundfile.Stream, listener *take.Listener, to io.Writer) (count int, err error) {
	piece := make([]float32, 1<<14)
	for count < int(document.MaxTakeSeconds)*stream.Rate {
		if err := ctx.Err(); err != nil {
			return count, err
		}
		n, err := stream.Read(piece)
		if n > 0 {
			listener.Hear(piece[:n])
			count += n
			if _, err := to.Write(soundfile.PCM16(piece[:n])); err != nil {
				return count, err
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

// finishKeys reads what a MIDI instrument sent: a line of JSON an event.
func finishKeys(file io.Reader, out *Finished) error {
	events := []take.KeyEvent{}
	lines := bufio.NewScanner(file)
	for lines.Scan() {
		var e take.KeyEvent
		if err := json.Unmarshal(lines.Bytes(), &e); err != nil {
			out.Remarks = append(out.Remarks, "the recording was cut off; what had come is here")
			break
		}
		events = append(events, e)
		if len(events) >= mostKeys {
			break
		}
	}
	out.Notes = take.NotesOfKeys(events)
	return lines.Err()
}
