<script setup lang="ts">
import { capital, inWords, listWords } from '#shared/words/format'
import type { MineRow } from '#shared/contract/mine'
import BlankChoice from '~/components/base/BlankChoice.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import MineTable from '~/components/mine/MineTable.vue'
import SavedViews from '~/components/mine/SavedViews.vue'
import { jobChoices } from '~/composables/raise/job-choices'
import { sayError, useApi } from '~/composables/base/use-api'
import { isTyping, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useWordsFilter } from '~/composables/base/use-words-filter'
import { useLive } from '~/composables/live/use-live'

useHead({ title: 'Mine · Rekko' })

const VIEWS = [
  { id: 'all', name: 'Everything I own' },
  { id: 'waiting', name: 'Waits for me' },
  { id: 'open', name: 'Still open' },
  { id: 'drafts', name: 'Drafts' },
] as const
const api = useApi()
const route = useRoute()
const router = useRouter()
const wording = useWording()
const { words, typed } = useWordsFilter()
const view = computed(() => VIEWS.find((v) => v.id === route.query.view)?.id ?? 'all')
const one = (key: 'job' | 'field' | 'value') => {
  const v = route.query[key]
  return typeof v === 'string' && v !== '' ? v : undefined
}
/** What the address says of which requests are listed. */
const asked = computed(() => ({
  view: view.value,
  words: words.value,
  job: one('job'),
  field: one('field'),
  value: one('value'),
}))
const trouble = ref('')
const more = ref<MineRow[]>([])
const moreKey = ref<string | null>(null)

const { data, error, refresh } = await useAsyncData(
  'mine',
  () => api.get('/api/requisitions', { query: { ...asked.value, limit: 50 } }),
  { watch: [asked] },
)
const { data: filters } = await useAsyncData('mine-filters', () => api.get('/api/mine-filters'))
watch(data, () => {
  more.value = []
  moreKey.value = data.value?.next ?? null
})
moreKey.value = data.value?.next ?? null
const rows = computed(() => [...(data.value?.rows ?? []), ...more.value])
useLive((changes) => {
  if (changes.some((c) => ['requisition', 'order', 'again'].includes(c.kind))) void refresh()
})

const sentence = computed(() => {
  const { total = 0, waiting = 0 } = data.value ?? {}
  if (total === 0) return 'You have not asked for anything yet.'
  const of = total === 1 ? 'The one request you own' : `your ${inWords(total)}`
  return waiting === 0
    ? total === 1
      ? 'Your one request goes its way without you.'
      : `None of ${of} waits for you.`
    : total === 1
      ? 'Your one request waits for you.'
      : `${capital(inWords(waiting))} of ${of} ${waiting === 1 ? 'waits' : 'wait'} for you.`
})

async function readOn(): Promise<void> {
  try {
    const page = await api.get('/api/requisitions', {
      query: {
        ...asked.value,
        limit: 50,
        after: moreKey.value ?? undefined,
      },
    })
    more.value.push(...page.rows)
    moreKey.value = page.next
  } catch (e) {
    trouble.value = sayError(e)
  }
}
/** All pages of the view, as a file. */
function exportAs(as: 'csv' | 'xlsx', of: 'requests' | 'lines' = 'requests'): string {
  const query = Object.entries({ ...asked.value, of, as }).flatMap(([k, v]) => (v === undefined ? [] : [[k, v]]))
  return `/api/requisitions/export?${new URLSearchParams(query).toString()}`
}
const jobs = computed(() => jobChoices(filters.value?.jobs ?? [], 'any job'))
const fields = computed(() => [
  { id: '', name: 'any field' },
  ...(filters.value?.fields ?? []).map((f) => ({ id: f.id, name: f.name })),
])
const values = computed(() => filters.value?.fields.find((f) => f.id === asked.value.field)?.values ?? [])
const isNarrowed = computed(
  () => view.value !== 'all' || words.value !== '' || asked.value.job !== undefined || asked.value.field !== undefined,
)
function narrow(change: Record<string, string | undefined>): void {
  void router.replace({ query: { ...route.query, ...change } })
}
const query = computed(() =>
  new URLSearchParams(
    Object.entries(route.query).flatMap(([k, v]) => (typeof v === 'string' && v !== '' ? [[k, v]] : [])),
  ).toString(),
)
const reminded = ref('')
async function remind(r: MineRow): Promise<void> {
  trouble.value = ''
  try {
    const { names } = await api.post('/api/requisitions/{id}/reminders', {
      params: { id: r.id },
      key: crypto.randomUUID(),
    })
    reminded.value = `${listWords(names)} ${names.length === 1 ? 'is' : 'are'} reminded of ${r.title}.`
    await refresh()
  } catch (e) {
    trouble.value = sayError(e)
  }
}
const table = useTemplateRef<{ move: (by: 1 | -1) => void }>('table')
usePlaceKeys(
  [
    { keys: '↑ ↓', does: 'between requests' },
    { keys: 'Enter', does: 'open the trail' },
  ],
  (event) => {
    if (isTyping(event)) return
    if (event.key === 'ArrowDown') {
      event.preventDefault()
      table.value?.move(1)
    }
    if (event.key === 'ArrowUp') {
      event.preventDefault()
      table.value?.move(-1)
    }
  },
)
</script>

