<script setup lang="ts">
import { UNITS, unitName } from '#core/base/unit'
import { readTypedNumber } from '#core/base/typed-number'
import type { DraftVerdict, DraftFacts } from '#core/requisition/compute'
import { formatAmount, formatDecimal, formatPrice } from '#shared/words/format'
import BlankChoice from '~/components/base/BlankChoice.vue'
import SupplierPicker from '~/components/base/SupplierPicker.vue'
import type { EditableLine } from '~/composables/raise/use-draft'

// It comes when a line is first divided.
const SplitEditor = defineAsyncComponent(() => import('./SplitEditor.vue'))
/** The lines of a requisition, written in place: each cell looks like what it holds until one is in it. */
const props = defineProps<{ lines: EditableLine[]; verdict: DraftVerdict | null; facts: DraftFacts | null; suppliers: Record<string, string>; decimalMark: '.' | ','; currency: string }>()
const emit = defineEmits<{ remove: [id: string]; duplicate: [id: string]; move: [id: string, by: -1 | 1]; quantity: [line: EditableLine, before: string] }>()
const grid = useTemplateRef<HTMLElement>('grid')
/** What was typed and cannot be read, by line and field: it stays in sight and nothing is overwritten. */
const unread = reactive<Record<string, string>>({})

/** A choice among the payers that opens the division over several. */
const SPLIT = 'split'
const splitting = ref<string | null>(null)
const payers = computed(() => [...props.facts?.budgetLines.values() ?? []].map((l) => ({ id: l.id, name: l.name, note: l.code })))
const choices = computed(() => payers.value.length < 2 ? payers.value : [...payers.value, { id: SPLIT, name: 'Several of them', note: 'divided by percent, amount or quantity' }])
const lacking = computed(() => new Set((props.verdict?.missing ?? []).flatMap((m) => m.stops && typeof m.at === 'object' ? [`${m.at.line} ${m.at.field}`] : [])))
const units = Object.entries(UNITS).filter(([code]) => code !== 'EA').map(([id, name]) => ({ id, name }))

function setNumber(line: EditableLine, field: 'quantity' | 'unitPrice', event: Event): void {
  const box = event.target as HTMLInputElement
  const key = `${line.id} ${field}`
  if (field === 'unitPrice' && box.value.trim() === '') { line.unitPrice = null; Reflect.deleteProperty(unread, key); return }
  const read = readTypedNumber(box.value, props.decimalMark)
  if (read === null || /^-?\d{13}/.test(read)) { unread[key] = box.value; return }
  Reflect.deleteProperty(unread, key)
  const before = line.quantity
  line[field] = read
  box.value = shown(line, field)
  if (field === 'quantity' && before !== read) emit('quantity', line, before)
}
function shown(line: EditableLine, field: 'quantity' | 'unitPrice'): string {
  const key = `${line.id} ${field}`
  const typed = unread[key]
  if (typed !== undefined) return typed
  return field === 'quantity' ? formatDecimal(line.quantity) : line.unitPrice === null ? '' : formatPrice(line.unitPrice, line.currency)
}
function pay(line: EditableLine, budgetLineId: string): void {
  if (budgetLineId === SPLIT) { splitting.value = line.id; return }
  line.splitMethod = 'percent'
  line.codings = [{ budgetLineId, value: null }]
}
function leaveSplit(id: string): void {
  splitting.value = null
  void nextTick(() => { document.getElementById(`line-${id}-coding`)?.focus() })
}
function paidFrom(line: EditableLine): string {
  return line.codings.map((c) => `${props.facts?.budgetLines.get(c.budgetLineId)?.name ?? 'unknown'}${c.value === null ? '' : ` ${c.value}${line.splitMethod === 'percent' ? ' %' : ''}`}`).join(' · ')
}
function left(line: EditableLine): string {
  const id = line.codings.length === 1 ? line.codings[0]?.budgetLineId : undefined
  const b = props.verdict?.budget.find((x) => x.lineId === id)
  return b === undefined ? '' : b.passedBy !== null ? `passed by ${formatAmount(b.passedBy)}` : `${formatAmount(b.after)} left with this`
}
function amount(line: EditableLine): string {
  const net = props.verdict?.lineNets.get(line.id)
  return net === undefined ? '–' : `${net.currency === props.currency ? '' : `${net.currency} `}${formatAmount(net)}`
}
/** Up and down move through a column; Enter goes to the next line, or to the add field after the last. */
function walk(event: KeyboardEvent): void {
  const at = event.target as HTMLElement
  const column = at.dataset.column
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    const id = at.closest('tr')?.id.replace('line-', '')
    if (id === undefined) return
    event.preventDefault()
    emit('move', id, event.key === 'ArrowUp' ? -1 : 1)
    void nextTick(() => { at.focus() })
    return
  }
  if (column === undefined || !['ArrowUp', 'ArrowDown', 'Enter'].includes(event.key) || event.ctrlKey || event.metaKey) return
  const cells = [...grid.value?.querySelectorAll<HTMLElement>(`[data-column="${column}"]`) ?? []]
  const next = cells[cells.indexOf(at) + (event.key === 'ArrowUp' ? -1 : 1)]
  event.preventDefault()
  if (next !== undefined) { next.focus(); if (next instanceof HTMLInputElement) next.select() }
  else if (event.key === 'Enter') { at.blur(); document.querySelector<HTMLElement>('[data-add-field] input')?.focus() }
}
</script>

