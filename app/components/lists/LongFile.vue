<script setup lang="ts">
import { isAtWork } from '#core/lists/laid'
import type { ListDefinition } from '#core/lists/list'
import type { LaidView } from '#shared/contract/lists'
import { capital, listWords } from '#shared/words/format'
import { LIST_WORDS, sayListReason } from '#shared/words/lists'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import ColumnChoice from '~/components/lists/ColumnChoice.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** A file that is too long for one answer: how far it is, what it would do, and taking it whole. */
const props = defineProps<{ list: ListDefinition; file: LaidView }>()
const emit = defineEmits<{ taken: [file: LaidView]; left: []; close: [] }>()
const api = useApi()
const wording = useWording()
const words = LIST_WORDS[props.list.name]
const at = { params: { list: props.list.name, id: props.file.id } }
const file = shallowRef(props.file)
const columns = ref([...props.file.columns])
const { busy, trouble, act } = useAct()
let timer: ReturnType<typeof setTimeout> | undefined

/** Reads on as long as a task is at work on it. */
async function read(): Promise<void> {
  try {
    const next = await api.get('/api/lists/{list}/files/{id}', at)
    if (columns.value.length !== next.columns.length) columns.value = [...next.columns]
    const isTaken = next.state === 'taken' && file.value.state !== 'taken'
    file.value = next
    if (isTaken) emit('taken', next)
  } catch (e) {
    trouble.value = sayError(e)
  }
  if (isAtWork(file.value.state)) timer = setTimeout(() => void read(), 700)
}
onMounted(read)
onUnmounted(() => {
  clearTimeout(timer)
})
/** Does something, and reads at once what became of the file. */
async function change(work: () => Promise<unknown>): Promise<boolean> {
  const done = await act(work)
  clearTimeout(timer)
  await read()
  return done
}
const isSame = computed(() => columns.value.every((c, i) => c === file.value.columns[i]))
const changing = computed(() => file.value.counts.adds + file.value.counts.changes)
const number = (n: number) => wording.decimal(String(n))
const counted = (n: number, one: string, many: string) => `${number(n)} ${n === 1 ? one : many}`
const count = (n: number) => counted(n, words.one, words.many)
const sentence = computed(() => {
  const { state, rows, looked, counts: c } = file.value
  if (state === 'reading') return `Reading: ${counted(rows, 'row', 'rows')} so far.`
  if (state === 'read') return `${counted(rows, 'row is', 'rows are')} read. Is this what its columns hold?`
  if (state === 'being looked at') return `Looking what they would do: ${number(looked)} of ${number(rows)}.`
  if (state === 'being taken') return `Taking ${count(changing.value)}; all of them or none.`
  if (state === 'broken') return 'It could not be read.'
  const parts = [
    ...(c.adds > 0 ? [`${count(c.adds)} would be new`] : []),
    ...(c.changes > 0 ? [`${number(c.changes)} would change`] : []),
    ...(c.nothing > 0 ? [`${number(c.nothing)} ${c.nothing === 1 ? 'is' : 'are'} as before`] : []),
    ...(c.refused > 0 ? [`${number(c.refused)} cannot be taken`] : []),
  ]
  return `${capital(listWords(parts))}.`
})
/** The share that is done, 0 to 1, where that is known. */
const share = computed(() => {
  const { state, rows, looked } = file.value
  return state === 'being looked at' && rows > 0 ? looked / rows : null
})
const gone = ref<'keep' | 'retire'>('keep')
const away = computed(() => (gone.value === 'retire' ? file.value.counts.gone : 0))
const isAsking = computed(() => file.value.state === 'read' || (file.value.state === 'looked at' && !isSame.value))
const isReady = computed(
  () =>
    isAsking.value ||
    (file.value.state === 'looked at' && file.value.counts.refused === 0 && changing.value + away.value > 0),
)
const action = computed(() => {
  if (file.value.state === 'reading') return 'It is being read; then you see its columns'
  if (file.value.state === 'being looked at') return 'Once it is looked at, you see what it would do'
  if (isAtWork(file.value.state)) return 'It is being taken, all of it or nothing'
  if (isAsking.value) return 'Look what it would do'
  const c = file.value.counts
  if (file.value.state !== 'looked at') return 'Nothing of it can be taken'
  if (c.refused > 0)
    return `${capital(counted(c.refused, 'row', 'rows'))} to put right in the file first; all come or none`
  if (changing.value + away.value === 0) return 'This file changes nothing'
  const parts = [
    ...(c.adds > 0 ? [`add ${count(c.adds)}`] : []),
    ...(c.changes > 0 ? [`change ${number(c.changes)}`] : []),
    ...(away.value > 0 ? [words.retires(number(away.value))] : []),
  ]
  return capital(listWords(parts))
})
function go(): void {
  if (!isReady.value) return
  const key = crypto.randomUUID()
  void change(() =>
    isAsking.value
      ? api.post('/api/lists/{list}/files/{id}/looks', { ...at, body: { columns: columns.value }, key })
      : api.post('/api/lists/{list}/files/{id}/takings', { ...at, body: { gone: gone.value }, key }),
  )
}
async function leave(): Promise<void> {
  if (await change(() => api.remove('/api/lists/{list}/files/{id}', at))) emit('left')
}
</script>

