package midifile

import (
	"context"
	"fmt"
	"slices"
	"sort"

	"gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"

	"undaris/core/chart"
	"undaris/core/listen"
)

// wheelCents is how far the wheel goes either way where nothing says another range: a whole step.
const wheelCents = 200.0

// ReadKeys reads what was played out of a file, in seconds by its own tempos; drums, on channel 10, are left
// out, and so is what comes after an hour. Its error is that of a file that cannot be read, or the context's where nobody
// waits any more.
func ReadKeys(ctx context.Context, data []byte) (keys []listen.KeyEvent, remarks []string, err error) {
	defer tripped(&err)
	file, scale, err := open(data)
	if err != nil {
		return nil, nil, err
	}
	type change struct {
		tick    int
		seconds float64
		perTick float64
	}
	changes := []change{{perTick: 60.0 / 120 / chart.TicksPerQuarter}}
	tempos := map[int]float64{}
	ticks := []int{}
	walk := func(see func(tick int, m smf.Message)) error {
		for _, track := range file.Tracks {
			at := 0.0
			for n, event := range track {
				if n%4096 == 0 && ctx.Err() != nil {
					return ctx.Err()
				}
				at += float64(event.Delta)
				see(int(at*scale+0.5), event.Message)
			}
		}
		return ctx.Err()
	}
	if err := walk(func(tick int, m smf.Message) {
		var bpm float64
		if m.GetMetaTempo(&bpm) && bpm > 0 {
			if _, known := tempos[tick]; !known {
				ticks = append(ticks, tick)
			}
			tempos[tick] = 60 / bpm / chart.TicksPerQuarter
		}
	}); err != nil {
		return nil, nil, err
	}
	slices.Sort(ticks)
	for _, tick := range ticks {
		last := changes[len(changes)-1]
		next := change{tick, last.seconds + float64(tick-last.tick)*last.perTick, tempos[tick]}
		if tick == last.tick {
			changes[len(changes)-1] = next
		} else {
			changes = append(changes, next)
		}
	}
	seconds := func(tick int) float64 {
		n := sort.Search(len(changes)-1, func(n int) bool { return changes[n+1].tick > tick })
		return changes[n].seconds + float64(tick-changes[n].tick)*changes[n].perTick
	}
	drums, late := 0, 0
	keep := func(e listen.KeyEvent) {
		if e.Seconds > listen.MaxSeconds || len(keys) >= listen.MaxKeyEvents {
			late++
			return
		}
		keys = append(keys, e)
	}
	err = walk(func(tick int, m smf.Message) {
		message := midi.Message(m)
		var channel, key, velocity uint8
		var relative int16
		var absolute uint16
		switch {
		case message.GetNoteOn(&channel, &key, &velocity), message.GetNoteOff(&channel, &key, &velocity):
			if channel == 9 {
				drums++
				return
			}
			if message.Is(midi.NoteOffMsg) {
				velocity = 0
			}
			keep(listen.KeyEvent{Seconds: seconds(tick), Channel: int(channel), Key: int(key), Velocity: int(velocity)})
		case message.GetPitchBend(&channel, &relative, &absolute):
			keep(listen.KeyEvent{Seconds: seconds(tick), Channel: int(channel), Wheel: true, Cents: float64(relative) / 8192 * wheelCents})
		}
	})
	if err != nil {
		return nil, nil, err
	}
	if late > 0 {
		remarks = append(remarks, fmt.Sprintf("a take lasts an hour and has %d events at most: %d messages after that are left out", listen.MaxKeyEvents, late))
	}
	if drums > 0 {
		remarks = append(remarks, fmt.Sprintf("channel 10, drums, is left out: %d messages", drums))
	}
	if len(keys) == 0 {
		return nil, remarks, fmt.Errorf("the file has no notes beside drums")
	}
	return keys, remarks, nil
}
