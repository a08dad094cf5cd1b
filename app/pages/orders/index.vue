<script setup lang="ts">
import { isOverdue } from '#core/order/overdue'
import type { OrderHead } from '#shared/contract/order'
import { capital, formatCount } from '#shared/words/format'
import BetweenDays from '~/components/base/BetweenDays.vue'
import BlankChoice from '~/components/base/BlankChoice.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { usePlaceKeys } from '~/composables/base/use-keys'
import { useNarrowed } from '~/composables/base/use-narrowed'
import { useWording } from '~/composables/base/use-wording'
import { useWordsFilter } from '~/composables/base/use-words-filter'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Orders · Rekko' })
const api = useApi()
const route = useRoute()
const wording = useWording()
const session = useSessionStore()
const { words, typed } = useWordsFilter()
const mayOwn = session.me?.rights.includes('order') === true
const STATES = [
  { id: '', name: 'in every state' },
  { id: 'issued', name: 'that stand' },
  { id: 'overdue', name: 'that are overdue' },
  { id: 'expired', name: 'whose last day is past' },
  { id: 'due soon', name: 'that are due within a week' },
  { id: 'unanswered', name: 'that no supplier answered' },
  { id: 'answered', name: 'whose answer waits for a yes' },
  { id: 'acknowledged', name: 'that are acknowledged' },
  { id: 'changing', name: 'of which a change is decided on' },
  { id: 'unsent', name: 'that are on their way to the supplier’s mailbox' },
  { id: 'cancelled', name: 'that are cancelled' },
]
const SORTS = [
  { id: '', name: 'of every sort' },
  { id: 'blanket', name: 'that are called off in parts' },
  { id: 'call-off', name: 'that were called off' },
  { id: 'by amount', name: 'by amount' },
  { id: 'direct', name: 'without a request' },
  { id: 'placed elsewhere', name: 'placed elsewhere before' },
]
const { one, narrow } = useNarrowed()
const whose = computed(() => (mayOwn && route.query.whose === 'own' ? 'own' : 'all'))
/** What the address says of which orders are listed. */
const asked = computed(() => {
  const all = {
    whose: whose.value,
    sort: SORTS.find((s) => s.id === route.query.sort)?.id ?? '',
    state: STATES.find((s) => s.id === route.query.state)?.id ?? '',
    words: words.value,
    from: one('from'),
    until: one('until'),
  }
  return Object.fromEntries(Object.entries(all).filter(([, v]) => v !== '')) as { whose: 'all' }
})
const { data, error, refresh } = await useAsyncData('orders', () => api.get('/api/orders', { query: asked.value }), {
  watch: [asked],
})
const more = ref<OrderHead[]>([])
const next = ref<string | null>(null)
watch(
  data,
  () => {
    more.value = []
    next.value = data.value?.next ?? null
  },
  { immediate: true },
)
useLive((changes) => {
  if (changes.some((c) => c.kind === 'order' || c.kind === 'again') && more.value.length === 0) void refresh()
})
const orders = computed(() => [...(data.value?.orders ?? []), ...more.value])
const isNarrowed = computed(() => Object.keys(asked.value).some((k) => k !== 'whose'))
const { busy, trouble, act } = useAct()
const readOn = () =>
  act(async () => {
    const page = await api.get('/api/orders', { query: { ...asked.value, after: next.value ?? undefined } })
    more.value.push(...page.orders)
    next.value = page.next
  })
/** It goes to its supplier and did not arrive yet. */
const isUnderWay = (o: OrderHead) => o.isSent && !o.mailed
const sentence = computed(() => {
  const n = orders.value.length
  if (n === 0) return isNarrowed.value ? 'No order fits this.' : 'No order was issued yet.'
  const underway = orders.value.filter(isUnderWay).length
  const many = `${formatCount(n, 'order', 'orders')}${next.value === null ? '' : ' and more'}`
  if (underway === 0 && !orders.value.every((o) => o.isSent))
    return `${capital(many)}, ${n === 1 ? 'not' : 'none of them'} on the way to a mailbox.`
  if (underway === 0 && n === 1) return `${capital(many)}, in its supplier’s mailbox.`
  return underway === 0
    ? `${capital(many)}, all of them in their suppliers’ mailboxes.`
    : `${capital(many)}, ${underway === 1 ? 'one' : underway} still on the way to the supplier’s mailbox.`
})
/** What became of it since it was issued; "" where nothing did. */
const since = (o: OrderHead) =>
  [
    o.state === 'cancelled' ? 'cancelled' : o.revision === 0 ? '' : `revision ${o.revision}`,
    o.isChanging ? 'a change is decided on' : '',
    o.isAnswered ? 'answered otherwise' : o.state === 'acknowledged' ? 'acknowledged' : '',
    o.remindedAt === null || o.state !== 'issued' ? '' : 'asked once more',
    isUnderWay(o) ? 'on its way' : '',
    o.isBlanket ? (o.isUsedUp ? 'blanket order, all called off' : 'blanket order') : '',
    o.calledFrom === null ? '' : `called off of ${o.calledFrom}`,
    o.expiresOn === null || o.isUsedUp ? '' : `until ${wording.shortDay(o.expiresOn)}`,
    o.placedAs === null ? '' : `placed as ${o.placedAs}`,
  ]
    .filter((x) => x !== '')
    .join(', ')
