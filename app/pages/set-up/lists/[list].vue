<script setup lang="ts">
import { keyOf, LIST_NAMES, type ListName, type Values } from '#core/lists/list'
import type { GivenRows, LaidView } from '#shared/contract/lists'
import { an, capital, formatCount, inWords } from '#shared/words/format'
import { LIST_WORDS } from '#shared/words/lists'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { uploadFile } from '~/composables/base/upload-file'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'
import { besideOf } from '~/composables/lists/beside'
import { shownColumns } from '~/composables/lists/shown-columns'
import { useList } from '~/composables/lists/use-list'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

const EntryForm = defineAsyncComponent(() => import('~/components/lists/EntryForm.vue'))
const FilePlan = defineAsyncComponent(() => import('~/components/lists/FilePlan.vue'))
const LongFile = defineAsyncComponent(() => import('~/components/lists/LongFile.vue'))

definePageMeta({ key: (route) => route.path })
const api = useApi()
const undo = useUndo()
const wording = useWording()
const route = useRoute()
const name = route.params.list as ListName
if (!LIST_NAMES.includes(name)) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const words = LIST_WORDS[name]
const beside = besideOf(name)
useHead({ title: `${words.title} · Rekko` })
const { data: start, error } = await useAsyncData(`list-${name}`, async () => {
  const view = await api.get('/api/lists/{list}', { params: { list: name } })
  const { changes } = await api.get('/api/lists/{list}/changes', { params: { list: name } })
  return { view, changes }
})
if (error.value || !start.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const listed = useList(name, start.value)
const {
  list,
  view,
  words: typed,
  found,
  isLong,
  changes,
  busy,
  trouble,
  read,
  keep,
  undo: takeBack,
  say,
  sayName,
  known,
} = listed
useLive((happened) => {
  if (happened.some((c) => c.kind === 'settings' || c.kind === 'again') && !busy.value) void read()
})

const columns = shownColumns(name)
const withRetired = ref(false)
const shown = computed(() => found.value.filter((e) => !e.retired || withRetired.value))
const MOST = 500
const hasXml = name === 'rates' || name === 'items'
const ACCEPTS = `.csv,.tsv,.txt,.xlsx${hasXml ? ',.xml' : ''}`
const sentence = computed(() => {
  const n = view.value.count - view.value.retired
  if (n === 0) return `No ${words.one} is kept yet.`
  const many = n < 13 ? capital(inWords(n)) : wording.decimal(String(n))
  const { retired } = view.value
  const counted = retired < 13 ? inWords(retired) : wording.decimal(String(retired))
  return `${many} ${n === 1 ? words.one : words.many}${retired > 0 ? `; ${counted} ${words.out}` : ''}.`
})
const currency = useSessionStore().me?.organisation.baseCurrency ?? ''
const kindOf = (key: string) => list.columns.find((c) => c.key === key)?.kind
const isNumber = (key: string) => (kindOf(key)?.is === 'number' && key !== 'year') || kindOf(key)?.is === 'steps'
const isMoney = (key: string) => {
  const kind = kindOf(key)
  return kind?.is === 'number' && kind.isMoney === true
}
function cell(key: string, values: Values): string {
  const text = values[key] ?? ''
  if (kindOf(key)?.is === 'day') return text === '' ? '' : wording.day(text)
  if (text === '' || !isNumber(key) || kindOf(key)?.is === 'steps') return say(key, values)
  return isMoney(key) ? wording.kept(text, currency) : wording.decimal(text)
}
const taken = computed(() => new Set(view.value.entries.map((e) => keyOf(list, e.values))))

/** Whoever was just given a last day. */
const leaver = shallowRef<{ readonly id: string; readonly name: string } | null>(null)
/** What waits for a second person of what was just kept. */
const waiting = ref(0)
const open = shallowRef<{ readonly entry: Values | null } | null>(null)
function edit(entry: Values | null): void {
  trouble.value = ''
  open.value = { entry }
}
/** An address may open an entry by its key. */
onMounted(async () => {
  const key = typeof route.query.open === 'string' ? route.query.open : ''
  if (key === '') return
  typed.value = key
  if (isLong.value) await read()
  const entry = view.value.entries.find((e) => e.values[list.key[0] ?? ''] === key)
  if (entry !== undefined) edit(entry.values)
})
function offerUndo(sentence: string, seq: number | null): void {
  if (seq !== null)
    undo.show(sentence, 'Take that back', 10, async () => {
      await takeBack(seq)
    })
}
async function keepEntry(cells: string[]): Promise<void> {
  const isNew = open.value?.entry === null
  const called = sayName(Object.fromEntries(list.columns.map((c, i) => [c.key, cells[i] ?? ''])))
  const kept = await keep({
    columns: list.columns.map((c) => c.key),
    cells: [cells],
    source: '',
    gone: 'keep',
    onlyNew: isNew,
  })
  if (kept === null) return
  const leaving = open.value?.entry ?? null
  const last = cells[list.columns.findIndex((c) => c.key === list.retire?.column)] ?? ''
  const entry = view.value.entries.find((e) => keyOf(list, e.values) === keyOf(list, leaving ?? {}))
  leaver.value = name === 'people' && last !== '' && entry !== undefined ? { id: entry.id, name: called } : null
  open.value = null
  waiting.value = kept.held
  offerUndo(`${called} is ${isNew ? 'added' : 'changed'}.`, kept.seq)
}

const offered = shallowRef<{ rows: readonly (readonly string[])[]; source: string; notes: readonly string[] } | null>(
  null,
)
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const dragging = ref(false)
const reading = ref(false)
const note = computed(() => {
  if (reading.value) return 'reading the file …'
  const inCurrency = columns.some((c) => isMoney(c.key)) ? `amounts in ${currency}; ` : ''
  return `${inCurrency}every change is kept with what was before`
})
async function bring(file: File | undefined): Promise<void> {
  if (file === undefined || reading.value) return
  trouble.value = ''
  reading.value = true
  try {
    const sheet = await api.post('/api/line-files', { raw: file })
    if (sheet.rows.length < 2)
      trouble.value = `${file.name}: its first row names the columns; below it there is nothing.`
    else offered.value = { ...sheet, source: file.name }
  } catch (e) {
    // What is too long for one answer is laid aside, and read some rows at a time.
    const isLong = e instanceof ApiProblem && (e.kind === 'too-many-rows' || e.status === 413)
    if (isLong && !/\.(xlsx|xml)$/i.test(file.name)) await layAside(file)
    else trouble.value = `${file.name}: ${sayError(e)}`
  } finally {
    reading.value = false
  }
}
const laid = shallowRef<LaidView | null>(null)
const isLaidOpen = ref(false)
async function layAside(file: File): Promise<void> {
  const at = { params: { list: name } }
  try {
    const made = await uploadFile(
      '/api/lists/{list}/files',
      { ...at, query: { name: file.name } },
      file,
      () => undefined,
    )
    laid.value = await api.get('/api/lists/{list}/files/{id}', { params: { list: name, id: made.id } })
    isLaidOpen.value = true
  } catch (e) {
    trouble.value = `${file.name}: ${sayError(e)}`
    await findLaid()
  }
}
/** What was laid aside before, and is still. */
async function findLaid(): Promise<void> {
  const open = await api.get('/api/lists/{list}/files', { params: { list: name } }).catch(() => null)
  laid.value = open?.file ?? null
}
onMounted(findLaid)
async function laidTaken(file: LaidView): Promise<void> {
  isLaidOpen.value = false
  laid.value = null
  await read()
  offerUndo(`${file.name} is taken whole.`, file.seq)
}
function chosen(event: Event): void {
  const box = event.target as HTMLInputElement
  void bring(box.files?.[0])
  box.value = ''
}
async function take(given: GivenRows, gone: 'keep' | 'retire', count: number): Promise<void> {
  const source = offered.value?.source.slice(0, 300) ?? ''
  const kept = await keep({ ...given, source, gone })
  if (kept === null) return
  offered.value = null
  waiting.value = kept.held
  offerUndo(`${capital(formatCount(count, `${words.one} is`, `${words.many} are`))} taken from ${source}.`, kept.seq)
}
const undone = computed(() => new Set(changes.value.flatMap((c) => (c.undoes === null ? [] : [c.undoes]))))
function sayChange(c: (typeof changes.value)[number]): string {
  const what = c.count === 1 && c.first !== null ? sayName(c.first) : formatCount(c.count, words.one, words.many)
  if (c.undoes !== null) return `${what}: taken back`
  return c.source === '' ? what : `${what} from ${c.source}`
}
usePlaceKeys(
  [
    { keys: 'Enter', does: `open the ${words.one}` },
    { keys: 'Ctrl Enter', does: `add ${an(words.one)}` },
  ],
  (event) => {
    if (isMainKey(event) && open.value === null && offered.value === null && !isLaidOpen.value) {
      event.preventDefault()
      edit(null)
    }
  },
)
</script>

<template>
  <div
    @dragover.prevent="dragging = true"
    @dragleave.self="dragging = false"
    @drop.prevent="((dragging = false), bring($event.dataTransfer?.files[0]))"
  >
    <PageNote>{{ note }}</PageNote>
    <SheetPage>
      <div class="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 class="sentence">{{ sentence }}</h1>
        <span class="flex items-baseline gap-4">
          <label v-if="view.retired > 0" class="small inline-flex min-h-6 items-center gap-1.5"
            ><input v-model="withRetired" type="checkbox" class="size-4 accent-[var(--green)]" /> with those
            {{ words.out }}</label
          >
          <input
            v-model="typed"
            class="field w-[190px]! min-h-[34px]! py-1.5!"
            type="search"
            :aria-label="`Find among the ${words.many}`"
            placeholder="Any words of a row"
          />
        </span>
      </div>
      <p v-if="dragging" class="notice-green mt-3">Let go: the file is read and shown before anything is kept.</p>
      <p v-if="trouble && !open && !offered" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <p v-if="laid && !isLaidOpen" class="notice-amber mt-3" role="status">
        {{ laid.name }} is laid aside and not taken yet:
        <button type="button" class="quiet-link font-semibold" @click="isLaidOpen = true">go on with it</button>.
      </p>
      <p v-if="leaver" class="notice-amber mt-3" role="status">
        Before {{ leaver.name }} leaves:
        <NuxtLink class="quiet-link font-semibold" :to="`/set-up/person?id=${leaver.id}`"
          >see what they own and hold up</NuxtLink
        >.
      </p>
      <p v-if="waiting > 0" class="notice-amber mt-3" role="status">
        Limits, and one’s own roles, of {{ formatCount(waiting, words.one, words.many) }} wait for a second person:
        <NuxtLink class="quiet-link font-semibold" to="/set-up">see what waits</NuxtLink>.
      </p>
      <p v-if="view.count === 0" class="mt-3 max-w-[60ch] text-ink2">
        {{ words.says }} Add the first one, or bring a file: CSV or XLSX, the first row naming the columns.
      </p>
      <p v-else-if="shown.length === 0" class="mt-3 text-ink2">No {{ words.one }} has these words.</p>
      <div v-else class="mt-3 overflow-x-auto" tabindex="0" role="region" :aria-label="words.title">
        <table class="table">
          <caption class="sr-only">
            {{
              words.title
            }}
          </caption>
          <thead>
            <tr>
              <th v-for="c in columns" :key="c.key" scope="col" :class="isNumber(c.key) ? 'num' : ''">
                {{ c.name }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="e in shown.slice(0, MOST)" :key="e.id">
              <td
                v-for="(c, i) in columns"
                :key="c.key"
                :class="[
                  i === 0 ? '' : 'text-ink2',
                  isNumber(c.key) ? 'num' : '',
                  list.key.includes(c.key) && c.key !== 'name' ? 'whitespace-nowrap' : '',
                ]"
              >
                <button
                  v-if="i === 0"
                  type="button"
                  class="text-left font-semibold hover:underline"
                  @click="edit(e.values)"
                >
                  {{ cell(c.key, e.values) || '(no name)' }}</button><template v-else>{{
                  cell(c.key, e.values)
                }}</template>
                <span v-if="i === 0 && e.retired" class="small">, {{ words.out }}</span>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="shown.length > MOST || isLong" class="small mt-2">
          <template v-if="shown.length > MOST"
            >and {{ wording.decimal(String(shown.length - MOST)) }} more: type words of the one you look for</template
          ><template v-else>type words to see others of the {{ wording.decimal(String(view.count)) }}</template>
        </p>
      </div>
      <EntryForm
        v-if="open"
        :list="list"
        :entry="open.entry"
        :called="view.called"
        :long="view.long"
        :known="known"
        :taken="taken"
        :busy="busy"
        :trouble="trouble"
        @keep="keepEntry"
        @close="open = null"
      />
      <FilePlan
        v-if="offered"
        :list="list"
        :rows="offered.rows"
        :source="offered.source"
        :notes="offered.notes"
        :busy="busy"
        :trouble="trouble"
        :say="say"
        @take="take"
        @close="offered = null"
      />
      <LongFile
        v-if="laid && isLaidOpen"
        :key="laid.id"
        :list="list"
        :file="laid"
        @taken="laidTaken"
        @left="((isLaidOpen = false), (laid = null))"
        @close="((isLaidOpen = false), findLaid())"
      />
      <template #margin>
        <p class="text-ink2">{{ words.says }}</p>
        <template v-if="beside.length > 0">
          <h2 class="head mb-1.5 mt-5">Beside it</h2>
          <p v-for="b in beside" :key="b" class="mt-1">
            <NuxtLink class="quiet-link" :to="`/set-up/lists/${b}`">{{ LIST_WORDS[b].title }}</NuxtLink>
          </p>
        </template>
        <h2 class="head mb-1.5 mt-5">As a file</h2>
        <p>
          <button type="button" class="quiet-link" @click="chooser?.click()">Bring a file</button>
          <input
            ref="chooser"
            type="file"
            class="sr-only"
            tabindex="-1"
            :accept="ACCEPTS"
            :aria-label="`A file of ${words.many}`"
            @change="chosen"
          />
          of rows, or drop it here: it is shown before anything is kept.
          <template v-if="name === 'rates'"
            >Reference rates come also as XML, in the form in which the European Central Bank publishes them.</template
          >
          <template v-else-if="name === 'items'"
            >A supplier’s price list comes also as a Catalogue of UBL 2.1; what it does not say stays as it
            is.</template
          >
        </p>
        <p class="mt-1.5">
          Take the list along as
          <a class="quiet-link" :href="`/api/lists/${name}/file?as=xlsx`" download>XLSX</a> or
          <a class="quiet-link" :href="`/api/lists/${name}/file?as=csv`" download>CSV</a>; what you change in it can be
          brought back.
        </p>
        <template v-if="changes.length > 0">
          <h2 class="head mb-1 mt-5">Last changes</h2>
          <ul>
            <li v-for="c in changes.slice(0, 8)" :key="c.seq" class="border-t border-rule py-1.5">
              {{ sayChange(c) }}
              <span class="small block"
                >{{ c.by }}, {{ wording.since(c.at)
                }}<template v-if="c.undoes === null && !undone.has(c.seq)">
                  ·
                  <button type="button" class="quiet-link min-h-6" @click="takeBack(c.seq)">take back</button></template
                ></span
              >
            </li>
          </ul>
        </template>
      </template>
      <template #action>
        <MainAction keys="Ctrl ⏎" @press="edit(null)">Add {{ an(words.one) }}</MainAction>
      </template>
    </SheetPage>
  </div>
</template>
