<script lang="ts">
const loadPicker = () => import('./DayPicker.vue')
</script>

<script setup lang="ts">
import { useAtFirstSign } from '~/composables/base/at-first-sign'
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
  /** Empty it is not missing: the placeholder says what then holds. */
  optional?: boolean
  /** Days before it cannot be chosen; today, unless something may lie in the past. */
  earliest?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()

const { component: picker, fetch: fetchPicker } = useAtFirstSign(loadPicker)
const wording = useWording()
const open = ref(false)
/** The keys pressed before it was there: it takes them up. */
const begun = ref<string[]>([])
const root = useTemplateRef<HTMLElement>('root')
const shown = useTemplateRef<{ press: (key: string, inField: boolean) => boolean }>('shown')
const button = useTemplateRef<HTMLElement>('button')

/** A key pressed while the focus is not in the calendar yet goes there all the same. */
function takeUp(key: string): void {
  if (shown.value === null) begun.value.push(key)
  else shown.value.press(key, false)
}
function show(...keys: string[]): void {
  begun.value = keys
  open.value = true
  void fetchPicker()
}
function close(): void {
  open.value = false
  void nextTick(() => button.value?.focus())
}
function choose(day: string): void {
  emit('update:modelValue', day)
  close()
}
/** Enter, Space and the arrow down open it; a letter or figure begins to type a day. A slash finds, as everywhere. */
function onKey(event: KeyboardEvent): void {
  const { key } = event
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (open.value && key === 'Escape') close()
  else if (open.value && key !== 'Tab') takeUp(key)
  else if (key === 'Enter' || key === ' ' || key === 'ArrowDown') show()
  else if (key.length === 1 && key !== '/') show(key)
  else return
  event.preventDefault()
  event.stopPropagation()
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
      :data-empty="modelValue === null && optional !== true"
      :aria-label="`${label}: ${modelValue === null ? placeholder : wording.ways.day(modelValue, today)}`"
      @click="open ? close() : show()"
      @keydown="onKey"
      >{{ modelValue === null ? placeholder : wording.ways.day(modelValue, today) }}</span
    >
    <component
      :is="picker"
      ref="shown"
      v-if="open && picker"
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
