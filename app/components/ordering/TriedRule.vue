<script setup lang="ts">
import { isZero, sum } from '#core/base/money'
import type { TriedRule } from '#shared/contract/ordering'
import { formatCount } from '#shared/words/format'
import LeftLines from '~/components/order/LeftLines.vue'
import { useWording } from '~/composables/base/use-wording'

/** What a rule would order as things stand; nothing was kept of it. */
const props = defineProps<{ tried: TriedRule }>()
const wording = useWording()
const sums = computed(() =>
  [...new Set(props.tried.orders.map((o) => o.net.currency))].map((currency) =>
    wording.money(
      sum(
        props.tried.orders.filter((o) => o.net.currency === currency).map((o) => o.net),
        currency,
      ),
    ),
  ),
)
const says = computed(() => {
  const { orders, untried, left } = props.tried
  const lines = left.reduce((n, l) => n + l.count, 0)
  if (orders.length === 0)
    return lines === 0 ? 'It covers nothing of what waits now.' : 'It would order nothing as things stand.'
  const what = `It would make ${formatCount(orders.length, 'order', 'orders')} now, of ${sums.value.join(' and ')}`
  const rest = untried === 0 ? '' : `; ${formatCount(untried, 'more was', 'more were')} not tried`
  return `${what}${rest}.`
})
</script>

<template>
  <section aria-label="What it would order now" class="mt-4 rounded border border-rule bg-margin px-4 py-3">
    <p class="font-semibold" role="status">{{ says }}</p>
    <div v-if="tried.orders.length > 0">
      <table class="table mt-2">
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col">Supplier and place</th>
            <th scope="col">Requests</th>
            <th scope="col" class="num">Lines</th>
            <th scope="col" class="num">Without tax</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(o, i) in tried.orders" :key="i" class="folded">
            <td>
              <span class="font-semibold">{{ o.supplier }}</span><span class="small block">to {{ o.shipTo }}</span>
            </td>
            <td>
              <template v-for="(r, j) in o.requests" :key="r.id"
                ><template v-if="j > 0">, </template
                ><NuxtLink class="quiet-link" :to="`/trail/${r.id}`">{{ r.number }}</NuxtLink></template
              ><span v-if="o.requests.length === 0" class="text-ink3">not for you to see</span>
            </td>
            <td class="num">{{ o.lines }}</td>
            <td class="num">
              {{ wording.money(o.net)
              }}<span v-if="!isZero(o.saved)" class="small block text-green">{{ wording.amount(o.saved) }} saved</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <template v-if="tried.left.length > 0">
      <h3 class="head mt-4">Left where it lies</h3>
      <LeftLines :left="tried.left" />
    </template>
  </section>
</template>
