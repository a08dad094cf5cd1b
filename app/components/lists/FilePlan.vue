<script setup lang="ts">
import { dec } from '#core/base/decimal'
import type { ListDefinition, Values } from '#core/lists/list'
import { recogniseColumns } from '#core/lists/read-rows'
import type { GivenRows, PlanView } from '#shared/contract/lists'
import { capital, formatCount, inWords, listWords } from '#shared/words/format'
import { LIST_WORDS, sayListReason } from '#shared/words/lists'
import ColumnChoice from '~/components/lists/ColumnChoice.vue'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** What a file would do to a list, row by row, before anything of it is kept. */
const props = defineProps<{
  list: ListDefinition
  rows: readonly (readonly string[])[]
  source: string
  notes: readonly string[]
  busy: boolean
  trouble: string
  say: (column: string, values: Values) => string
}>()
const emit = defineEmits<{ take: [given: GivenRows, gone: 'keep' | 'retire', changes: number]; close: [] }>()
const api = useApi()
const wording = useWording()
const words = LIST_WORDS[props.list.name]
const [head = [], ...cells] = props.rows.map((r) => [...r])
const columns = ref(recogniseColumns(props.list, head))
const gone = ref<'keep' | 'retire'>('keep')
const plan = shallowRef<PlanView | null>(null)
const wrong = ref('')
let asked = 0
watch(
  columns,
  async () => {
    asked += 1
    const mine = asked
    wrong.value = ''
    try {
      const body = { columns: columns.value, cells }
      const found = await api.post('/api/lists/{list}/plans', { params: { list: props.list.name }, body })
      if (mine === asked) plan.value = found
    } catch (e) {
      if (mine === asked) wrong.value = sayError(e)
    }
  },
  { immediate: true },
)
const count = (n: number) => formatCount(n, words.one, words.many)
const changes = computed(() => {
  const c = plan.value?.counts
  return c === undefined ? 0 : c.adds + c.changes + (gone.value === 'retire' ? c.gone : 0)
})
const sentence = computed(() => {
  const c = plan.value?.counts
  if (c === undefined) return 'Reading …'
  const parts = [
    ...(c.adds > 0 ? [`${count(c.adds)} would be new`] : []),
    ...(c.changes > 0 ? [`${inWords(c.changes)} would change`] : []),
    ...(c.nothing > 0 ? [`${inWords(c.nothing)} ${c.nothing === 1 ? 'is' : 'are'} as before`] : []),
    ...(c.refused > 0 ? [`${inWords(c.refused)} cannot be taken`] : []),
  ]
  return parts.length === 0 ? 'There is no row to take.' : `${capital(listWords(parts))}.`
})
function sayDearer(amount: string, currency: string): string {
  const money = `${currency} ${wording.kept(amount.replace('-', ''), currency)}`
  if (dec(amount).isZero()) return 'costs the same in a year, as much as was ordered in the last one'
  return `${money} a year ${amount.startsWith('-') ? 'cheaper' : 'dearer'}, as much as was ordered in the last one`
}
const dearer = computed(() => {
  const sums = plan.value?.dearer.filter((d) => !dec(d.amount).isZero()) ?? []
  return sums.length === 0 ? '' : `In all ${listWords(sums.map((d) => sayDearer(d.amount, d.currency)))}.`
})
const action = computed(() => {
  const c = plan.value?.counts
  if (c === undefined) return 'Reading …'
  if (c.refused > 0)
    return `${capital(formatCount(c.refused, 'row', 'rows'))} to put right in the file first; all come or none`
  if (changes.value === 0) return 'This file changes nothing'
  const parts = [
    ...(c.adds > 0 ? [`add ${count(c.adds)}`] : []),
    ...(c.changes > 0 ? [`change ${inWords(c.changes)}`] : []),
    ...(gone.value === 'retire' && c.gone > 0 ? [words.retires(inWords(c.gone))] : []),
  ]
  return capital(listWords(parts))
})
const isReady = computed(() => plan.value !== null && plan.value.counts.refused === 0 && changes.value > 0)
function take(): void {
  if (isReady.value && !props.busy) emit('take', { columns: columns.value, cells }, gone.value, changes.value)
}
const nameOf = (v: Values) => v.name || props.list.key.map((k) => v[k] ?? '').join(' · ')
const keyOf = (v: Values) =>
  props.list.key
    .map((k) => props.say(k, v))
    .filter((t) => t !== '')
    .join(' · ')
