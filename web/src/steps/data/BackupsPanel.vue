<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'
import { answer, client, type Backup, type Backups } from '../../api/client'
import { begunAnew, counted, restoreBackup, sized } from './replaced'

/** The backups, and putting one of them in the place of what is there. */
defineProps<{ kept: Backups }>()
const emit = defineEmits<{ made: [] }>()
const busy = ref(false)
const problem = ref('')
/** The backup that is about to be restored: it is asked first. */
const asked = ref<string>()

const when = (backup: Backup) =>
  new Date(backup.made).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
const about = (backup: Backup) =>
  [backup.reason, sized(backup.bytes), backup.sounds ? counted(backup.sounds, 'recording') : '']
    .filter(Boolean)
    .join(' · ')

async function attempt(work: () => Promise<unknown>) {
  busy.value = true
  problem.value = ''
  try {
    await work()
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  } finally {
    busy.value = false
  }
}
const make = () =>
  attempt(async () => {
    await answer(client.POST('/api/backups'))
    emit('made')
  })
const restore = (backup: Backup) =>
  attempt(async () => {
    const before = await restoreBackup(backup.name)
    begunAnew({ says: `Everything is as it was on ${when(backup)}.`, before })
  })
</script>

<template>
  <div class="bench" role="region" aria-label="Backups">
    <div class="head">
      <h2>Backups</h2>
      <Button label="Back up now" :loading="busy && !asked" @click="make" />
    </div>
    <p class="quiet">
      One is made on every day you play, before every upgrade, and before anything is replaced. The last ten
      stay, and those of before something was replaced for 90 days.
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-if="!kept.backups.length" class="none">There is none yet.</p>
    <ul>
      <li v-for="backup in kept.backups" :key="backup.name">
        <div class="row">
          <span class="name">
            {{ when(backup) }} <span class="quiet">{{ about(backup) }}</span>
          </span>
          <button
            v-if="asked !== backup.name"
            type="button"
            class="chip"
            :aria-label="`Restore the backup of ${when(backup)}`"
            @click="asked = backup.name"
          >
            Restore
          </button>
        </div>
        <div v-if="asked === backup.name" class="ask">
          <p>Everything goes back to how it was then. What is there now becomes a backup first.</p>
          <Button label="Restore it" :loading="busy" @click="restore(backup)" />
          <button type="button" class="chip" @click="asked = undefined">Leave it</button>
        </div>
      </li>
    </ul>
    <dl class="quiet">
      <dt>Data file</dt>
      <dd>{{ kept.dataFile }}</dd>
      <dt>Backups</dt>
      <dd>{{ kept.folder }}</dd>
    </dl>
    <p class="quiet">
      A disk can fail with its backups on it: now and then copy the folder, or a file of everything, to
      another one.
    </p>
  </div>
</template>

<style scoped>
.bench {
  padding: 1.1rem 1.3rem;
}
.head {
  align-items: center;
}
.head h2 {
  flex: 1;
}
ul {
  max-height: var(--panel-most, max(12rem, calc(100vh - 31.33rem)));
  overflow-y: auto;
}
.row {
  display: flex;
  align-items: center;
  gap: 0.8rem;
  padding: 0.3rem 0;
}
.name {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.7rem;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
  padding: 0.5rem 0.7rem 0.7rem;
  border-radius: 8px;
  background: var(--next-tint);
}
.ask p {
  width: 100%;
}
.none {
  padding: 0.7rem 0;
}
.problem {
  padding: 0.45rem 0;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 0.1rem 0.8rem;
  margin: 0.9rem 0;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
