<script setup lang="ts">
import { dec } from '#core/base/decimal'
import { readTypedNumber } from '#core/base/typed-number'
import { unitName } from '#core/base/unit'
import type { LineOffer, LineOffers } from '#shared/contract/offers'
import type { DeskLine, TrayView } from '#shared/contract/order'
import { sayHint } from '#shared/words/step-hint'
import DialogSheet from '~/components/base/DialogSheet.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { trayFor } from '~/composables/desk/tray-for'

/** Everybody who has what a line asks for, side by side; taking one lays the line, or a part of it, on its tray. */
const props = defineProps<{ line: DeskLine; trays: readonly TrayView[]; atHand: string | null }>()
const emit = defineEmits<{ laid: [orderId: string]; close: [] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const found = shallowRef<LineOffers | null>(null)
/** As typed; how many that is, null where it says none. */
const typed = ref(wording.decimal(props.line.open))
const quantity = computed(() => {
  const read = readTypedNumber(typed.value, wording.decimalMark)
  return read !== null && dec(read).isPositive() && dec(read).lte(dec(props.line.open)) ? read : null
})
/** Answers that come late do not write over later ones. */
let asked = 0
async function look(): Promise<void> {
  const at = ++asked
  trouble.value = ''
  const query = quantity.value === null ? {} : { quantity: quantity.value }
  try {
    const offers = await api.get('/api/desk/lines/{id}/offers', { params: { id: props.line.id }, query })
    if (at === asked) found.value = offers
  } catch (e) {
    if (at === asked) trouble.value = sayError(e)
  }
}
onMounted(look)
watch(quantity, (now) => {
  if (now !== null) void look()
})
const take = (o: LineOffer) =>
  act(async () => {
    if (quantity.value === null) return
    const fits = { ...props.line, supplierId: o.supplierId, agreement: o.agreement }
    const done = await api.post('/api/trays', {
      body: {
        orderId: trayFor([fits], props.trays, props.atHand)?.id ?? null,
        supplierId: null,
        parts: [{ lineId: props.line.id, quantity: quantity.value, offerItemId: o.isAsked ? null : o.itemId }],
      },
      key: crypto.randomUUID(),
    })
    emit('laid', done.orderId)
  })
/** The cheapest that can be taken; nobody, where several cost the same. */
const cheapest = computed(() => {
  const [first, second] = (found.value?.offers ?? []).filter((o) => o.why.length === 0 && o.net !== null)
  return first?.net?.amount === second?.net?.amount ? null : (first?.itemId ?? null)
})
/** All that is to be minded of an offer, each a sentence. */
const minded = (o: LineOffer) => [
  ...(o.next === null || o.net === null || quantity.value === null
    ? []
    : [sayHint({ net: o.net, next: o.next }, quantity.value, wording.ways)].filter((t) => t !== '')),
  ...(o.freight === null ? [] : [`Freight of ${wording.amount(o.freight)}, ordered alone.`]),
  ...(o.minimum === null ? [] : [`Takes orders from ${wording.amount(o.minimum)} of goods.`]),
  ...(o.packs === null
    ? []
    : [
        `Comes by ${wording.decimal(o.packs.size)}: whole packs would be ` +
          `${wording.quantity(o.packs.holds, o.unit)}.`,
      ]),
  ...o.warnings,
]
</script>

<template>
  <DialogSheet :title="`Who has ${line.description}`" hide-title :width="860" @close="emit('close')">
    <p class="sentence leading-9!">
      Order{{ ' ' }}
      <input
        v-model="typed"
        class="blank blank-input mx-1 min-w-[2.5em] text-center"
        :style="{ width: `${Math.max(typed.length, 2) + 1.5}ch` }"
        inputmode="decimal"
        autocomplete="off"
        :aria-label="`How many, of ${wording.quantity(line.open, line.unit)}`"
        :data-needed="quantity === null"
      />{{ ' ' }} {{ unitName(line.unit) }} of {{ line.description }} from
    </p>
    <p v-if="quantity === null" class="small text-amber-ink!" role="status">
      {{ wording.quantity(line.open, line.unit) }} of it wait: say how many of them.
    </p>
    <p v-if="found === null && trouble === ''" class="mt-3 text-ink2">Looking …</p>
    <div v-if="found" class="mt-3 overflow-x-auto" tabindex="0" role="region" aria-label="Who has it, side by side">
      <table class="table">
        <caption class="sr-only">
          What it costs of each supplier, and when it comes
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col">Supplier</th>
            <th scope="col" class="num">Each</th>
            <th scope="col" class="num">Amount</th>
            <th scope="col">Here by</th>
            <th scope="col">Last paid</th>
            <th scope="col"><span class="sr-only">Take it</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="o in found.offers" :key="o.itemId" class="folded" :class="o.why.length > 0 ? 'text-ink2' : ''">
            <td class="max-w-[300px] align-top max-[700px]:max-w-none">
              <b class="font-semibold">{{ o.supplier }}</b><span v-if="o.isAsked"> · as it was asked for</span
              ><span v-if="o.agreement"> · draws on {{ o.agreement }}</span
              ><span class="small block"
                ><template v-if="o.name !== line.description">{{ o.name }}, </template>{{ o.supplierPart }}</span
              ><span v-for="m in minded(o)" :key="m" class="small block">{{ m }}</span
              ><span v-for="w in o.why" :key="w" class="small block text-amber-ink!">{{ w }}</span>
            </td>
            <td class="num align-top max-[700px]:order-3 max-[700px]:text-left!">
              {{ o.unitPrice === null ? '–' : wording.price(o.unitPrice, o.currency)
              }}<span v-if="o.priceBase !== '1'" class="small block">per {{ wording.decimal(o.priceBase) }}</span>
            </td>
            <td class="num align-top">
              {{ o.net === null ? '–' : o.net.currency === line.currency ? wording.amount(o.net) : wording.money(o.net)
              }}<span v-if="o.itemId === cheapest" class="small block text-green!">costs the least</span>
            </td>
            <td class="align-top whitespace-nowrap max-[700px]:order-4" :class="o.isLate ? 'text-red' : ''">
              <span class="min-[701px]:hidden">here by </span>{{ wording.shortDay(o.arrives)
              }}<span v-if="o.isLate" class="small block text-red!"
                >needed {{ wording.shortDay(found.line.needBy) }}</span
              >
            </td>
            <td class="align-top whitespace-nowrap max-[700px]:order-5">
              <template v-if="o.paid"
                ><span class="min-[701px]:hidden">last paid </span>{{ wording.price(o.paid.unitPrice, o.paid.currency)
                }}<span class="small block"
                  ><template v-if="o.paid.priceBase !== o.priceBase">per {{ o.paid.priceBase }}, </template
                  >{{ wording.shortDay(o.paid.day) }}</span
                ></template
              ><span v-else class="text-ink2"><span class="min-[701px]:hidden">paid </span>never</span>
            </td>
            <td class="align-top max-[700px]:order-6">
              <button
                v-if="o.why.length === 0"
                type="button"
                class="action whitespace-nowrap"
                :aria-label="`Lay on their tray: ${o.supplier}`"
                :aria-busy="busy"
                :disabled="quantity === null"
                @click="take(o)"
              >
                Lay on their tray
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <p class="small mt-3">
      Amounts are of the goods, at today’s prices. Nothing is sent before the tray is issued; what is dearer than was
      approved is decided on first.
    </p>
    <p class="mt-3"><button type="button" class="action" @click="emit('close')">Leave it</button></p>
  </DialogSheet>
</template>
