<script setup lang="ts">
import { AGREEMENT_FIXES, type AgreementFixes } from '#core/agreement/fit'
import type { AgreementChoices, AgreementView, KeptAgreement } from '#shared/contract/agreement'
import type { PersonFound } from '#shared/contract/people'
import { capital, formatCount } from '#shared/words/format'
import AgreementItems from '~/components/agreement/AgreementItems.vue'
import { fullPrice, type TypedItem } from '~/composables/agreement/typed-item'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import BlankMany from '~/components/base/BlankMany.vue'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import SupplierPicker from '~/components/base/SupplierPicker.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { readTypedNumber } from '#core/base/typed-number'
import { dec } from '#core/base/decimal'
import { useSessionStore } from '~/stores/session'

/** What a framework agreement says: with whom, how long, what it fixes, up to what, and who draws on it. */
const props = defineProps<{ agreement: AgreementView | null; choices: AgreementChoices }>()
const emit = defineEmits<{ kept: [id: string]; close: [] }>()
const api = useApi()
const wording = useWording()
const session = useSessionStore()
const { busy, trouble, act } = useAct()
const before = props.agreement
const isDrawn = before !== null && !dec(before.drawn.amount).isZero()
const supplier = ref(before === null ? null : { id: before.supplierId, name: before.supplier })
const unsaid = { jobTitle: '', department: '' }
const keeper = shallowRef<PersonFound | null>(
  before === null
    ? { id: session.me?.id ?? '', name: session.me?.name ?? '', ...unsaid }
    : { id: before.keeperId, name: before.keeper, ...unsaid },
)
const form = reactive({
  name: before?.name ?? '',
  theirNumber: before?.theirNumber ?? '',
  currency: before?.currency ?? session.me?.organisation.baseCurrency ?? 'EUR',
  startsOn: before?.startsOn ?? wording.today.value,
  endsOn: before?.endsOn ?? null,
  fixes: before?.fixes ?? ('sum' as AgreementFixes),
  ceiling: before?.ceiling == null ? '' : wording.typed(before.ceiling.amount),
  warnPercent: before === null ? '80' : wording.typed(before.warnPercent ?? ''),
  warnDays: before === null ? '60' : String(before.warnDays),
  renewOn: before?.renewOn ?? null,
  terms: before?.terms?.kind ?? '',
  termsDays: before?.terms == null ? '30' : String(before.terms.days),
  departmentIds: before?.departments.map((d) => d.id) ?? [],
  note: before?.note ?? '',
})
const items = ref<TypedItem[]>(
  (before?.items ?? []).map((i) => ({
    ...{ itemId: i.itemId, name: i.name, supplierPart: i.supplierPart, catalogue: i.catalogue },
    price: i.unitPrice === null ? '' : wording.typed(fullPrice(i.unitPrice, before?.currency ?? i.currency)),
  })),
)
const FIXES: Readonly<Record<AgreementFixes, string>> = { items: 'items and their prices', sum: 'a sum' }
const TERMS = [
  { id: '', name: 'as the supplier’s' },
  { id: 'net', name: 'net' },
  { id: 'month-end', name: 'end of month and' },
]
const number = (text: string) => readTypedNumber(text, wording.decimalMark)
const isBlank = (text: string) => text.trim() === ''
/** Whether a text is a number from the least on; with nothing said only where it may be. */
function isNumber(
  text: string,
  { least, most = null, blank = false }: { least: string; most?: string | null; blank?: boolean },
) {
  if (isBlank(text)) return blank
  const read = number(text)
  return read !== null && dec(read).gte(dec(least)) && (most === null || dec(read).lte(dec(most)))
}
const isWhole = (text: string, most: number) => /^\d{1,4}$/.test(text.trim()) && Number(text) <= most
const isItemRight = (i: TypedItem) => isNumber(i.price, { least: '0', blank: true })
/** What is missing or cannot be read, each with the field at which it is put right. */
const wrong = computed(() => {
  const found: { at: string; says: string }[] = []
  const check = (isRight: boolean, at: string, says: string) => {
    if (!isRight) found.push({ at, says })
  }
  check(!isBlank(form.name), 'agreement-name', 'what it is about')
  check(supplier.value !== null, 'agreement-supplier', 'with whom it is')
  check(form.endsOn !== null, 'agreement-ends', 'when it ends')
  check(form.endsOn === null || form.endsOn >= form.startsOn, 'agreement-ends', 'an end that is not before it begins')
  check(
    isNumber(form.ceiling, { least: '0.000001', blank: form.fixes === 'items' }),
    'agreement-ceiling',
    'up to what may be drawn',
  )
  check(isNumber(form.warnPercent, { least: '0.01', most: '100', blank: true }), 'agreement-share', 'a share up to 100')
  check(isWhole(form.warnDays, 730), 'agreement-days', 'days up to 730')
  check(form.terms === '' || isWhole(form.termsDays, 365), 'agreement-terms-days', 'days of payment up to 365')
  check(keeper.value !== null, 'agreement-keeper', 'who looks after it')
  check(form.fixes === 'sum' || items.value.length > 0, 'agreement-item', 'what stands in it')
  if (form.fixes === 'items')
    for (const i of items.value) check(isItemRight(i), `agreement-price-${i.itemId}`, `a price for ${i.name}`)
  return found
})
const action = computed(() => {
  const [first] = wrong.value
  if (first === undefined) return before === null ? 'Enter it' : 'Keep it as it stands here'
  return wrong.value.length === 1
    ? `Say ${first.says}`
    : `${capital(formatCount(wrong.value.length, 'thing', 'things'))} missing, first ${first.says}`
})
async function keep(): Promise<void> {
  const [first] = wrong.value
  if (first !== undefined) {
    document.getElementById(first.at)?.focus()
    return
  }
  const body: KeptAgreement = {
    ...{ name: form.name, theirNumber: form.theirNumber, supplierId: supplier.value?.id ?? '' },
    ...{ currency: form.currency, startsOn: form.startsOn, endsOn: form.endsOn ?? form.startsOn, fixes: form.fixes },
    ceiling: isBlank(form.ceiling) ? null : number(form.ceiling),
    warnPercent: isBlank(form.warnPercent) ? null : number(form.warnPercent),
    warnDays: Number(form.warnDays),
    renewOn: form.renewOn,
    terms:
      form.terms === 'net' || form.terms === 'month-end' ? { kind: form.terms, days: Number(form.termsDays) } : null,
    departmentIds: form.departmentIds,
    note: form.note,
    keeperId: keeper.value?.id ?? '',
    items:
      form.fixes === 'sum'
        ? []
        : items.value.map((i) => ({ itemId: i.itemId, unitPrice: isBlank(i.price) ? null : number(i.price) })),
  }
  await act(async () => {
    if (before === null) {
      const made = await api.post('/api/agreements', { body, key: crypto.randomUUID() })
      emit('kept', made.id)
      return
    }
    await api.put('/api/agreements/{id}', { params: { id: before.id }, version: before.version, body })
    emit('kept', before.id)
  })
}
function choose(chosen: { id: string; name: string; currency: string } | null): void {
  if (chosen === null) return
  if (supplier.value?.id !== chosen.id) items.value = []
  supplier.value = { id: chosen.id, name: chosen.name }
  if (!isDrawn && props.choices.currencies.includes(chosen.currency)) form.currency = chosen.currency
}
</script>

