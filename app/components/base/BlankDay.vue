<script setup lang="ts">
import { addBusinessDays, addDays, isBusinessDay } from '#core/base/day'
import { readTypedDay } from '#core/base/typed-day'
import { weeksOf } from '#shared/words/format'
import { useWording } from '~/composables/base/use-wording'

const wording = useWording()

/** A blank of a sentence that is filled with a day: a calendar that arrows walk through, and two short ways. */
const props = defineProps<{
  modelValue: string | null
  label: string
  placeholder: string
  today: string
  holidays?: readonly string[]
  id?: string
  boxed?: boolean
  compact?: boolean
  earliest?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()

const open = ref(false)
const at = ref(props.modelValue ?? props.today)
const root = useTemplateRef<HTMLElement>('root')
const button = useTemplateRef<HTMLElement>('button')
const holidays = computed(() => new Set(props.holidays ?? []))
/** Days before it cannot be chosen; today, unless something may lie in the past. */
const earliest = computed(() => props.earliest ?? props.today)
const weeks = computed(() => weeksOf(at.value))
const shortcuts = computed(() => [5, 10].map((n) => ({ n, day: addBusinessDays(props.today, n, holidays.value) })))

/** What is typed instead of walking there, and the day it says. */
const typed = ref('')
const input = useTemplateRef<HTMLInputElement>('input')
const said = computed(() => readTypedDay(typed.value, props.today, wording.ways.monthFirst))
watch(said, (day) => {
  if (day !== null) at.value = day
})
function takeTyped(): void {
  if (said.value !== null) choose(said.value)
}
/** A letter or figure begins to type a day, wherever the focus is in it. */
function beginTyping(event: KeyboardEvent): void {
  if (event.key.length !== 1 || event.key === ' ' || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.target === input.value) return
  event.stopPropagation()
  event.preventDefault()
  if (!open.value) show(false)
  typed.value = event.key
  void nextTick(() => input.value?.focus())
}

function show(focus = true): void {
  typed.value = ''
  at.value = props.modelValue ?? addBusinessDays(props.today, 5, holidays.value)
  open.value = true
  if (focus) void nextTick(() => root.value?.querySelector<HTMLElement>('[data-at="true"]')?.focus())
}
function close(): void {
  open.value = false
  void nextTick(() => button.value?.focus())
}
function choose(day: string): void {
  if (day < earliest.value) return
  emit('update:modelValue', day)
  close()
}
const STEPS: Record<string, number> = {
  ArrowLeft: -1,
  ArrowRight: 1,
  ArrowUp: -7,
  ArrowDown: 7,
  PageUp: -28,
  PageDown: 28,
}
function onKey(event: KeyboardEvent): void {
  const step = STEPS[event.key]
  if (event.key === 'Escape') {
    event.preventDefault()
    event.stopPropagation()
    close()
  } else if (event.target === input.value) {
    if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
      event.preventDefault()
      event.stopPropagation()
      takeTyped()
    } else if (event.key === 'ArrowDown') {
      event.preventDefault()
      void nextTick(() => root.value?.querySelector<HTMLElement>('[data-at="true"]')?.focus())
    }
  } else if (step !== undefined) {
    event.preventDefault()
    event.stopPropagation()
    at.value = addDays(at.value, step)
    void nextTick(() => root.value?.querySelector<HTMLElement>('[data-at="true"]')?.focus())
  }
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
    <span
      v-if="open"
      role="dialog"
      :aria-label="label"
      class="picker picker-foot left-0 top-full block max-h-none! p-3!"
      @keydown="(onKey($event), beginTyping($event))"
    >
      <input
        ref="input"
        v-model="typed"
        class="field mb-1 py-1!"
        :aria-label="`${label}, typed`"
        :aria-describedby="`${label}-said`"
        placeholder="fri, 11 Dec, +5"
        maxlength="30"
        autocomplete="off"
      />
      <span :id="`${label}-said`" class="small mb-2 block min-h-[17px]" role="status">{{
        typed.trim() === ''
          ? ''
          : said === null
            ? 'That is no day yet.'
            : said < earliest
              ? `${wording.ways.day(said, today)} is too early.`
              : wording.ways.day(said, today)
      }}</span>
      <span class="mb-2 flex items-center justify-between">
        <button type="button" class="px-2" aria-label="Month before" @click="at = addDays(at, -28)">‹</button>
        <span class="head">{{ wording.ways.month(at) }}</span>
        <button type="button" class="px-2" aria-label="Month after" @click="at = addDays(at, 28)">›</button>
      </span>
      <table class="w-full border-collapse text-center" role="grid">
        <thead>
          <tr>
            <th
              v-for="d in ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su']"
              :key="d"
              scope="col"
              class="small pb-1 font-medium"
            >
              {{ d }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="week in weeks" :key="week[0]">
            <td v-for="day in week" :key="day" role="gridcell" class="p-0">
              <button
                type="button"
                class="h-8 w-9 rounded-[3px]"
                :class="[
                  day === modelValue ? 'bg-ink text-sheet' : day === at ? 'bg-green-ground' : '',
                  day < earliest
                    ? 'text-ink3 line-through'
                    : !isBusinessDay(day, holidays) || day.slice(0, 7) !== at.slice(0, 7)
                      ? 'text-ink3'
                      : 'font-medium',
                  day === today ? 'underline underline-offset-4' : '',
                ]"
                :tabindex="day === at ? 0 : -1"
                :data-at="day === at"
                :aria-label="wording.ways.day(day, today)"
                :aria-disabled="day < earliest"
                @click="choose(day)"
              >
                {{ Number(day.slice(8)) }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <span class="mt-2 flex gap-3 border-t border-rule pt-2">
        <button v-for="s in shortcuts" :key="s.n" type="button" class="quiet-link" @click="choose(s.day)">
          {{ s.n }} working days on
        </button>
      </span>
    </span>
  </span>
</template>
