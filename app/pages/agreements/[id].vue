<script setup lang="ts">
import { isZero } from '#core/base/money'
import { FIXES_SHORT } from '#shared/words/agreement'
import { capital, formatCount, listWords } from '#shared/words/format'
import { sayTerms } from '#shared/words/terms'
import DrawnBar from '~/components/agreement/DrawnBar.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'

const AgreementForm = defineAsyncComponent(() => import('~/components/agreement/AgreementForm.vue'))

definePageMeta({ key: (route) => route.path })
const api = useApi()
const wording = useWording()
const id = String(useRoute().params.id)
const { data, error, refresh } = await useAsyncData(`agreement-${id}`, () =>
  api.get('/api/agreements/{id}', { params: { id } }),
)
if (error.value || !data.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const agreement = computed(() => {
  if (!data.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
  return data.value
})
useHead({ title: () => `${agreement.value.number} · Rekko` })
const writing = ref(false)
const told = ref('')
const { busy, trouble, act } = useAct()
useLive((changes) => {
  const concerns = changes.some((c) => c.id === id || ['order', 'requisition', 'again'].includes(c.kind))
  if (concerns && !busy.value && !writing.value) void refresh()
})
const date = (day: string) => wording.ways.date(day, wording.today.value)
const isClosed = computed(() => agreement.value.standing === 'closed')
const STANDS = { 'in force': 'is in force', 'to come': 'has not begun', ended: 'has ended', closed: 'is closed' }
const said = computed(() => {
  const { terms, departments, theirNumber, warnPercent, warnDays, renewOn, keeper } = agreement.value
  const share =
    warnPercent === null || agreement.value.ceiling === null
      ? ''
      : `from ${wording.decimal(warnPercent)} % of it on and `
  return [
    theirNumber === '' ? '' : `The supplier calls it ${theirNumber}.`,
    `It fixes ${FIXES_SHORT[agreement.value.fixes]}; it is for ${
      departments.length === 0 ? 'every department' : listWords(departments.map((d) => d.name))
    }.`,
    terms === null ? '' : `It is paid ${sayTerms(terms)}.`,
    `Documents are warned ${share}${formatCount(warnDays, 'day', 'days')} before its end.`,
    renewOn === null
      ? `${keeper} looks after it.`
      : `${keeper} looks after it, and decides by ${wording.day(renewOn)} whether it goes on.`,
  ].filter((t) => t !== '')
})
const differing = computed(() =>
  agreement.value.items.filter((i) => i.differs && i.currency === agreement.value.currency),
)
const unseen = computed(() => {
  const { drawn, reserved } = agreement.value.unseen
  return [
    ...(isZero(drawn) ? [] : [`${wording.money(drawn)} of what is drawn`]),
    ...(isZero(reserved) ? [] : [`${wording.money(reserved)} of what is reserved`]),
  ]
})
const close = (to: boolean) =>
  act(async () => {
    await api.put('/api/agreements/{id}/closing', {
      params: { id },
      version: agreement.value.version,
      body: { isClosed: to },
    })
    told.value = to ? 'It is closed: nothing draws on it any more.' : 'It is open again.'
    await refresh()
  })
const putPrices = () =>
  act(async () => {
    const { items } = await api.post('/api/agreements/{id}/prices', {
      params: { id },
      body: { itemIds: differing.value.map((i) => i.itemId) },
      key: crypto.randomUUID(),
    })
    told.value = `${formatCount(items, 'price is', 'prices are')} in the catalogue from today on.`
    await refresh()
  })
async function kept(): Promise<void> {
  writing.value = false
  told.value = 'It is kept.'
  await refresh()
}
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'change what it says' }], (event) => {
  if (!isMainKey(event) || event.repeat || writing.value || agreement.value.choices === null) return
  event.preventDefault()
  writing.value = true
})
</script>

