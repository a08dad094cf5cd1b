<script setup lang="ts">
import { dec } from '#core/base/decimal'
import { isByAmount } from '#core/base/unit'
import { leftToCall } from '#core/order/call-off'
import type { BlanketOrder } from '#shared/contract/call-off'
import type { OrderView } from '#shared/contract/order'
import { sayCallReason, sayMuch } from '#shared/words/call-off'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import MainAction from '~/components/base/MainAction.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { isMainKey } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useCallOff } from '~/composables/order/use-call-off'

/** A blanket order while its buyer calls a part of it off: what is left of each line, and how much comes now. */
const props = defineProps<{ order: OrderView; blanket: BlanketOrder }>()
const emit = defineEmits<{ called: [words: string]; leave: [] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const call = useCallOff(props.order, props.blanket)
const { typedOf, write, sayWrong, isWrong, wishes, net, netOf, reasons, takeAll, needBy, shipToId, note } = call
const says = (line: BlanketOrder['lines'][number], much: string) =>
  sayMuch(much, line.unit, props.order.currency, wording.ways)
const sayNet = (lineId: string): string => {
  const of = netOf(lineId)
  return of === null ? '' : wording.amount(of)
}
const firstLine = computed(() => props.blanket.lines.find((l) => !dec(leftToCall(l)).isZero()))
/** What has to be done before it can be sent, and where; null where nothing is missing. */
const missing = computed((): { readonly says: string; readonly at: string } | null => {
  const first = `much-${firstLine.value?.id ?? ''}`
  if (isWrong.value) return { says: 'Mend what cannot be read', at: first }
  if (wishes.value.length === 0) return { says: 'Say how much is called off', at: first }
  if (needBy.value === null) return { says: 'Say by when it is needed', at: 'call-day' }
  return reasons.value.length > 0 ? { says: 'Something stands in its way', at: first } : null
})
/** One key for one call-off: pressed again after a failing, it is made once. */
let key = crypto.randomUUID()
watch([wishes, needBy, shipToId, note], () => {
  key = crypto.randomUUID()
})
async function send(): Promise<void> {
  if (missing.value !== null) {
    document.getElementById(missing.value.at)?.focus()
    return
  }
  await act(async () => {
    const made = await api.post('/api/orders/{id}/call-offs', {
      params: { id: props.order.id },
      body: { lines: wishes.value, shipToId: shipToId.value, note: note.value },
      version: props.order.version,
      key,
    })
    call.forget()
    emit('called', `${made.number}, ${wording.money(made.net)}, is on its way to ${props.order.supplier}.`)
  })
}
function leave(): void {
  call.forget()
  emit('leave')
}
function onKey(event: KeyboardEvent): void {
  if (!isMainKey(event) || event.repeat) return
  event.preventDefault()
  void send()
}
onMounted(() => document.getElementById(`much-${firstLine.value?.id ?? ''}`)?.focus())
</script>

<template>
  <SheetPage>
    <form aria-label="Call a part of the order off" @submit.prevent @keydown="onKey">
      <h1 class="sentence">
        What is called off of <b>{{ order.number }}</b> with <b>{{ order.supplier }}</b>.
      </h1>
      <p class="mt-2 leading-8">
        It is delivered to
        <BlankChoice
          v-model="shipToId"
          :choices="order.places"
          label="Where it is to be delivered"
          placeholder="where"
          light
        />
        by
        <BlankDay
          id="call-day"
          v-model="needBy"
          label="By when it is needed"
          placeholder="a day"
          :today="wording.today.value"
        />. Until {{ wording.day(blanket.expiresOn) }} it can be called off.
      </p>
      <table class="table mt-2">
        <caption class="sr-only">
          What is left of each line, and how much of it is called off now
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col">What</th>
            <th scope="col" class="num">Left</th>
            <th scope="col" class="num">Called off now</th>
            <th scope="col" class="num">Amount</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in blanket.lines" :key="l.id" class="folded">
            <td class="max-[700px]:col-span-2">
              <span class="block font-semibold">{{ l.description }}</span>
              <span v-if="!isByAmount(l.unit)" class="small block"
                >at {{ wording.price(l.unitPrice, order.currency)
                }}{{ l.priceBase === '1' ? '' : ` per ${l.priceBase}` }}</span
              >
              <span v-if="sayWrong(l.id)" class="block text-red" role="status">{{ sayWrong(l.id) }}</span>
            </td>
            <td class="num whitespace-nowrap align-middle! max-[700px]:text-left!">
              <template v-if="dec(leftToCall(l)).isZero()">nothing</template>
              <button
                v-else
                type="button"
                class="quiet-link min-h-6"
                :aria-label="`Call all that is left of ${l.description} off`"
                @click="takeAll(l)"
              >
                {{ says(l, leftToCall(l)) }}
              </button>
            </td>
            <td class="num align-middle!">
              <input
                :id="`much-${l.id}`"
                :value="typedOf(l.id)"
                class="field num inline-block! h-8! w-24! px-2! py-0!"
                inputmode="decimal"
                autocomplete="off"
                :disabled="dec(leftToCall(l)).isZero()"
                :aria-label="
                  isByAmount(l.unit)
                    ? `Amount of ${l.description} in ${order.currency}`
                    : `How many of ${l.description}`
                "
                @input="write(l.id, ($event.target as HTMLInputElement).value)"
              />
            </td>
            <td class="num align-middle! max-[700px]:col-span-2">{{ sayNet(l.id) }}</td>
          </tr>
        </tbody>
      </table>
      <p class="mt-2 flex justify-end gap-6">
        <span
          ><b class="font-semibold">{{ order.currency }}, without tax</b></span
        ><span class="num w-24 font-semibold">{{ wording.amount(net) }}</span>
      </p>
      <label class="label mt-3" for="call-note">What {{ order.supplier }} is told with it</label>
      <textarea id="call-note" v-model="note" class="field" rows="2" maxlength="1000" />
    </form>
    <template #margin>
      <template v-if="reasons.length > 0">
        <h2 class="head mb-1">What stands in the way</h2>
        <ul class="mb-4">
          <li v-for="(r, i) in reasons" :key="i" class="border-b border-rule py-1.5">
            {{ sayCallReason(r, wording.ways) }}
          </li>
        </ul>
      </template>
      <p class="text-ink2">
        It becomes an order with a number and a PDF of its own, and goes to {{ order.supplier }} at once. Nobody decides
        on it again, and no budget moves: {{ order.number }} was decided on, and holds the money for all of it.
      </p>
    </template>
    <template #action>
      <p v-if="trouble" class="notice-red mb-2" role="alert">{{ trouble }}</p>
      <MainAction :missing="missing !== null" :busy="busy" keys="Ctrl ⏎" @press="send">{{
        missing?.says ?? `Call ${wording.money(net)} off`
      }}</MainAction>
      <button type="button" class="quiet-link small mt-2.5" @click="leave">Leave it</button>
    </template>
  </SheetPage>
</template>
