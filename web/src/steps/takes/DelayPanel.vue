<script setup lang="ts">
import { ref } from 'vue'
import { audioContext } from '../../sound/context'
import { inputTrouble, microphone, type Input } from '../../sound/inputs'
import { delayOf, keepDelay, loopDelay } from '../../sound/delay'
import { useInputChoice } from '../../sound/inputchoice'
import type { Side } from '../../sound/sides'
import ChipRow from '../../controls/ChipRow.vue'

/** Measures how late the sound of a device comes, with clicks that go out and come back. */
const input = useInputChoice()
const device = () => input.soundDevice() ?? ''
const measured = ref(delayOf(device()) ?? 0)
const says = ref('')
const running = ref(false)
/** The sides of the input, by their numbers. */
const sides = ['both sides', 'left side', 'right side']
const clicks = 8
/** Seconds until a click goes out, and the size from which a sample is one that came back. */
const soon = 0.1
const loud = 0.03
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms))

async function measure() {
  running.value = true
  says.value = 'Listening to eight clicks. Keep still.'
  let opened: Input | undefined
  try {
    const output = audioContext()
    await output.resume()
    opened = await microphone(device() || undefined, input.side)
    const { sent, heard } = await sendClicks(output, opened)
    tell(sent, heard)
  } catch (error) {
    says.value = `${inputTrouble(error)}.`
  } finally {
    opened?.end()
    running.value = false
  }
}

/** Sends clicks out, and notes when each comes back: both by the audio clock. */
async function sendClicks(output: AudioContext, from: Input) {
  const sent: number[] = []
  const heard: number[] = []
  let samples = 0
  let quietUntil = 0
  from.begin((piece) => {
    piece.forEach((sample, n) => {
      const at = (samples + n) / from.rate
      if (Math.abs(sample) > loud && at > quietUntil) {
        heard.push((from.began?.() ?? 0) + at)
        quietUntil = at + 0.3
      }
    })
    samples += piece.length
  })
  for (let n = 0; n < clicks; n++) {
    await pause(600)
    const source = new OscillatorNode(output, { frequency: 1500 })
    const gain = new GainNode(output, { gain: 0.4 })
    const at = output.currentTime + soon
    source.connect(gain).connect(output.destination)
    source.start(at)
    source.stop(at + 0.03)
    sent.push(at)
  }
  await pause(600)
  return { sent, heard }
}

function tell(sent: number[], heard: number[]) {
  const late = loopDelay(sent, heard)
  if (late === undefined) {
    says.value =
      'The clicks did not come back. Hold the microphone near the loudspeaker or the headphones, or put a cable from out to in, and try again.'
    return
  }
  measured.value = Math.round(late * 1000)
  keepDelay(device(), measured.value)
  says.value = `The sound of this device is ${measured.value} ms late. Takes have it taken off.`
}
</script>

<template>
  <div class="delay">
    <p>
      Sound needs time through the machine. Two minutes, once for each device: hold the microphone near the
      loudspeaker, turned low, or put a cable from the output to the input, and press.
    </p>
    <p>
      <button type="button" class="primary" :disabled="running" @click="measure()">Measure the delay</button>
      <label
        >milliseconds late
        <input
          v-model.number="measured"
          type="number"
          min="-500"
          max="500"
          @change="keepDelay(device(), Number(measured) || 0)"
      /></label>
    </p>
    <ChipRow
      label="Which side of the input is heard"
      says="heard:"
      :options="sides"
      :chosen="sides[input.side]!"
      @choose="(side) => input.chooseSide(sides.indexOf(side) as Side)"
    />
    <p role="status">{{ says }}</p>
  </div>
</template>

<style scoped>
.delay p {
  margin: 0 0 8px;
  max-width: 70ch;
}
label {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  min-height: 24px;
  margin-left: 18px;
}
input {
  width: 5em;
}
</style>
