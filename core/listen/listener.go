package listen

// Listener hears notes in sound that comes in pieces. It makes no difference in what pieces.
type Listener struct {
	resampler *resampler
	frames    *frames
	onsets    *onsetFinder
	tracker   *tracker
	novelty   *noveltyDetector
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
	f, n := newFrames(), newNoveltyDetector()
	return &Listener{
		resampler: r, frames: f, onsets: newOnsetFinder(), tracker: &tracker{}, novelty: n, segments: &segmenter{sound: f, detector: n}, strokes: newStrokeFinder(),
	}, nil
}

// Hear takes the next samples in, from -1 to 1.
func (l *Listener) Hear(samples []float32) {
	l.take(l.resampler.write(samples, nil))
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
				o := onset{seconds: l.frames.sharpest(k), frame: k, flux: l.onsets.flux[k], soft: l.onsets.flux[k] < onsetLeast}
				l.segments.onsets = append(l.segments.onsets, o)
				if !o.soft {
					struck = &o
				}
			}
			l.strokes.add(f, struck)
			l.segments.judge(l.onsets.made() - onsetApart - 1)
			l.segments.frames = l.tracker.add(f, l.segments.frames)
		}
		l.segments.work(false)
		l.frames.forget((l.segments.done - keepFrames) * Hop)
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
