<script setup lang="ts">
import { LONGEST_ADJUSTMENT, MOST_ADJUSTMENTS, type OrderAdjustment } from '#core/order/adjustment'
import BlankChoice from '~/components/base/BlankChoice.vue'
import type { TypedAdjustment } from '~/composables/order/typed-adjustment'

/** What is taken off the whole of an order, or put on it: a sentence each. */
const rows = defineModel<TypedAdjustment[]>({ required: true })
const props = defineProps<{ currency: string; light?: boolean }>()
const root = useTemplateRef<HTMLElement>('root')
async function add(): Promise<void> {
  rows.value.push({ key: crypto.randomUUID(), kind: 'discount', of: 'percent', value: '', name: '' })
  await nextTick()
  root.value?.querySelector<HTMLElement>(`#adjustment-value-${rows.value.length - 1}`)?.focus()
}
async function leaveOut(at: number): Promise<void> {
  rows.value.splice(at, 1)
  await nextTick()
  // Not on the next one's: a key pressed twice leaves out one.
  root.value?.querySelector<HTMLElement>(':scope > button')?.focus()
}
const ofWhat = computed<{ id: OrderAdjustment['of']; name: string }[]>(() => [
  { id: 'percent', name: '% of the goods' },
  { id: 'amount', name: props.currency },
])
const WAYS: { id: OrderAdjustment['kind']; name: string }[] = [
  { id: 'discount', name: 'is taken off' },
  { id: 'charge', name: 'is put on' },
]
</script>

<template>
  <div ref="root">
    <p v-for="(row, i) in rows" :key="row.key">
      <input
        :id="`adjustment-value-${i}`"
        v-model="row.value"
        class="blank blank-input min-w-[20px]"
        inputmode="decimal"
        maxlength="20"
        autocomplete="off"
        :aria-label="`How much is taken off or put on, ${i + 1}`"
        placeholder="how much"
        data-needed="true"
      />{{ ' ' }}
      <BlankChoice
        v-model="row.of"
        :choices="ofWhat"
        :light="light"
        :label="`A percentage or an amount, ${i + 1}`"
        placeholder=""
      />{{ ' ' }}
      <BlankChoice
        v-model="row.kind"
        :choices="WAYS"
        :light="light"
        :label="`Whether it is taken off or put on, ${i + 1}`"
        placeholder=""
      />, for
      <input
        :id="`adjustment-name-${i}`"
        v-model="row.name"
        class="blank blank-input min-w-[60px]"
        :maxlength="LONGEST_ADJUSTMENT"
        autocomplete="off"
        :aria-label="`What it is for, ${i + 1}`"
        placeholder="what"
        data-needed="true"
      />.
      <button
        type="button"
        class="quiet-link small min-h-6"
        :aria-label="`Leave out ${row.name || `number ${i + 1}`}`"
        @click="leaveOut(i)"
      >
        leave it out
      </button>
    </p>
    <button v-if="rows.length < MOST_ADJUSTMENTS" type="button" class="quiet-link small min-h-6" @click="add">
      {{ rows.length === 0 ? 'Take something off the whole, or put something on it' : 'Take off or put on more' }}
    </button>
  </div>
</template>