<template>
  <DialogSheet :title="`${file.name}, laid aside`" :width="860" @close="emit('close')" @main="go">
    <p v-for="n in file.notes" :key="n" class="notice-amber mt-2">{{ n }}</p>
    <ColumnChoice
      v-if="columns.length > 0 && !isAtWork(file.state) && file.state !== 'broken'"
      v-model="columns"
      :list="list"
      :head="file.head"
      :cells="file.sample"
    />
    <p class="sentence-small mt-4" role="status">{{ sentence }}</p>
    <progress
      v-if="isAtWork(file.state)"
      class="mt-2 h-1.5 w-full accent-[var(--green)]"
      v-bind="share === null ? {} : { value: share }"
      :aria-label="sentence"
    ></progress>
    <p v-if="file.trouble" class="notice-red mt-3" role="alert">{{ file.trouble }}</p>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <ul
      v-if="file.reasons.length > 0"
      class="mt-3 min-h-0 overflow-auto"
      tabindex="0"
      aria-label="Rows that cannot be taken"
    >
      <li v-for="r in file.reasons" :key="r.at" class="grid grid-cols-[80px_1fr] border-t border-rule py-1">
        <span class="tabular-nums text-ink3">row {{ r.at }}</span>
        <span
          ><span v-for="(x, i) in r.reasons" :key="i" class="block text-red">{{ sayListReason(list, x) }}</span></span
        >
      </li>
    </ul>
    <fieldset v-if="file.state === 'looked at' && isSame && file.counts.gone > 0" class="mt-3">
      <legend>{{ count(file.counts.gone) }} in use {{ file.counts.gone === 1 ? 'is' : 'are' }} not in the file:</legend>
      <label class="mt-1 flex items-center gap-2"
        ><input v-model="gone" type="radio" value="keep" class="accent-[var(--green)]" /> leave them as they are</label
      >
      <label class="mt-1 flex items-center gap-2"
        ><input v-model="gone" type="radio" value="retire" class="accent-[var(--green)]" /> {{ words.retire }}</label
      >
    </fieldset>
    <p class="small mt-3">It goes on without you: close this and come back, it stays laid aside for a week.</p>
    <div class="mt-4 flex flex-wrap gap-2.5">
      <div class="min-w-[280px] flex-1">
        <MainAction :missing="!isReady" :busy="busy" keys="Ctrl ⏎" @press="go">{{ action }}</MainAction>
      </div>
      <button type="button" class="action" @click="leave">
        {{ isAtWork(file.state) ? 'Stop it: nothing is kept' : 'Leave it: nothing is kept' }}
      </button>
    </div>
  </DialogSheet>
</template>
