<script setup lang="ts">
import type { DecidedRow } from '#shared/contract/decided'
import { capital, formatCount } from '#shared/words/format'
import BetweenDays from '~/components/base/BetweenDays.vue'
import BlankChoice from '~/components/base/BlankChoice.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { useNarrowed } from '~/composables/base/use-narrowed'
import { useWording } from '~/composables/base/use-wording'
import { useWordsFilter } from '~/composables/base/use-words-filter'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Decided · Rekko' })
const api = useApi()
const route = useRoute()
const session = useSessionStore()
const wording = useWording()
const { words, typed } = useWordsFilter()
const seesAll = session.me?.rights.includes('see all documents') === true
const VIEWS = [
  { id: 'own', name: 'What I decided' },
  { id: 'people', name: 'What my people decided' },
  ...(seesAll ? [{ id: 'all', name: 'What everybody decided' } as const] : []),
] as const
const OUTCOMES = [
  { id: '', name: 'whatever came of it' },
  { id: 'approved', name: 'approved' },
  { id: 'sent back', name: 'sent back' },
  { id: 'rejected', name: 'rejected' },
]
const { one, narrow } = useNarrowed()
const whose = computed(() => VIEWS.find((v) => v.id === route.query.whose)?.id ?? 'own')
/** What the address says of which decisions are listed. */
const asked = computed(() => {
  const all = {
    whose: whose.value,
    outcome: one('outcome'),
    words: words.value,
    from: one('from'),
    until: one('until'),
  }
  return Object.fromEntries(Object.entries(all).filter(([, v]) => v !== '')) as { whose: 'own' }
})

const { data, error, refresh } = await useAsyncData(
  'decided',
  () => api.get('/api/decisions', { query: asked.value }),
  {
    watch: [asked],
  },
)
const more = ref<DecidedRow[]>([])
const moreKey = ref<string | null>(null)
watch(
  data,
  () => {
    more.value = []
    moreKey.value = data.value?.next ?? null
  },
  { immediate: true },
)
const rows = computed(() => [...(data.value?.rows ?? []), ...more.value])
useLive((changes) => {
  if (changes.some((c) => ['requisition', 'order', 'order change', 'again'].includes(c.kind))) void refresh()
})
const { busy, trouble, act } = useAct()
const readOn = () =>
  act(async () => {
    const page = await api.get('/api/decisions', { query: { ...asked.value, after: moreKey.value ?? undefined } })
    more.value.push(...page.rows)
    moreKey.value = page.next
  })
const isNarrowed = computed(() => Object.keys(asked.value).some((k) => k !== 'whose'))
const sentence = computed(() => {
  const n = rows.value.length
  const who = { own: 'You', people: 'Your people', all: 'Everybody' }[whose.value]
  if (n === 0) return isNarrowed.value ? 'Nothing that was decided fits this.' : `${who} decided nothing yet.`
  return `${who} made ${formatCount(n, 'decision', 'decisions')}${moreKey.value === null ? '' : ' and more'}.`
})
const file = (as: 'csv' | 'xlsx') => `/api/decisions/file?${new URLSearchParams({ ...asked.value, as }).toString()}`
const who = (r: DecidedRow) => `${r.isOwn ? 'you' : r.by}${r.forName === null ? '' : ` for ${r.forName}`}`
</script>

<template>
  <div>
    <PageNote>each with the version of the policy it followed</PageNote>
    <SheetPage>
      <div class="mb-3 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 class="sentence">{{ sentence }}</h1>
        <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
          <nav class="flex flex-wrap gap-x-5 gap-y-1" aria-label="Views">
            <NuxtLink
              v-for="v in VIEWS"
              :key="v.id"
              :to="{ query: { ...route.query, whose: v.id === 'own' ? undefined : v.id } }"
              :class="whose === v.id ? 'font-semibold' : 'text-ink2 hover:text-ink'"
              :aria-current="whose === v.id ? 'true' : undefined"
              >{{ v.name }}</NuxtLink
            >
          </nav>
          <input
            v-model="typed"
            class="field w-[190px]! min-h-[34px]! py-1.5!"
            type="search"
            aria-label="Find among what was decided"
            placeholder="Words, or R-26-*12"
          />
        </div>
      </div>
      <p class="mb-3 leading-7 text-ink2">
        With the outcome
        <BlankChoice
          :model-value="one('outcome')"
          :choices="OUTCOMES"
          label="With which outcome"
          placeholder=""
          light
          @update:model-value="narrow({ outcome: $event })"
        />, <BetweenDays :from="one('from')" :until="one('until')" @narrow="narrow" />.
        <NuxtLink v-if="isNarrowed" class="quiet-link" to="/decided">all of it</NuxtLink>
      </p>
      <p v-if="error" class="notice-red">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <p v-else-if="rows.length === 0 && !isNarrowed" class="max-w-[60ch] text-ink2">
        Every decision will stand here with its reason, for whom it was made, and what has become of the request since.
      </p>
      <table v-if="rows.length > 0" class="table">
        <caption class="sr-only">
          What was decided
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col">When</th>
            <th scope="col">Decision</th>
            <th scope="col">On what</th>
            <th scope="col">Now</th>
            <th scope="col" class="num">Amount, {{ rows[0]?.currency }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in rows" :key="r.id" class="folded">
            <td class="whitespace-nowrap">
              <time :datetime="r.at" :title="wording.exact(r.at)">{{ wording.moment(r.at) }}</time>
              <span v-if="r.policy !== null" class="small block">policy {{ r.policy }}</span>
            </td>
            <td>
              <span :class="r.takenBack ? 'text-ink3 line-through' : 'font-medium'">{{ capital(r.outcome) }}</span>
              <span class="small block">by {{ who(r) }}{{ r.takenBack ? ', taken back' : '' }}</span>
            </td>
            <td>
              <NuxtLink
                class="quiet-link"
                :to="r.document === 'order' ? `/decide/${r.documentId}` : `/trail/${r.documentId}`"
                >{{ r.number || 'not issued' }}</NuxtLink
              >
              {{ r.title }}
              <span class="small block">{{ r.owner }}{{ r.comment === '' ? '' : `: “${r.comment}”` }}</span>
            </td>
            <td>{{ r.state }}</td>
            <td class="num">{{ wording.kept(r.amount, r.currency) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <p v-if="rows.length > 0" class="small mt-3 flex flex-wrap gap-x-3">
        <button v-if="moreKey" type="button" class="quiet-link" :aria-busy="busy" @click="readOn">
          Show the next 50
        </button>
        <span class="ml-auto"
          >Keep what is shown as <a class="quiet-link" :href="file('csv')">CSV</a> or
          <a class="quiet-link" :href="file('xlsx')">XLSX</a></span
        >
      </p>
    </SheetPage>
  </div>
</template>
