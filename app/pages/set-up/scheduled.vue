<script setup lang="ts">
import type { ScheduledView } from '#shared/contract/scheduled'
import { formatCount } from '#shared/words/format'
import { sayEvery, SCHEDULED_WORDS, sayTook } from '#shared/words/scheduled'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'

useHead({ title: 'Scheduled work · Rekko' })
const api = useApi()
const wording = useWording()
const { data, error, refresh } = await useAsyncData('scheduled', () => api.get('/api/scheduled-work'))
useLive((changes) => {
  if (changes.some((c) => c.kind === 'settings' || c.kind === 'again')) void refresh()
})
const work = computed(() => data.value?.work ?? [])
const failed = computed(() => work.value.filter((w) => w.runs[0]?.error != null))
const paused = computed(() => work.value.filter((w) => w.paused !== null))
const { busy, trouble, act } = useAct()
const said = ref('')
const nameOf = (w: ScheduledView) => SCHEDULED_WORDS[w.task]?.name ?? w.task
const sentence = computed(() => {
  const [first] = failed.value
  if (first !== undefined)
    return failed.value.length === 1
      ? `${nameOf(first)} failed the last time.`
      : `${formatCount(failed.value.length, 'thing', 'things')} failed the last time.`
  return paused.value.length > 0
    ? `All went well; ${formatCount(paused.value.length, 'thing is', 'things are')} paused.`
    : 'All that is done by itself went well.'
})
async function run(w: ScheduledView): Promise<void> {
  const key = crypto.randomUUID()
  const done = await act(() => api.post('/api/scheduled-work/{task}/runs', { params: { task: w.task }, key }))
  if (done) said.value = `${nameOf(w)} is done as soon as its turn comes.`
}
async function pause(w: ScheduledView): Promise<void> {
  const isPaused = w.paused !== null
  const done = await act(() =>
    api.put('/api/scheduled-work/{task}/pause', { params: { task: w.task }, body: { paused: !isPaused } }),
  )
  if (done) said.value = isPaused ? `${nameOf(w)} goes on.` : `${nameOf(w)} is paused until you let it go on.`
  await refresh()
}
/** Of the runs that are kept, how many failed. */
const ofThem = (w: ScheduledView) => {
  const bad = w.runs.filter((r) => r.error !== null).length
  return bad === 0 ? '' : `; ${bad} of the last ${w.runs.length} failed`
}
</script>

<template>
  <div>
    <PageNote>administrators are told of failures</PageNote>
    <SheetPage>
      <h1 class="sentence mb-3">{{ sentence }}</h1>
      <p v-if="error" class="notice-red">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <p v-if="trouble" class="notice-red mb-3" role="alert">{{ trouble }}</p>
      <p v-if="said" class="small mb-2" role="status">{{ said }}</p>
      <table v-if="work.length > 0" class="table">
        <caption class="sr-only">
          What is done by itself
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col">What</th>
            <th scope="col">How often</th>
            <th scope="col">The last time</th>
            <th scope="col"><span class="sr-only">What to do</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="w in work" :key="w.task" class="folded">
            <td class="max-w-[420px]">
              <span class="font-semibold">{{ nameOf(w) }}</span><span class="small block">{{
                SCHEDULED_WORDS[w.task]?.says
              }}</span>
            </td>
            <td>
              {{ sayEvery(w.every) }}
              <span class="small block"
                ><template v-if="w.paused">paused by {{ w.paused.by }}, {{ wording.moment(w.paused.at) }}</template
                ><template v-else-if="w.next">next {{ wording.moment(w.next) }}</template></span
              >
            </td>
            <td>
              <template v-if="w.runs[0]">
                <span :class="w.runs[0].error === null ? '' : 'font-semibold text-red'">{{
                  w.runs[0].error === null ? 'done' : 'failed'
                }}</span>,
                <time :datetime="w.runs[0].beganAt" :title="wording.exact(w.runs[0].beganAt)">{{
                  wording.moment(w.runs[0].beganAt)
                }}</time>
                <span class="small block"
                  >took {{ sayTook(w.runs[0].milliseconds)
                  }}<template v-if="w.runs[0].by">; asked for by {{ w.runs[0].by }}</template
                  >{{ ofThem(w) }}</span
                >
                <span v-if="w.runs[0].error" class="small block text-red">{{ w.runs[0].error }}</span>
              </template>
              <span v-else class="text-ink3">not yet</span>
            </td>
            <td class="whitespace-nowrap text-right">
              <span class="inline-flex gap-2"
                ><button
                  type="button"
                  class="action"
                  :disabled="busy"
                  :aria-label="`Do it now: ${nameOf(w)}`"
                  @click="run(w)"
                >
                  Do it now</button
                ><button
                  v-if="w.mayPause"
                  type="button"
                  class="action"
                  :disabled="busy"
                  :aria-label="`${w.paused ? 'Let it go on' : 'Pause'}: ${nameOf(w)}`"
                  @click="pause(w)"
                >
                  {{ w.paused ? 'Let it go on' : 'Pause' }}
                </button></span
              >
            </td>
          </tr>
        </tbody>
      </table>
    </SheetPage>
  </div>
</template>
