<script setup lang="ts">
import { add, compare, isNegative, isZero, negate, sum, type Money } from '#core/base/money'
import { sayStage } from '#shared/words/budget'
import { capital, formatCount, formatYear, listWords } from '#shared/words/format'
import type { BudgetEntryView, BudgetLineView } from '#shared/contract/budget'
import type { ChartSeries } from '~/components/base/AxisChart.vue'
import BudgetBar from '~/components/budget/BudgetBar.vue'
import TransferList from '~/components/budget/TransferList.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, isTyping, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

// Drawn when it is looked at: the library of charts is large.
const BeginYear = defineAsyncComponent(() => import('~/components/budget/BeginYear.vue'))
const SpreadYear = defineAsyncComponent(() => import('~/components/budget/SpreadYear.vue'))
const MoveMoney = defineAsyncComponent(() => import('~/components/budget/MoveMoney.vue'))
const AxisChart = defineAsyncComponent(() => import('~/components/base/AxisChart.vue'))
useHead({ title: 'Budgets · Rekko' })
const api = useApi()
const route = useRoute()
const router = useRouter()
const wording = useWording()
const session = useSessionStore()
const year = computed(() => (typeof route.query.year === 'string' ? route.query.year : undefined))
/** For the whole year, or up to this period. */
const until = computed(() => (route.query.until === 'now' ? 'now' : 'year'))
const { data, error, refresh } = await useAsyncData(
  'budgets',
  () => api.get('/api/budgets', { query: { year: year.value, until: until.value } }),
  { watch: [year, until] },
)
const { data: moving, refresh: readMoving } = await useAsyncData(
  'budget-transfers',
  () => api.get('/api/budget-transfers', { query: { year: year.value } }),
  { watch: [year] },
)
const waiting = computed(() => (moving.value?.transfers ?? []).filter((t) => t.state === 'proposed'))
/** What moved in or out of the line that is looked at. */
const moved = computed(() =>
  (moving.value?.transfers ?? []).filter(
    (t) => t.state === 'done' && [t.fromLineId, t.toLineId].includes(line.value?.id ?? ''),
  ),
)
const isMoving = ref(false)
const isSpreading = ref(false)
const said = ref('')
const keepsBudgets = session.me?.rights.includes('keep budgets') === true
/** A year that lies ahead is begun from the one before. */
const mayBegin = computed(() => keepsBudgets && data.value?.yearGone === 0)
/** What of a year that is over nobody billed yet. */
const stillOpen = computed(() =>
  add(
    total((l) => l.reserved),
    total((l) => l.committed),
  ),
)
const mayEnd = computed(() => keepsBudgets && data.value?.yearLeft === 0 && !isZero(stillOpen.value))
const mayMove = computed(() => keepsBudgets || (data.value?.lines ?? []).some((l) => l.isHeld))
async function readAll(words = ''): Promise<void> {
  isMoving.value = false
  isSpreading.value = false
  said.value = words
  await Promise.all([refresh(), readMoving()])
}
const file = (as: string) =>
  `/api/budgets/file?${new URLSearchParams({
    ...(year.value === undefined ? {} : { year: year.value }),
    until: until.value,
    as,
  }).toString()}`
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
    void readMoving()
    void readBehind()
  }
})

const departments = computed(() => data.value?.departments ?? [])
/** Rows of departments; with one, the lines stand for themselves. */
const hasSums = computed(() => departments.value.length > 1)
/** How far a row stands in below the department that it is part of. */
const inset = (depth: number) => (depth === 0 ? undefined : { paddingInlineStart: `${depth * 1.2}rem` })
const total = (pick: (l: BudgetLineView) => Money) =>
  sum((data.value?.lines ?? []).map(pick), data.value?.currency ?? 'EUR')
const over = computed(() => (data.value?.lines ?? []).filter((l) => isNegative(l.available)))
const WHEN = { tells: 'tells', asks: 'asks why', refuses: 'refuses' }
const entries = computed(() => [...(behind.value?.entries ?? []), ...more.value])
const next = ref<number | null>(null)
watchEffect(() => {
  next.value = behind.value?.next ?? null
})
const trouble = ref('')

