<script setup lang="ts">
import { listWords } from '#shared/words/format'
import { sayOwned } from '#shared/words/owner'
import PersonPicker from '~/components/base/PersonPicker.vue'
import { useOwned } from '~/composables/owner/use-owned'

/** When somebody leaves: what they own, looked at, and given to others in one action. */
const { whose, requestsTo, ordersTo, owned, trouble, said, busy, handOver } = useOwned()
const forRequests = computed(() => (owned.value?.requests.length ?? 0) + (owned.value?.drafts ?? 0) > 0)
const forOrders = computed(() => (owned.value?.orders.length ?? 0) + (owned.value?.trays ?? 0) > 0)
const counts = computed(() => ({
  requests: owned.value?.requests.length ?? 0,
  drafts: owned.value?.drafts ?? 0,
  orders: owned.value?.orders.length ?? 0,
  trays: owned.value?.trays ?? 0,
}))
const rows = computed(() => [
  ...(owned.value?.requests ?? []).map((r) => ({ ...r, path: `/trail/${r.id}` })),
  ...(owned.value?.orders ?? []).map((o) => ({ ...o, path: `/orders/${o.id}` })),
])
const words = computed(() => {
  const { requests, drafts, orders, trays } = counts.value
  const parts = [
    ...(requestsTo.value === null || !forRequests.value
      ? []
      : [`${sayOwned({ requests, drafts, orders: 0, trays: 0 })} to ${requestsTo.value.name}`]),
    ...(ordersTo.value === null || !forOrders.value
      ? []
      : [`${sayOwned({ requests: 0, drafts: 0, orders, trays })} to ${ordersTo.value.name}`]),
  ]
  return parts.length === 0 ? '' : `Hand ${listWords(parts)}`
})
</script>

<template>
  <section class="mt-10 border-t border-rule pt-5" aria-labelledby="hand-over-owned">
    <h2 id="hand-over-owned" class="head">When somebody leaves</h2>
    <p class="sentence mt-2">
      What
      <PersonPicker v-model="whose" needed gone label="Whose things go over" placeholder="somebody" /> owns<template
        v-if="owned && !forRequests && !forOrders"
      >
        is nothing that is not over.</template
      ><template v-else-if="owned"
        ><template v-if="forRequests">
          goes to
          <PersonPicker v-model="requestsTo" needed label="Who gets the requests" placeholder="whom" /></template
        ><template v-if="forOrders"
          >{{ forRequests ? ', its orders' : ' goes' }} to
          <PersonPicker
            v-model="ordersTo"
            needed
            label="Which buyer gets the orders"
            placeholder="which buyer" /></template
        >.</template
      ><template v-else> goes to others.</template>
    </p>
    <template v-if="owned && (forRequests || forOrders)">
      <p class="mt-2 text-ink2">
        {{ owned.name }} owns {{ sayOwned(counts) }}. Every right and everything that waits goes along; steps not yet
        decided are routed again.
      </p>
      <table v-if="rows.length > 0" class="table mt-2">
        <caption class="sr-only">
          What is handed over
        </caption>
        <thead>
          <tr>
            <th scope="col">Number</th>
            <th scope="col">What it is for</th>
            <th scope="col">State</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in rows" :key="r.id">
            <td>
              <NuxtLink class="quiet-link" :to="r.path">{{ r.number }}</NuxtLink>
            </td>
            <td>{{ r.title }}</td>
            <td class="text-ink2">{{ r.state }}</td>
          </tr>
        </tbody>
      </table>
      <button v-if="words" type="button" class="action mt-3" :disabled="busy" @click="handOver">{{ words }}</button>
    </template>
    <p v-if="said" class="notice-green mt-3" role="status">{{ said }}</p>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
  </section>
</template>
