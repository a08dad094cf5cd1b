<script setup lang="ts">
import { leftToCall } from '#core/order/call-off'
import type { OrderView } from '#shared/contract/order'
import { rowsOfParts } from '#shared/words/adjustment'
import { sayMuch } from '#shared/words/call-off'
import { useWording } from '~/composables/base/use-wording'

/** The lines of an issued order with whom each serves, and what it comes to. */
const props = defineProps<{ order: OrderView }>()
const wording = useWording()
/** Its lines stand for those of requests. */
const servesRequests = computed(() => props.order.direct === null && props.order.calledFrom === null)
/** How much of each line of a blanket order is left. */
const left = computed(
  () =>
    new Map(
      (props.order.blanket?.lines ?? []).map((l) => [
        l.id,
        sayMuch(leftToCall(l), l.unit, props.order.currency, wording.ways),
      ]),
    ),
)
/** Row by row; the last is what is paid, and what stands apart begins a part of its own. */
const sums = computed(() => [
  ...rowsOfParts(props.order, wording.ways).map((row) => ({ ...row, isApart: false, isLast: false })),
  { says: 'Without tax', amount: props.order.net, isApart: true, isLast: false },
  { says: 'Tax', amount: props.order.tax, isApart: false, isLast: false },
  { says: props.order.currency, amount: props.order.total, isApart: false, isLast: true },
])
</script>

<template>
  <table class="table">
    <caption class="sr-only">
      Lines
    </caption>
    <thead class="max-[700px]:sr-only">
      <tr>
        <th scope="col">What</th>
        <th scope="col" class="num">How many</th>
        <th scope="col" class="num">Price</th>
        <th scope="col" class="pl-3!">{{ order.blanket ? 'Left' : 'Needed' }}</th>
        <th v-if="servesRequests" scope="col">For</th>
        <th scope="col" class="num">Amount</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="l in order.lines" :key="l.id" class="folded">
        <td>
          <span class="block font-semibold">{{ l.description }}</span><span class="small block">{{
            [l.supplierPart, ...l.more].filter((t) => t).join(' · ')
          }}</span>
        </td>
        <td class="num max-[700px]:order-3 max-[700px]:text-left!">{{ wording.quantity(l.quantity, l.unit) }}</td>
        <td class="num max-[700px]:order-4">
          {{ wording.price(l.unitPrice, order.currency)
          }}<span v-if="l.priceBase !== '1'" class="small block">per {{ l.priceBase }}</span>
        </td>
        <td v-if="order.blanket" class="pl-3! whitespace-nowrap max-[700px]:order-5 max-[700px]:pl-0.5!">
          <span class="min-[701px]:hidden">left: </span>{{ left.get(l.id) }}
        </td>
        <td v-else class="pl-3! max-[700px]:order-5 max-[700px]:pl-0.5!">
          {{ wording.shortDay(l.needBy)
          }}<span v-if="l.promisedOn" class="small block" :class="l.promisedOn > l.needBy ? 'text-amber-ink' : ''"
            >promised {{ wording.shortDay(l.promisedOn) }}</span
          >
        </td>
        <td v-if="servesRequests" class="text-ink2 max-[700px]:order-6 max-[700px]:text-right">
          <span v-for="s in l.sources" :key="s.requisitionId" class="block"
            ><NuxtLink class="quiet-link" :to="`/trail/${s.requisitionId}`">{{ s.number }}</NuxtLink
            ><template v-if="l.sources.length > 1">, {{ s.quantity }}</template></span
          >
        </td>
        <td class="num">{{ wording.amount(l.net) }}</td>
      </tr>
    </tbody>
    <tfoot>
      <tr v-for="(row, i) in sums" :key="i" class="max-[700px]:flex max-[700px]:justify-end">
        <td
          :colspan="servesRequests ? 5 : 4"
          class="num border-0! pb-0!"
          :class="[row.isApart || i === 0 ? 'pt-2.5!' : 'pt-1!', row.isLast ? 'font-semibold' : '']"
        >
          {{ row.says }}
        </td>
        <td
          class="num border-0! pb-0! max-[700px]:w-24"
          :class="[row.isApart || i === 0 ? 'pt-2.5!' : 'pt-1!', row.isLast ? 'font-semibold' : '']"
        >
          {{ wording.amount(row.amount) }}
        </td>
      </tr>
    </tfoot>
  </table>
</template>
