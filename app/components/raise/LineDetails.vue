<script setup lang="ts">
import { dec } from '#core/base/decimal'
import { netUnitPrice } from '#core/base/line-net'
import { readTypedNumber } from '#core/base/typed-number'
import { isAsked } from '#core/requisition/own-field'
import type { DraftFacts } from '#core/requisition/draft-facts'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import { useDraftEditor } from '~/composables/raise/draft-editor'
import { jobChoices } from '~/composables/raise/job-choices'
import OwnFieldInput from './OwnFieldInput.vue'
import { useWording } from '~/composables/base/use-wording'
import TypedBox from '~/components/base/TypedBox.vue'

const wording = useWording()

/** What else may be said of a line: more words, price with tax, discount, tax, currency, job, notes, own fields. */
const props = defineProps<{
  lineId: string
  at: number
  facts: DraftFacts
  lacking: string
  supplier: string
  /** How many other lines of one's own leave the supplier to the buyer. */
  unsupplied: number
}>()
const emit = defineEmits<{ done: []; spread: [] }>()
const first = useTemplateRef<HTMLInputElement>('first')
const wrong = reactive({ withTax: '', discount: '' })
const { draft, names, line } = useDraftEditor()
const current = computed(() => line(props.lineId))
const id = `line-${props.lineId}`
const jobs = computed(() => [...props.facts.jobs.values()])
const choices = computed(() => jobChoices(jobs.value))
const taxes = computed(() =>
  [...props.facts.taxCodes]
    .filter(([code, t]) => t.retired !== true || code === current.value.taxCode)
    .map(([code, t]) => ({ id: code, name: `${wording.decimal(t.rate)} %`, note: t.name })),
)
const currencies = computed(() => [...props.facts.perBase.keys()].sort().map((c) => ({ id: c, name: c })))
const rate = computed(() => props.facts.perBase.get(current.value.currency))
const fields = computed(() =>
  props.facts.ownFields.filter(
    (f) =>
      f.on === 'line' &&
      isAsked(f, { kind: draft.kind, departmentId: draft.departmentId, categoryId: current.value.categoryId }),
  ),
)
onMounted(() => {
  first.value?.focus()
})

function withTheRest(): void {
  current.value.needBy = null
  document.getElementById(`${id}-need-by`)?.focus()
}
function taxed(code: string): void {
  const line = current.value
  line.taxCode = code
  const t = props.facts.taxCodes.get(code)
  if (line.priceWithTax !== null && t !== undefined) line.unitPrice = netUnitPrice(line.priceWithTax, t.rate)
}
function withTax(event: Event): void {
  const text = (event.target as HTMLInputElement).value
  const t = props.facts.taxCodes.get(current.value.taxCode)
  if (text.trim() === '') {
    current.value.priceWithTax = null
    wrong.withTax = ''
    return
  }
  const read = readTypedNumber(text, wording.decimalMark)
  wrong.withTax = read === null || dec(read).isNegative() || t === undefined ? 'not a price' : ''
  if (read === null || t === undefined || wrong.withTax !== '') return
  current.value.priceWithTax = read
  current.value.unitPrice = netUnitPrice(read, t.rate)
}
function takeOff(event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim()
  if (text === '') {
    current.value.discount = null
    wrong.discount = ''
    return
  }
  const percent = text.endsWith('%')
  const read = readTypedNumber(text.replace(/%$/, ''), wording.decimalMark)
  wrong.discount = read === null ? 'not a number' : ''
  if (read !== null) current.value.discount = { of: percent ? 'percent' : 'amount', value: read }
}
const discount = computed(() =>
  current.value.discount === null
    ? ''
    : `${wording.decimal(current.value.discount.value)}${current.value.discount.of === 'percent' ? ' %' : ''}`,
)
</script>

