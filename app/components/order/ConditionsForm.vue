<script setup lang="ts">
import { DELIVERY_TERMS, LONGEST_NUMBER, type DeliveryTerm } from '#core/order/conditions'
import type { TrayView } from '#shared/contract/order'
import { DELIVERY } from '#shared/words/conditions'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import AdjustmentRows from '~/components/order/AdjustmentRows.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { missingOf, readAdjustments, typedOf } from '~/composables/order/typed-adjustment'

/** How an order that is put together is paid and delivered, what is taken off it, or that it was placed elsewhere. */
const props = defineProps<{ tray: TrayView }>()
const emit = defineEmits<{ kept: []; close: [] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const { terms, delivery, expiresOn, placedAs, isSent, isBlanket, adjustments } = props.tray.conditions
const form = reactive({
  kind: terms.kind,
  days: String(terms.days),
  term: (delivery?.term ?? '') as DeliveryTerm | '',
  place: delivery?.place ?? '',
  ends: expiresOn === null ? '' : isBlanket ? 'called' : 'until',
  expiresOn,
  placed: placedAs === null ? '' : 'already',
  placedAs: placedAs ?? '',
  sent: isSent ? 'sent' : '',
  adjustments: typedOf(adjustments, wording, props.tray.currency),
})
/** A term of delivery has a place: where the order goes, until another is written. */
function setTerm(term: string): void {
  form.term = term as DeliveryTerm | ''
  if (term !== '' && form.place === '') form.place = props.tray.shipTo
}
const wrong = computed(() => {
  const found: { at: string; says: string }[] = []
  if (!/^\d{1,3}$/.test(form.days.trim()) || Number(form.days) > 365)
    found.push({ at: 'conditions-days', says: 'days of payment up to 365' })
  if (form.term !== '' && form.place.trim() === '')
    found.push({ at: 'conditions-place', says: 'where it is handed over' })
  found.push(...missingOf(form.adjustments, wording.decimalMark))
  if (form.ends !== '' && form.expiresOn === null) found.push({ at: 'conditions-expires', says: 'until when' })
  if (form.placed !== '' && form.placedAs.trim() === '')
    found.push({ at: 'conditions-number', says: 'under which number it was placed' })
  return found
})
async function keep(): Promise<void> {
  const [first] = wrong.value
  if (first !== undefined) {
    document.getElementById(first.at)?.focus()
    return
  }
  const isPlaced = form.placed !== ''
  await act(async () => {
    await api.put('/api/trays/{id}/conditions', {
      params: { id: props.tray.id },
      version: props.tray.version,
      body: {
        terms: { kind: form.kind, days: Number(form.days) },
        delivery: form.term === '' ? null : { term: form.term, place: form.place },
        expiresOn: form.ends === '' ? null : form.expiresOn,
        placedAs: isPlaced ? form.placedAs : null,
        isSent: !isPlaced || form.sent !== '',
        isBlanket: form.ends === 'called',
        adjustments: readAdjustments(form.adjustments, wording.decimalMark),
      },
    })
    emit('kept')
  })
}
</script>

<template>
  <DialogSheet
    :title="`On which conditions ${tray.supplier} is ordered from`"
    :width="620"
    @main="keep"
    @close="emit('close')"
  >
    <form class="mt-3" @submit.prevent="keep">
      <div class="sentence-small leading-9!">
        <p>
          It is paid
          <BlankChoice
            v-model="form.kind"
            :choices="[
              { id: 'net', name: 'net' },
              { id: 'month-end', name: 'from the end of the month' },
            ]"
            label="From when the days of payment count"
            placeholder=""
          />{{ ' ' }}
          <input
            id="conditions-days"
            v-model="form.days"
            class="blank blank-input"
            inputmode="numeric"
            aria-label="Days of payment"
          />
          days.
        </p>
        <p>
          It is delivered
          <BlankChoice
            :model-value="form.term"
            :choices="[
              { id: '', name: 'on no term of delivery' },
              ...DELIVERY_TERMS.map((id) => ({ id, name: `${id}, ${DELIVERY[id]}` })),
            ]"
            label="Term of delivery"
            placeholder=""
            @update:model-value="setTerm"
          /><template v-if="form.term !== ''"
            >, at
            <input
              id="conditions-place"
              v-model="form.place"
              class="blank blank-input min-w-[60px]"
              maxlength="120"
              autocomplete="off"
              aria-label="Where it is handed over"
              placeholder="a place"
              data-needed="true" /></template
          >,
          <BlankChoice
            v-model="form.ends"
            :choices="[
              { id: '', name: 'whenever it comes' },
              { id: 'until', name: 'until' },
              { id: 'called', name: 'in parts, as they are called off, until' },
            ]"
            label="How long it may be delivered"
            placeholder=""
          /><template v-if="form.ends !== ''"
            >{{ ' ' }}
            <BlankDay
              id="conditions-expires"
              v-model="form.expiresOn"
              label="The last day on which it may come"
              placeholder="a day"
              :today="wording.today.value" /></template
          >.
        </p>
        <p>
          It was
          <BlankChoice
            v-model="form.placed"
            :choices="[
              { id: '', name: 'not placed before' },
              { id: 'already', name: 'placed already' },
            ]"
            label="Whether it was placed already"
            placeholder=""
          /><template v-if="form.placed !== ''"
            >, as
            <input
              id="conditions-number"
              v-model="form.placedAs"
              class="blank blank-input min-w-[60px]"
              :maxlength="LONGEST_NUMBER"
              autocomplete="off"
              aria-label="The number under which it was placed"
              placeholder="its number there"
              data-needed="true"
            />, and
            <BlankChoice
              v-model="form.sent"
              :choices="[
                { id: '', name: 'nothing is sent' },
                { id: 'sent', name: 'a confirmation is sent' },
              ]"
              label="Whether a confirmation is sent"
              placeholder=""
            />
            to {{ tray.supplier }}</template
          >.
        </p>
        <AdjustmentRows v-model="form.adjustments" :currency="tray.currency" />
      </div>
      <p v-if="form.ends === 'called'" class="small mt-1">
        A blanket order: it is decided on and holds its money as a whole. {{ tray.supplier }} delivers nothing until you
        call a part of it off.
      </p>
      <p v-if="form.placed !== ''" class="small mt-1">
        For what was bought on paper, by telephone or in a shop. Each number is one order’s of this supplier.
      </p>
      <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <div class="mt-4 flex items-center gap-3">
        <MainAction :missing="wrong.length > 0" :busy="busy" keys="Ctrl ⏎" @press="keep">{{
          wrong[0] ? `Say ${wrong[0].says}` : 'Keep it as it stands here'
        }}</MainAction>
        <button type="button" class="action shrink-0" @click="emit('close')">Leave it</button>
      </div>
    </form>
  </DialogSheet>
</template>
