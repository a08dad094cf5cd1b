<script setup lang="ts">
import type { Money } from '#core/base/money'
import type { BudgetLineView } from '#shared/contract/budget'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankAmount from '~/components/base/BlankAmount.vue'
import KeyOf from '~/components/base/KeyOf.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { submitByMainKey } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'

/** Moves money into a budget line from another, which its holder has to agree to; finance may give it from nowhere. */
const props = defineProps<{
  line: BudgetLineView
  lines: readonly BudgetLineView[]
  period: number
  currency: string
  /** Whoever keeps budgets may adjust them besides. */
  mayAdjust: boolean
}>()
const emit = defineEmits<{ moved: [said: string]; leave: [] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const NOWHERE = ''
const from = ref<string | null>(null)
const amount = shallowRef<Money | null>(null)
const at = ref(String(props.period))
const reason = ref('')
const givers = computed(() => [
  ...(props.mayAdjust ? [{ id: NOWHERE, name: 'no other line: adjust it' }] : []),
  ...props.lines
    .filter((l) => l.id !== props.line.id)
    .map((l) => ({ id: l.id, name: `${l.name}, ${l.department}`, note: `${wording.amount(l.available)} left` })),
])
const months = computed(() =>
  props.line.byPeriod.map((p) => ({ id: String(p.period), name: wording.shortMonth(p.from) })),
)
const giver = computed(() => props.lines.find((l) => l.id === from.value))
/** Who agrees: the holder of the other line; the server decides. */
const agrees = computed(() => {
  const g = giver.value
  if (g === undefined) return ''
  const other = props.line.isHeld ? g : g.isHeld ? props.line : g
  return other.isHeld || other.holder === null ? 'finance' : other.holder
})
const missing = computed(() =>
  from.value === null
    ? 'Choose the line it comes from'
    : amount.value === null
      ? 'Say how much'
      : reason.value.trim() === ''
        ? 'Say what it is for'
        : '',
)
const words = computed(() => {
  if (missing.value !== '') return missing.value
  const money = amount.value === null ? '' : wording.money(amount.value)
  return from.value === NOWHERE ? `Adjust it by ${money}` : `Propose ${money} to ${agrees.value}`
})
const form = useTemplateRef<HTMLFormElement>('form')
onMounted(() => form.value?.querySelector('input')?.focus())
async function submit(): Promise<void> {
  if (missing.value !== '') return
  const isAdjusting = from.value === NOWHERE
  const common = { period: Number(at.value), amount: amount.value?.amount ?? '0', reason: reason.value }
  const done = await act(() =>
    isAdjusting
      ? api.post('/api/budget-adjustments', {
          body: { budgetLineId: props.line.id, ...common },
          key: crypto.randomUUID(),
        })
      : api.post('/api/budget-transfers', {
          body: { fromLineId: from.value ?? '', toLineId: props.line.id, ...common },
          key: crypto.randomUUID(),
        }),
  )
  if (done) emit('moved', isAdjusting ? `${props.line.name} is adjusted.` : `${agrees.value} is asked to agree.`)
}
</script>

<template>
  <form
    ref="form"
    class="mt-3 rounded border border-strong px-4 pb-3.5 pt-2.5"
    aria-label="Move money"
    @submit.prevent="submit"
    @keydown="submitByMainKey"
    @keydown.esc="emit('leave')"
  >
    <p class="leading-8">
      Move
      <BlankAmount v-model="amount" :currency="currency" label="How much" placeholder="how much" />
      from
      <BlankChoice v-model="from" :choices="givers" label="From which line" placeholder="which line" light />
      into <b class="font-semibold">{{ line.name }}</b>, for
      <BlankChoice v-model="at" :choices="months" label="In which period" placeholder="" light />.
    </p>
    <label class="sr-only" for="move-reason">What it is for</label>
    <textarea
      id="move-reason"
      v-model="reason"
      class="field mt-1.5"
      rows="1"
      maxlength="1000"
      placeholder="What it is for; whoever decides reads it"
    />
    <p v-if="trouble" class="notice-red mt-2" role="alert">{{ trouble }}</p>
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <button type="submit" class="action" :disabled="busy || missing !== ''">
        {{ words }}<KeyOf v-if="missing === ''" /></button
      ><button type="button" class="action" @click="emit('leave')">Leave it</button>
      <span v-if="from !== null && from !== NOWHERE && missing === ''" class="small"
        >The money moves once they agree.</span
      >
    </div>
  </form>
</template>
