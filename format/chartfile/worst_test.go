package chartfile

import (
	"runtime"
	"runtime/metrics"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// mebi is the size that worst inputs are brought to.
const mebi = 1 << 20

// worst are texts of a mebibyte that a careless reader chokes on: by name, as each format would be
// handed them.
func worst() map[string]struct{ name, text string } {
	filled := func(unit string) string { return strings.Repeat(unit, (mebi-512)/len(unit)) }
	score := func(measure string) string {
		return `<score-partwise version="4.0"><part-list><score-part id="P1"><part-name>a</part-name></score-part></part-list><part id="P1">` +
			filled(measure) + `</part></score-partwise>`
	}
	return map[string]struct{ name, text string }{
		"one symbol":              {"a.txt", "| C" + filled("7") + " |"},
		"one symbol of accidents": {"a.txt", "| C7" + filled("b9") + " |"},
		"a million chords a bar":  {"a.txt", "| " + filled("C ") + "|"},
		"bars without end":        {"a.txt", filled("| C ")},
		"unread symbols":          {"a.txt", filled("| Hq7 ")},
		"open braces":             {"a.txt", "| C " + filled("{") + " |"},
		"open brackets":           {"a.txt", filled("[")},
		"headings":                {"a.txt", filled("key: C\n") + "| C |"},
		"repeats":                 {"a.txt", filled("|: C :|x9 ")},
		"ChordPro brackets":       {"a.cho", "{title: a}\n" + filled("[C")},
		"ChordPro braces":         {"a.cho", filled("{")},
		"ChordPro directives":     {"a.cho", filled("{key: C}\n")},
		"ChordPro grid":           {"a.cho", "{start_of_grid}\n" + filled("| C . . . ") + "\n{end_of_grid}\n"},
		"ChordPro words":          {"a.cho", "{title: a}\n" + filled("[Hq]a ")},
		"elements in each other":  {"a.musicxml", "<score-partwise>" + filled("<a>")},
		"measures":                {"a.musicxml", score("<measure number='1'/>")},
		"harmony":                 {"a.musicxml", score("<measure><harmony><root><root-step>C</root-step></root><kind>major</kind></harmony></measure>")},
		"repeats of a score":      {"a.musicxml", score("<measure><barline><repeat direction='forward'/></barline></measure>")},
		"MIDI of nothing":         {"a.mid", "MThd\x00\x00\x00\x06\x00\x01\xff\xff\x01\xe0" + filled("MTrk\x00\x00\x00\x00")},
		"MIDI without division":   {"a.mid", "MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x00MTrk" + filled("\x00")},
	}
}

// Each is read or refused, with a bounded list of faults.
func TestWorstInputs(t *testing.T) {
	for what, input := range worst() {
		r, _, err := Read(input.name, []byte(input.text), nil)
		if err != nil {
			assert.Less(t, len(err.Error()), 64_000, what)
			continue
		}
		assert.LessOrEqual(t, len(r.Unread), 51, what)
		assert.NoError(t, r.Chart.Check(), what)
	}
}

// BenchmarkWorstInputs says how long each takes, how much memory it asks for in all, and how much of it is
// held at once.
func BenchmarkWorstInputs(b *testing.B) {
	for what, input := range worst() {
		b.Run(what, func(b *testing.B) {
			b.ReportAllocs()
			peak := heldAtOnce(func() {
				for b.Loop() {
					_, _, _ = Read(input.name, []byte(input.text), nil)
				}
			})
			b.ReportMetric(float64(peak)/mebi, "peak-MiB")
		})
	}
}

// heldAtOnce is the most bytes of the heap in use while the work runs, above what was in use before,
// looked at twice a millisecond.
func heldAtOnce(work func()) uint64 {
	runtime.GC()
	inUse := func() uint64 {
		sample := []metrics.Sample{{Name: "/memory/classes/heap/objects:bytes"}}
		metrics.Read(sample)
		return sample[0].Value.Uint64()
	}
	before, done, peak := inUse(), make(chan struct{}), make(chan uint64)
	go func() {
		most := before
		tick := time.NewTicker(500 * time.Microsecond)
		defer tick.Stop()
		for {
			select {
			case <-done:
				peak <- most
				return
			case <-tick.C:
				most = max(most, inUse())
			}
		}
	}()
	work()
	close(done)
	return <-peak - before
}
