<script setup lang="ts">
import { isNegative, isZero, sum, type Money } from '#core/base/money'
import { listWords } from '#shared/words/format'
import type { BudgetEntryView, BudgetLineView } from '#shared/contract/budget'
import type { ChartSeries } from '~/components/base/AxisChart.vue'
import BudgetBar from '~/components/budget/BudgetBar.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isTyping, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'

// Drawn when it is looked at: the library of charts is large.
const AxisChart = defineAsyncComponent(() => import('~/components/base/AxisChart.vue'))
useHead({ title: 'Budgets · Rekko' })
const api = useApi()
const route = useRoute()
const router = useRouter()
const wording = useWording()
const year = computed(() => (typeof route.query.year === 'string' ? route.query.year : undefined))
const { data, error, refresh } = await useAsyncData(
  'budgets',
  () => api.get('/api/budgets', { query: { year: year.value } }),
  { watch: [year] },
)
const chosenId = computed(() => (typeof route.query.line === 'string' ? route.query.line : (busiest.value?.id ?? null)))
const busiest = computed(
  () => [...(data.value?.lines ?? [])].sort((a, b) => b.orders + b.requests - a.orders - a.requests)[0],
)
const line = computed(() => data.value?.lines.find((l) => l.id === chosenId.value) ?? null)
const { data: behind, refresh: readBehind } = await useAsyncData(
  'budget-entries',
  async () =>
    chosenId.value === null
      ? null
      : api.get('/api/budgets/{id}/entries', { params: { id: chosenId.value } }).catch(() => null),
  { watch: [chosenId] },
)
const more = ref<BudgetEntryView[]>([])
watch(behind, () => {
  more.value = []
})
useLive((changes) => {
  if (changes.some((c) => ['requisition', 'order', 'again'].includes(c.kind))) {
    void refresh()
    void readBehind()
  }
})

const departments = computed(() => [...new Set((data.value?.lines ?? []).map((l) => l.department))])
const total = (pick: (l: BudgetLineView) => Money) =>
  sum((data.value?.lines ?? []).map(pick), data.value?.currency ?? 'EUR')
const over = computed(() => (data.value?.lines ?? []).filter((l) => isNegative(l.available)))
const WHEN = { tells: 'tells', asks: 'asks why', refuses: 'refuses' }
const STAGE = { reserved: 'asked for', committed: 'ordered', spent: 'billed' }
const entries = computed(() => [...(behind.value?.entries ?? []), ...more.value])
const next = ref<number | null>(null)
watchEffect(() => {
  next.value = behind.value?.next ?? null
})
const trouble = ref('')

function choose(id: string): void {
  void router.replace({ query: { ...route.query, line: id } })
}
function move(by: number): void {
  const lines = data.value?.lines ?? []
  const to = lines[Math.max(0, Math.min(lines.length - 1, lines.findIndex((l) => l.id === chosenId.value) + by))]
  if (to !== undefined) {
    choose(to.id)
    document.getElementById(`budget-${to.id}`)?.focus()
  }
}
async function readOn(): Promise<void> {
  try {
    const page = await api.get('/api/budgets/{id}/entries', {
      params: { id: chosenId.value ?? '' },
      query: {
        before: next.value ?? undefined,
      },
    })
    more.value.push(...page.entries)
    next.value = page.next
  } catch (e) {
    trouble.value = sayError(e)
  }
}
/** A line's bar in words. */
const sayBar = (l: BudgetLineView) =>
  `${l.name}: spent ${wording.amount(l.spent)}, ordered ${wording.amount(l.committed)}, ` +
  `asked for ${wording.amount(l.reserved)}, left ${wording.amount(l.available)}`
const monthNames = computed(() => line.value?.byPeriod.map((p) => wording.shortMonth(p.from)) ?? [])
/** What every month was given, and what stands in it. */
const months = computed((): ChartSeries[] => {
  const periods = line.value?.byPeriod ?? []
  return [
    { name: 'spent', look: 'solid', values: periods.map((p) => p.spent.amount) },
    { name: 'ordered', look: 'upright', values: periods.map((p) => p.committed.amount) },
    { name: 'asked for', look: 'slanted', values: periods.map((p) => p.reserved.amount) },
    { name: 'given', look: 'line', values: periods.map((p) => p.budgeted.amount) },
  ]
})
usePlaceKeys([{ keys: '↑ ↓', does: 'between budget lines' }], (e) => {
  if (isTyping(e)) return
  if (e.key === 'ArrowDown') {
    e.preventDefault()
    move(1)
  }
  if (e.key === 'ArrowUp') {
    e.preventDefault()
    move(-1)
  }
})
</script>

