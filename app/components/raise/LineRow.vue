<script setup lang="ts">
import { UNITS, unitName } from '#core/base/unit'
import { readTypedNumber } from '#core/base/typed-number'
import type { PayingLine } from '#core/requisition/draft-facts'
import type { TypedPayer } from '#core/requisition/typed-payer'
import type { Warning } from '#core/supplier/warning'
import BlankChoice from '~/components/base/BlankChoice.vue'
import SupplierPicker from '~/components/base/SupplierPicker.vue'
import type { SupplierFound } from '#shared/contract/catalogue'
import { useDraftEditor } from '~/composables/raise/draft-editor'
import PayerPicker from './PayerPicker.vue'
import { useWording } from '~/composables/base/use-wording'
import { sayWarning } from '#shared/words/supplier'
import TypedBox from '~/components/base/TypedBox.vue'

const wording = useWording()

/** One line of a requisition, written in place: each cell looks like what it holds until one is in it. */
const props = defineProps<{
  lineId: string
  at: number
  supplier: string
  amount: string
  left: string
  paidFrom: string
  lacking: string
  warnings: readonly Warning[]
  read: readonly string[]
  job: string
  payers: readonly PayingLine[]
  lefts: (id: string) => string
  categoryAccount: string | null
  currency: string
  isOpen: boolean
  mayName: boolean
  /** How many other lines have no payer, and could take this one's. */
  unpaid: number
}>()
const emit = defineEmits<{
  remove: []
  duplicate: []
  quantity: []
  details: []
  divide: []
  pay: [budgetLineId: string]
  supplier: [supplier: SupplierFound | null]
  nameSupplier: [words: string]
  readWarning: [id: string]
  divided: [payer: TypedPayer]
  spread: []
}>()
const editor = useDraftEditor()
const current = computed(() => editor.line(props.lineId))
/** What was typed and cannot be read, by field: it stays in sight and nothing is overwritten. */
const unread = reactive<Record<'quantity' | 'unitPrice', string | null>>({ quantity: null, unitPrice: null })
const units = Object.entries(UNITS)
  .filter(([code]) => code !== 'EA')
  .map(([id, name]) => ({ id, name }))
const id = computed(() => `line-${props.lineId}`)
const lacks = (field: string) => props.lacking.split('|').includes(field)

function setNumber(field: 'quantity' | 'unitPrice', event: Event): void {
  const box = event.target as HTMLInputElement
  const line = current.value
  if (field === 'unitPrice' && box.value.trim() === '') {
    line.unitPrice = null
    line.priceWithTax = null
    unread.unitPrice = null
    return
  }
  const typed = readTypedNumber(box.value, wording.decimalMark)
  if (typed === null || /^-?\d{13}/.test(typed)) {
    unread[field] = box.value
    return
  }
  unread[field] = null
  const before = line.quantity
  if (field === 'unitPrice' && typed !== line.unitPrice) line.priceWithTax = null
  line[field] = typed
  box.value = shown(field)
  if (field === 'quantity' && before !== typed) emit('quantity')
}
function shown(field: 'quantity' | 'unitPrice'): string {
  const typed = unread[field]
  if (typed !== null) return typed
  return field === 'quantity'
    ? wording.decimal(current.value.quantity)
    : current.value.unitPrice === null
      ? ''
      : wording.price(current.value.unitPrice, current.value.currency)
}
/**
 * What stands below a price: by how many it is counted, its currency, and the catalogue's where another was written.
 */
const belowPrice = computed(() => {
  const line = current.value
  const byHand = line.listPrice !== null && line.listPrice !== line.unitPrice
  return [
    ...(line.priceBase === '1' ? [] : [`per ${line.priceBase}`]),
    ...(line.currency === props.currency ? [] : [line.currency]),
    ...(byHand && line.listPrice !== null ? [`catalogue ${wording.price(line.listPrice, line.currency)}`] : []),
    ...(line.priceWithTax === null ? [] : [`${wording.price(line.priceWithTax, line.currency)} with tax`]),
    ...(line.itemId === null && line.currency === props.currency && line.priceWithTax === null && line.discount === null
      ? ['estimate']
      : []),
    ...(line.discount === null
      ? []
      : [`less ${wording.decimal(line.discount.value)}${line.discount.of === 'percent' ? ' %' : ''}`]),
  ].join(' · ')
})
/** Amounts and quantities of this one line fit no other. */
const fitsOthers = computed(() => {
  const { codings, splitMethod } = current.value
  return codings.length === 1 || (codings.length > 1 && (splitMethod === 'percent' || splitMethod === 'share'))
})
const sameFor = (n: number) => `the same for the ${n === 1 ? 'other one' : `other ${n}`} without`
const more = computed(() =>
  [
    current.value.secondDescription,
    ...(current.value.needBy === null ? [] : [`by ${wording.day(current.value.needBy)}`]),
    props.job,
    ...(current.value.noteToSupplier === '' ? [] : ['note to the supplier']),
    ...(current.value.noteInternal === '' ? [] : ['note for colleagues']),
  ]
    .filter((t) => t !== '')
    .join(' · '),
)
</script>

