package listen

// Sounding is what sounds at this moment, as far as the last 30 ms tell: to be shown at once, before a note is
// certain.
type Sounding struct {
	// Pitch is a MIDI number with its cents as a share; it counts where Voiced.
	Pitch  float64
	Voiced bool
	// Level is that of the last 10 ms, in dB below full scale.
	Level float64
}

// soundingDepth is the difference function up to which a pitch is shown at once.
const soundingDepth = 0.15

// Sounding looks at the newest sound. Both of the last two frames must have the same pitch, so that a stroke
// of the pick is not taken for a note.
func (l *Listener) Sounding() Sounding {
	f := l.frames
	end := f.first + len(f.samples)
	now := Sounding{Level: f.levelAt(end - Hop)}
	if now.Level < f.floor.floor+2*aboveFloor || now.Level < silence {
		return now
	}
	first, ok := l.pitchBefore(end - Hop)
	second, same := l.pitchBefore(end)
	if ok && same && first-second < 0.5 && second-first < 0.5 {
		now.Pitch, now.Voiced = second, true
	}
	return now
}

// pitchBefore is the clear pitch of the frame that ends at a sample: of the short frame, or of the long one for
// low strings.
func (l *Listener) pitchBefore(end int) (float64, bool) {
	f := l.frames
	clear := func(dips []candidate) (float64, bool) {
		for _, c := range shared(dips) {
			if c.depth < soundingDepth {
				return c.pitch, true
			}
		}
		return 0, false
	}
	if pitch, ok := clear(dipsOf(f.short.of(f.cut(end-f.short.length(), f.short.length()), alone), Rate, firstLag, shortLags, nil)); ok {
		return pitch, true
	}
	from := (end-f.first)/longEvery - f.long.length()
	slow := make([]float32, f.long.length())
	for n := range slow {
		if i := from + n; i >= 0 && i < len(f.slow) {
			slow[n] = f.slow[i]
		}
	}
	return clear(dipsOf(f.long.of(slow, alone), Rate/longEvery, firstLongLag, longLags, nil))
}