<template>
  <div>
    <PageNote><NuxtLink class="hover:underline" to="/agreements">back to the agreements</NuxtLink></PageNote>
    <SheetPage>
      <h1 class="sentence">
        <b>{{ agreement.name }}</b> with
        <NuxtLink class="quiet-link" :to="`/suppliers/${agreement.supplierId}`">{{ agreement.supplier }}</NuxtLink>
        {{ STANDS[agreement.standing] }}, from {{ date(agreement.startsOn) }} to {{ date(agreement.endsOn) }}.
      </h1>
      <p class="small mt-1.5">{{ agreement.number }}</p>
      <p class="mt-3 max-w-[80ch]">{{ said.join(' ') }}</p>
      <p v-if="agreement.note !== ''" class="mt-2 max-w-[80ch] whitespace-pre-line text-ink2">{{ agreement.note }}</p>
      <p v-for="m in agreement.marks" :key="m" class="notice-amber mt-2">{{ capital(m) }}.</p>
      <p v-if="told" class="notice-green mt-2" role="status">{{ told }}</p>
      <template v-if="agreement.items.length > 0">
        <h2 class="head mb-1 mt-5">What stands in it</h2>
        <table class="table">
          <caption class="sr-only">
            Items of the agreement
          </caption>
          <thead>
            <tr>
              <th scope="col">Item</th>
              <th scope="col" class="num">Agreed, {{ agreement.currency }}</th>
              <th scope="col" class="num">In the catalogue</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="i in agreement.items" :key="i.itemId">
              <td>
                <NuxtLink class="font-semibold hover:underline" :to="`/catalogue/${i.itemId}`">{{
                  i.name
                }}</NuxtLink><span class="small block"
                  >{{ i.number }} · {{ i.supplierPart
                  }}<span v-if="i.retired" class="text-amber-ink"> · no longer in the catalogue</span></span
                >
              </td>
              <td class="num align-top">
                {{ i.unitPrice === null ? 'as it is sold' : wording.price(i.unitPrice, agreement.currency)
                }}<span v-if="i.priceBase !== '1'" class="small block">per {{ i.priceBase }}</span>
              </td>
              <td class="num align-top" :class="i.differs ? 'text-amber-ink' : 'text-ink2'">
                {{ i.catalogue === null ? 'no price' : wording.price(i.catalogue, i.currency)
                }}<span v-if="i.currency !== agreement.currency" class="small block">{{ i.currency }}</span>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="differing.length > 0 && agreement.mayPrice && !isClosed" class="mt-2">
          <button type="button" class="action" :aria-busy="busy" @click="putPrices">
            Put {{ differing.length === 1 ? 'the agreed price' : `these ${differing.length} agreed prices` }} into the
            catalogue from today on
          </button>
        </p>
      </template>
      <h2 class="head mb-1 mt-5">Ordered on it</h2>
      <p v-if="agreement.orders.length === 0" class="text-ink2">No order that you see draws on it yet.</p>
      <table v-else class="table">
        <caption class="sr-only">
          Orders that draw on the agreement
        </caption>
        <thead>
          <tr>
            <th scope="col">Number</th>
            <th scope="col">Buyer</th>
            <th scope="col">Issued</th>
            <th scope="col">Stands</th>
            <th scope="col" class="num">Drawn, {{ agreement.currency }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="o in agreement.orders" :key="o.id">
            <td>
              <NuxtLink class="whitespace-nowrap font-semibold hover:underline" :to="`/orders/${o.id}`">{{
                o.number
              }}</NuxtLink>
            </td>
            <td class="text-ink2">{{ o.buyer }}</td>
            <td class="text-ink2">
              <time :datetime="o.issuedAt" :title="wording.exact(o.issuedAt)">{{ wording.moment(o.issuedAt) }}</time>
            </td>
            <td class="text-ink2">{{ o.state }}</td>
            <td class="num">{{ wording.amount(o.net) }}</td>
          </tr>
        </tbody>
      </table>
      <template v-if="agreement.waiting.length > 0">
        <h2 class="head mb-1 mt-5">Asked for, and not ordered yet</h2>
        <table class="table">
          <caption class="sr-only">
            Lines that would draw on the agreement
          </caption>
          <thead>
            <tr>
              <th scope="col">Request</th>
              <th scope="col">What</th>
              <th scope="col" class="num">Open</th>
              <th scope="col" class="num">Reserved, {{ agreement.currency }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(w, i) in agreement.waiting" :key="i">
              <td class="whitespace-nowrap">
                <NuxtLink class="quiet-link" :to="`/trail/${w.id}`">{{ w.number }}</NuxtLink><span
                  class="small block"
                  >{{ w.state }}</span
                >
              </td>
              <td>{{ w.description }}</td>
              <td class="num">{{ wording.quantity(w.open, w.unit) }}</td>
              <td class="num">{{ wording.amount(w.net) }}</td>
            </tr>
          </tbody>
        </table>
      </template>
      <p v-if="unseen.length > 0" class="small mt-3">
        {{ capital(listWords(unseen)) }} {{ unseen.length === 1 ? 'stands' : 'stand' }} on what is not for you to see.
      </p>
      <AgreementForm
        v-if="writing && agreement.choices"
        :agreement="agreement"
        :choices="agreement.choices"
        @kept="kept"
        @close="writing = false"
      />
      <template #margin>
        <h2 class="head mb-1">What is drawn, without tax</h2>
        <DrawnBar
          v-if="agreement.ceiling"
          class="my-2"
          :ceiling="agreement.ceiling"
          :drawn="agreement.drawn"
          :reserved="agreement.reserved"
        />
        <dl class="grid grid-cols-[1fr_auto] gap-y-1.5 [&>dd]:text-right [&>dd]:tabular-nums">
          <template v-if="agreement.ceiling"
            ><dt>Up to</dt>
            <dd>{{ wording.money(agreement.ceiling) }}</dd></template
          >
          <dt>Drawn by orders</dt>
          <dd>{{ wording.money(agreement.drawn) }}</dd>
          <dt>Reserved by requests</dt>
          <dd>{{ wording.money(agreement.reserved) }}</dd>
          <template v-if="agreement.left"
            ><dt class="border-t border-rule pt-1.5">
              {{ agreement.left.amount.startsWith('-') ? 'Too little by' : 'Left' }}
            </dt>
            <dd
              class="border-t border-rule pt-1.5"
              :class="agreement.left.amount.startsWith('-') ? 'text-red' : 'font-semibold'"
            >
              {{ wording.money({ ...agreement.left, amount: agreement.left.amount.replace('-', '') }) }}
            </dd></template
          >
        </dl>
        <p class="small mt-2">
          Requests to {{ agreement.supplier }} and their orders draw on it by themselves where they fit.
          <template v-if="agreement.ceiling">An order that would pass it is not issued.</template>
        </p>
      </template>
      <template v-if="agreement.choices" #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <MainAction :busy="busy" keys="Ctrl ⏎" @press="writing = true">Change what it says</MainAction>
        <p class="mt-2">
          <button type="button" class="quiet-link min-h-6" :aria-busy="busy" @click="close(!isClosed)">
            {{ isClosed ? 'Open it again' : 'Close it: nothing draws on it any more' }}
          </button>
        </p>
      </template>
    </SheetPage>
  </div>
</template>