<template>
  <DialogSheet
    :title="before === null ? 'A framework agreement' : `What ${before.number} says`"
    :width="860"
    @close="emit('close')"
    @main="keep"
  >
    <div class="-mx-1 mt-3 min-h-0 overflow-auto px-1 pb-1">
      <div class="grid grid-cols-[1fr_220px] gap-3 max-[700px]:grid-cols-1">
        <label class="block"
          ><span class="label">What it is about</span
          ><input
            id="agreement-name"
            v-model="form.name"
            class="field"
            maxlength="120"
            autocomplete="off"
            placeholder="Salts and minerals for the exhibits"
        /></label>
        <label class="block"
          ><span class="label">Its number with the supplier</span
          ><input v-model="form.theirNumber" class="field" maxlength="60" autocomplete="off"
        /></label>
      </div>
      <div class="sentence-small mt-4 leading-9!">
        With
        <b v-if="before" class="font-[580]">{{ before.supplier }}</b>
        <SupplierPicker
          v-else
          id="agreement-supplier"
          :name="supplier?.name ?? null"
          label="With which supplier"
          :none="null"
          @choose="choose"
        />, from
        <BlankDay
          v-model="form.startsOn"
          label="Its first day"
          placeholder="a day"
          :today="wording.today.value"
          earliest="2000-01-01"
        />
        to
        <BlankDay
          id="agreement-ends"
          v-model="form.endsOn"
          label="Its last day"
          placeholder="its last day"
          :today="wording.today.value"
          earliest="2000-01-01"
        />, it fixes
        <BlankChoice
          :model-value="form.fixes"
          :choices="AGREEMENT_FIXES.map((id) => ({ id, name: FIXES[id] }))"
          label="What it fixes"
          placeholder=""
          @update:model-value="form.fixes = $event as AgreementFixes"
        />, up to
        <input
          id="agreement-ceiling"
          v-model="form.ceiling"
          class="blank blank-input"
          inputmode="decimal"
          autocomplete="off"
          aria-label="Up to what may be drawn, without tax"
          :placeholder="form.fixes === 'items' ? 'any sum' : 'an amount'"
        />
        <b v-if="isDrawn" class="font-[580]">{{ form.currency }}</b><BlankChoice
          v-else
          v-model="form.currency"
          :choices="choices.currencies.map((id) => ({ id, name: id }))"
          label="In which currency"
          placeholder=""
        />
        without tax. It is paid
        <BlankChoice v-model="form.terms" :choices="TERMS" label="Terms of payment" placeholder="" /><template
          v-if="form.terms !== ''"
        >
          <input
            id="agreement-terms-days"
            v-model="form.termsDays"
            class="blank blank-input"
            inputmode="numeric"
            aria-label="Days of payment"
          />
          days</template
        >. It is for
        <BlankMany
          v-model="form.departmentIds"
          :choices="choices.departments"
          label="Who may draw on it, with what is part of each"
          placeholder="every department"
        />. Documents are warned from
        <input
          id="agreement-share"
          v-model="form.warnPercent"
          class="blank blank-input"
          inputmode="decimal"
          placeholder="no"
          aria-label="From which share of it on documents are warned, in percent"
        />
        % of it on, and
        <input
          id="agreement-days"
          v-model="form.warnDays"
          class="blank blank-input"
          inputmode="numeric"
          aria-label="How many days before its end documents are warned"
        />
        days before its end.
        <PersonPicker id="agreement-keeper" v-model="keeper" label="Who looks after it" placeholder="somebody" needed />
        looks after it, and is told on
        <BlankDay
          v-model="form.renewOn"
          label="On which day it is to be decided whether it goes on"
          placeholder="no day"
          :today="wording.today.value"
          optional
        />
        to decide whether it goes on<template v-if="form.renewOn !== null"
          >; <button type="button" class="quiet-link" @click="form.renewOn = null">no day</button></template
        >.
      </div>
      <AgreementItems
        v-if="form.fixes === 'items'"
        v-model="items"
        class="mt-4"
        :supplier="supplier"
        :currency="form.currency"
        :is-right="isItemRight"
      />
      <label class="mt-4 block"
        ><span class="label">What colleagues should know of it</span
        ><textarea v-model="form.note" class="field font-[440]" rows="2" maxlength="2000" />
      </label>
    </div>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <div class="mt-4 flex flex-wrap gap-2.5">
      <div class="min-w-[280px] flex-1">
        <MainAction :missing="wrong.length > 0" :busy="busy" keys="Ctrl ⏎" @press="keep">{{ action }}</MainAction>
      </div>
      <button type="button" class="action" @click="emit('close')">Leave it</button>
    </div>
  </DialogSheet>
</template>
