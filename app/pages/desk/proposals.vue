<script setup lang="ts">
import { dec, HUNDRED } from '#core/base/decimal'
import { isZero, sum, type Money } from '#core/base/money'
import type { ProposalOptions } from '#core/order/propose'
import { capital, formatCount } from '#shared/words/format'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import ProposedOrder from '~/components/desk/ProposedOrder.vue'
import GroupingBlanks from '~/components/order/GroupingBlanks.vue'
import LeftLines from '~/components/order/LeftLines.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useNarrowed } from '~/composables/base/use-narrowed'
import { useWording } from '~/composables/base/use-wording'
import { useProposals } from '~/composables/desk/use-proposals'
import { useLive } from '~/composables/live/use-live'

useHead({ title: 'Proposed orders · Rekko' })
const api = useApi()
const wording = useWording()
const { one, narrow } = useNarrowed()
const asked = computed(() =>
  Object.fromEntries(
    ['mostRequests', 'within', 'by', 'choose', 'waitFor', 'waitDays'].flatMap((k) =>
      one(k) === '' ? [] : [[k, one(k)]],
    ),
  ),
)
const { data, error, refresh, status } = await useAsyncData(
  'proposed-orders',
  () => api.get('/api/proposed-orders', { query: asked.value }),
  { watch: [asked] },
)
const { lay, stop, done, of, isLaying, isStopped, troubles } = useProposals(refresh)
useLive((changes) => {
  if (!isLaying.value && changes.some((c) => ['requisition', 'order', 'again'].includes(c.kind))) void refresh()
})
const orders = computed(() => data.value?.orders ?? [])
const base = computed(() => data.value?.currency ?? 'EUR')
const left = computed(() => data.value?.left ?? [])
const leftLines = computed(() => left.value.reduce((n, l) => n + l.lines.length, 0))
/** What is not to be laid; all is, until somebody says so. */
const refused = ref(new Set<string>())
const taken = computed(() => orders.value.filter((o) => !refused.value.has(o.key)))
function take(key: string, isTaken: boolean): void {
  const next = new Set(refused.value)
  if (isTaken) next.delete(key)
  else next.add(key)
  refused.value = next
}
function takeAll(isTaken: boolean): void {
  refused.value = new Set(isTaken ? [] : orders.value.map((o) => o.key))
}
const PAGE = 200
const shown = ref(PAGE)

/** How they are put together, as the address says it. */
const grouping = computed({
  get: (): ProposalOptions => ({
    mostRequests: one('mostRequests') === '' ? null : Number(one('mostRequests')),
    windowDays: one('within') === '' ? null : Number(one('within')),
    byDepartment: one('by') === 'department',
    choose: one('choose') === 'oldest' ? 'oldest' : 'cheapest',
    waitFor: one('waitFor') === '' ? null : { value: one('waitFor'), days: Number(one('waitDays') || '5') },
  }),
  set: (g: ProposalOptions) =>
    narrow({
      mostRequests: String(g.mostRequests ?? ''),
      within: String(g.windowDays ?? ''),
      by: g.byDepartment ? 'department' : '',
      choose: g.mostRequests !== null && g.choose === 'oldest' ? 'oldest' : '',
      waitFor: g.waitFor?.value ?? '',
      waitDays: g.waitFor === null ? '' : String(g.waitFor.days),
    }),
})

/** Sums of one currency; those of others stand beside. */
const sums = (of: (o: (typeof orders.value)[number]) => Money) =>
  [...new Set(taken.value.map((o) => o.currency))].map((currency) =>
    sum(taken.value.filter((o) => o.currency === currency).map(of), currency),
  )
const sentence = computed(() => {
  const p = data.value
  if (!p) return 'Proposed orders'
  if (p.lines === 0) return 'Nothing waits to be ordered.'
  if (p.orders.length === 0) return 'Nothing can be ordered as it is now.'
  const lines = formatCount(p.lines - leftLines.value, 'line', 'lines')
  const what = `Rekko would make ${formatCount(p.orders.length, 'order', 'orders')} of ${lines}`
  return isZero(p.saved) ? `${what}.` : `${what}: ${wording.money(p.saved)} less than one order for each request.`
})
/** How much of what single orders would cost is spared, for the drawing. */
const share = computed(() => {
  const p = data.value
  if (!p || isZero(p.saved)) return 0
  return dec(p.saved.amount)
    .times(HUNDRED)
    .dividedBy(dec(p.saved.amount).plus(dec(p.net.amount)))
    .toNumber()
})
async function layTaken(): Promise<void> {
  const laid = await lay(taken.value)
  refused.value = new Set()
  if (laid > 0 && troubles.value.length === 0 && !isStopped.value) await navigateTo('/desk')
}
const action = computed(() =>
  taken.value.length === 0
    ? 'Mark an order first'
    : taken.value.length === 1
      ? 'Lay the order on a tray'
      : `Lay ${formatCount(taken.value.length, 'order', 'orders')} on trays`,
)
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'lay what is marked on trays' }], (event) => {
  if (!isMainKey(event)) return
  event.preventDefault()
  if (!event.repeat) void layTaken()
})
</script>

