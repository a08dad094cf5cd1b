<script setup lang="ts">
import { readTable, recogniseTable, type LineColumn, type LineTable, type ReadRow } from '#core/requisition/line-table'
import type { PayingLine } from '#core/requisition/draft-facts'
import type { SupplierFound } from '#shared/contract/catalogue'
import { capital, formatCount, inWords } from '#shared/words/format'
import { COLUMN_NAMES, sayRowReason } from '#shared/words/line-table'
import { sayPayers } from '#shared/words/payer'
import { unitName } from '#core/base/unit'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import { useTypedSuppliers } from '~/composables/raise/typed-suppliers'
import { useWording } from '~/composables/base/use-wording'

const wording = useWording()

/** A pasted range or a file, as it was understood, before its rows become lines. */
const props = defineProps<{
  rows: readonly (readonly string[])[]
  source: string
  notes: readonly string[]
  room: number
  currency: string
  payers: readonly PayingLine[]
  /** Suppliers' names by id. */
  supplierNames: Readonly<Record<string, string>>
}>()
const emit = defineEmits<{
  take: [rows: ReadRow[]]
  close: []
  /** A supplier that a cell means. */
  know: [supplier: SupplierFound]
  trouble: [sentence: string]
}>()
const SHOWN = 60
const first = recogniseTable(props.rows, wording.decimalMark, props.payers)
const head = ref(first.head)
const columns = ref<LineColumn[]>([...first.columns])
const names = Object.entries(COLUMN_NAMES) as [LineColumn, string][]

const { suppliers, find: findSuppliers } = useTypedSuppliers(
  (supplier) => {
    emit('know', supplier)
  },
  (sentence) => {
    emit('trouble', sentence)
  },
)
const table = computed<LineTable>(() => ({ head: head.value, columns: columns.value }))
const read = computed(() =>
  readTable(props.rows, table.value, {
    mark: wording.decimalMark,
    monthFirst: wording.ways.monthFirst,
    today: wording.today.value,
    room: props.room,
    payers: props.payers,
    suppliers: suppliers.value,
  }),
)
const typedSuppliers = computed(() => [...new Set(read.value.map((r) => r.supplier).filter((t) => t !== ''))])
watch(typedSuppliers, findSuppliers, { immediate: true })
const nameOf = (budgetLineId: string) => props.payers.find((p) => p.id === budgetLineId)?.name ?? ''
/** What a row says besides: who delivers, what pays, by when. */
const besides = (r: ReadRow) =>
  [
    props.supplierNames[r.supplierId ?? ''] ?? '',
    ...(r.payer === null ? [] : sayPayers(r.payer, nameOf, wording.ways)),
    r.needBy === null ? '' : `by ${wording.day(r.needBy)}`,
  ]
    .filter((t) => t !== '')
    .join(' · ')
const sound = computed(() => read.value.filter((r) => !r.reasons.some((x) => x.stops)))
const refused = computed(() => read.value.length - sound.value.length)
// Rows with something to say come first: they are what one looks for.
const shown = computed(() =>
  [...read.value].sort((a, b) => Number(b.reasons.length > 0) - Number(a.reasons.length > 0)).slice(0, SHOWN),
)
const sample = (i: number) =>
  props.rows
    .slice(head.value ? 1 : 0)
    .map((r) => r[i] ?? '')
    .find((c) => c.trim() !== '') ?? ''
const words = computed(() =>
  sound.value.length === 0
    ? 'No row can be taken so far'
    : refused.value === 0
      ? `Take ${formatCount(sound.value.length, 'line', 'lines')}`
      : `Take ${formatCount(sound.value.length, 'line', 'lines')} and leave ${inWords(refused.value)} out`,
)

function hold(i: number, column: LineColumn): void {
  // What another column held moves here: no two columns hold the same.
  columns.value = columns.value.map((c, j) => (j === i ? column : c === column && column !== 'nothing' ? 'nothing' : c))
}
function take(): void {
  if (sound.value.length > 0) emit('take', sound.value)
}
</script>

<template>
  <DialogSheet
    :title="`${capital(formatCount(read.length, 'row', 'rows'))} from ${source}: is this what they mean?`"
    :width="880"
    @close="emit('close')"
    @main="take"
  >
    <p v-for="n in notes" :key="n" class="notice-amber mt-2">{{ n }}</p>
    <fieldset class="mt-4 flex flex-wrap items-end gap-x-4 gap-y-2">
      <legend class="head mb-1.5">What the columns hold</legend>
      <label v-for="(c, i) in columns" :key="i" class="min-w-0">
        <span class="small block max-w-[150px] truncate" :title="sample(i)">{{ sample(i) || 'empty' }}</span>
        <select
          class="field w-auto! min-h-[34px]! py-1!"
          :aria-label="`Column ${i + 1} holds`"
          :value="c"
          @change="hold(i, ($event.target as HTMLSelectElement).value as LineColumn)"
        >
          <option v-for="[id, name] in names" :key="id" :value="id">{{ name }}</option>
        </select>
      </label>
      <label class="flex min-h-[34px] items-center gap-2"
        ><input v-model="head" type="checkbox" class="size-4 accent-[var(--green)]" /> the first row names the
        columns</label
      >
    </fieldset>
    <div class="mt-4 min-h-0 overflow-auto" tabindex="0" role="region" aria-label="Rows as they were read">
      <table class="table">
        <caption class="sr-only">
          Rows as they were read
        </caption>
        <thead>
          <tr>
            <th scope="col" class="num w-[1%]">Row</th>
            <th scope="col">What</th>
            <th v-if="columns.includes('part')" scope="col">Part number</th>
            <th scope="col" class="num">How many</th>
            <th scope="col" class="num">Price</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in shown" :key="r.at">
            <td class="num text-ink3">{{ r.at }}</td>
            <td>
              <span :class="r.reasons.some((x) => x.stops) ? 'text-ink3 line-through' : 'font-medium'">{{
                r.description || r.part
              }}</span>
              <span v-if="besides(r)" class="small block">{{ besides(r) }}</span>
              <span
                v-for="x in r.reasons"
                :key="x.code"
                class="block text-[12.5px]"
                :class="x.stops ? 'text-red' : 'text-amber-ink'"
                >{{ sayRowReason(x) }}</span
              >
            </td>
            <td v-if="columns.includes('part')" class="text-ink2">{{ r.part }}</td>
            <td class="num">{{ wording.decimal(r.quantity) }} {{ unitName(r.unit ?? 'H87') }}</td>
            <td class="num">{{ r.price === null ? '' : wording.price(r.price, currency) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="read.length > SHOWN" class="small mt-2">and {{ read.length - SHOWN }} more, read the same way</p>
    </div>
    <div class="mt-5 flex flex-wrap gap-2.5">
      <div class="min-w-[280px] flex-1">
        <MainAction :missing="sound.length === 0" keys="Ctrl ⏎" @press="take">{{ words }}</MainAction>
      </div>
      <button type="button" class="action" @click="emit('close')">Leave it</button>
    </div>
  </DialogSheet>
</template>
