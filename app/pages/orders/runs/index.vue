<script setup lang="ts">
import type { RunHead } from '#shared/contract/ordering'
import { capital, formatCount } from '#shared/words/format'
import { RUN_CAUSES, sayRun } from '#shared/words/ordering'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { useNarrowed } from '~/composables/base/use-narrowed'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'

useHead({ title: 'Ordered by itself · Rekko' })
const api = useApi()
const wording = useWording()
const { one } = useNarrowed()
const asked = computed(() => (one('rule') === '' ? {} : { rule: one('rule') }))
const { data, error, refresh } = await useAsyncData(
  'ordering-runs',
  () => api.get('/api/ordering-runs', { query: asked.value }),
  {
    watch: [asked],
  },
)
useLive((changes) => {
  if (changes.some((c) => c.kind === 'settings' || c.kind === 'again')) void refresh()
})
const runs = computed(() => data.value?.runs ?? [])
const made = computed(() => runs.value.reduce((n, r) => n + r.made, 0))
const sentence = computed(() => {
  if (runs.value.length === 0) return 'Nothing was ordered by itself yet.'
  const orders = formatCount(made.value, 'order was made by itself', 'orders were made by themselves')
  return `${capital(orders)} in ${formatCount(runs.value.length, 'run', 'runs')}.`
})
const since = (r: RunHead) => (r.times === 1 ? '' : `found so ${r.times} times, first ${wording.moment(r.beganAt)}`)
</script>

<template>
  <div>
    <PageNote>run by run, the newest first</PageNote>
    <SheetPage>
      <h1 class="sentence mb-3">{{ sentence }}</h1>
      <p v-if="error" class="notice-red">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <p v-if="data && runs.length === 0" class="max-w-[60ch] text-ink2">
        Once a rule of <NuxtLink class="quiet-link" to="/set-up/ordering">ordering by itself</NuxtLink> is in force,
        what it makes and leaves stands here.
      </p>
      <table v-if="runs.length > 0" class="table">
        <caption class="sr-only">
          Runs
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col">When</th>
            <th scope="col">Rule</th>
            <th scope="col">What came of it</th>
            <th scope="col">Why then</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in runs" :key="r.id" class="folded">
            <td class="whitespace-nowrap">
              <time :datetime="r.lastAt" :title="wording.exact(r.lastAt)">{{ wording.moment(r.lastAt) }}</time>
            </td>
            <td>
              <span class="font-semibold">{{ r.rule }}</span><span class="small block"
                >in the name of {{ r.buyer }}</span
              >
            </td>
            <td>
              <NuxtLink class="quiet-link" :to="`/orders/runs/${r.id}`">{{ sayRun(r) }}</NuxtLink><span
                v-if="since(r)"
                class="small block"
                >{{ since(r) }}</span
              ><span v-if="r.trouble" class="small block text-red">{{ r.trouble }}</span>
            </td>
            <td class="text-ink2">{{ r.by ? `${r.by} asked for it` : RUN_CAUSES[r.cause] }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="data && !data.isAll" class="small mt-2">These are the newest {{ runs.length }}.</p>
    </SheetPage>
  </div>
</template>
