<script setup lang="ts">
import { moneyOf, type Money } from '#core/base/money'
import { readTypedNumber } from '#core/base/typed-number'
import { useWording } from '~/composables/base/use-wording'
import TypedBox from './TypedBox.vue'

/** A blank of a sentence that is filled with an amount, or left empty; what cannot be read changes nothing. */
const props = defineProps<{
  modelValue: Money | null
  currency: string
  label: string
  placeholder: string
  id?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: Money | null]; unread: [text: string] }>()
const wording = useWording()
const shown = computed(() => (props.modelValue === null ? '' : wording.amount(props.modelValue)))
const unread = ref('')
function set(event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim()
  const read = text === '' ? '' : readTypedNumber(text, wording.decimalMark)
  unread.value = read === null ? text : ''
  emit('unread', unread.value)
  if (read !== null) emit('update:modelValue', read === '' ? null : moneyOf(read, props.currency))
}
</script>

<template>
  <TypedBox
    :id="id"
    class="blank blank-input"
    :class="[unread === '' ? '' : 'text-red', shown === '' ? 'font-[440]!' : '']"
    inputmode="decimal"
    :value="unread === '' ? shown : unread"
    :placeholder="placeholder"
    :aria-label="label"
    :aria-invalid="unread !== ''"
    @change="set"
  />
</template>