<template>
  <tr
    :id="id"
    :class="[
      'group max-[700px]:grid max-[700px]:grid-cols-[auto_auto_minmax(0,1fr)] max-[700px]:gap-x-4',
      'max-[700px]:border-b max-[700px]:border-rule max-[700px]:py-2 max-[700px]:[&>td]:border-0',
      'max-[700px]:[&>td]:p-0.5',
    ]"
  >
    <td class="max-[700px]:col-span-3">
      <input
        :id="`${id}-description`"
        v-model="current.description"
        class="cell font-semibold"
        data-column="description"
        :aria-label="`Line ${at}: what`"
        maxlength="400"
        :aria-invalid="lacks('description')"
      />
      <p v-if="more" class="small truncate">{{ more }}</p>
      <p class="small flex flex-wrap items-center gap-x-2">
        <template v-if="current.itemId !== null"
          ><span>{{ supplier || 'buyer decides who' }}</span
          ><span v-if="current.supplierPart">· {{ current.supplierPart }}</span></template
        >
        <template v-else
          ><span>Free text ·</span
          ><SupplierPicker
            :id="`${id}-supplier`"
            :name="current.supplierId === null ? null : supplier"
            none="buyer decides who"
            :may-name="mayName"
            :label="`Line ${at}: supplier`"
            @choose="emit('supplier', $event)"
            @name="emit('nameSupplier', $event)"
        /></template>
        <span
          class="ml-auto flex gap-3"
          :class="
            isOpen ? '' : 'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 max-[700px]:opacity-100'
          "
        >
          <button
            :id="`${id}-more`"
            type="button"
            class="quiet-link min-h-[28px] min-w-[24px]"
            :aria-label="`More about line ${at}`"
            :aria-expanded="isOpen"
            @click="emit('details')"
          >
            {{ isOpen ? 'less' : 'more' }}
          </button>
          <button
            type="button"
            class="quiet-link min-h-[28px] min-w-[24px]"
            :aria-label="`Duplicate line ${at}`"
            @click="emit('duplicate')"
          >
            duplicate
          </button>
          <button
            type="button"
            class="quiet-link min-h-[28px] min-w-[24px]"
            :aria-label="`Remove line ${at}`"
            @click="emit('remove')"
          >
            remove
          </button>
        </span>
      </p>
      <p
        v-for="w in warnings"
        :id="w === warnings[0] ? `${id}-warning` : undefined"
        :key="w.id"
        tabindex="-1"
        class="mt-1 text-[12.5px] leading-[17px]"
        :class="w.mode === 'stops' ? 'text-red' : 'text-amber-ink'"
      >
        {{ sayWarning(w) }}
        <button
          v-if="w.mode === 'must be read' && !read.includes(w.id)"
          type="button"
          class="quiet-link font-semibold"
          :aria-label="`I have read the warning of line ${at}`"
          @click="emit('readWarning', w.id)"
        >
          I have read this</button
        ><span v-else-if="w.mode === 'must be read'"> Read.</span>
      </p>
    </td>
    <td class="num max-[700px]:row-start-2">
      <span class="flex items-baseline justify-end gap-1">
        <TypedBox
          :id="`${id}-quantity`"
          class="cell w-[56px]! text-right max-[700px]:w-[40px]!"
          data-column="quantity"
          inputmode="decimal"
          :value="shown('quantity')"
          :aria-label="`Line ${at}: how many`"
          :aria-invalid="lacks('quantity') || unread.quantity !== null"
          @change="setNumber('quantity', $event)"
          @focus="($event.target as HTMLInputElement).select()"
        />
        <span v-if="current.itemId !== null" class="text-ink2">{{ unitName(current.unit) }}</span>
        <BlankChoice
          v-else
          compact
          class="text-ink2"
          :model-value="current.unit"
          :choices="units"
          :label="`Line ${at}: unit`"
          placeholder="unit"
          @update:model-value="current.unit = $event"
        />
      </span>
      <span v-if="unread.quantity !== null" class="small block text-red">not a number</span>
    </td>
    <td class="num max-[700px]:col-start-2 max-[700px]:row-start-2">
      <TypedBox
        :id="`${id}-price`"
        class="cell text-right max-[700px]:w-[84px]!"
        data-column="price"
        inputmode="decimal"
        placeholder="price"
        :value="shown('unitPrice')"
        :aria-label="`Line ${at}: price of one, ${current.currency}`"
        :aria-invalid="lacks('price') || unread.unitPrice !== null"
        @change="setNumber('unitPrice', $event)"
        @focus="($event.target as HTMLInputElement).select()"
      />
      <span class="small block whitespace-normal"
        ><span v-if="unread.unitPrice !== null" class="text-red">not a number</span
        ><template v-else>{{ belowPrice }}</template></span
      >
    </td>
    <td
      :class="[
        'pl-3! max-[700px]:col-span-3 max-[700px]:row-start-3 max-[700px]:flex',
        'max-[700px]:items-baseline max-[700px]:gap-3 max-[700px]:pl-0.5!',
      ]"
    >
      <PayerPicker
        :id="`${id}-coding`"
        :label="`Line ${at}: paid from`"
        :shown="paidFrom"
        :chosen="current.codings.length === 1 ? (current.codings[0]?.budgetLineId ?? null) : null"
        :payers="payers"
        :category-account="categoryAccount"
        :lefts="lefts"
        :may-divide="payers.length > 1"
        @choose="emit('pay', $event)"
        @divide="emit('divide')"
        @divided="emit('divided', $event)"
      />
      <span class="small block truncate" :title="left">{{ left }}</span>
      <button v-if="unpaid > 0 && fitsOthers" type="button" class="small quiet-link" @click="emit('spread')">
        {{ sameFor(unpaid) }}
      </button>
    </td>
    <td class="num max-[700px]:col-start-3 max-[700px]:row-start-2 max-[700px]:pt-1.5! max-[700px]:font-semibold">
      {{ amount }}
    </td>
  </tr>
</template>
