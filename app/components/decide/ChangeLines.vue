<script setup lang="ts">
import { dec } from '#core/base/decimal'
import { readTypedNumber } from '#core/base/typed-number'
import type { LineChange } from '#core/requisition/decided-change'
import type { RequestDecision } from '#shared/contract/decide'
import BlankChoice from '~/components/base/BlankChoice.vue'
import { useWording } from '~/composables/base/use-wording'

/** Less of some lines, or another budget line that pays: what whoever approves changes while approving. */
const props = defineProps<{ doc: RequestDecision }>()
const changes = defineModel<readonly LineChange[]>({ required: true })
/** A sentence while something that is typed cannot be taken. */
const wrong = defineModel<string>('wrong', { required: true })
const emit = defineEmits<{ leave: [] }>()
const wording = useWording()
type Line = RequestDecision['lines'][number]
const typed = ref<Readonly<Record<string, string>>>({})
const paid = ref<Readonly<Record<string, string>>>({})
const payersOf = (l: Line) => props.doc.payers.find((p) => p.lineId === l.id)
const payerOf = (l: Line): string | null => paid.value[l.id] ?? payersOf(l)?.now ?? null

/** What is wrong with a quantity as it is typed; "" where nothing is. */
function sayWrong(l: Line): string {
  const text = typed.value[l.id]
  if (text === undefined) return ''
  const n = readTypedNumber(text, wording.decimalMark)
  if (n === null) return 'is no number'
  if (!dec(n).isPositive()) return 'leaves nothing; send it back to have it taken out'
  return dec(n).gt(dec(l.quantity)) ? `is more than ${wording.quantity(l.quantity, l.unit)}` : ''
}
watchEffect(() => {
  const [bad] = props.doc.lines.filter((l) => sayWrong(l) !== '')
  wrong.value = bad === undefined ? '' : `${bad.description}: “${typed.value[bad.id] ?? ''}” ${sayWrong(bad)}.`
  changes.value = props.doc.lines.flatMap((l): LineChange[] => {
    const text = typed.value[l.id]
    const n = text === undefined ? null : readTypedNumber(text, wording.decimalMark)
    const quantity = n === null || dec(n).eq(dec(l.quantity)) ? undefined : n
    const payer = payerOf(l)
    const budgetLineId = payer === null || payer === payersOf(l)?.now ? undefined : payer
    return quantity === undefined && budgetLineId === undefined ? [] : [{ lineId: l.id, quantity, budgetLineId }]
  })
})
onMounted(() => {
  document.getElementById(`change-${props.doc.lines[0]?.id ?? ''}`)?.focus()
})
function leave(): void {
  typed.value = {}
  paid.value = {}
  emit('leave')
}
</script>

<template>
  <section class="mt-4 rounded border border-strong px-4 pb-3.5 pt-2.5" aria-labelledby="change-lines">
    <h2 id="change-lines" class="head">Approve with a change</h2>
    <ul>
      <li
        v-for="l in doc.lines"
        :key="l.id"
        class="flex flex-wrap items-baseline gap-x-2 gap-y-1 border-b border-rule py-1.5"
      >
        <span class="min-w-[14ch] flex-1 font-semibold">{{ l.description }}</span>
        <span class="whitespace-nowrap"
          ><input
            :id="`change-${l.id}`"
            :value="typed[l.id] ?? wording.decimal(l.quantity)"
            class="field num inline-block! h-8! w-20! px-2! py-0!"
            inputmode="decimal"
            :aria-label="`How many of ${l.description}`"
            :aria-invalid="sayWrong(l) !== ''"
            @input="typed = { ...typed, [l.id]: ($event.target as HTMLInputElement).value }"
          />
          of {{ wording.quantity(l.quantity, l.unit) }}</span
        >
        <span v-if="payersOf(l)"
          >paid from
          <BlankChoice
            :model-value="payerOf(l)"
            :choices="payersOf(l)?.may ?? []"
            :label="`Who pays for ${l.description}`"
            placeholder="several"
            light
            @update:model-value="paid = { ...paid, [l.id]: $event }"
        /></span>
      </li>
    </ul>
    <p v-if="wrong" class="mt-2 text-red" role="status">{{ wrong }}</p>
    <p class="small mt-2">
      With less, what others approved before stays.<template v-if="doc.mayChange === 'quantities and payers'">
        Where another budget line pays, only your approval counts, and whoever else has to decide is asked
        anew.</template
      >
      {{ ' ' }}<button type="button" class="quiet-link" @click="leave">Leave it as it is</button>
    </p>
  </section>
</template>