<template>
  <div>
    <PageNote>every line that waits, put together</PageNote>
    <SheetPage>
      <h1 class="sentence">{{ sentence }}</h1>
      <p class="mt-2 mb-3 max-w-[86ch] leading-7 text-ink2">
        <GroupingBlanks v-model="grouping" :currency="base" />
      </p>
      <p v-if="error" class="notice-red">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <ul v-if="troubles.length > 0" class="notice-red mb-3" role="alert">
        <li v-for="t in troubles" :key="t.key">{{ t.says }}</li>
      </ul>
      <p v-if="data && data.lines === 0" class="max-w-[60ch] text-ink2">
        As soon as lines are approved, Rekko puts them together here by supplier, place and date, so that price steps
        are reached and freight is paid once. <NuxtLink class="quiet-link" to="/desk">Go to the Desk</NuxtLink>
      </p>
      <p v-if="data && !data.isAll" class="small mb-2">
        These are the oldest {{ formatCount(data.lines, 'line', 'lines') }}; the others come up as you order.
      </p>
      <table v-if="orders.length > 0" class="table" :aria-busy="status === 'pending'">
        <caption class="sr-only">
          Proposed orders
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col" class="w-8">
              <input
                type="checkbox"
                class="size-4 align-[-2px] accent-[var(--green)]"
                aria-label="Take all"
                :checked="taken.length === orders.length"
                @change="takeAll(($event.target as HTMLInputElement).checked)"
              />
            </th>
            <th scope="col">Supplier and place</th>
            <th scope="col">What</th>
            <th scope="col">Needed</th>
            <th scope="col" class="num">Without tax</th>
            <th scope="col" class="num">Saves</th>
          </tr>
        </thead>
        <ProposedOrder
          v-for="o in orders.slice(0, shown)"
          :key="o.key"
          :order="o"
          :base="base"
          :taken="!refused.has(o.key)"
          @take="take(o.key, $event)"
        />
      </table>
      <button v-if="orders.length > shown" type="button" class="action mt-3" @click="shown += PAGE">
        Show {{ Math.min(PAGE, orders.length - shown) }} more
      </button>
      <section v-if="left.length > 0" class="mt-6" aria-labelledby="left">
        <h2 id="left" class="head">Left where they lie</h2>
        <LeftLines :left="left" />
      </section>
      <template #margin>
        <h2 class="head mb-2">{{ capital(formatCount(taken.length, 'order', 'orders')) }}</h2>
        <p v-if="taken.length === 0" class="text-ink2">None is marked.</p>
        <dl v-else class="grid grid-cols-[1fr_auto] gap-y-1">
          <dt>Goods</dt>
          <dd class="num">
            <span v-for="m in sums((o) => o.goods)" :key="m.currency" class="block">{{ wording.money(m) }}</span>
          </dd>
          <template v-if="sums((o) => o.freight).some((m) => !isZero(m))"
            ><dt>Freight</dt>
            <dd class="num">
              <span v-for="m in sums((o) => o.freight)" :key="m.currency" class="block">{{ wording.money(m) }}</span>
            </dd></template
          >
          <dt class="border-t border-rule pt-1 font-semibold">Without tax</dt>
          <dd class="num border-t border-rule pt-1 font-semibold">
            <span v-for="m in sums((o) => o.net)" :key="m.currency" class="block">{{ wording.money(m) }}</span>
          </dd>
        </dl>
        <template v-if="data && share > 0">
          <h3 class="head mt-5 mb-1.5">Against one order for each request</h3>
          <div class="flex h-[9px] overflow-hidden rounded-[2px] border border-edge" aria-hidden="true">
            <div class="h-full bg-ink" :style="{ width: `${100 - share}%` }" />
          </div>
          <p class="mt-1.5 flex justify-between gap-3">
            <span class="text-green font-semibold">{{ wording.money(data.saved) }} less</span>
            <span class="small">of all proposed</span>
          </p>
          <p v-if="!isZero(data.belowOldest)" class="small mt-1">
            {{ wording.money(data.belowOldest) }} of it because those go together that belong together; by age alone it
            would be dearer.
          </p>
        </template>
        <p v-if="leftLines > 0" class="small mt-4">
          {{ capital(formatCount(leftLines, 'line stays', 'lines stay')) }} where
          {{ leftLines === 1 ? 'it lies' : 'they lie' }}; why stands below the orders.
        </p>
      </template>
      <template v-if="orders.length > 0" #action>
        <p v-if="isLaying" class="mb-2" role="status">
          {{ done }} of {{ of }} {{ of === 1 ? 'tray' : 'trays' }} made.
          <button type="button" class="quiet-link" @click="stop">Stop</button>
        </p>
        <MainAction :busy="isLaying" :missing="taken.length === 0" keys="Ctrl ⏎" @press="layTaken">{{
          isLaying ? 'Laying …' : action
        }}</MainAction>
        <p class="small mt-2">
          Nothing is sent: each order lies on a tray of yours, to be changed or issued.
          <NuxtLink class="quiet-link" to="/desk">Back to the Desk</NuxtLink>
        </p>
      </template>
    </SheetPage>
  </div>
</template>
