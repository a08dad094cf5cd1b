<script setup lang="ts">
import { dec } from '#core/base/decimal'
import { readTypedNumber } from '#core/base/typed-number'
import { stepHint } from '#core/catalogue/step-hint'
import type { CatalogueItem } from '#shared/contract/catalogue'
import { unitName } from '#core/base/unit'
import { capital, formatCount } from '#shared/words/format'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import ItemDrawing from '~/components/browse/ItemDrawing.vue'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { sayPrices } from '~/composables/browse/say-item'
import { sayHint } from '#shared/words/step-hint'
import { useOpenRequisition } from '~/composables/browse/use-open-requisition'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Side by side · Rekko' })
const api = useApi()
const route = useRoute()
const wording = useWording()
const base = useSessionStore().me?.organisation.baseCurrency ?? 'EUR'
const ids = String(route.query.items ?? '')
  .split(',')
  .filter((id) => id !== '')
  .slice(0, 4)
const { data, error } = await useAsyncData(`compare-${ids.join()}`, () =>
  Promise.all(ids.map(async (id) => (await api.get('/api/items/{id}', { params: { id } })).item)),
)
if (error.value || ids.length === 0) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const items = computed<readonly CatalogueItem[]>(() => data.value ?? [])
const typed = ref('1')
const quantity = computed(() => {
  const number = readTypedNumber(typed.value, wording.decimalMark)
  return number !== null && dec(number).isPositive() ? number : null
})
const hints = computed(() =>
  items.value.map((i) => (quantity.value === null ? null : stepHint(i, quantity.value, wording.today.value))),
)
/** The cheapest, where all are in one currency and unit; several where they cost the same. */
const cheapest = computed(() => {
  const sums = hints.value.map((h) => h?.net ?? null)
  const alike = new Set(items.value.map((i) => `${i.currency} ${i.unit}`)).size === 1
  if (!alike || sums.includes(null) || items.value.length < 2) return new Set<number>()
  const least = sums.reduce((a, b) => (a !== null && b !== null && dec(b.amount).lt(dec(a.amount)) ? b : a))
  return new Set(sums.flatMap((s, i) => (s?.amount === least?.amount ? [i] : [])))
})
const sayPaid = ({ paid }: CatalogueItem) =>
  paid === null
    ? 'never bought'
    : `${paid.currency} ${wording.price(paid.unitPrice, paid.currency)}, ${wording.shortDay(paid.day)}`
const { open, busy, trouble, find, add } = useOpenRequisition()
onMounted(find)
const sentence = computed(() => capital(`${formatCount(items.value.length, 'thing', 'things')} side by side, for`))
</script>

<template>
  <div>
    <PageNote><NuxtLink class="hover:underline" to="/catalogue">back to the catalogue</NuxtLink></PageNote>
    <SheetPage>
      <h1 class="sr-only">Side by side</h1>
      <div class="sentence">
        {{ sentence }}
        <input
          v-model="typed"
          class="blank w-[3.5em] bg-transparent text-center font-serif"
          aria-label="For how many"
          inputmode="decimal"
        />
        of each.
      </div>
      <p v-if="quantity === null" class="small text-amber-ink!" role="status">“{{ typed }}” is no number.</p>
      <div class="mt-4 overflow-x-auto" tabindex="0" role="region" aria-label="Side by side">
        <table class="table table-fixed">
          <caption class="sr-only">
            What each costs and how fast it comes
          </caption>
          <thead>
            <tr>
              <th scope="col" class="w-[130px]"><span class="sr-only">What</span></th>
              <th v-for="i in items" :key="i.id" scope="col" class="align-top">
                <ItemDrawing :drawing="i.drawing" class="mb-1.5" />
                <NuxtLink class="block font-semibold hover:underline" :to="`/catalogue/${i.id}`">{{ i.name }}</NuxtLink>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row" class="border-b-rule! align-top font-normal text-ink2">For {{ typed }}</th>
              <td v-for="(i, at) in items" :key="i.id" class="align-top">
                <span class="sum-small tabular-nums">{{ hints[at] ? wording.money(hints[at].net) : 'no price' }}</span>
                <span v-if="cheapest.has(at)" class="block font-semibold text-green">costs the least</span>
                <span v-if="hints[at] && sayHint(hints[at], quantity ?? '1', wording.ways)" class="small block">{{
                  sayHint(hints[at], quantity ?? '1', wording.ways)
                }}</span>
              </td>
            </tr>
            <tr>
              <th scope="row" class="border-b-rule! align-top font-normal text-ink2">Prices</th>
              <td v-for="i in items" :key="i.id" class="align-top tabular-nums">
                <span v-for="p in sayPrices(i, wording.today.value, wording.ways, base)" :key="p" class="block">{{
                  p
                }}</span>
              </td>
            </tr>
            <tr>
              <th scope="row" class="border-b-rule! align-top font-normal text-ink2">Last paid</th>
              <td v-for="i in items" :key="i.id" class="align-top tabular-nums">{{ sayPaid(i) }}</td>
            </tr>
            <tr>
              <th scope="row" class="border-b-rule! align-top font-normal text-ink2">Here in</th>
              <td v-for="i in items" :key="i.id">{{ formatCount(i.leadDays, 'business day', 'business days') }}</td>
            </tr>
            <tr>
              <th scope="row" class="border-b-rule! align-top font-normal text-ink2">Supplier</th>
              <td v-for="i in items" :key="i.id">
                {{ i.supplier }}<span class="small block">{{ i.supplierPart }}</span>
              </td>
            </tr>
            <tr>
              <th scope="row" class="border-b-rule! align-top font-normal text-ink2">Unit</th>
              <td v-for="i in items" :key="i.id">
                {{ unitName(i.unit)
                }}<template v-if="i.packSize">, comes by {{ wording.decimal(i.packSize) }}</template>
              </td>
            </tr>
            <tr>
              <th scope="row" class="border-b-rule! align-top font-normal text-ink2">Agreement</th>
              <td v-for="i in items" :key="i.id">{{ i.hasAgreement ? 'yes' : 'no' }}</td>
            </tr>
            <tr>
              <th scope="row" class="border-b-rule! align-top font-normal text-ink2">To be minded</th>
              <td v-for="i in items" :key="i.id" class="align-top text-amber-ink">
                {{ [i.facts.warning, i.supplierFacts.warning].filter((w) => w !== null).join(' ') || '–' }}
              </td>
            </tr>
            <tr>
              <td />
              <td v-for="i in items" :key="i.id">
                <button
                  type="button"
                  class="action"
                  :aria-label="`Take ${typed} of ${i.name}`"
                  :disabled="busy || quantity === null"
                  @click="quantity !== null && add([{ item: i, quantity }])"
                >
                  Take {{ typed }} of this
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <p class="small mt-2">
        <template v-if="open"
          >What is taken goes to
          <NuxtLink class="quiet-link" :to="`/raise/${open.id}`">{{
            open.title || 'your open draft'
          }}</NuxtLink>.</template
        ><template v-else>What is taken begins a request.</template>
      </p>
    </SheetPage>
  </div>
</template>