/** Those on the page that are one’s own and that nobody answered: all are asked for with one press. */
const silent = computed(() =>
  one('state') === 'unanswered' && whose.value === 'own' ? orders.value.slice(0, 200).map((o) => o.id) : [],
)
const told = ref('')
const remind = () =>
  act(async () => {
    const { reminded } = await api.post('/api/order-reminders', {
      body: { orderIds: silent.value },
      key: crypto.randomUUID(),
    })
    told.value =
      reminded === 0
        ? 'All of them were asked today already, or have no address.'
        : `${capital(formatCount(reminded, 'supplier is', 'suppliers are'))} asked once more for an answer.`
    await refresh()
  })
const file = (as: 'csv' | 'xlsx') => `/api/orders/file?${new URLSearchParams({ ...asked.value, as }).toString()}`
usePlaceKeys([{ keys: 'Enter', does: 'open the order' }], () => undefined)
</script>

<template>
  <div>
    <PageNote>newest first</PageNote>
    <SheetPage>
      <div class="mb-2 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 class="sentence">{{ sentence }}</h1>
        <input
          v-model="typed"
          class="field w-[270px]! min-h-[34px]! py-1.5!"
          type="search"
          aria-label="Find among the orders"
          placeholder="Supplier, thing, person, P-26-*12"
        />
      </div>
      <p class="mb-3 leading-7 text-ink2">
        <template v-if="mayOwn"
          ><BlankChoice
            :model-value="whose === 'own' ? 'own' : ''"
            :choices="[
              { id: '', name: 'Everybody’s orders' },
              { id: 'own', name: 'My orders' },
            ]"
            label="Whose orders"
            placeholder=""
            light
            @update:model-value="narrow({ whose: $event })" /></template
        ><template v-else>Orders</template>{{ ' ' }}
        <BlankChoice
          :model-value="one('sort')"
          :choices="SORTS"
          label="Of which sort"
          placeholder=""
          light
          @update:model-value="narrow({ sort: $event })"
        />{{ ' ' }}
        <BlankChoice
          :model-value="one('state')"
          :choices="STATES"
          label="In which state"
          placeholder=""
          light
          @update:model-value="narrow({ state: $event })"
        />, issued <BetweenDays :from="one('from')" :until="one('until')" what="Issued" @narrow="narrow" />.
        <NuxtLink v-if="isNarrowed" class="quiet-link" to="/orders">all of them</NuxtLink>
      </p>
      <p v-if="error" class="notice-red">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <p v-else-if="orders.length === 0 && !isNarrowed" class="text-ink2">
        Issued orders stand here with their PDF and what became of them.
        <NuxtLink v-if="mayOwn" class="quiet-link" to="/desk">Go to the Desk</NuxtLink>
      </p>
      <table v-if="orders.length > 0" class="table">
        <caption class="sr-only">
          Issued orders
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col">Number</th>
            <th scope="col">Supplier</th>
            <th scope="col">Buyer</th>
            <th scope="col">Issued</th>
            <th scope="col">Needed</th>
            <th scope="col">Since then</th>
            <th scope="col" class="num">Without tax</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="o in orders" :key="o.id" class="folded">
            <td class="max-[700px]:order-1">
              <NuxtLink class="whitespace-nowrap font-semibold hover:underline" :to="`/orders/${o.id}`">{{
                o.number
              }}</NuxtLink>
            </td>
            <td
              class="max-[700px]:order-3 max-[700px]:col-span-2"
              :class="o.state === 'cancelled' ? 'text-ink3 line-through' : ''"
            >
              {{ o.supplier }}
            </td>
            <td class="text-ink2 max-[700px]:hidden!">{{ o.buyer }}</td>
            <td class="text-ink2 max-[700px]:order-4">
              <time :datetime="o.issuedAt" :title="wording.exact(o.issuedAt)">{{ wording.moment(o.issuedAt) }}</time>
            </td>
            <td class="whitespace-nowrap max-[700px]:order-5 max-[700px]:text-right!">
              <span :class="isOverdue(o, wording.today.value) ? 'text-red' : ''"
                >{{ o.needBy === null ? '' : o.isBlanket ? 'on call' : wording.shortDay(o.needBy)
                }}<template v-if="isOverdue(o, wording.today.value)">, late</template></span
              >
            </td>
            <td
              class="max-[700px]:order-6 max-[700px]:col-span-2"
              :class="o.isAnswered ? 'text-amber-ink' : 'text-ink2'"
            >
              {{ since(o) }}
            </td>
            <td class="num max-[700px]:order-2">
              <span class="text-ink3">{{ o.currency }}</span> {{ wording.kept(o.net, o.currency) }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <p v-if="told" class="notice-green mt-3" role="status">{{ told }}</p>
      <p v-if="silent.length > 0" class="mt-3">
        <button type="button" class="action" :aria-busy="busy" @click="remind">
          Ask {{ silent.length === 1 ? 'its supplier' : `the suppliers of these ${silent.length}` }} once more
        </button>
      </p>
      <p v-if="orders.length > 0" class="small mt-3 flex flex-wrap gap-x-3">
        <button v-if="next" type="button" class="quiet-link" :aria-busy="busy" @click="readOn">Show the next 50</button>
        <NuxtLink class="quiet-link" to="/orders/runs">What was ordered by itself</NuxtLink>
        <span class="ml-auto"
          >Keep what is shown as <a class="quiet-link" :href="file('csv')">CSV</a> or
          <a class="quiet-link" :href="file('xlsx')">XLSX</a></span
        >
      </p>
    </SheetPage>
  </div>
</template>
