<script setup lang="ts">
import { CHANGED_HOW } from '#core/approval/policy-replay'
import { addDays } from '#core/base/day'
import type { PolicyView } from '#shared/contract/policy'
import { formatCount } from '#shared/words/format'
import { CHANGED_WORDS, sayReplayed, sayReplayedHours } from '#shared/words/policy-replay'
import BlankDay from '~/components/base/BlankDay.vue'
import BlankMany from '~/components/base/BlankMany.vue'
import { useWording } from '~/composables/base/use-wording'
import { usePolicyReplay } from '~/composables/set-up/use-policy-replay'

/** What the draft would have done with requests that were sent: how many decisions, whose, which go another way. */
const props = defineProps<{ view: PolicyView; nameOf: (id: string) => string }>()
// Charts come when something is replayed.
const AxisChart = defineAsyncComponent(() => import('~/components/base/AxisChart.vue'))
/** People in the chart, those first of whom most is asked; the table below holds all. */
const MOST_DRAWN = 8
const wording = useWording()
const from = ref<string | null>(addDays(props.view.today, -365))
const until = ref<string | null>(props.view.today)
const departmentIds = ref<string[]>([])
const departments = computed(() => props.view.departments)
const { replayed, changed, total, running, stopped, trouble, run, stop, forget } = usePolicyReplay()
const version = computed(() => props.view.draft?.version ?? 0)
watch([version, from, until, departmentIds], forget)
const people = computed(() =>
  Object.entries(replayed.value?.asked ?? {})
    .map(([id, asked]) => ({ id, name: props.nameOf(id), ...asked }))
    .sort((a, b) => Math.max(b.now, b.draft) - Math.max(a.now, a.draft) || a.name.localeCompare(b.name)),
)
const drawn = computed(() => people.value.slice(0, MOST_DRAWN))
const series = computed(() => [
  { name: 'as it is', look: 'line' as const, values: drawn.value.map((p) => String(p.now)) },
  { name: 'under the draft', look: 'solid' as const, values: drawn.value.map((p) => String(p.draft)) },
])
const ways = computed(() => {
  const r = replayed.value
  return r === null ? [] : CHANGED_HOW.filter((how) => r.changed[how] > 0).map((how) => ({ how, n: r.changed[how] }))
})
function start(): void {
  if (from.value === null || until.value === null) return
  void run({ from: from.value, until: until.value, departmentIds: departmentIds.value, draft: version.value })
}
</script>

<template>
  <section class="mt-8" aria-labelledby="replay-draft">
    <h2 id="replay-draft" class="head mb-1">On past requests</h2>
    <div class="leading-8">
      What was sent from
      <BlankDay v-model="from" label="From which day" placeholder="which day" today="2000-01-01" /> to
      <BlankDay v-model="until" label="To which day" placeholder="which day" today="2000-01-01" /> by
      <BlankMany
        v-model="departmentIds"
        :choices="departments"
        label="Of which departments"
        placeholder="all departments"
      />, as it is and under the draft.
    </div>
    <p v-if="trouble" class="notice-red mt-2" role="alert">{{ trouble }}</p>
    <p class="mt-2 flex flex-wrap items-center gap-x-4">
      <button v-if="running" type="button" class="action" @click="stop">Stop</button>
      <button v-else type="button" class="action" @click="start">Replay them</button>
      <template v-if="running">
        <progress :value="replayed?.requests ?? 0" :max="Math.max(1, total)" aria-label="How far it came" />
        <span class="text-ink2">{{ replayed?.requests ?? 0 }} of {{ total === 0 ? 'them' : total }}</span>
      </template>
      <span v-else-if="stopped" class="text-ink2" role="status">{{
        replayed ? `Stopped; what follows is of the first ${replayed.requests}.` : 'Stopped before the first was done.'
      }}</span>
    </p>
    <template v-if="replayed && !trouble && (!running || replayed.requests > 0)">
      <p class="sentence-small mt-3" role="status">{{ sayReplayed(replayed) }}</p>
      <p class="small mt-1">
        {{ sayReplayedHours(replayed, (t) => wording.decimal(t)) }} Both are worked out with the people of today, as if
        nobody were away.
      </p>
      <template v-if="people.length > 0">
        <h3 class="small mb-1 mt-4">
          <b class="font-semibold">Requests that each is asked about</b>: bars under the draft, the dashed line as it is
        </h3>
        <ClientOnly>
          <AxisChart
            label="Requests that each is asked about"
            :categories="drawn.map((p) => p.name)"
            :series="series"
            :format="(v) => v"
          />
          <template #fallback><div class="h-[160px]" /></template>
        </ClientOnly>
      </template>
      <ul v-if="ways.length > 0" class="mt-3">
        <li v-for="w in ways" :key="w.how" class="border-t border-rule py-1.5">
          {{ formatCount(w.n, 'request', 'requests') }}: {{ CHANGED_WORDS[w.how] }}.
        </li>
      </ul>
      <p v-else-if="replayed.requests > 0" class="mt-3 text-ink2">Every one of them would go the same way.</p>
      <table v-if="changed.length > 0" class="table mt-3">
        <caption class="sr-only">
          Requests that would go another way
        </caption>
        <thead>
          <tr>
            <th scope="col">Number</th>
            <th scope="col">What it is for</th>
            <th scope="col">What would be</th>
            <th scope="col" class="num">Amount</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in changed" :key="c.id">
            <td>
              <NuxtLink class="quiet-link" :to="`/trail/${c.id}`">{{ c.number }}</NuxtLink>
            </td>
            <td>{{ c.title }}</td>
            <td>{{ CHANGED_WORDS[c.how] }}</td>
            <td class="num">{{ wording.amount(c.amount) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-else-if="ways.length > 0" class="small mt-2">Single ones are named for whoever may see them.</p>
    </template>
  </section>
</template>
