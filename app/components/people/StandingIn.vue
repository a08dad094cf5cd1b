<script setup lang="ts">
import type { AbsenceView } from '#shared/contract/people'
import { listWords } from '#shared/words/format'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

/** For whom one stands in, and when; an address from which one's own calendar reads it. */
defineProps<{ covers: readonly AbsenceView[]; hasCalendar: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const wording = useWording()
const session = useSessionStore()
/** For which departments one stands in, where that is not for all others as well. */
const sayWhat = (a: AbsenceView) =>
  a.substituteId === session.me?.id ? '' : `for ${listWords(a.byDepartment.map((s) => s.department))}`
/** Told once: only its hash is kept. */
const address = ref('')
const said = ref('')
const busy = ref(false)
async function change(work: () => Promise<string>): Promise<void> {
  busy.value = true
  try {
    said.value = await work()
    emit('changed')
  } catch (e) {
    said.value = sayError(e)
  } finally {
    busy.value = false
  }
}
const make = () =>
  change(async () => {
    address.value = (await api.post('/api/calendar', {})).address
    return 'Subscribe to it in your calendar. It is shown this once, and opens without signing in: keep it to yourself.'
  })
const end = () =>
  change(async () => {
    await api.remove('/api/calendar', {})
    address.value = ''
    return 'The address is ended; no calendar reads from it any more.'
  })
async function copy(): Promise<void> {
  // Browsers copy for pages only behind HTTPS, or on the machine itself.
  const copied = await navigator.clipboard?.writeText(address.value).then(
    () => true,
    () => false,
  )
  said.value = copied === true ? 'It is copied.' : 'This browser does not copy it; mark it and press Ctrl C.'
}
</script>

<template>
  <section aria-labelledby="standing-in">
    <h2 id="standing-in" class="head mb-1.5">You stand in</h2>
    <p v-if="covers.length === 0" class="text-ink2">For nobody, from today on.</p>
    <ul v-else>
      <li v-for="a in covers" :key="a.id" class="border-b border-rule py-1.5">
        {{ a.name }}<template v-if="sayWhat(a)">, {{ sayWhat(a) }}</template
        ><span class="small block">{{ wording.day(a.from) }} to {{ wording.day(a.until) }}</span>
      </li>
    </ul>
    <p class="mt-3 text-ink2">Your own calendar can show these days.</p>
    <template v-if="address">
      <label class="label mt-2" for="calendar-address">Its address</label>
      <input
        id="calendar-address"
        class="field"
        readonly
        :value="address"
        @focus="($event.target as HTMLInputElement).select()"
      />
      <button type="button" class="quiet-link mt-1 min-h-6" @click="copy">Copy it</button>
    </template>
    <p class="flex flex-wrap gap-x-4">
      <button v-if="!address" type="button" class="quiet-link min-h-6" :disabled="busy" @click="make">
        {{ hasCalendar ? 'Make another address; the one before ends' : 'Make an address for it' }}
      </button>
      <button v-if="hasCalendar" type="button" class="quiet-link min-h-6" :disabled="busy" @click="end">
        End the address
      </button>
    </p>
    <p v-if="said" class="mt-1.5 text-ink2" role="status">{{ said }}</p>
  </section>
</template>