<template>
  <div ref="grid" @keydown="walk">
    <table class="table table-fixed max-[700px]:block">
      <caption class="sr-only">Lines</caption>
      <thead class="max-[700px]:sr-only">
        <tr><th scope="col">What</th><th scope="col" class="num w-[124px]">How many</th><th scope="col" class="num w-[104px]">Price</th><th scope="col" class="w-[150px] pl-3!">Paid from</th><th scope="col" class="num w-[104px]">Amount</th></tr>
      </thead>
      <tbody class="max-[700px]:block">
        <template v-for="(line, i) in lines" :key="line.id"><tr :id="`line-${line.id}`" class="group max-[700px]:grid max-[700px]:grid-cols-[auto_auto_minmax(0,1fr)] max-[700px]:gap-x-4 max-[700px]:border-b max-[700px]:border-rule max-[700px]:py-2 max-[700px]:[&>td]:border-0 max-[700px]:[&>td]:p-0.5">
          <td class="max-[700px]:col-span-3">
            <input :id="`line-${line.id}-description`" v-model="line.description" class="cell font-semibold" data-column="description" :aria-label="`Line ${i + 1}: what`" maxlength="400" :aria-invalid="lacking.has(`${line.id} description`)">
            <p class="small flex flex-wrap items-center gap-x-2">
              <template v-if="line.itemId !== null"><span>{{ suppliers[line.supplierId ?? ''] ?? 'buyer decides who' }}</span><span v-if="line.supplierPart">· {{ line.supplierPart }}</span></template>
              <template v-else><span>Free text ·</span><SupplierPicker :name="line.supplierId === null ? null : suppliers[line.supplierId] ?? null" none="buyer decides who" :label="`Line ${i + 1}: supplier`" @choose="(s) => { if (s) suppliers[s.id] = s.name; line.supplierId = s?.id ?? null }" /></template>
              <span class="ml-auto flex gap-3 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 max-[700px]:opacity-100">
                <button type="button" class="quiet-link" :aria-label="`Duplicate line ${i + 1}`" @click="emit('duplicate', line.id)">duplicate</button>
                <button type="button" class="quiet-link" :aria-label="`Remove line ${i + 1}`" @click="emit('remove', line.id)">remove</button>
              </span>
            </p>
          </td>
          <td class="num max-[700px]:row-start-2">
            <span class="flex items-baseline justify-end gap-1">
              <input :id="`line-${line.id}-quantity`" class="cell w-[56px]! text-right max-[700px]:w-[40px]!" data-column="quantity" inputmode="decimal" :value="shown(line, 'quantity')" :aria-label="`Line ${i + 1}: how many`" :aria-invalid="lacking.has(`${line.id} quantity`) || `${line.id} quantity` in unread" @change="setNumber(line, 'quantity', $event)" @focus="($event.target as HTMLInputElement).select()">
              <span v-if="line.itemId !== null" class="text-ink2">{{ unitName(line.unit) }}</span>
              <BlankChoice v-else compact class="text-ink2" :model-value="line.unit" :choices="units" :label="`Line ${i + 1}: unit`" placeholder="unit" @update:model-value="line.unit = $event" />
            </span>
            <span v-if="`${line.id} quantity` in unread" class="small block text-red">not a number</span>
          </td>
          <td class="num max-[700px]:col-start-2 max-[700px]:row-start-2">
            <input :id="`line-${line.id}-price`" class="cell text-right max-[700px]:w-[84px]!" data-column="price" inputmode="decimal" placeholder="price" :value="shown(line, 'unitPrice')" :aria-label="`Line ${i + 1}: price of one, ${line.currency}`" :aria-invalid="lacking.has(`${line.id} price`) || `${line.id} unitPrice` in unread" @change="setNumber(line, 'unitPrice', $event)" @focus="($event.target as HTMLInputElement).select()">
            <span class="small block"><span v-if="`${line.id} unitPrice` in unread" class="text-red">not a number</span><template v-else><template v-if="line.priceBase !== '1'">per {{ line.priceBase }} </template><template v-if="line.currency !== currency">{{ line.currency }}</template><template v-else-if="line.itemId === null">estimate</template></template></span>
          </td>
          <td class="pl-3! max-[700px]:col-span-3 max-[700px]:row-start-3 max-[700px]:flex max-[700px]:items-baseline max-[700px]:gap-3 max-[700px]:pl-0.5!">
            <BlankChoice :id="`line-${line.id}-coding`" compact class="block" :model-value="line.codings.length === 1 ? line.codings[0]?.budgetLineId ?? null : null" :choices="choices" :label="`Line ${i + 1}: paid from`" :placeholder="line.codings.length > 1 ? paidFrom(line) : 'what pays?'" @update:model-value="pay(line, $event)" />
            <span class="small block truncate" :title="left(line)">{{ left(line) }}</span>
          </td>
          <td class="num max-[700px]:col-start-3 max-[700px]:row-start-2 max-[700px]:pt-1.5! max-[700px]:font-semibold">{{ amount(line) }}</td>
        </tr>
        <tr v-if="splitting === line.id" class="max-[700px]:block"><td colspan="5" class="max-[700px]:block"><SplitEditor :line="line" :name="line.description" :payers="payers" :net="verdict?.lineNets.get(line.id) ?? null" :decimal-mark="decimalMark" @done="leaveSplit(line.id)" /></td></tr></template>
      </tbody>
    </table>
  </div>
</template>