const columnName = (key: string) => props.list.columns.find((c) => c.key === key)?.name ?? key
</script>

<template>
  <DialogSheet :title="`${source}: is this what it means?`" :width="920" @close="emit('close')" @main="take">
    <p v-for="n in notes" :key="n" class="notice-amber mt-2">{{ n }}</p>
    <ColumnChoice v-model="columns" :list="list" :head="head" :cells="cells" />
    <p class="sentence-small mt-4" role="status">{{ sentence }}</p>
    <p v-if="dearer !== ''" class="mt-1">{{ dearer }}</p>
    <p v-if="wrong" class="notice-red mt-2" role="alert">{{ wrong }}</p>
    <div
      v-if="plan && plan.rows.length > 0"
      class="mt-2 min-h-[120px] overflow-auto"
      tabindex="0"
      role="region"
      aria-label="What each row would do"
    >
      <table class="table">
        <caption class="sr-only">
          What each row would do
        </caption>
        <thead>
          <tr>
            <th scope="col" class="num w-[1%]">Row</th>
            <th scope="col">Which</th>
            <th scope="col">What it would do</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in plan.rows" :key="r.at">
            <td class="num text-ink3">{{ r.at }}</td>
            <td>
              <span class="font-medium" :class="r.does === 'refused' ? 'text-ink3' : ''">{{ nameOf(r.after) }}</span>
              <span v-if="keyOf(r.after) !== nameOf(r.after)" class="small block">{{ keyOf(r.after) }}</span>
            </td>
            <td>
              <template v-if="r.does === 'refused'">
                <span v-for="(x, i) in r.reasons" :key="i" class="block text-red">{{ sayListReason(list, x) }}</span>
              </template>
              <span v-else-if="r.does === 'adds'" class="text-ink2">is new</span>
              <template v-else>
                <span v-for="k in r.changed" :key="k" class="block"
                  ><span class="text-ink2">{{ columnName(k) }}</span
                  >&ensp;<s class="text-ink3">{{ say(k, r.before ?? {}) || 'nothing' }}</s
                  >&ensp;{{ say(k, r.after) || 'nothing' }}</span
                >
                <span v-if="r.dearer !== null" class="small block">{{
                  sayDearer(r.dearer, r.after.currency ?? '')
                }}</span>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <fieldset v-if="plan && plan.counts.gone > 0" class="mt-3">
      <legend class="mb-1">
        {{ count(plan.counts.gone) }} in use {{ plan.counts.gone === 1 ? 'is' : 'are' }} not in the file:
        <span class="text-ink2"
          >{{ plan.gone.slice(0, 4).map(nameOf).join(', ') }}{{ plan.counts.gone > 4 ? ' and more' : '' }}</span
        >
      </legend>
      <label class="mr-5 inline-flex min-h-6 items-center gap-1.5"
        ><input v-model="gone" type="radio" value="keep" class="accent-[var(--green)]" /> leave them as they are</label
      >
      <label class="inline-flex min-h-6 items-center gap-1.5"
        ><input v-model="gone" type="radio" value="retire" class="accent-[var(--green)]" /> {{ words.retire }}</label
      >
    </fieldset>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <div class="mt-4 flex flex-wrap gap-2.5">
      <div class="min-w-[280px] flex-1">
        <MainAction :missing="!isReady" :busy="busy" keys="Ctrl ⏎" @press="take">{{ action }}</MainAction>
      </div>
      <button type="button" class="action" @click="emit('close')">Leave it</button>
    </div>
  </DialogSheet>
</template>
