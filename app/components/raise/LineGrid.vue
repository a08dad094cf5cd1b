<script setup lang="ts">
import type { DraftVerdict } from '#core/requisition/compute'
import type { DraftFacts, PayingLine } from '#core/requisition/draft-facts'
import { figuresFor } from '#core/budget/available'
import type { TypedPayer } from '#core/requisition/typed-payer'
import { warningsOf, type Warning } from '#core/supplier/warning'
import type { SupplierFound } from '#shared/contract/catalogue'
import { sayPayers } from '#shared/words/payer'
import { useDraftEditor } from '~/composables/raise/draft-editor'
import type { EditableDraft, EditableLine } from '~/composables/raise/editable-draft'
import { useLineWindow } from '~/composables/raise/use-line-window'
import LineRow from './LineRow.vue'
import { useWording } from '~/composables/base/use-wording'

const wording = useWording()
// They come when a line is first divided, or more is said of one.
const SplitEditor = defineAsyncComponent(() => import('./SplitEditor.vue'))
const LineDetails = defineAsyncComponent(() => import('./LineDetails.vue'))

/** The lines of a requisition. Of many, only those near the part in sight are drawn. */
const props = defineProps<{
  draft: EditableDraft
  verdict: DraftVerdict
  facts: DraftFacts
  suppliers: Record<string, string>
  currency: string
  mayName: boolean
}>()
const emit = defineEmits<{
  remove: [id: string]
  duplicate: [id: string]
  move: [id: string, by: -1 | 1]
  quantity: [line: EditableLine]
  supplier: [line: EditableLine, supplier: SupplierFound | null]
  nameSupplier: [line: EditableLine, words: string]
  spread: [line: EditableLine, what: 'payer' | 'supplier']
}>()
const editor = useDraftEditor()
const grid = useTemplateRef<HTMLElement>('grid')
const lines = computed(() => props.draft.lines)
const { pieces, reveal } = useLineWindow(lines, grid)
const splitting = ref<string | null>(null)
const opened = ref<string | null>(null)
const payers = computed<PayingLine[]>(() => [...props.facts.budgetLines.values()])

/** Fields of lines that something is missing in, by line, as one text so that only rows that change are drawn anew. */
const lacking = computed(() => {
  const by = new Map<string, string>()
  for (const m of props.verdict.missing)
    if (m.stops && typeof m.at === 'object' && m.at.line !== null)
      by.set(m.at.line, `${by.get(m.at.line) ?? ''}|${m.at.field}`)
  return by
})
const outcomes = computed(() => new Map(props.verdict.budget.map((b) => [b.budgetLineId, b])))
/** How many lines have no payer; and how many of one's own leave the supplier to the buyer. */
const without = computed(() => ({
  payer: lines.value.filter((l) => l.codings.length === 0).length,
  supplier: lines.value.filter((l) => l.itemId === null && l.supplierId === null).length,
}))
const NO_WARNINGS: readonly Warning[] = []
function warnings(line: EditableLine): readonly Warning[] {
  const found = warningsOf(line, props.facts)
  return found.length === 0 ? NO_WARNINGS : found
}
function pay(line: EditableLine, budgetLineId: string): void {
  line.splitMethod = 'percent'
  line.codings = [{ budgetLineId, value: null }]
}
function divide(line: EditableLine, { splitMethod, codings }: TypedPayer): void {
  line.splitMethod = splitMethod
  line.codings = codings.map((c) => ({ ...c }))
}
function leave(id: string, to: string): void {
  splitting.value = null
  opened.value = null
  void nextTick(() => {
    document.getElementById(`line-${id}-${to}`)?.focus()
  })
}
const partsOf = (line: EditableLine) =>
  sayPayers(line, (id) => props.facts.budgetLines.get(id)?.name ?? 'unknown', wording.ways)
