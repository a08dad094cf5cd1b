<script setup lang="ts">
import { add, compare, sum, zero, type Money } from '#core/base/money'
import { carriedOutcome, type YearEndChoice } from '#core/budget/year-end'
import type { OpenLineView } from '#shared/contract/year-end'
import { capital, formatCount, formatYear } from '#shared/words/format'
import BlankChoice from '~/components/base/BlankChoice.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import YearEndRuns from '~/components/budget/YearEndRuns.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

const api = useApi()
const route = useRoute()
const wording = useWording()
const session = useSessionStore()
const year = computed(() => Number(typeof route.query.year === 'string' ? route.query.year : '') || 0)
useHead({ title: () => `End ${formatYear(year.value)} · Rekko` })
const keepsBudgets = session.me?.rights.includes('keep budgets') === true
const { data, error, refresh } = await useAsyncData(
  'year-end',
  () => api.get('/api/fiscal-years/{year}/end', { params: { year: year.value } }),
  { watch: [year] },
)
const lines = computed(() => data.value?.lines ?? [])
const departments = computed(() => [...new Set(lines.value.map((l) => l.department))])
const currency = computed(() => data.value?.currency ?? 'EUR')
const openOf = (l: OpenLineView): Money => add(l.reserved, l.committed)
const totalOf = (of: readonly OpenLineView[]): Money => sum(of.map(openOf), currency.value)

type Choice = YearEndChoice | 'later'
const made = ref<ReadonlyMap<string, Choice>>(new Map())
/** What stays without a choice is carried, where the next year has a line for it. */
const choiceOf = (l: OpenLineView): Choice => made.value.get(l.id) ?? (l.next === null ? 'later' : 'carry')
const CHOICES = [
  { id: 'carry', name: 'is carried' },
  { id: 'release', name: 'is released' },
  { id: 'later', name: 'stays for now' },
]
const choicesOf = (l: OpenLineView) => (l.next === null ? CHOICES.filter((c) => c.id !== 'carry') : CHOICES)
function choose(of: readonly OpenLineView[], choice: string): void {
  const next = new Map(made.value)
  for (const l of of) if (choice !== 'carry' || l.next !== null) next.set(l.id, choice as Choice)
  made.value = next
}
const PAYS = [
  { id: 'own', name: 'comes out of the money of its year' },
  { id: 'along', name: 'brings its money along' },
]
const pays = ref('own')
const withMoney = computed(() => pays.value === 'along')
const carried = computed(() => lines.value.filter((l) => choiceOf(l) === 'carry'))
const released = computed(() => lines.value.filter((l) => choiceOf(l) === 'release'))
const outcomeOf = (l: OpenLineView) =>
  l.next === null
    ? null
    : carriedOutcome(l.next, choiceOf(l) === 'carry' ? openOf(l) : zero(currency.value), withMoney.value)
const passed = computed(() => carried.value.filter((l) => outcomeOf(l)?.isPassed === true))

const outcome = computed(() => [
  ['carried', totalOf(carried.value)] as const,
  ['released', totalOf(released.value)] as const,
  ['stays for now', totalOf(lines.value.filter((l) => choiceOf(l) === 'later'))] as const,
])
const missing = computed(() =>
  !keepsBudgets
    ? 'Finance ends a year'
    : data.value?.mayEnd === false
      ? `It may be ended from ${wording.day(data.value.from)}`
      : carried.value.length + released.value.length === 0
        ? 'Choose what is carried, and what released'
        : '',
)
/** What is done is not undone: the first press says so, the second does it. */
const isSure = ref(false)
watch([made, pays], () => {
  isSure.value = false
})
const mainWords = computed(() => {
  if (missing.value !== '') return missing.value
  const parts = [
    ...(carried.value.length > 0 ? [`carry ${wording.money(totalOf(carried.value))}`] : []),
    ...(released.value.length > 0 ? [`release ${wording.money(totalOf(released.value))}`] : []),
  ]
  return `${capital(parts.join(', '))}${isSure.value ? ', for good' : ''}`
})
const said = ref('')
const { busy, trouble, act } = useAct()
/** Made once for what is looked at: pressed twice it is one. */
let key = crypto.randomUUID()
async function end(): Promise<void> {
  if (missing.value !== '' || busy.value) return
  if (!isSure.value) {
    isSure.value = true
    return
  }
  isSure.value = false
  const of = [...carried.value, ...released.value]
  const body = {
    lines: of.map((l) => ({
      id: l.id,
      choice: choiceOf(l) === 'carry' ? ('carry' as const) : ('release' as const),
      seen: openOf(l).amount,
    })),
    withMoney: withMoney.value,
  }
  const done = await act(() => api.post('/api/fiscal-years/{year}/end', { params: { year: year.value }, body, key }))
  key = crypto.randomUUID()
  said.value = done ? `${formatYear(year.value)} is ended for ${formatCount(of.length, 'line', 'lines')}.` : ''
  if (done) made.value = new Map()
  await refresh()
}
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'carry and release as chosen' }], (e) => {
  if (isMainKey(e)) {
    e.preventDefault()
    if (!e.repeat) void end()
  }
})
</script>

