<script setup lang="ts">
import { addBusinessDays, addDays, isBusinessDay } from '#core/base/day'
import { readTypedDay } from '#core/base/typed-day'
import { weeksOf } from '#shared/words/format'
import { useWording } from '~/composables/base/use-wording'

/** A calendar that arrows walk through, a field in which a day is typed, and two short ways. */
const props = defineProps<{
  chosen: string | null
  label: string
  today: string
  /** Days before it cannot be chosen. */
  earliest: string
  holidays: readonly string[]
  /** The keys that were pressed before it was shown. */
  begun: readonly string[]
}>()
const emit = defineEmits<{ choose: [day: string]; close: [] }>()

const wording = useWording()
const root = useTemplateRef<HTMLElement>('root')
const input = useTemplateRef<HTMLInputElement>('input')
const holidays = computed(() => new Set(props.holidays))
const at = ref(props.chosen ?? addBusinessDays(props.today, 5, holidays.value))
const weeks = computed(() => weeksOf(at.value))
const shortcuts = computed(() => [5, 10].map((n) => ({ n, day: addBusinessDays(props.today, n, holidays.value) })))

const typed = ref('')
const said = computed(() => readTypedDay(typed.value, props.today, wording.ways.monthFirst))
watch(said, (day) => {
  if (day !== null) at.value = day
})
const reading = computed(() => {
  if (typed.value.trim() === '') return ''
  if (said.value === null) return 'That is no day yet.'
  const day = wording.ways.day(said.value, props.today)
  return said.value < props.earliest ? `${day} is too early.` : day
})
function choose(day: string): void {
  if (day >= props.earliest) emit('choose', day)
}
const focusDay = () => nextTick(() => root.value?.querySelector<HTMLElement>('[data-at="true"]')?.focus())
const STEPS: Record<string, number> = {
  ArrowLeft: -1,
  ArrowRight: 1,
  ArrowUp: -7,
  ArrowDown: 7,
  PageUp: -28,
  PageDown: 28,
}
/** What a key does, typed into the field or on the calendar; false where it does nothing of its own. */
function press(key: string, inField: boolean): boolean {
  const step = STEPS[key]
  if (key === 'Escape') emit('close')
  else if (key === 'Enter') choose(inField ? (said.value ?? '') : at.value)
  else if (inField && key === 'ArrowDown') void focusDay()
  else if (!inField && step !== undefined) {
    at.value = addDays(at.value, step)
    void focusDay()
  } else if (!inField && key.length === 1 && key !== ' ') {
    // A letter or figure begins to type a day, wherever the focus is.
    typed.value = key
    input.value?.focus()
  } else return false
  return true
}
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  // Enter on a button of its own presses that.
  const onButton = event.key === 'Enter' && !(event.target as HTMLElement).matches('input, [data-at]')
  if (onButton || !press(event.key, event.target === input.value)) return
  event.preventDefault()
  event.stopPropagation()
}
defineExpose({ press })
onMounted(() => {
  let inField = false
  for (const key of props.begun) {
    const isSign = key.length === 1
    if (inField && isSign) typed.value += key
    else press(key, inField)
    inField ||= isSign && key !== ' '
  }
  if (inField) input.value?.focus()
  else void focusDay()
})
</script>

<template>
  <span
    ref="root"
    role="dialog"
    :aria-label="label"
    class="picker picker-foot left-0 top-full block max-h-none! p-3!"
    @keydown="onKey"
  >
    <input
      ref="input"
      v-model="typed"
      class="field py-1!"
      :aria-label="`${label}, typed`"
      placeholder="fri, 11 Dec, +5"
      maxlength="30"
      autocomplete="off"
    />
    <span class="small my-1 block min-h-[17px]" role="status">{{ reading }}</span>
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
                day === chosen ? 'bg-ink text-sheet' : day === at ? 'bg-green-ground' : '',
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
</template>
