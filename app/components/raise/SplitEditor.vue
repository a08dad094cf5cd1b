<script setup lang="ts">
import { checkSplit, splitAmount, withRemainder, type SplitMethod } from '#core/base/split'
import type { Money } from '#core/base/money'
import { readTypedNumber } from '#core/base/typed-number'
import { saySplitReason } from '#shared/words/requisition'
import { useDraftEditor } from '~/composables/raise/draft-editor'
import type { EditableLine } from '~/composables/raise/editable-draft'
import { useWording } from '~/composables/base/use-wording'
import TypedBox from '~/components/base/TypedBox.vue'

const wording = useWording()

/** A line that several pay for: who, by which measure, and what each then pays; the last takes what is left. */
const props = defineProps<{
  lineId: string
  name: string
  payers: readonly { id: string; name: string; note: string }[]
  net: Money | null
}>()
const emit = defineEmits<{ done: [] }>()
const editor = useDraftEditor()
const current = computed(() => editor.line(props.lineId))
const METHODS: { id: SplitMethod; name: string }[] = [
  { id: 'percent', name: 'by percent' },
  { id: 'share', name: 'in equal parts' },
  { id: 'amount', name: 'by amount' },
  { id: 'quantity', name: 'by quantity' },
]
const first = useTemplateRef<HTMLSelectElement>('first')
onMounted(() => {
  first.value?.focus()
})

const shares = computed(() => {
  const values = current.value.codings.map((c) => c.value)
  if (
    props.net === null ||
    checkSplit({ method: current.value.splitMethod, values }, { quantity: current.value.quantity, net: props.net })
      .length > 0
  )
    return null
  return splitAmount(props.net, { method: current.value.splitMethod, values })
})
const reasons = computed(() =>
  checkSplit(
    { method: current.value.splitMethod, values: current.value.codings.map((c) => c.value) },
    { quantity: current.value.quantity, net: props.net },
  ).map((r) => saySplitReason(r, wording.ways)),
)
const isLast = (i: number) => i === current.value.codings.length - 1

function write(method: SplitMethod, codings: EditableLine['codings']): void {
  const values = withRemainder(
    method,
    codings.map((c) => c.value),
    current.value.quantity,
  )
  Object.assign(current.value, {
    splitMethod: method,
    codings: codings.map((c, i) => ({ budgetLineId: c.budgetLineId, value: values[i] ?? null })),
  })
}
function measure(method: SplitMethod): void {
  write(
    method,
    current.value.codings.map((c) => ({ ...c, value: null })),
  )
}
function payBy(i: number, budgetLineId: string): void {
  write(
    current.value.splitMethod,
    current.value.codings.map((c, j) => (j === i ? { ...c, budgetLineId } : c)),
  )
}
function give(i: number, event: Event): void {
  const read = readTypedNumber((event.target as HTMLInputElement).value, wording.decimalMark)
  write(
    current.value.splitMethod,
    current.value.codings.map((c, j) => (j === i ? { ...c, value: read } : c)),
  )
}
function another(): void {
  const free = props.payers.find((p) => !current.value.codings.some((c) => c.budgetLineId === p.id)) ?? props.payers[0]
  if (free !== undefined)
    write(current.value.splitMethod, [...current.value.codings, { budgetLineId: free.id, value: null }])
}
function without(i: number): void {
  write(
    current.value.splitMethod,
    current.value.codings.filter((_, j) => j !== i),
  )
}
if (current.value.codings.length < 2) another()
// The quantity may change while this is open.
watch(
  () => current.value.quantity,
  () => {
    write(current.value.splitMethod, current.value.codings)
  },
)
</script>

<template>
  <fieldset class="rounded border border-strong bg-margin px-4 py-3" @keydown.esc.stop.prevent="emit('done')">
    <legend class="sr-only">What pays for {{ name }}</legend>
    <p class="mb-2 flex flex-wrap items-baseline gap-x-2">
      Divided
      <select
        ref="first"
        class="field w-auto! min-h-[32px]! py-1!"
        aria-label="Divided by"
        :value="current.splitMethod"
        @change="measure(($event.target as HTMLSelectElement).value as SplitMethod)"
      >
        <option v-for="m in METHODS" :key="m.id" :value="m.id">{{ m.name }}</option>
      </select>
    </p>
    <div
      v-for="(c, i) in current.codings"
      :key="i"
      :class="[
        'grid grid-cols-[minmax(0,1fr)_110px_100px_56px] items-center gap-x-3 py-1',
        'max-[700px]:grid-cols-[minmax(0,1fr)_90px_70px]',
      ]"
    >
      <select
        class="field min-h-[32px]! py-1!"
        :aria-label="`Payer ${i + 1}`"
        :value="c.budgetLineId"
        @change="payBy(i, ($event.target as HTMLSelectElement).value)"
      >
        <option v-for="p in payers" :key="p.id" :value="p.id">{{ p.name }}, {{ p.note }}</option>
      </select>
      <span v-if="current.splitMethod === 'share' || (isLast(i) && current.codings.length > 1)" class="num text-ink2">{{
        current.splitMethod === 'share'
          ? 'the same'
          : c.value === null
            ? 'what is left'
            : `${wording.decimal(c.value)}${current.splitMethod === 'percent' ? ' %' : ''}`
      }}</span>
      <label v-else class="flex items-baseline gap-1"
        ><TypedBox
          class="field min-h-[32px]! py-1! text-right"
          inputmode="decimal"
          :value="c.value === null ? '' : wording.decimal(c.value)"
          :aria-label="`Part of payer ${i + 1}${current.splitMethod === 'percent' ? ', percent' : ''}`"
          @change="give(i, $event)"
        /><span v-if="current.splitMethod === 'percent'">%</span></label
      >
      <span class="num font-medium">{{ shares?.[i] ? wording.amount(shares[i]) : '–' }}</span>
      <button
        v-if="current.codings.length > 1"
        type="button"
        class="small quiet-link text-right max-[700px]:col-span-3"
        :aria-label="`Without payer ${i + 1}`"
        @click="without(i)"
      >
        without
      </button>
    </div>
    <p v-for="r in reasons" :key="r" class="mt-1 text-amber-ink" role="status">{{ r }}</p>
    <p class="mt-2 flex gap-3">
      <button type="button" class="action min-h-[32px]!" @click="another">One more payer</button
      ><button type="button" class="action min-h-[32px]!" @click="emit('done')">That is how it is divided</button>
    </p>
  </fieldset>
</template>
