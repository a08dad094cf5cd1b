<script setup lang="ts">
import { useWording } from '~/composables/base/use-wording'

/** A blank of a sentence that is filled with a day: it opens a calendar, or a day is typed into it. */
const props = defineProps<{
  modelValue: string | null
  label: string
  placeholder: string
  today: string
  holidays?: readonly string[]
  id?: string
  boxed?: boolean
  compact?: boolean
  /** Days before it cannot be chosen; today, unless something may lie in the past. */
  earliest?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()

// It comes when a day is looked for.
const DayPicker = defineAsyncComponent(() => import('./DayPicker.vue'))
const wording = useWording()
const open = ref(false)
/** What was typed while it was not open yet. */
const begun = ref('')
const root = useTemplateRef<HTMLElement>('root')
const button = useTemplateRef<HTMLElement>('button')

function show(typed = ''): void {
  begun.value = typed
  open.value = true
}
function close(): void {
  open.value = false
  void nextTick(() => button.value?.focus())
}
function choose(day: string): void {
  emit('update:modelValue', day)
  close()
}
function beginTyping(event: KeyboardEvent): void {
  // A slash finds, as everywhere.
  if (event.key.length !== 1 || /[ \/]/.test(event.key) || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  event.stopPropagation()
  // More may be typed while the calendar is on its way.
  show(open.value ? begun.value + event.key : event.key)
}
function leave(event: FocusEvent): void {
  if (open.value && !root.value?.contains(event.relatedTarget as Node | null)) open.value = false
}
</script>

<template>
  <span ref="root" class="relative" @focusout="leave">
    <span
      :id="id"
      ref="button"
      role="button"
      tabindex="0"
      aria-haspopup="dialog"
      :aria-expanded="open"
      :class="boxed ? 'field cursor-pointer' : compact ? 'cell inline-block w-auto! cursor-pointer' : 'blank'"
      :data-empty="modelValue === null"
      :aria-label="`${label}: ${modelValue === null ? placeholder : wording.ways.day(modelValue, today)}`"
      @click="open ? close() : show()"
      @keydown.enter.exact.prevent="show()"
      @keydown.space.prevent="show()"
      @keydown.down.prevent="show()"
      @keydown="beginTyping"
      >{{ modelValue === null ? placeholder : wording.ways.day(modelValue, today) }}</span
    >
    <DayPicker
      v-if="open"
      :chosen="modelValue"
      :label="label"
      :today="today"
      :earliest="props.earliest ?? today"
      :holidays="holidays ?? []"
      :begun="begun"
      @choose="choose"
      @close="close"
    />
  </span>
</template>
