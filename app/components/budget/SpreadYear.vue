<script setup lang="ts">
import type { ProfileWay } from '#core/budget/profile'
import { isZero, moneyOf, subtract, sum } from '#core/base/money'
import { readTypedNumber } from '#core/base/typed-number'
import type { BudgetLineView } from '#shared/contract/budget'
import KeyOf from '~/components/base/KeyOf.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { submitByMainKey } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'

/** Spreads what a budget line was given for its year over the months: evenly, as last year went, or month by month. */
const props = defineProps<{ line: BudgetLineView; currency: string }>()
const emit = defineEmits<{ spread: [said: string]; leave: [] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const seen = props.line.byPeriod.map((p) => p.planned)
const typed = ref(seen.map((m) => wording.amount(m)))
const read = computed(() => typed.value.map((t) => (t.trim() === '' ? '0' : readTypedNumber(t, wording.decimalMark))))
const unread = computed(() => read.value.findIndex((r) => r === null))
const year = computed(() => sum(seen, props.currency))
const left = computed(() =>
  subtract(
    year.value,
    sum(
      read.value.map((r) => moneyOf(r ?? '0', props.currency)),
      props.currency,
    ),
  ),
)
const missing = computed(() => {
  const at = unread.value
  if (at >= 0) return `“${typed.value[at] ?? ''}” is not an amount`
  if (isZero(left.value)) return ''
  return left.value.amount.startsWith('-')
    ? `${wording.money(moneyOf(left.value.amount.slice(1), props.currency))} too much`
    : `${wording.money(left.value)} are left to spread`
})
const form = useTemplateRef<HTMLFormElement>('form')
onMounted(() => form.value?.querySelector('input')?.focus())
const SAID = { evenly: 'evenly', 'last year': 'as last year went', 'by hand': 'month by month' }
async function spread(how: ProfileWay): Promise<void> {
  if (how === 'by hand' && missing.value !== '') return
  const done = await act(() =>
    api.put('/api/budgets/{id}/profile', {
      params: { id: props.line.id },
      body: {
        how,
        ...(how === 'by hand' ? { amounts: read.value.map((r) => r ?? '0') } : {}),
        seen: seen.map((m) => m.amount),
      },
    }),
  )
  if (done) emit('spread', `${props.line.name} is spread ${SAID[how]}.`)
}
</script>

<template>
  <form
    ref="form"
    class="mt-3 rounded border border-strong px-4 pb-3.5 pt-2.5"
    aria-label="Spread the year"
    @submit.prevent="spread('by hand')"
    @keydown="submitByMainKey"
    @keydown.esc="emit('leave')"
  >
    <p>
      <b class="font-semibold">{{ line.name }}</b> was given {{ wording.money(year) }} for the year. What each month has
      of it:
    </p>
    <div class="mt-2 grid grid-cols-6 gap-x-3 gap-y-2 max-[700px]:grid-cols-3">
      <label v-for="(p, i) in line.byPeriod" :key="p.period" class="small block"
        >{{ wording.shortMonth(p.from)
        }}<input
          v-model="typed[i]"
          class="field num mt-0.5 px-2! text-ink! text-[15px]!"
          inputmode="decimal"
          :aria-invalid="unread === i"
          @focus="($event.target as HTMLInputElement).select()"
      /></label>
    </div>
    <p v-if="trouble" class="notice-red mt-2" role="alert">{{ trouble }}</p>
    <div class="mt-3 flex flex-wrap items-center gap-2">
      <button type="submit" class="action" :disabled="busy || missing !== ''">
        {{ missing === '' ? 'Keep it so' : missing }}<KeyOf v-if="missing === ''" /></button
      ><button type="button" class="action" :disabled="busy" @click="spread('evenly')">Spread it evenly</button
      ><button type="button" class="action" :disabled="busy" @click="spread('last year')">
        Spread it as last year went</button
      ><button type="button" class="action" @click="emit('leave')">Leave it</button>
    </div>
  </form>
</template>