<template>
  <div>
    <PageNote
      ><template v-if="data"
        >fiscal year {{ data.year }}/{{ String(data.year + 1).slice(2) }} · period {{ data.period }} ·
        <NuxtLink class="quiet-link" :to="{ query: { year: data.year + 1 } }">next year</NuxtLink></template
      ></PageNote
    >
    <SheetPage>
      <p v-if="error" class="notice-red">{{ sayError(error) }}</p>
      <template v-else-if="data && data.lines.length === 0"
        ><h1 class="sentence">No budget line is open to you.</h1>
        <p class="mt-3 text-ink2">
          Lines of your departments, and those you hold, stand here with what is asked for, ordered and billed. Finance
          keeps them.
        </p></template
      >
      <template v-else-if="data">
        <h1 class="sentence">
          {{ departments.length === 1 ? departments[0] : `${departments.length} departments` }}
          {{ departments.length === 1 ? 'has' : 'have' }} <b>{{ wording.money(total((l) => l.available)) }}</b> left of
          {{ wording.amount(total((l) => l.given)) }}, with {{ wording.percent(data.yearLeft) }} of the year to go.
          <span v-if="over.length > 0" class="text-red"
            >{{
              listWords(over.map((l) => `${l.name} is ${wording.amount(l.available).replace('−', '')} over`))
            }}.</span
          >
        </h1>
        <p class="mb-1 mt-3 flex flex-wrap items-center gap-x-5 gap-y-1 text-ink2">
          <span class="inline-flex items-center gap-1.5"
            ><svg width="22" height="8" aria-hidden="true"><rect width="22" height="8" rx="2" fill="var(--ink)" /></svg
            >spent</span
          >
          <span class="inline-flex items-center gap-1.5"
            ><svg width="22" height="8" aria-hidden="true">
              <path d="M2.5 0v8M6.5 0v8M10.5 0v8M14.5 0v8M18.5 0v8" stroke="var(--ink)" stroke-width="1.5" />
              <rect x="0.5" y="0.5" width="21" height="7" rx="2" fill="none" stroke="var(--ink)" /></svg
            >ordered, not billed</span
          >
          <span class="inline-flex items-center gap-1.5"
            ><svg width="22" height="8" aria-hidden="true">
              <path d="M0 8l8-8M6 8l8-8M12 8l8-8M18 8l8-8" stroke="var(--ink2)" stroke-width="1.3" />
              <rect x="0.5" y="0.5" width="21" height="7" rx="2" fill="none" stroke="var(--ink)" /></svg
            >asked for, not ordered</span
          >
          <span class="inline-flex items-center gap-1.5"
            ><svg width="22" height="8" aria-hidden="true">
              <rect x="0.5" y="0.5" width="21" height="7" rx="2" fill="none" stroke="var(--ink)" /></svg
            >left</span
          >
          <span class="ml-auto max-[900px]:hidden"
            >mark at {{ wording.percent(data.yearGone) }}: the share of the year gone</span
          >
        </p>
        <table class="table">
          <caption class="sr-only">
            Budget lines
          </caption>
          <thead>
            <tr>
              <th scope="col">Budget line</th>
              <th scope="col" class="num">For the year</th>
              <th scope="col" class="w-[34%] pl-2! max-[900px]:hidden">Where it went</th>
              <th scope="col" class="num">Left</th>
              <th scope="col" class="pl-3! max-[900px]:hidden">When passed</th>
              <th scope="col" class="max-[900px]:hidden">Behind it</th>
            </tr>
          </thead>
          <tbody v-for="d in departments" :key="d">
            <tr v-if="departments.length > 1">
              <td colspan="6" class="border-strong! pt-4! font-semibold">{{ d }}</td>
            </tr>
            <tr
              v-for="l in data.lines.filter((x) => x.department === d)"
              :id="`budget-${l.id}`"
              :key="l.id"
              tabindex="0"
              class="cursor-pointer"
              :data-chosen="l.id === chosenId"
              :aria-current="l.id === chosenId ? 'true' : undefined"
              @click="choose(l.id)"
              @focus="choose(l.id)"
            >
              <td class="font-semibold">{{ l.name }}</td>
              <td class="num">{{ wording.amount(l.given) }}</td>
              <td class="pl-2! pt-2.5! max-[900px]:hidden">
                <BudgetBar
                  :given="l.given"
                  :spent="l.spent"
                  :committed="l.committed"
                  :reserved="l.reserved"
                  :mark="data.yearGone"
                  :label="sayBar(l)"
                />
              </td>
              <td class="num" :class="isNegative(l.available) ? 'font-semibold text-red' : ''">
                {{ wording.amount(l.available) }}
              </td>
              <td class="pl-3! text-ink2 max-[900px]:hidden">{{ WHEN[l.control] }}</td>
              <td class="text-ink2 max-[900px]:hidden">
                {{
                  [
                    l.requests > 0 ? `${l.requests} ${l.requests === 1 ? 'request' : 'requests'}` : '',
                    l.orders > 0 ? `${l.orders} ${l.orders === 1 ? 'order' : 'orders'}` : '',
                  ]
                    .filter((x) => x)
                    .join(', ') || '–'
                }}
              </td>
            </tr>
          </tbody>
        </table>
      </template>
      <template v-if="line && data" #margin>
        <h2 class="head">{{ line.name }}</h2>
        <p class="text-ink2">
          {{ line.holder === null ? 'no holder' : `holder ${line.holder}` }} · {{ line.code }} ·
          {{ WHEN[line.control] }} when passed
        </p>
        <h3 class="head mb-1 mt-5">Month by month</h3>
        <ClientOnly>
          <AxisChart
            :label="`Month by month of ${line.name}`"
            :categories="monthNames"
            :series="months"
            :format="(v) => wording.kept(v, data?.currency ?? 'EUR')"
          />
          <template #fallback><div class="h-[160px]" /></template>
        </ClientOnly>
        <h3 class="head mb-1 mt-4">What stands behind {{ wording.amount(line.available) }}</h3>
        <dl>
          <div
            v-for="[name, m] in [
              ['for the year', line.given],
              ['spent', line.spent],
              ['ordered', line.committed],
              ['asked for', line.reserved],
            ] as const"
            :key="name"
            class="flex justify-between"
          >
            <dt class="text-ink2">{{ name }}</dt>
            <dd>{{ name === 'for the year' || isZero(m) ? wording.amount(m) : `−${wording.amount(m)}` }}</dd>
          </div>
        </dl>
        <h3 class="head mb-1 mt-5">Every entry</h3>
        <p v-if="entries.length === 0" class="text-ink2">Nothing was asked of it yet.</p>
        <ul v-else>
          <li
            v-for="e in entries"
            :key="e.seq"
            class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 border-b border-rule py-1.5"
          >
            <p class="min-w-0 truncate">
              <span v-if="e.documentKind === 'opening'">{{
                e.visible ? (e.number ?? e.title) : 'something from before'
              }}</span>
              <NuxtLink
                v-else-if="e.visible"
                class="quiet-link"
                :to="e.documentKind === 'order' ? `/orders/${e.documentId}` : `/trail/${e.documentId}`"
                >{{ e.number ?? e.title }}</NuxtLink><template v-else>a {{ e.documentKind }}</template>
              {{ STAGE[e.stage] }}
            </p>
            <span class="num" :class="e.amount.startsWith('-') ? 'text-ink2' : ''">{{
              wording.kept(e.amount, data.currency)
            }}</span>
            <p class="small col-span-2 truncate" :title="wording.exact(e.at)">
              {{ wording.moment(e.at) }} · {{ e.cause }}<template v-if="e.title"> · {{ e.title }}</template>
            </p>
          </li>
        </ul>
        <button v-if="next" type="button" class="quiet-link small mt-2" @click="readOn">Show earlier entries</button>
        <p v-if="trouble" class="notice-red mt-2">{{ trouble }}</p>
      </template>
    </SheetPage>
  </div>
</template>
