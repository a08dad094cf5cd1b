<script setup lang="ts">
import { dec } from '#core/base/decimal'
import { isByAmount } from '#core/base/unit'
import { muchOf } from '#core/order/call-off'
import type { OrderView } from '#shared/contract/order'
import { sayMuch } from '#shared/words/call-off'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import MainAction from '~/components/base/MainAction.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import AdjustmentRows from '~/components/order/AdjustmentRows.vue'
import PartsOfNet from '~/components/order/PartsOfNet.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { isMainKey } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useOrderChange } from '~/composables/order/use-order-change'

/** An issued order while its buyer changes it: every line beside what was sent, and what comes of it. */
const props = defineProps<{ order: OrderView }>()
const emit = defineEmits<{ changed: [words: string]; leave: [] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const change = useOrderChange(props.order)
const { typedOf, write, sayWrong, isOff, isLess, checked, shipToId, expiresOn, adjustments, rest, reason, note } =
  change
const RESTS = [
  { id: 'returns', name: 'waits on the Desk to be ordered again' },
  { id: 'ends', name: 'is not needed any more' },
]
const netOf = (id: string) => checked.value?.lines.find((l) => l.id === id)?.net ?? null
/** What has to be done before it can be sent; "" where nothing is missing. */
const missing = computed(() => {
  if (change.wrong.value.length > 0) return 'Mend what cannot be read'
  const [first] = change.missing.value
  if (first !== undefined) return `Say ${first.says}`
  if (change.isNothing.value) return 'Change something of it first'
  if (checked.value === null) return 'Looking at what it comes to'
  if (checked.value.refusals.length > 0 && !checked.value.needsDecision) return 'Something stands in its way'
  return reason.value.trim() === '' ? 'Say why, for colleagues' : ''
})
const words = computed(() => {
  if (missing.value !== '') return missing.value
  if (checked.value?.needsDecision === true) return 'Send the change to whoever decides'
  if (checked.value?.isCancellation === true) return `Cancel ${props.order.number} and tell ${props.order.supplier}`
  const next = (props.order.revisions[0]?.revision ?? 0) + 1
  return `Send revision ${next}${checked.value === null ? '' : `, ${wording.money(checked.value.net)}`}`
})
/** One key for one change: pressed again after a failing, it is made once. */
let key = crypto.randomUUID()
watch(change.wishes, () => {
  key = crypto.randomUUID()
})
async function send(): Promise<void> {
  if (missing.value !== '') {
    const at =
      change.missing.value[0]?.at ??
      (change.isNothing.value || change.wrong.value.length > 0
        ? `many-${props.order.lines[0]?.id ?? ''}`
        : 'change-reason')
    document.getElementById(at)?.focus()
    return
  }
  const asks = checked.value?.needsDecision === true
  await act(async () => {
    const { number, revision, state } = await api.post('/api/orders/{id}/changes', {
      params: { id: props.order.id },
      body: { ...change.wishes.value, asks },
      version: props.order.version,
      key,
    })
    change.forget()
    emit(
      'changed',
      state === 'in force'
        ? `Revision ${revision ?? 1} of ${number} is on its way to ${props.order.supplier}.`
        : 'The change waits to be decided on.',
    )
  })
}
function leave(): void {
  change.forget()
  emit('leave')
}
type Line = OrderView['lines'][number]
/** Of a blanket order: what of a line is called off. */
const calledOf = (lineId: string) => props.order.blanket?.lines.find((l) => l.id === lineId)?.called ?? null
function sayCalled(l: Line): string {
  const called = calledOf(l.id)
  if (called === null || dec(called.quantity).isZero()) return 'nothing'
  return sayMuch(muchOf(l.unit, called), l.unit, props.order.currency, wording.ways)
}
/** Orders of a line no more than was called off. */
function giveBack(l: Line): void {
  const called = calledOf(l.id)
  if (called === null) return
  const isAmount = isByAmount(l.unit) && !dec(called.quantity).isZero()
  write(
    l,
    isAmount
      ? { quantity: '1', unitPrice: wording.decimal(called.net.amount) }
      : { quantity: wording.decimal(called.quantity) },
  )
}
function takeAllOff(): void {
  for (const l of props.order.lines) write(l, { quantity: '0' })
}
function onKey(event: KeyboardEvent): void {
  if (!isMainKey(event) || event.repeat) return
  event.preventDefault()
  void send()
}
onMounted(() => document.getElementById(`many-${props.order.lines[0]?.id ?? ''}`)?.focus())
</script>

<template>
  <SheetPage>
    <form aria-label="Change the order" @submit.prevent @keydown="onKey">
      <h1 class="sentence">
        What <b>{{ order.number }}</b> to <b>{{ order.supplier }}</b> is to be from now on.
      </h1>
      <p class="mt-2 leading-8">
        It is delivered to
        <BlankChoice
          v-model="shipToId"
          :choices="order.places"
          label="Where it is to be delivered"
          placeholder="where"
          light
        />.
        {{ order.blanket ? 'It is called off until' : 'Its last day is' }}
        <BlankDay
          v-model="expiresOn"
          :label="order.blanket ? 'The last day on which it may be called off' : 'The last day on which it may come'"
          placeholder="not said"
          optional
          :today="wording.today.value"
        />.
        <template v-if="isLess && order.direct === null"
          >What is not ordered any more
          <BlankChoice
            :model-value="rest"
            :choices="RESTS"
            label="What becomes of what is not ordered any more"
            placeholder=""
            light
            @update:model-value="rest = $event === 'ends' ? 'ends' : 'returns'"
          />.</template
        >
      </p>
      <table class="table mt-2">
        <caption class="sr-only">
          Lines as they are to be
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col">What</th>
            <th scope="col" class="num">How many</th>
            <th scope="col" class="num">Price</th>
            <th scope="col" class="pl-3!">Needed</th>
            <th scope="col" class="num">Amount</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in order.lines" :key="l.id" class="folded">
            <td class="max-[700px]:col-span-2">
              <span class="block font-semibold" :class="isOff(l) ? 'text-ink3 line-through' : ''">{{
                l.description
              }}</span>
              <span class="small block"
                >sent as {{ wording.quantity(l.quantity, l.unit) }} at {{ wording.price(l.unitPrice, order.currency)
                }}{{ l.priceBase === '1' ? '' : ` per ${l.priceBase}`
                }}<template v-if="!isOff(l)"
                  >{{ ' · '
                  }}<button
                    type="button"
                    class="quiet-link"
                    :aria-label="`Take ${l.description} off the order`"
                    @click="write(l, { quantity: '0' })"
                  >
                    take it off
                  </button></template
                ></span
              >
              <span v-if="calledOf(l.id)" class="small block"
                >{{ sayCalled(l) }} called off ·
                <button
                  type="button"
                  class="quiet-link"
                  :aria-label="`Give back what is left of ${l.description}`"
                  @click="giveBack(l)"
                >
                  give back what is left
                </button></span
              >
              <span v-if="sayWrong(l)" class="block text-red" role="status">{{ sayWrong(l) }}</span>
            </td>
            <td class="num whitespace-nowrap align-middle! max-[700px]:text-left!">
              <input
                :id="`many-${l.id}`"
                :value="typedOf(l).quantity"
                class="field num inline-block! h-8! w-20! px-2! py-0!"
                inputmode="decimal"
                :aria-label="`How many of ${l.description}`"
                @input="write(l, { quantity: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td class="num align-middle!">
              <input
                :value="typedOf(l).unitPrice"
                class="field num inline-block! h-8! w-24! px-2! py-0!"
                inputmode="decimal"
                :aria-label="`Price of ${l.description}`"
                @input="write(l, { unitPrice: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td class="pl-3! align-middle! max-[700px]:pl-0.5!">
              <BlankDay
                :model-value="typedOf(l).needBy"
                :label="`By when ${l.description} is needed`"
                placeholder="when"
                :today="wording.today.value"
                @update:model-value="write(l, { needBy: $event })"
              />
            </td>
            <td class="num align-middle!">{{ wording.amount(netOf(l.id) ?? l.net) }}</td>
          </tr>
        </tbody>
      </table>
      <AdjustmentRows
        v-if="order.calledFrom === null"
        v-model="adjustments"
        class="mt-2 leading-8"
        :currency="order.currency"
        light
      />
      <template v-if="checked">
        <PartsOfNet :parts="checked" />
        <p class="mt-2 flex justify-end gap-6">
          <span
            ><b class="font-semibold">{{ order.currency }}, without tax</b>;
            {{ wording.amount(order.net) }} before</span
          ><span class="num w-24 font-semibold">{{ wording.amount(checked.net) }}</span>
        </p>
      </template>
      <p class="small mt-1">
        <button type="button" class="quiet-link" @click="takeAllOff">
          Take every line off, which cancels the order
        </button>
      </p>
      <label class="label mt-3" for="change-reason">Why, for colleagues</label>
      <textarea id="change-reason" v-model="reason" class="field" rows="1" maxlength="500" />
      <label class="label mt-3" for="change-note">What the supplier is told with it</label>
      <textarea
        id="change-note"
        v-model="note"
        class="field"
        rows="2"
        maxlength="1000"
        placeholder="What has changed stands there anyway"
      />
    </form>
    <template #margin>
      <template v-if="checked && checked.refusals.length > 0">
        <h2 class="head mb-1">{{ checked.needsDecision ? 'Why it is decided on first' : 'What stands in the way' }}</h2>
        <ul class="mb-4">
          <li v-for="r in checked.refusals" :key="r" class="border-b border-rule py-1.5">{{ r }}</li>
        </ul>
      </template>
      <template v-if="checked && checked.consequences.length > 0">
        <h2 class="head mb-1">What comes of it</h2>
        <ul class="mb-4">
          <li v-for="c in checked.consequences" :key="c" class="border-b border-rule py-1.5">{{ c }}</li>
        </ul>
      </template>
      <p class="text-ink2">
        The number stays. A PDF of its own is made, kept and sent to {{ order.supplier }} with what has changed, and
        whoever asked for it is told.
      </p>
    </template>
    <template #action>
      <p v-if="trouble || change.trouble.value" class="notice-red mb-2" role="alert">
        {{ trouble || change.trouble.value }}
      </p>
      <MainAction :missing="missing !== ''" :busy="busy" keys="Ctrl ⏎" @press="send">{{ words }}</MainAction>
      <button type="button" class="quiet-link small mt-2.5" @click="leave">Leave it as it was sent</button>
    </template>
  </SheetPage>
</template>
