package take

// Listener hears notes in sound that comes in pieces. It makes no difference in what pieces.
type Listener struct {
	resampler *resampler
	frames    *frames
	onsets    *onsetFinder
	tracker   *tracker
	novelty   *novelty
	segments  *segmenter
	strokes   *strokeFinder
	closed    bool
}

// Listen returns a listener for one channel of sound of so many samples a second, MinRate to MaxRate.
func Listen(rate int) (*Listener, error) {
	r, err := newResampler(rate)
	if err != nil {
		return nil, err
	}
	f := newFrames()
	return &Listener{resampler: r, frames: f, onsets: newOnsetFinder(), tracker: &tracker{}, novelty: newNovelty(), segments: &segmenter{sound: f}, strokes: newStrokeFinder()}, nil
}

// Hear takes the next samples in, from -1 to 1.
func (l *Listener) Hear(samples []float32) {
	l.take(l.resampler.write(samples, nil))
	l.segments.work(false)
}

// take goes on with samples of Rate, not more than half a second at a time: the times of onsets are read from
// the samples that are kept.
func (l *Listener) take(samples []float32) {
	for len(samples) > 0 {
		part := samples[:min(len(samples), Rate/2)]
		samples = samples[len(part):]
		for _, f := range l.frames.add(part, nil) {
			var struck *onset
			if k := l.onsets.add(f.flux); k >= 0 {
				struck = &onset{seconds: l.frames.sharpest(k), frame: k, flux: l.onsets.flux[k]}
				l.segments.onsets = append(l.segments.onsets, *struck)
			}
			l.strokes.add(f, struck)
			l.judgeNovelty(l.onsets.made() - onsetApart - 1)
			l.segments.frames = l.tracker.add(f, l.segments.frames)
		}
	}
}

// judgeNovelty looks at what is new at the onsets whose sound is whole, when onsets up to a frame are known.
func (l *Listener) judgeNovelty(known int) {
	all := l.segments.onsets
	for n := range all {
		o := &all[n]
		if o.judged || o.frame+noveltyFrames > known {
			continue
		}
		until := noveltyLongest
		if n+1 < len(all) {
			until = min(until, int((all[n+1].seconds-o.seconds)*Rate)-noveltyLag)
		}
		o.fresh, o.judged = l.novelty.of(l.frames, o.seconds, until), true
	}
}

// Close hears what is left, and returns all notes.
func (l *Listener) Close() []Note {
	if !l.closed {
		l.closed = true
		l.take(l.resampler.flush(nil))
		l.take(make([]float32, reach+(onsetApart+noveltyFrames+4)*Hop))
		l.segments.frames = l.tracker.flush(l.segments.frames)
		l.segments.work(true)
		l.segments.flush()
	}
	return l.segments.notes
}

// Notes are the notes that are certain so far.
func (l *Listener) Notes() []Note { return l.segments.notes }

// NotesOf hears the whole of a sound at once.
func NotesOf(samples []float32, rate int) ([]Note, error) {
	l, err := Listen(rate)
	if err != nil {
		return nil, err
	}
	l.Hear(samples)
	return l.Close(), nil
}
