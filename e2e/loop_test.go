package e2e

import (
	"encoding/binary"
	"encoding/json"
	"fmt"
	"io"
	"math"
	"net/http"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// loop lets the page hear itself 200 ms later, as through a loudspeaker and a microphone, and has the browser say that its
// output takes so many seconds. It lies within the audio graph: a stream would add a queue of the browser, which is
// 15 to 25 ms long and another one each time that it is opened.
const loop = `(() => {
	const Context = AudioContext, connect = AudioNode.prototype.connect
	let context, input
	window.AudioContext = class extends Context { constructor(...more) { super(...more); context = this
		input = new DelayNode(this, { delayTime: 0.2, maxDelayTime: 1 }) } }
	Object.defineProperty(Context.prototype, 'outputLatency', { get: () => %g })
	AudioNode.prototype.connect = function (to, ...rest) {
		if (to instanceof AudioDestinationNode && this.context === context) connect.call(this, input)
		return connect.call(this, to, ...rest) }
	window.MediaStreamAudioSourceNode = function (of) {
		const source = new GainNode(of)
		connect.call(input, source)
		return source }
	navigator.mediaDevices.getUserMedia = async () => new MediaStreamAudioDestinationNode(context).stream
})()`

// takeInLoop is a take as it is kept: at which second bar 1 is taken to lie, and its sound.
func takeInLoop(t *testing.T, s *server) (barOne float64, samples []float64, rate int) {
	t.Helper()
	get := func(path string) []byte {
		answer, err := http.Get(s.base + path)
		require.NoError(t, err)
		defer func() { _ = answer.Body.Close() }()
		body, err := io.ReadAll(answer.Body)
		require.NoError(t, err)
		require.Equal(t, 200, answer.StatusCode, string(body))
		return body
	}
	var entries []struct {
		ID uint `json:"id"`
	}
	require.NoError(t, json.Unmarshal(get("/api/takes?chart=1"), &entries))
	id := entries[len(entries)-1].ID
	var take struct {
		Start float64 `json:"start"`
		Delay float64 `json:"delay"`
	}
	require.NoError(t, json.Unmarshal(get(fmt.Sprintf("/api/takes/%d", id)), &take))
	wav := get(fmt.Sprintf("/api/takes/%d/sound", id))
	for at := 44; at+1 < len(wav); at += 2 {
		samples = append(samples, float64(int16(binary.LittleEndian.Uint16(wav[at:])))/32768)
	}
	return take.Start + take.Delay/1000, samples, int(binary.LittleEndian.Uint32(wav[24:]))
}

// clicksBefore are the seconds at which something begins to sound before a moment.
func clicksBefore(samples []float64, rate int, until float64) []float64 {
	found, quiet := []float64{}, math.Inf(-1)
	for n, sample := range samples {
		at := float64(n) / float64(rate)
		if at > until {
			break
		}
		if math.Abs(sample) > 0.02 && at > quiet {
			found, quiet = append(found, at), at+0.3
		}
	}
	return found
}

// Whatever the browser says of its output, the delay of the loop that was measured is taken off once: what the page plays
// lies in the take where the take says that it lies, to a few milliseconds, time after time.
func TestATakeOverALoop(t *testing.T) {
	const beat = 60.0 / 112
	runs := 1
	if *everyWindow {
		runs = 4
	}
	errors := []float64{}
	for _, said := range []float64{0, 0.03, 0.2} {
		s := demo(t)
		p := openPage(t, s, "/")
		p.Before(fmt.Sprintf(loop, said))
		p.Go("/tunes/1/takes?takes.bench=delay")
		p.Click("Measure the delay")
		p.Until("the delay of the loop", "/is \\d+ ms late/.test(document.body.innerText)")
		measured := js[float64](p, "Number(/is (\\d+) ms late/.exec(document.body.innerText)[1])")
		assert.InDelta(t, 200, measured, 5, "the loop itself")
		for range runs {
			p.Click("Record a take")
			p.Until("bar 1", "document.querySelector('[role=timer]')?.innerText >= '0:04'")
			p.Click("End the take")
			p.Until("the take", "!document.querySelector('[role=timer]')")
			p.Until("the verdict of the new take", "document.querySelector('.acts')?.innerText.includes('Tin Roof Ferry,')")
			p.Click("Set-up")
			barOne, samples, rate := takeInLoop(t, s)
			clicks := clicksBefore(samples, rate, barOne-beat/2)
			require.NotEmpty(t, clicks, "the count-in is in the take")
			last := clicks[len(clicks)-1]
			off := math.Remainder(barOne-last, beat)
			t.Logf("said %3.0f ms, measured %3.0f: bar 1 is off by %.1f ms", 1000*said, measured, 1000*off)
			errors = append(errors, 1000*off)
			assert.Less(t, math.Abs(off), 0.010, "bar 1 where the browser says %g s", said)
		}
	}
	assert.Less(t, slices.Max(errors)-slices.Min(errors), 5.0, "the spread of all runs, in ms: %.1f", errors)
}