<template>
  <div>
    <PageNote>arrows to move, Enter to open</PageNote>
    <SheetPage>
      <div class="mb-3 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 class="sentence">{{ sentence }}</h1>
        <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
          <nav class="flex flex-wrap gap-x-5 gap-y-1" aria-label="Views">
            <NuxtLink
              v-for="v in VIEWS"
              :key="v.id"
              :to="{ query: { ...route.query, view: v.id === 'all' ? undefined : v.id } }"
              :class="view === v.id ? 'font-semibold' : 'text-ink2 hover:text-ink'"
              :aria-current="view === v.id ? 'true' : undefined"
              >{{ v.name }}</NuxtLink
            >
          </nav>
          <input
            v-model="typed"
            class="field w-[190px]! min-h-[34px]! py-1.5!"
            type="search"
            aria-label="Find among mine"
            placeholder="Words, or R-26-*12"
          />
        </div>
      </div>
      <div class="mb-3 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-ink2">
        <p v-if="(filters?.jobs.length ?? 0) > 0 || (filters?.fields.length ?? 0) > 0">
          <template v-if="(filters?.jobs.length ?? 0) > 0"
            >For
            <BlankChoice
              compact
              class="font-medium text-ink"
              :model-value="asked.job ?? ''"
              :choices="jobs"
              label="For which job"
              placeholder="any job"
              @update:model-value="narrow({ job: $event || undefined })"
          /></template>
          <template v-if="(filters?.fields.length ?? 0) > 0">
            with
            <BlankChoice
              compact
              class="font-medium text-ink"
              :model-value="asked.field ?? ''"
              :choices="fields"
              label="With which field"
              placeholder="any field"
              @update:model-value="narrow({ field: $event || undefined, value: undefined })" /><template
              v-if="asked.field"
            >
              that is
              <BlankChoice
                compact
                class="font-medium text-ink"
                :model-value="asked.value ?? null"
                :choices="values"
                label="That is"
                placeholder="which value"
                @update:model-value="narrow({ value: $event })" /></template
          ></template>
        </p>
        <SavedViews :query="query" :is-narrowed="isNarrowed" @trouble="trouble = $event" />
      </div>
      <p v-if="reminded" class="small mb-2" role="status">{{ reminded }}</p>
      <p v-if="error" class="notice-red">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <template v-else-if="data && data.total === 0">
        <p class="max-w-[60ch] text-ink2">
          Everything you ask for will stand here, with how far it has come, whom it waits for, and what you can do next.
        </p>
        <p class="mt-4"><NuxtLink class="action" to="/raise">Raise the first one</NuxtLink></p>
      </template>
      <p v-else-if="rows.length === 0" class="text-ink2">
        None of yours fits this. <NuxtLink class="quiet-link" to="/mine">See all of them</NuxtLink>.
      </p>
      <MineTable
        v-else
        ref="table"
        :rows="rows"
        :currency="data?.currency ?? 'EUR'"
        :now="data?.now ?? ''"
        @remind="remind"
      />
      <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <p v-if="data && rows.length > 0" class="small mt-3 flex flex-wrap gap-x-3">
        <span
          >{{ rows.length }} of {{ data.fitting }} · {{ wording.kept(data.sum, data.currency) }} in all,
          {{ wording.kept(data.openSum, data.currency) }} still open</span
        >
        <button v-if="moreKey" type="button" class="quiet-link" @click="readOn">Show the next 50</button>
        <span class="ml-auto"
          >Keep what is shown as <a class="quiet-link" :href="exportAs('csv')">CSV</a> or
          <a class="quiet-link" :href="exportAs('xlsx')">XLSX</a>, or line by line as
          <a class="quiet-link" :href="exportAs('csv', 'lines')" aria-label="Lines as CSV">CSV</a> or
          <a class="quiet-link" :href="exportAs('xlsx', 'lines')" aria-label="Lines as XLSX">XLSX</a></span
        >
      </p>
    </SheetPage>
  </div>
</template>