<template>
  <div class="small space-y-1.5 border-l-2 border-strong py-1 pl-3 text-ink2!" @keydown.esc.stop.prevent="emit('done')">
    <p class="flex items-baseline gap-3">
      <label :for="`${id}-second`" class="shrink-0">More about it</label
      ><input
        :id="`${id}-second`"
        ref="first"
        v-model="current.secondDescription"
        class="cell text-ink placeholder:italic"
        maxlength="400"
        placeholder="colour, drawing number, what to mind; it stands on the order"
      />
    </p>
    <p class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <span class="inline-flex items-baseline gap-1.5"
        ><label :for="`${id}-with-tax`">price with tax</label
        ><TypedBox
          :id="`${id}-with-tax`"
          class="cell cell-fit w-auto! text-ink placeholder:italic"
          inputmode="decimal"
          :value="current.priceWithTax === null ? '' : wording.price(current.priceWithTax, current.currency)"
          placeholder="if you only know that"
          @change="withTax"
        /><span v-if="wrong.withTax" class="text-red">{{ wrong.withTax }}</span></span
      >
      <span class="inline-flex items-baseline gap-1.5"
        >taxed
        <BlankChoice
          :id="`${id}-tax`"
          compact
          class="text-ink"
          :model-value="current.taxCode"
          :choices="taxes"
          :label="`Line ${at}: tax`"
          placeholder="which rate"
          @update:model-value="taxed"
      /></span>
      <span class="inline-flex items-baseline gap-1.5"
        ><label :for="`${id}-discount`">less</label
        ><TypedBox
          :id="`${id}-discount`"
          class="cell cell-fit w-auto! text-ink placeholder:italic"
          :value="discount"
          :aria-invalid="lacking.split('|').includes('discount')"
          placeholder="5 % or an amount"
          @change="takeOff"
        /><span v-if="wrong.discount" class="text-red">{{ wrong.discount }}</span></span
      >
      <span v-if="current.itemId === null" class="inline-flex items-baseline gap-1.5"
        >in
        <BlankChoice
          :id="`${id}-currency`"
          compact
          class="text-ink"
          :model-value="current.currency"
          :choices="currencies"
          :label="`Line ${at}: currency`"
          placeholder="currency"
          @update:model-value="current.currency = $event"
      /></span>
      <span v-if="current.currency !== facts.baseCurrency && rate !== undefined">{{
        wording.rate(rate, current.currency, facts.baseCurrency)
      }}</span>
      <span v-if="current.itemId === null" class="inline-flex items-baseline gap-1.5"
        ><label :for="`${id}-part`">supplier’s part number</label
        ><input
          :id="`${id}-part`"
          :value="current.supplierPart ?? ''"
          class="cell cell-fit w-auto! text-ink placeholder:italic"
          maxlength="80"
          placeholder="none"
          @input="current.supplierPart = ($event.target as HTMLInputElement).value || null"
      /></span>
    </p>
    <p class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <span class="inline-flex items-baseline gap-1.5"
        >needed
        <BlankDay
          :id="`${id}-need-by`"
          compact
          class="text-ink"
          :model-value="current.needBy"
          :label="`Line ${at}: needed by`"
          placeholder="with the rest"
          :today="facts.today"
          :holidays="[...facts.holidays]"
          @update:model-value="current.needBy = $event"
        /><button v-if="current.needBy !== null" type="button" class="quiet-link" @click="withTheRest">
          with the rest
        </button></span
      >
      <span v-if="jobs.length > 0" class="inline-flex items-baseline gap-1.5"
        >for job
        <BlankChoice
          :id="`${id}-job`"
          compact
          class="text-ink"
          :model-value="current.jobId ?? ''"
          :choices="choices"
          :label="`Line ${at}: job`"
          placeholder="no job"
          @update:model-value="current.jobId = $event || null"
      /></span>
      <OwnFieldInput
        v-for="f in fields"
        :id="`${id}-own-${f.id}`"
        :key="f.id"
        class="text-ink"
        :field="f"
        :model-value="current.own[f.id] ?? ''"
        :today="facts.today"
        :jobs="jobs"
        :person-name="names[current.own[f.id] ?? ''] ?? null"
        :lacking="lacking.split('|').includes(`own ${f.id}`)"
        @update:model-value="current.own[f.id] = $event"
        @person="names[$event.id] = $event.name"
      />
    </p>
    <p v-if="current.itemId === null && supplier !== '' && unsupplied > 0">
      <button type="button" class="quiet-link" @click="emit('spread')">
        {{ supplier }} for the {{ unsupplied === 1 ? 'other line' : `other ${unsupplied} lines` }} without a supplier
      </button>
    </p>
    <p class="flex items-baseline gap-1.5">
      <label :for="`${id}-to-supplier`" class="shrink-0">To the supplier</label
      ><input
        :id="`${id}-to-supplier`"
        v-model="current.noteToSupplier"
        class="cell text-ink placeholder:italic"
        maxlength="1000"
        placeholder="stands on the order"
      />
    </p>
    <p class="flex items-baseline gap-1.5">
      <label :for="`${id}-internal`" class="shrink-0">For colleagues only</label
      ><input
        :id="`${id}-internal`"
        v-model="current.noteInternal"
        class="cell text-ink placeholder:italic"
        maxlength="1000"
        placeholder="the supplier never sees it"
      />
    </p>
  </div>
</template>