<template>
  <div>
    <PageNote><NuxtLink class="quiet-link" :to="`/budgets?year=${year}`">back to Budgets</NuxtLink></PageNote>
    <SheetPage>
      <p v-if="error" class="notice-red">{{ sayError(error) }}</p>
      <template v-else-if="data">
        <h1 v-if="lines.length === 0" class="sentence">Nothing of {{ formatYear(data.year) }} is open any more.</h1>
        <h1 v-else class="sentence">
          {{ formatYear(data.year) }} {{ data.mayEnd ? 'ended' : 'ends' }} with
          <b>{{ wording.money(totalOf(lines)) }}</b>
          asked for or ordered and not billed.
        </h1>
        <template v-if="lines.length > 0">
          <p class="sentence mt-4 text-[17px]! leading-8!">
            What is carried
            <BlankChoice v-model="pays" :choices="PAYS" label="What is carried" placeholder="" light />.
          </p>
          <p class="small mt-1">
            All of it:
            <template v-for="(c, i) in CHOICES" :key="c.id"
              ><template v-if="i > 0"> · </template>
              <button type="button" class="quiet-link" @click="choose(lines, c.id)">{{ c.name }}</button></template
            >
          </p>
          <table class="table mt-3">
            <caption class="sr-only">
              What is open of each budget line
            </caption>
            <thead>
              <tr>
                <th scope="col">Budget line</th>
                <th scope="col" class="num max-[900px]:hidden">Asked for</th>
                <th scope="col" class="num max-[900px]:hidden">Ordered</th>
                <th scope="col" class="num">Open</th>
                <th scope="col" class="pl-4!">What becomes of it</th>
                <th scope="col" class="num max-[900px]:hidden">Left of {{ formatYear(data.year + 1) }}</th>
              </tr>
            </thead>
            <tbody v-for="d in departments" :key="d">
              <tr v-if="departments.length > 1">
                <td class="border-strong! pt-4! font-semibold" colspan="6">{{ d }}</td>
              </tr>
              <tr v-for="l in lines.filter((x) => x.department === d)" :key="l.id">
                <td class="font-semibold">
                  <NuxtLink class="quiet-link" :to="`/budgets?year=${data.year}&line=${l.id}`">{{ l.name }}</NuxtLink>
                  <span class="small ml-1.5 font-normal">{{ formatCount(l.documents, 'document', 'documents') }}</span>
                </td>
                <td class="num text-ink2 max-[900px]:hidden">{{ wording.amount(l.reserved) }}</td>
                <td class="num text-ink2 max-[900px]:hidden">{{ wording.amount(l.committed) }}</td>
                <td class="num">{{ wording.amount(openOf(l)) }}</td>
                <td class="pl-4!">
                  <BlankChoice
                    :model-value="choiceOf(l)"
                    :choices="choicesOf(l)"
                    :label="`What becomes of ${l.name}`"
                    placeholder=""
                    light
                    @update:model-value="choose([l], $event)"
                  />
                  <span v-if="l.next === null" class="small block">no line in {{ formatYear(data.year + 1) }}</span>
                </td>
                <td class="num max-[900px]:hidden" :class="outcomeOf(l)?.isPassed ? 'font-semibold text-red' : ''">
                  <template v-if="outcomeOf(l)"
                    ><span v-if="compare(outcomeOf(l)!.before, outcomeOf(l)!.after) !== 0" class="font-normal text-ink2"
                      >{{ wording.amount(outcomeOf(l)!.before) }} → </span
                    >{{ wording.amount(outcomeOf(l)!.after) }}</template
                  ><template v-else>–</template>
                </td>
              </tr>
            </tbody>
          </table>
        </template>
        <YearEndRuns v-if="data.runs.length > 0" :year="data.year" :runs="data.runs" />
      </template>
      <template v-if="data" #margin>
        <p v-if="lines.length === 0" class="text-ink2">What is open at the end of a year stands here.</p>
        <template v-else>
          <h2 class="head mb-1.5">What this would do</h2>
          <dl>
            <div v-for="[name, m] in outcome" :key="name" class="flex justify-between gap-3">
              <dt class="text-ink2">{{ name }}</dt>
              <dd class="num">{{ wording.amount(m) }}</dd>
            </div>
          </dl>
          <p v-if="passed.length > 0" class="mt-3 text-red">
            {{ capital(formatCount(passed.length, 'line', 'lines')) }} of {{ formatYear(data.year + 1) }}
            {{ passed.length === 1 ? 'is' : 'are' }} passed by what is carried. Nothing is refused for that: it was
            promised before.
          </p>
          <p class="mt-4 text-ink2">
            What is carried pays from the line of {{ formatYear(data.year + 1) }}, in its first month, from then on.
          </p>
          <p class="mt-3 text-ink2">
            What is released gives its money back to {{ formatYear(data.year) }}; whatever it was for takes money anew
            when it is ordered.
          </p>
          <p class="mt-3 text-ink2">Requests and orders stay as they are.</p>
        </template>
      </template>
      <template v-if="data && (lines.length > 0 || said !== '')" #action>
        <p v-if="said" class="small mb-2" role="status">{{ said }}</p>
        <p v-if="isSure" class="small mb-2" role="status">This is not undone afterwards. Press once more to do it.</p>
        <p v-if="trouble" class="notice-red mb-2" role="alert">{{ trouble }}</p>
        <MainAction v-if="lines.length > 0" :missing="missing !== ''" :busy="busy" keys="Ctrl ⏎" @press="end">{{
          mainWords
        }}</MainAction>
      </template>
    </SheetPage>
  </div>
</template>
