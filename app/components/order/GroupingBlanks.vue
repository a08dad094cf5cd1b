<script setup lang="ts">
import type { ProposalOptions } from '#core/order/propose'
import { formatCount } from '#shared/words/format'
import BlankAmount from '~/components/base/BlankAmount.vue'
import BlankChoice from '~/components/base/BlankChoice.vue'

/** How lines are put together to orders, as two sentences with blanks. */
const props = defineProps<{ modelValue: ProposalOptions; currency: string; waitForId?: string | undefined }>()
const emit = defineEmits<{ 'update:modelValue': [value: ProposalOptions]; unread: [text: string] }>()
const change = (changed: Partial<ProposalOptions>) => {
  emit('update:modelValue', { ...props.modelValue, ...changed })
}
const number = (text: string) => (text === '' ? null : Number(text))
const CAPS = [
  { id: '', name: 'any number of requests' },
  ...[1, 2, 3, 4, 5, 6, 8, 10, 15, 20, 30].map((n) => ({
    id: String(n),
    name: `at most ${formatCount(n, 'request', 'requests')}`,
  })),
]
const CHOICES = [
  { id: 'cheapest', name: 'put together as cheaply as can be' },
  { id: 'oldest', name: 'put together by age alone' },
]
const WINDOWS = [
  { id: '', name: 'at any time' },
  { id: '0', name: 'on one day' },
  ...[3, 7, 14, 30, 60].map((n) => ({ id: String(n), name: `within ${formatCount(n, 'day', 'days')} of each other` })),
]
const DEPARTMENTS = [
  { id: '', name: 'several departments' },
  { id: 'one', name: 'one department alone' },
]
const DAYS = [1, 2, 3, 5, 7, 10, 14, 30].map((n) => ({ id: String(n), name: formatCount(n, 'day', 'days') }))
const USUAL_DAYS = 5
</script>

<template>
  <span
    >To an order belong
    <BlankChoice
      :model-value="modelValue.mostRequests === null ? '' : String(modelValue.mostRequests)"
      :choices="CAPS"
      label="How many requests to an order"
      placeholder=""
      light
      @update:model-value="change({ mostRequests: number($event) })"
    /><template v-if="modelValue.mostRequests !== null"
      >,
      <BlankChoice
        :model-value="modelValue.choose"
        :choices="CHOICES"
        label="Which go together"
        placeholder=""
        light
        @update:model-value="change({ choose: $event === 'oldest' ? 'oldest' : 'cheapest' })" /></template
    >, needed
    <BlankChoice
      :model-value="modelValue.windowDays === null ? '' : String(modelValue.windowDays)"
      :choices="WINDOWS"
      label="How far apart they are needed"
      placeholder=""
      light
      @update:model-value="change({ windowDays: number($event) })"
    />, for
    <BlankChoice
      :model-value="modelValue.byDepartment ? 'one' : ''"
      :choices="DEPARTMENTS"
      label="For which departments together"
      placeholder=""
      light
      @update:model-value="change({ byDepartment: $event === 'one' })"
    />. Orders of less than
    <BlankAmount
      :id="waitForId"
      :model-value="modelValue.waitFor === null ? null : { amount: modelValue.waitFor.value, currency }"
      :currency="currency"
      label="Below which amount an order waits for more"
      placeholder="an amount"
      @update:model-value="
        change({
          waitFor: $event === null ? null : { value: $event.amount, days: modelValue.waitFor?.days ?? USUAL_DAYS },
        })
      "
      @unread="emit('unread', $event)"
    />
    wait for more<template v-if="modelValue.waitFor"
      >, at most
      <BlankChoice
        :model-value="String(modelValue.waitFor.days)"
        :choices="DAYS"
        label="How long they wait at most"
        placeholder=""
        light
        @update:model-value="
          change({ waitFor: { value: modelValue.waitFor.value, days: Number($event) } })
        " /></template
    >.</span
  >
</template>
