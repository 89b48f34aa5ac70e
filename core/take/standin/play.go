package standin

import (
	"math"
	"math/rand/v2"

	"undaris/core/chart"
	"undaris/core/listen/pluck"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// How the player's hands move, our choice: times in seconds, cents on either side of the pitch.
const (
	bendSeconds    = 0.13
	releaseSeconds = 0.12
	vibratoHertz   = 5.4
	vibratoCents   = 24
	vibratoDelay   = 0.3 // seconds
	pickedLoudness = 0.42
	slurLoudness   = 0.32
	accentLoudness = 0.6
	ghostLoudness  = 0.14
	// held is the share of its written length that a note sounds.
	held = 0.94
)

// Playing is a line as it was played.
type Playing struct {
	Notes []pluck.Played
	// Events are the indices of the events that the notes play.
	Events []int
	// Seconds is how long it takes, the last note rung out.
	Seconds float64
}

// Play plays a line over a chart from its tick `from` on, which sounds so many seconds after the beginning; the
// line's ticks are those of the chart.
func Play(line phrase.Phrase, i neck.Instrument, c chart.Chart, from int, start float64, f Faults) Playing {
	chance := rand.New(rand.NewPCG(f.Seed, 77))
	if f.Swing > 0 {
		c.Swing = f.Swing
	}
	time := c.Timeline()
	perTick := 60 / float64(c.Tempo*c.Meter.BeatTicks())
	seconds := func(tick int) float64 {
		return start + float64(time.Swung(tick)-from)*perTick
	}
	p := Playing{}
	for n, e := range line.Events {
		uneven, miss, wrong := chance.NormFloat64(), chance.Float64(), chance.Float64()
		up := chance.IntN(2) == 0
		if e.Tick < from || miss < f.Missed || e.Tied && extend(&p, line, n, seconds) {
			continue
		}
		bars := float64(e.Tick-from) / float64(c.Meter.BarTicks())
		// The middle of the distances of a normal distribution is 0.6745 of its deviation.
		late := (f.Late + f.Uneven/0.6745*uneven + f.Drift*bars) / 1000
		note := pluck.Played{
			Onset: math.Max(0, seconds(e.Tick)+late), Pitch: float64(i.Pitch(e.Place)), String: e.String, Attack: pluck.Picked, Loudness: loudness(e) * math.Pow(10, -f.Soft/20),
		}
		note.Length = (seconds(e.End()) - seconds(e.Tick)) * held
		if e.Staccato || e.Mute {
			note.Length *= 0.5
		}
		if wrong < f.Wrong {
			note.Pitch--
			if up {
				note.Pitch += 2
			}
		}
		shape(&note, e, line, n, f.Flat)
		p.Notes, p.Events = append(p.Notes, note), append(p.Events, n)
		p.Seconds = math.Max(p.Seconds, note.Onset+note.Length+0.5)
	}
	return p
}

// extend lets the note before ring on as a tied event, and says whether it is there.
func extend(p *Playing, line phrase.Phrase, n int, seconds func(int) float64) bool {
	last := len(p.Notes) - 1
	if last < 0 || n == 0 || p.Events[last] != n-1 || line.Events[n-1].String != line.Events[n].String {
		return false
	}
	e := line.Events[n]
	p.Notes[last].Length += (seconds(e.End()) - seconds(e.Tick))
	p.Events[last] = n
	return true
}

func loudness(e phrase.Event) float64 {
	switch {
	case e.Accent:
		return accentLoudness
	case e.Ghost:
		return ghostLoudness
	case e.HammerOn || e.PullOff:
		return slurLoudness
	}
	return pickedLoudness
}

// shape gives a note its attack and the way of its pitch.
func shape(note *pluck.Played, e phrase.Event, line phrase.Phrase, n int, flat float64) {
	sounds := line.Slurred(n)
	switch {
	case e.HammerOn && sounds:
		note.Attack = pluck.Hammered
	case e.PullOff && sounds:
		note.Attack = pluck.Pulled
	case e.SlideFrom > 0:
		curve := pluck.SlideFrom(e.SlideFrom - e.Fret)
		early := curve[len(curve)-1].Seconds
		note.Curve = curve
		note.Onset = math.Max(0, note.Onset-early)
		note.Length += early
		if n > 0 && line.Events[n-1].String == e.String && line.Events[n-1].End() == e.Tick && line.Events[n-1].Fret == e.SlideFrom {
			note.Attack = pluck.Slid
		}
		return
	}
	top := float64(e.Bend)*50 - flat
	length := note.Length
	switch {
	case e.Bend > 0 && e.PreBend:
		note.Curve = []pluck.Point{{Cents: top}}
	case e.Bend > 0:
		rise := math.Min(bendSeconds, length/3)
		stay := math.Min(0.05, length/6)
		note.Curve = []pluck.Point{{}, {Seconds: stay}}
		for k := 1; k <= 6; k++ {
			x := float64(k) / 6
			note.Curve = append(note.Curve, pluck.Point{Seconds: stay + x*rise, Cents: top * (0.5 - 0.5*math.Cos(math.Pi*x))})
		}
	default:
		top = 0
	}
	end := length
	if e.Bend > 0 && e.Release {
		fall := math.Min(releaseSeconds, length/4)
		end = length*2/3 - fall
		note.Curve = append(note.Curve, pluck.Point{Seconds: end, Cents: top}, pluck.Point{Seconds: end + fall, Cents: 0})
		return
	}
	if e.Vibrato && length > vibratoDelay+0.2 {
		for t := vibratoDelay; t < end; t += 0.01 {
			note.Curve = append(note.Curve, pluck.Point{Seconds: t, Cents: top + vibratoCents*math.Sin(2*math.Pi*vibratoHertz*(t-vibratoDelay))})
		}
	}
}