function choose(id: string): void {
  if (id !== chosenId.value) {
    isMoving.value = false
    isSpreading.value = false
    said.value = ''
  }
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
const given = computed(() => {
  const name = until.value === 'now' ? 'to date' : 'for the year'
  const by = line.value?.moved
  if (by === undefined || isZero(by)) return name
  return `${name}, with ${wording.amount(isNegative(by) ? negate(by) : by)} moved ${isNegative(by) ? 'out' : 'in'}`
})
/** What the line will come to by the end of its year, and what of it is left then. */
function sayForecast(f: NonNullable<BudgetLineView['forecast']>): string {
  const left = (m: Money) => (isNegative(m) ? `${wording.amount(negate(m))} missing` : `${wording.amount(m)} left`)
  const how = f.byLastYear ? 'by its pace and by the course of last year' : 'at its pace'
  return compare(f.least, f.most) === 0
    ? `By the end of the year about ${wording.amount(f.most)} will have gone, ${how}, with ${left(f.leftLeast)}.`
    : `By the end of the year between ${wording.amount(f.least)} and ${wording.amount(f.most)} will have gone, ` +
        `${how}: ${left(f.leftLeast)} at worst, ${left(f.leftMost)} at best.`
}
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
const KEYS = [
  { keys: '↑ ↓', does: 'between budget lines' },
  { keys: 'Ctrl Enter', does: 'move money into the line' },
]
usePlaceKeys(KEYS, (e) => {
  if (isMainKey(e) && mayMove.value && !isSpreading.value) {
    e.preventDefault()
    isMoving.value = true
  }
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
        >fiscal year {{ formatYear(data.year) }} · period {{ data.period }} ·
        <NuxtLink class="quiet-link" :to="{ query: { ...route.query, until: until === 'now' ? undefined : 'now' } }">{{
          until === 'now' ? 'show the year' : 'show to date'
        }}</NuxtLink>
        · <NuxtLink class="quiet-link" :to="{ query: { year: data.year - 1 } }">last year</NuxtLink> ·
        <NuxtLink class="quiet-link" :to="{ query: { year: data.year + 1 } }">next year</NuxtLink></template
      ></PageNote
    >
    <SheetPage>
      <p v-if="error" class="notice-red">{{ sayError(error) }}</p>
      <template v-else-if="data && data.lines.length === 0"
        ><h1 class="sentence">
          {{ mayBegin ? `${formatYear(data.year)} has no budget line yet.` : 'No budget line is open to you.' }}
        </h1>
        <p class="mt-3 text-ink2">
          Lines of your departments, and those you hold, stand here with what is asked for, ordered and billed. Finance
          keeps them.
        </p>
        <BeginYear v-if="mayBegin" :key="data.year" :year="data.year" @begun="readAll" />
      </template>
      <template v-else-if="data">
        <h1 class="sentence">
          {{
            departments.length === 1
              ? departments[0]?.name
              : capital(formatCount(departments.length, 'department', 'departments'))
          }}
          {{ departments.length === 1 ? 'has' : 'have' }} <b>{{ wording.money(total((l) => l.available)) }}</b> left of
          {{ wording.amount(total((l) => l.given)) }}, with {{ wording.percent(data.yearLeft) }} of the year to go.
          <span v-if="over.length > 0" class="text-red"
            >{{
              listWords(over.map((l) => `${l.name} is ${wording.amount(l.available).replace('−', '')} over`))
            }}.</span
          >
        </h1>
        <TransferList v-if="waiting.length > 0" :transfers="waiting" @decided="readAll()" />
        <MoveMoney
          v-if="isMoving && line"
          :key="line.id"
          :line="line"
          :lines="data.lines"
          :period="data.period"
          :currency="data.currency"
          :may-adjust="keepsBudgets"
          @moved="readAll"
          @leave="isMoving = false"
        />
        <BeginYear v-if="mayBegin" :key="data.year" :year="data.year" @begun="readAll" />
        <p v-if="mayEnd" class="mt-3 text-ink2">
          The year is over, and {{ wording.money(stillOpen) }} of it is asked for or ordered and not billed:
          <NuxtLink class="quiet-link" :to="`/budgets/year-end?year=${data.year}`"
            >carry it to {{ formatYear(data.year + 1) }} or release it</NuxtLink
          >.
        </p>
        <SpreadYear
          v-if="isSpreading && line && data"
          :key="line.id"
          :line="line"
          :currency="data.currency"
          @spread="readAll"
          @leave="isSpreading = false"
        />
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
              <th scope="col" class="num">{{ until === 'now' ? 'To date' : 'For the year' }}</th>
              <th scope="col" class="w-[34%] pl-2! max-[900px]:hidden">Where it went</th>
              <th scope="col" class="num">Left</th>
              <th scope="col" class="pl-3! max-[900px]:hidden">When passed</th>
              <th scope="col" class="max-[900px]:hidden">Behind it</th>
            </tr>
          </thead>
          <tbody v-for="d in departments" :key="d.id">
            <tr v-if="hasSums">
              <th scope="rowgroup" class="border-strong! pt-4! text-[14px]! text-ink!" :style="inset(d.depth)">
                {{ d.name }}<span v-if="d.hasBelow" class="small block font-normal">with all below it</span>
              </th>
              <td class="num border-strong! pt-4!">{{ wording.amount(d.given) }}</td>
              <td class="border-strong! pt-4! max-[900px]:hidden" />
              <td class="num border-strong! pt-4!" :class="isNegative(d.available) ? 'font-semibold text-red' : ''">
                {{ wording.amount(d.available) }}
              </td>
              <td class="border-strong! pt-4! max-[900px]:hidden" colspan="2" />
            </tr>
            <tr
              v-for="l in data.lines.filter((x) => x.departmentId === d.id)"
              :id="`budget-${l.id}`"
              :key="l.id"
              tabindex="0"
              class="cursor-pointer"
              :data-chosen="l.id === chosenId"
              :aria-current="l.id === chosenId ? 'true' : undefined"
              @click="choose(l.id)"
              @focus="choose(l.id)"
            >
              <td class="font-semibold" :style="hasSums ? inset(d.depth) : undefined">{{ l.name }}</td>
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
        <p class="small mt-3 flex flex-wrap justify-between gap-x-3">
          <span v-if="hasSums">Each department with the sum of its lines, and of those below it.</span>
          <span class="ml-auto"
            >Keep what is shown as <a class="quiet-link" :href="file('csv')">CSV</a> or
            <a class="quiet-link" :href="file('xlsx')">XLSX</a></span
          >
        </p>
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
              [given, line.given],
              ['spent', line.spent],
              ['ordered', line.committed],
              ['asked for', line.reserved],
            ] as const"
            :key="name"
            class="flex justify-between"
          >
            <dt class="text-ink2">{{ name }}</dt>
            <dd>{{ name === given || isZero(m) ? wording.amount(m) : `−${wording.amount(m)}` }}</dd>
          </div>
        </dl>
        <p v-if="line.forecast" class="mt-3">{{ sayForecast(line.forecast) }}</p>
        <template v-if="moved.length > 0">
          <h3 class="head mb-1 mt-5">What was moved</h3>
          <ul>
            <li v-for="t in moved" :key="t.id" class="border-b border-rule py-1.5">
              <p class="flex justify-between gap-3">
                <span>{{
                  t.from === null ? 'adjusted' : t.toLineId === line.id ? `from ${t.from}` : `to ${t.to}`
                }}</span><span class="num">{{
                  wording.amount(t.toLineId === line.id ? t.amount : negate(t.amount))
                }}</span>
              </p>
              <p class="small">
                {{ t.decidedBy }}, {{ wording.moment(t.decidedAt ?? t.proposedAt) }}: “{{ t.reason }}”
              </p>
            </li>
          </ul>
        </template>
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
              {{ sayStage(e.stage) }}
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
      <template v-if="line && data && mayMove" #action>
        <p v-if="said" class="small mb-2" role="status">{{ said }}</p>
        <MainAction v-if="!isMoving" keys="Ctrl ⏎" @press="isMoving = true">Move money into {{ line.name }}</MainAction>
        <button
          v-if="keepsBudgets && !isSpreading && !isMoving"
          type="button"
          class="quiet-link small mt-2.5"
          @click="isSpreading = true"
        >
          Spread its year over the months
        </button>
      </template>
    </SheetPage>
  </div>
</template>