const paidFrom = (line: EditableLine) => partsOf(line).join(' · ')
/** What is left where one pays; of several, those that find no room in the cell. */
function left(line: EditableLine): string {
  if (line.codings.length > 1) return `and ${partsOf(line).slice(1).join(' · ')}`
  const b = outcomes.value.get(line.codings[0]?.budgetLineId ?? '')
  return b === undefined
    ? ''
    : b.passedBy !== null
      ? `passed by ${wording.amount(b.passedBy)}`
      : `${wording.amount(b.after)} left with this`
}
/** What is left of a payer, before this requisition where it takes nothing of it yet. */
function leftOf(id: string): string {
  const b = outcomes.value.get(id)
  if (b !== undefined)
    return b.passedBy === null ? `${wording.amount(b.after)} left` : `passed by ${wording.amount(b.passedBy)}`
  const line = props.facts.budgetLines.get(id)
  return line === undefined ? '' : `${wording.amount(figuresFor(line, props.verdict.period.period).available)} left`
}
function amount(line: EditableLine): string {
  const net = props.verdict.lineNets.get(line.id)
  return net === undefined ? '–' : `${net.currency === props.currency ? '' : `${net.currency} `}${wording.amount(net)}`
}
const jobOf = (line: EditableLine) => (line.jobId === null ? '' : (props.facts.jobs.get(line.jobId)?.name ?? ''))
function toggle(id: string): void {
  if (opened.value === id) leave(id, 'more')
  else opened.value = id
}
function readWarning(id: string): void {
  if (!editor.draft.readWarnings.includes(id)) editor.draft.readWarnings = [...editor.draft.readWarnings, id]
}
/** Up and down move through a column; Enter goes to the next line, or to the add field after the last. */
function walk(event: KeyboardEvent): void {
  const at = event.target as HTMLElement
  const column = at.dataset.column
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    const id = at.closest('tr')?.id.replace('line-', '')
    if (id === undefined) return
    event.preventDefault()
    // What is being typed is handed over first: a box that moves hands over nothing.
    at.blur()
    emit('move', id, event.key === 'ArrowUp' ? -1 : 1)
    void nextTick(() => {
      at.focus()
    })
    return
  }
  if (column === undefined || !['ArrowUp', 'ArrowDown', 'Enter'].includes(event.key) || event.ctrlKey || event.metaKey)
    return
  const cells = [...(grid.value?.querySelectorAll<HTMLElement>(`[data-column="${column}"]`) ?? [])]
  const next = cells[cells.indexOf(at) + (event.key === 'ArrowUp' ? -1 : 1)]
  event.preventDefault()
  if (next !== undefined) {
    next.focus()
    if (next instanceof HTMLInputElement) next.select()
  } else if (event.key === 'Enter') {
    at.blur()
    document.querySelector<HTMLElement>('[data-add-field] input')?.focus()
  }
}
/** Draws a line and, where the field lies among what is said besides, opens that. */
async function show(lineId: string, field: string): Promise<void> {
  if (['tax', 'discount', 'job', 'need-by'].includes(field) || field.startsWith('own ')) opened.value = lineId
  await reveal(lineId)
}
defineExpose({ show })
</script>

<template>
  <div ref="grid" @keydown="walk">
    <table class="table table-fixed max-[700px]:block">
      <caption class="sr-only">
        Lines
      </caption>
      <thead class="max-[700px]:sr-only">
        <tr>
          <th scope="col">What</th>
          <th scope="col" class="num w-[124px]">How many</th>
          <th scope="col" class="num w-[104px]">Price</th>
          <th scope="col" class="w-[150px] pl-3!">Paid from</th>
          <th scope="col" class="num w-[104px]">Amount</th>
        </tr>
      </thead>
      <tbody v-for="piece in pieces" :key="piece.at" class="max-[700px]:block" :data-piece="piece.at">
        <tr v-if="!piece.drawn" aria-hidden="true">
          <td colspan="5" class="border-0! p-0!" :style="{ height: `${piece.height}px` }" />
        </tr>
        <template v-for="(line, i) in piece.drawn ? piece.lines : []" v-else :key="line.id">
          <LineRow
            :line-id="line.id"
            :at="piece.at + i + 1"
            :supplier="suppliers[line.supplierId ?? ''] ?? ''"
            :amount="amount(line)"
            :left="left(line)"
            :paid-from="paidFrom(line)"
            :lacking="lacking.get(line.id) ?? ''"
            :warnings="warnings(line)"
            :read="draft.readWarnings"
            :job="jobOf(line)"
            :payers="payers"
            :lefts="leftOf"
            :category-account="facts.budgetLines.get(line.codings[0]?.budgetLineId ?? '')?.account ?? null"
            :currency="currency"
            :is-open="opened === line.id"
            :may-name="mayName"
            :unpaid="without.payer"
            @remove="emit('remove', line.id)"
            @duplicate="emit('duplicate', line.id)"
            @quantity="emit('quantity', line)"
            @details="toggle(line.id)"
            @divide="splitting = line.id"
            @pay="pay(line, $event)"
            @divided="divide(line, $event)"
            @spread="emit('spread', line, 'payer')"
            @supplier="emit('supplier', line, $event)"
            @name-supplier="emit('nameSupplier', line, $event)"
            @read-warning="readWarning"
          />
          <tr v-if="opened === line.id && facts" class="max-[700px]:block">
            <td colspan="5" class="max-[700px]:block">
              <LineDetails
                :line-id="line.id"
                :at="piece.at + i + 1"
                :facts="facts"
                :lacking="lacking.get(line.id) ?? ''"
                :unsupplied="without.supplier"
                :supplier="suppliers[line.supplierId ?? ''] ?? ''"
                @spread="emit('spread', line, 'supplier')"
                @done="leave(line.id, 'more')"
              />
            </td>
          </tr>
          <tr v-if="splitting === line.id" class="max-[700px]:block">
            <td colspan="5" class="max-[700px]:block">
              <SplitEditor
                :line-id="line.id"
                :name="line.description"
                :payers="payers.map((p) => ({ id: p.id, name: p.name, note: p.code }))"
                :net="verdict.lineNets.get(line.id) ?? null"
                @done="leave(line.id, 'coding')"
              />
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </div>
</template>
