<script setup lang="ts">
import type { Bought } from '#shared/contract/supplier'
import { formatCount } from '#shared/words/format'
import { useWording } from '~/composables/base/use-wording'

/** What was ordered of a supplier: by year, what most with the price of last time, and the last orders. */
defineProps<{ bought: Bought }>()
const wording = useWording()
</script>

<template>
  <section aria-labelledby="bought-head">
    <h2 id="bought-head" class="head mb-1 mt-6">What was bought</h2>
    <p v-if="bought.years.length === 0" class="text-ink2">Nothing was ordered of it yet.</p>
    <template v-else>
      <p>
        <template v-for="(y, i) in bought.years.slice(0, 4)" :key="`${y.year} ${y.currency}`"
          >{{ i === 0 ? '' : '; ' }}<b>{{ y.year }}</b> {{ y.currency }} {{ wording.kept(y.net, y.currency) }} on
          {{ formatCount(y.orders, 'order', 'orders') }}</template
        >, net.
      </p>
      <div class="mt-2 overflow-x-auto" tabindex="0" role="region" aria-label="What was bought most">
        <table class="table">
          <caption class="sr-only">
            What was bought most
          </caption>
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col" class="num">Ordered</th>
              <th scope="col" class="num">Times</th>
              <th scope="col" class="num">Last price</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="m in bought.most" :key="`${m.itemId} ${m.name} ${m.unit} ${m.currency}`">
              <td>
                <NuxtLink v-if="m.itemId" class="quiet-link" :to="`/catalogue/${m.itemId}`">{{ m.name }}</NuxtLink>
                <template v-else>{{ m.name }}</template>
              </td>
              <td class="num">{{ wording.quantity(m.quantity, m.unit) }}</td>
              <td class="num">{{ m.times }}</td>
              <td class="num">
                {{ m.currency }} {{ wording.price(m.lastPrice, m.currency)
                }}{{ Number(m.priceBase) === 1 ? '' : ` for ${wording.decimal(m.priceBase)}` }}
                <span class="small block">{{ wording.shortDay(m.lastDay) }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="small mt-2">
        Last orders:
        <template v-for="(o, i) in bought.orders" :key="o.id"
          >{{ i === 0 ? '' : ', ' }}<NuxtLink class="quiet-link" :to="`/orders/${o.id}`">{{ o.number }}</NuxtLink>
        </template>
      </p>
    </template>
  </section>
</template>
