<script setup lang="ts">
import { UNITS, unitName } from '#core/base/unit'
import type { ListColumn, ListDefinition, ListName, Values } from '#core/lists/list'
import { readRows, type KnownEntries } from '#core/lists/read-rows'
import type { ListView } from '#shared/contract/lists'
import { an, capital, formatCount } from '#shared/words/format'
import { LIST_WORDS, sayListReason } from '#shared/words/lists'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import { sayEntry } from '~/composables/lists/say-entry'
import { useWording } from '~/composables/base/use-wording'

/** One entry of a list, each column a field that says at once what is wrong with it. */
const props = defineProps<{
  list: ListDefinition
  /** The entry as it is; null for a new one. */
  entry: Values | null
  called: ListView['called']
  /** The lists of which only those are told that are named. */
  long: readonly ListName[]
  known: KnownEntries
  /** Keys that are taken, in lower case. */
  taken: ReadonlySet<string>
  busy: boolean
  trouble: string
}>()
const emit = defineEmits<{ keep: [cells: string[]]; close: [] }>()
const wording = useWording()
const words = LIST_WORDS[props.list.name]

const typedOf = (c: ListColumn, text: string) =>
  c.kind.is === 'number'
    ? wording.typed(text)
    : c.kind.is === 'steps'
      ? text.replaceAll('.', wording.decimalMark)
      : text
const cells = reactive<Record<string, string>>(
  Object.fromEntries(props.list.columns.map((c) => [c.key, typedOf(c, props.entry?.[c.key] ?? c.initial ?? '')])),
)
const touched = reactive(new Set<string>())
const row = computed(() => props.list.columns.map((c) => cells[c.key] ?? ''))
/** A row of nothing is no row: all that has to be said is missing. */
const NOTHING_SAID = props.list.columns
  .filter((c) => c.initial === null)
  .map((c) => ({ code: 'missing' as const, column: c.key }))
const read = computed(
  () =>
    readRows(
      props.list,
      props.list.columns.map((c) => c.key),
      [row.value],
      { mark: wording.decimalMark, monthFirst: wording.ways.monthFirst, today: wording.today.value },
      props.known,
    )[0] ?? { at: 2, values: {}, reasons: NOTHING_SAID },
)
const isTaken = computed(
  () =>
    props.entry === null &&
    props.taken.has(props.list.key.map((k) => (read.value.values[k] ?? '').toLowerCase()).join(' / ')),
)
const reasonOf = (c: ListColumn) => {
  const reason = read.value.reasons.find((r) => 'column' in r && r.column === c.key)
  return reason === undefined ? '' : sayListReason(props.list, reason)
}
const missing = computed(() => read.value.reasons.length + (isTaken.value ? 1 : 0))
const isChanged = computed(
  () => props.entry === null || props.list.columns.some((c) => read.value.values[c.key] !== props.entry?.[c.key]),
)
const isFixed = (c: ListColumn) => props.entry !== null && props.list.key.includes(c.key)
const called = computed(() =>
  sayEntry(props.list, cells, (of, key) => props.called[of]?.find((e) => e.key === key)?.name || undefined),
)
const action = computed(() => {
  if (isTaken.value) return `There is ${an(words.one)} with this key already`
  if (missing.value > 0)
    return capital(formatCount(missing.value, 'field is missing or wrong', 'fields are missing or wrong'))
  if (!isChanged.value) return 'Nothing is changed yet'
  return props.entry === null ? `Add ${called.value || `the ${words.one}`}` : `Keep ${called.value} as it stands here`
})

function choices(c: ListColumn): { id: string; name: string }[] {
  if (c.kind.is === 'choice') return c.kind.among.map((a) => ({ id: a, name: a }))
  if (c.kind.is === 'unit')
    return Object.keys(UNITS).map((id) => ({ id, name: unitName(id) === 'each' ? `each (${id})` : unitName(id) }))
  if (c.kind.is !== 'entry') return []
  const { of } = c.kind
  const named = (cells[c.key] ?? '').split(', ')
  return (props.called[of] ?? [])
    .filter((e) => !e.retired || named.includes(e.key))
    .map((e, _, all) => {
      // A code is told beside its name; an address of a person only where two are called the same.
      const isPlain = e.name === e.key || (of === 'people' && all.filter((x) => x.name === e.name).length === 1)
      return { id: e.key, name: e.name === '' ? e.key : isPlain ? e.name : `${e.name} (${e.key})` }
    })
}
/** What is chosen from a list as long as this is typed instead: its key or its name. */
const MOST_OFFERED = 200
const isOffered = (of: ListName) => !props.long.includes(of) && (props.called[of] ?? []).length <= MOST_OFFERED
const isSelect = (c: ListColumn) =>
  c.kind.is === 'choice' ||
  c.kind.is === 'unit' ||
  (c.kind.is === 'entry' && c.kind.several !== true && isOffered(c.kind.of))
