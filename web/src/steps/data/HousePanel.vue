<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue'
import { answer, client, type Access } from '../../api/client'

/** How a tablet in the house reaches this machine, and which devices were let in. */
const access = shallowRef<Access>()
const problem = ref('')

async function attempt(work: () => Promise<unknown>) {
  problem.value = ''
  try {
    await work()
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
const look = () => attempt(async () => (access.value = await answer(client.GET('/api/access'))))
const end = (id: string) =>
  attempt(async () => {
    await answer(client.DELETE('/api/access/{id}', { params: { path: { id } } }))
    await look()
  })
onMounted(look)
const day = (time: string) => new Date(time).toLocaleDateString(undefined, { dateStyle: 'medium' })
</script>

<template>
  <div class="bench" role="region" aria-label="On a tablet">
    <h2>On a tablet</h2>
    <p v-if="problem" role="alert">{{ problem }}</p>
    <template v-if="access?.picture">
      <div class="way">
        <svg
          class="code"
          role="img"
          :aria-label="`The address ${access.addresses[0]} as a QR code`"
          :viewBox="`0 0 ${access.picture.size} ${access.picture.size}`"
        >
          <rect width="100%" height="100%" fill="#fff" />
          <path :d="access.picture.path" fill="#000" />
        </svg>
        <div>
          <p>In the same network, point its camera here, or open</p>
          <p v-for="address in access.addresses" :key="address">
            <a :href="address">{{ address }}</a>
          </p>
          <p v-if="!access.tls" class="quiet">
            Without TLS the microphone does not work there, and the passphrase can be overheard.
          </p>
        </div>
      </div>
      <ul v-if="access.devices.length">
        <li v-for="device in access.devices" :key="device.id">
          <span class="name">
            {{ device.about }} <span v-if="device.here">(this one)</span>
            <span class="quiet">{{ device.address }} · used {{ day(device.used) }}</span>
          </span>
          <button type="button" class="chip" :aria-label="`End ${device.about}`" @click="end(device.id)">
            End
          </button>
        </li>
      </ul>
    </template>
    <p v-else-if="access" class="quiet">
      It is reached from this machine alone. Started with <code>--addr 0.0.0.0:8380 --tls</code> it lets a
      tablet in the same network in that knows the passphrase.
    </p>
  </div>
</template>

<style scoped>
.bench {
  padding: 1.1rem 1.3rem;
}
.way {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: center;
  margin-top: 0.5rem;
}
.way > div {
  flex: 1 1 14rem;
  min-width: 0;
  overflow-wrap: anywhere;
}
.code {
  width: 9.5rem;
  height: 9.5rem;
  border-radius: 6px;
}
ul {
  margin-top: 0.7rem;
}
li {
  display: flex;
  align-items: center;
  gap: 0.8rem;
  padding: 0.2rem 0;
}
.name {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.6rem;
}
a {
  color: var(--now);
}
</style>
