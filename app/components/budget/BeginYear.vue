<script setup lang="ts">
import type { YearBase } from '#core/budget/next-year'
import { readTypedNumber } from '#core/base/typed-number'
import { capital, formatCount, formatYear } from '#shared/words/format'
import BlankChoice from '~/components/base/BlankChoice.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** Begins a year from the one before: its budget lines that are not there yet, times a factor, seen before. */
const props = defineProps<{ year: number }>()
const emit = defineEmits<{ begun: [said: string] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const typed = ref('1')
const from = ref<YearBase>('planned')
const factor = computed(() => readTypedNumber(typed.value, wording.decimalMark))
const BASES = [
  { id: 'planned', name: 'was planned' },
  { id: 'given', name: 'was given, with all that was moved' },
]
const { data: plan, refresh } = await useAsyncData(
  `begin-${props.year}`,
  () =>
    factor.value === null
      ? Promise.resolve(null)
      : api
          .get('/api/fiscal-years/{year}/budget', {
            params: { year: props.year },
            query: { factor: factor.value, from: from.value },
          })
          .catch(() => null),
  { watch: [factor, from] },
)
const missing = computed(() =>
  factor.value === null
    ? `“${typed.value}” is no number`
    : plan.value === null
      ? 'A factor lies between 0 and 100'
      : '',
)
async function begin(): Promise<void> {
  const p = plan.value
  if (p === null || p === undefined || factor.value === null) return
  const body = { factor: factor.value, from: from.value, seen: p.is.amount }
  const done = await act(() =>
    api.post('/api/fiscal-years/{year}/budget', {
      params: { year: props.year },
      body,
      key: crypto.randomUUID(),
    }),
  )
  if (done) emit('begun', `${formatYear(props.year)} is begun with ${formatCount(p.lines.length, 'line', 'lines')}.`)
  else await refresh()
}
</script>

<template>
  <form
    v-if="missing !== '' || (plan && plan.lines.length > 0)"
    class="mt-4 rounded border border-strong px-4 pb-3.5 pt-2.5"
    :aria-label="`Begin ${formatYear(year)}`"
    @submit.prevent="begin"
  >
    <p class="leading-8">
      <template v-if="plan"
        >{{ capital(formatCount(plan.lines.length, 'line', 'lines')) }} of {{ formatYear(year - 1) }}
        {{ plan.lines.length === 1 ? 'is' : 'are' }} not there yet. </template
      >Begin {{ formatYear(year) }} with what
      <BlankChoice v-model="from" :choices="BASES" label="What the year begins from" placeholder="" light />, times
      <input
        v-model="typed"
        class="field num inline-block! h-8! w-20! px-2! py-0!"
        inputmode="decimal"
        aria-label="Times"
      /><template v-if="plan"
        >: {{ wording.money(plan.was) }} become <b class="font-semibold">{{ wording.money(plan.is) }}</b></template
      >.
    </p>
    <details v-if="plan" class="mt-1">
      <summary class="quiet-link small inline-block">line by line</summary>
      <table class="table mt-2">
        <caption class="sr-only">
          What each line begins with
        </caption>
        <thead>
          <tr>
            <th scope="col">Budget line</th>
            <th scope="col">Department</th>
            <th scope="col" class="num">{{ formatYear(year - 1) }}</th>
            <th scope="col" class="num">{{ formatYear(year) }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in plan.lines" :key="l.id">
            <td>{{ l.name }}</td>
            <td class="text-ink2">{{ l.department }}</td>
            <td class="num">{{ wording.amount(l.was) }}</td>
            <td class="num">{{ wording.amount(l.is) }}</td>
          </tr>
        </tbody>
      </table>
    </details>
    <p v-if="trouble" class="notice-red mt-2" role="alert">{{ trouble }}</p>
    <button type="submit" class="action mt-2" :disabled="busy || missing !== ''">
      {{ missing !== '' ? missing : `Begin ${formatYear(year)} with ${plan ? wording.money(plan.is) : ''}` }}
    </button>
  </form>
</template>
