<script setup lang="ts">
import { sum } from '#core/base/money'
import type { BlanketOrder } from '#shared/contract/call-off'
import { capital, formatCount } from '#shared/words/format'
import { useWording } from '~/composables/base/use-wording'

/** What was called off of a blanket order, the last first. */
const props = defineProps<{ blanket: BlanketOrder; currency: string }>()
const wording = useWording()
const called = computed(() =>
  sum(
    props.blanket.lines.map((l) => l.called.net),
    props.currency,
  ),
)
</script>

<template>
  <section class="mt-5" aria-labelledby="called-off">
    <h2 id="called-off" class="head mb-1">What is called off</h2>
    <p v-if="blanket.callOffs.length === 0" class="text-ink2">Nothing yet.</p>
    <template v-else>
      <p>
        {{ capital(formatCount(blanket.callOffs.length, 'call-off', 'call-offs')) }}, together
        <b class="font-semibold">{{ wording.money(called) }}</b>.
      </p>
      <table class="table mt-1">
        <caption class="sr-only">
          What was called off
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col">Number</th>
            <th scope="col">Issued</th>
            <th scope="col">Delivered to</th>
            <th scope="col">Needed</th>
            <th scope="col" class="num">Amount</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in blanket.callOffs" :key="c.id" class="folded">
            <td>
              <NuxtLink class="whitespace-nowrap font-semibold hover:underline" :to="`/orders/${c.id}`">{{
                c.number
              }}</NuxtLink>
            </td>
            <td class="text-ink2 max-[700px]:text-right!">
              <time :datetime="c.issuedAt" :title="wording.exact(c.issuedAt)">{{ wording.moment(c.issuedAt) }}</time>
            </td>
            <td class="text-ink2">{{ c.shipTo }}</td>
            <td class="max-[700px]:text-right!">
              {{ c.needBy === null ? 'cancelled' : wording.shortDay(c.needBy) }}
            </td>
            <td class="num">{{ wording.amount(c.net) }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>
