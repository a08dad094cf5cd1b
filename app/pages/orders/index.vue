<script setup lang="ts">
import type { OrderHead } from '#shared/contract/order'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'

useHead({ title: 'Orders · Rekko' })
const api = useApi()
const wording = useWording()
const more = ref<OrderHead[]>([])
const next = ref<string | null>(null)
const trouble = ref('')
const { data, error, refresh } = await useAsyncData('orders', () => api.get('/api/orders'))
next.value = data.value?.next ?? null
useLive((changes) => {
  if (changes.some((c) => c.kind === 'order') && more.value.length === 0) void refresh()
})
const orders = computed(() => [...(data.value?.orders ?? []), ...more.value])
const underway = computed(() => orders.value.filter((o) => !o.mailed).length)
async function readOn(): Promise<void> {
  try {
    const page = await api.get('/api/orders', {
      query: {
        after: next.value ?? undefined,
      },
    })
    more.value.push(...page.orders)
    next.value = page.next
  } catch (e) {
    trouble.value = sayError(e)
  }
}
usePlaceKeys([{ keys: 'Enter', does: 'open the order' }], () => undefined)
</script>

<template>
  <div>
    <PageNote>newest first</PageNote>
    <SheetPage>
      <h1 class="sentence">
        {{
          orders.length === 0
            ? 'No order was issued yet.'
            : underway === 0
              ? 'Every order here has reached its supplier’s mailbox.'
              : `${underway} of these orders ${underway === 1 ? 'is' : 'are'} still on the way to the ` +
                `supplier’s mailbox.`
        }}
      </h1>
      <p v-if="error" class="notice-red mt-3">{{ sayError(error) }}</p>
      <p v-else-if="orders.length === 0" class="mt-3 text-ink2">
        Issued orders stand here with their PDF and what became of it.
        <NuxtLink class="quiet-link" to="/desk">Go to the Desk</NuxtLink>
      </p>
      <table v-else class="table mt-3">
        <caption class="sr-only">
          Issued orders
        </caption>
        <thead>
          <tr>
            <th scope="col">Number</th>
            <th scope="col">Supplier</th>
            <th scope="col">Buyer</th>
            <th scope="col">Issued</th>
            <th scope="col">E-mail</th>
            <th scope="col" class="num">Without tax</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="o in orders" :key="o.id">
            <td>
              <NuxtLink class="font-semibold hover:underline" :to="`/orders/${o.id}`">{{ o.number }}</NuxtLink>
            </td>
            <td>{{ o.supplier }}</td>
            <td class="text-ink2">{{ o.buyer }}</td>
            <td class="text-ink2">
              <time :datetime="o.issuedAt" :title="wording.exact(o.issuedAt)">{{ wording.moment(o.issuedAt) }}</time>
            </td>
            <td class="text-ink2">
              {{ o.mailed ? 'sent' : 'on its way' }}{{ o.state === 'cancelled' ? ', cancelled' : '' }}
            </td>
            <td class="num">
              <span class="text-ink3">{{ o.currency }}</span> {{ wording.kept(o.net, o.currency) }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="trouble" class="notice-red mt-3">{{ trouble }}</p>
      <p v-if="next" class="mt-3">
        <button type="button" class="quiet-link small" @click="readOn">Show the next 50</button>
      </p>
    </SheetPage>
  </div>
</template>