/** What may be ticked, several at once; null where that is not how it is said. */
function ticks(c: ListColumn): { id: string; name: string }[] | null {
  if (c.kind.is === 'choices') return c.kind.among.map((id) => ({ id, name: id }))
  return c.kind.is === 'entry' && c.kind.several === true ? choices(c) : null
}
function tick(c: ListColumn, word: string, on: boolean): void {
  const said = (cells[c.key] ?? '').split(', ').filter((t) => t !== '' && t !== word)
  cells[c.key] = [...said, ...(on ? [word] : [])].join(', ')
}
const isTicked = (c: ListColumn, word: string) => (cells[c.key] ?? '').split(', ').includes(word)
const id = (c: ListColumn) => `entry-${c.key}`

function keep(): void {
  const wrong = props.list.columns.find((c) => reasonOf(c) !== '' || (isTaken.value && props.list.key.includes(c.key)))
  if (wrong !== undefined) {
    for (const c of props.list.columns) touched.add(c.key)
    document.getElementById(id(wrong))?.focus()
    return
  }
  if (isChanged.value && !props.busy) emit('keep', row.value)
}
onMounted(() => {
  const first = props.list.columns.find((c) => !isFixed(c))
  if (first !== undefined) document.getElementById(id(first))?.focus()
})
</script>

<template>
  <DialogSheet
    :title="entry === null ? `A new ${words.one}` : `${called || words.one}`"
    :width="640"
    @close="emit('close')"
    @main="keep"
  >
    <div class="-mx-1 mt-3 grid min-h-0 grid-cols-2 gap-x-5 gap-y-3 overflow-auto px-1 pb-1 max-[700px]:grid-cols-1">
      <div v-for="c in list.columns" :key="c.key" class="min-w-0">
        <span v-if="ticks(c)" class="label" aria-hidden="true">{{ c.name }}</span>
        <label v-else class="label" :for="id(c)">{{ c.name }}</label>
        <p v-if="isFixed(c)" :id="id(c)" class="py-1.5">{{ cells[c.key] }}</p>
        <select v-else-if="isSelect(c)" :id="id(c)" v-model="cells[c.key]" class="field" @change="touched.add(c.key)">
          <option v-if="c.initial === '' || cells[c.key] === ''" value="">none</option>
          <option v-for="o in choices(c)" :key="o.id" :value="o.id">{{ o.name }}</option>
        </select>
        <fieldset
          v-else-if="ticks(c)"
          :id="id(c)"
          tabindex="-1"
          class="flex max-h-[116px] flex-wrap gap-x-4 gap-y-1 overflow-y-auto py-1.5"
        >
          <legend class="sr-only">{{ c.name }}</legend>
          <label v-for="o in ticks(c)" :key="o.id" class="flex min-h-6 items-center gap-1.5"
            ><input
              type="checkbox"
              class="size-4 accent-[var(--green)]"
              :checked="isTicked(c, o.id)"
              @change="tick(c, o.id, ($event.target as HTMLInputElement).checked)"
            />{{ o.name }}</label
          >
        </fieldset>
        <input
          v-else
          :id="id(c)"
          v-model="cells[c.key]"
          class="field"
          :class="c.kind.is === 'number' ? 'text-right tabular-nums' : ''"
          :aria-describedby="`${id(c)}-says`"
          autocomplete="off"
          @blur="touched.add(c.key)"
        />
        <p :id="`${id(c)}-says`" class="small" :class="touched.has(c.key) && reasonOf(c) ? 'text-amber-ink!' : ''">
          {{ (touched.has(c.key) && reasonOf(c)) || c.help }}
        </p>
      </div>
    </div>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <div class="mt-4 flex flex-wrap gap-2.5">
      <div class="min-w-[280px] flex-1">
        <MainAction :missing="missing > 0 || !isChanged" :busy="busy" keys="Ctrl ⏎" @press="keep">{{
          action
        }}</MainAction>
      </div>
      <button type="button" class="action" @click="emit('close')">Leave it</button>
    </div>
  </DialogSheet>
</template>
