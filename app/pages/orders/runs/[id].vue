<script setup lang="ts">
import { capital, formatCount } from '#shared/words/format'
import { RUN_CAUSES } from '#shared/words/ordering'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import LeftLines from '~/components/order/LeftLines.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'

const route = useRoute()
const api = useApi()
const wording = useWording()
const id = computed(() => String(route.params.id))
const {
  data: run,
  error,
  refresh,
} = await useAsyncData(
  () => `ordering-run-${id.value}`,
  () => api.get('/api/ordering-runs/{id}', { params: { id: id.value } }),
)
useHead({ title: () => `${run.value?.rule ?? 'A run'} · Rekko` })
useLive((changes) => {
  if (changes.some((c) => ['settings', 'order', 'again'].includes(c.kind))) void refresh()
})
const sentence = computed(() => {
  const r = run.value
  if (!r) return 'A run of ordering by itself'
  const made = r.made === 0 ? 'made no order' : `made ${formatCount(r.made, 'order', 'orders')}`
  const left = r.left === 0 ? 'left nothing' : `left ${formatCount(r.left, 'line', 'lines')}`
  return `“${r.rule}” ${made} and ${left}.`
})
/** Orders that it made and that whoever reads may not see. */
const unseen = computed(() => (run.value?.made ?? 0) - (run.value?.orders.length ?? 0))
</script>

<template>
  <div>
    <PageNote>ordered by itself</PageNote>
    <SheetPage>
      <p v-if="error" class="notice-red">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <template v-if="run">
        <h1 class="sentence">{{ sentence }}</h1>
        <p class="mt-1 mb-3 max-w-[86ch] text-ink2">{{ run.says }}</p>
        <p v-if="run.trouble" class="notice-red mb-3">{{ run.trouble }}</p>
        <p v-else-if="run.endedAt === null" class="notice-amber mb-3">It is still at work, or was interrupted.</p>
        <table v-if="run.orders.length > 0" class="table">
          <caption class="sr-only">
            Orders that it made
          </caption>
          <thead class="max-[700px]:sr-only">
            <tr>
              <th scope="col">Order</th>
              <th scope="col">Supplier and place</th>
              <th scope="col">For</th>
              <th scope="col" class="num">Without tax</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="o in run.orders" :key="o.id" class="folded">
              <td class="whitespace-nowrap">
                <NuxtLink class="quiet-link font-semibold" :to="`/orders/${o.id}`">{{ o.number }}</NuxtLink><span
                  class="small block"
                  >{{ o.state }}</span
                >
              </td>
              <td>
                {{ o.supplier }}<span class="small block">to {{ o.shipTo }}</span>
              </td>
              <td>
                <template v-for="(r, i) in o.requests" :key="r.id"
                  ><template v-if="i > 0">, </template
                  ><NuxtLink class="quiet-link" :to="`/trail/${r.id}`">{{ r.number }}</NuxtLink></template
                >
              </td>
              <td class="num">{{ wording.money({ amount: o.net, currency: o.currency }) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="unseen > 0" class="small mt-2">
          {{ capital(formatCount(unseen, 'order', 'orders')) }} of it {{ unseen === 1 ? 'is' : 'are' }} not for you to
          see.
        </p>
        <section v-if="run.leftLines.length > 0" class="mt-6" aria-labelledby="left">
          <h2 id="left" class="head">Left where it lay</h2>
          <LeftLines :left="run.leftLines" />
        </section>
        <p v-if="run.made === 0 && run.leftLines.length === 0" class="text-ink2">
          It covered nothing of what waited then.
        </p>
      </template>
      <template #margin>
        <template v-if="run">
          <h2 class="head mb-1.5">The run</h2>
          <p class="text-ink2">
            {{ capital(run.by ? `${run.by} asked for it` : RUN_CAUSES[run.cause]) }}, {{ wording.moment(run.beganAt) }},
            in the name of {{ run.buyer }}.
          </p>
          <p v-if="run.times > 1" class="mt-2 text-ink2">
            It found the same {{ run.times }} times, last {{ wording.moment(run.lastAt) }}.
          </p>
          <p class="mt-3 space-y-1">
            <NuxtLink class="quiet-link block" :to="`/orders/runs?rule=${run.ruleId}`">all runs of this rule</NuxtLink>
            <NuxtLink class="quiet-link block" to="/set-up/ordering">the rules</NuxtLink>
          </p>
        </template>
      </template>
    </SheetPage>
  </div>
</template>
