<script setup lang="ts">
import { addDays } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { readTypedNumber } from '#core/base/typed-number'
import { packsOf } from '#core/catalogue/pack'
import { priceFor } from '#core/catalogue/price'
import { priceHistory } from '#core/catalogue/price-history'
import { stepHint } from '#core/catalogue/step-hint'
import { readSteps, stepsOf } from '#core/catalogue/typed-steps'
import { capital, formatCount } from '#shared/words/format'
import { sayWarning } from '#shared/words/supplier'
import BlankDay from '~/components/base/BlankDay.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import ItemDrawing from '~/components/browse/ItemDrawing.vue'
import ItemPictures from '~/components/browse/ItemPictures.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { sayHint } from '#shared/words/step-hint'
import { sayPacks, sayPer, sayPrices } from '~/composables/browse/say-item'
import { useOpenRequisition } from '~/composables/browse/use-open-requisition'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

// Drawn when it is looked at: the library of charts is large.
const AxisChart = defineAsyncComponent(() => import('~/components/base/AxisChart.vue'))
const api = useApi()
const wording = useWording()
const session = useSessionStore()
const base = session.me?.organisation.baseCurrency ?? 'EUR'
const id = String(useRoute().params.id)
const { data, error, refresh } = await useAsyncData(`item-${id}`, () => api.get('/api/items/{id}', { params: { id } }))
if (error.value || !data.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const page = computed(() => data.value ?? never())
function never(): never {
  throw createError({ statusCode: 404, fatal: true, message: 'not found' })
}
const item = computed(() => page.value.item)
useHead({ title: () => `${item.value.name} · Rekko` })
useLive((changes) => {
  if (changes.some((c) => c.kind === 'settings' || c.kind === 'again')) void refresh()
})
const today = wording.today
const price = computed(() => priceFor(item.value.prices, '1', today.value))
const all = computed(() => [item.value, ...page.value.others])

/** What one cost on the first day of each of the last eleven months, and costs today. */
const months = computed(() => {
  const first = addDays(today.value, -365)
  const turns = priceHistory(page.value.steps, '1', first, today.value)
  const at = (day: string) => turns.filter((t) => t.from <= day).at(-1)?.unitPrice ?? null
  const [year = 0, month = 0] = today.value.split('-').map(Number)
  const days = Array.from({ length: 12 }, (_, i) => {
    const at = year * 12 + month - 1 - (10 - i)
    return i === 11 ? today.value : `${Math.floor(at / 12)}-${String((at % 12) + 1).padStart(2, '0')}-01`
  })
  return days.map((day, i) => ({ name: i === 11 ? 'now' : wording.shortMonth(day), price: at(day) }))
})
const history = computed(() =>
  priceHistory(page.value.steps, '1', addDays(today.value, -730), addDays(today.value, 730)),
)
const sayHistory = (h: (typeof history.value)[number], i: number) =>
  i === 0 && h.from <= today.value ? 'two years ago and before' : `from ${wording.ways.date(h.from, today.value)}`

const typed = ref('1')
const quantity = computed(() => {
  const number = readTypedNumber(typed.value, wording.decimalMark)
  return number !== null && dec(number).isPositive() ? number : null
})
const hint = computed(() => (quantity.value === null ? null : stepHint(item.value, quantity.value, today.value)))
const packs = computed(() =>
  quantity.value === null || item.value.packSize === null ? null : packsOf(quantity.value, item.value.packSize),
)
/** What the packs come to, and where they hold more than was asked for, how much and for what sum. */
const packsSay = computed(() => {
  const { packSize } = item.value
  if (packs.value === null || packSize === null) return ''
  const said = capital(sayPacks(packs.value, packSize, wording.ways))
  if (packs.value.isWhole) return `${said}.`
  const sum = stepHint(item.value, packs.value.holds, today.value)?.net
  return (
    `${said} ${packs.value.packs === '1' ? 'holds' : 'hold'} ${wording.quantity(packs.value.holds, item.value.unit)}` +
    `${sum === undefined ? '' : `, for ${wording.money(sum)}`}.`
  )
})
const { open, busy, trouble, find, add } = useOpenRequisition()
onMounted(find)
const action = computed(() => {
  if (item.value.facts.retired) return 'In the catalogue no more'
  if (quantity.value === null) return `“${typed.value}” is no number`
  const what = wording.quantity(quantity.value, item.value.unit)
  return open.value === null
    ? `Begin a request with ${what}`
    : `Add ${what} to “${open.value.title || 'your open draft'}”`
})
const canAdd = computed(() => quantity.value !== null && !item.value.facts.retired)
function addIt(): void {
  if (quantity.value === null || item.value.facts.retired) document.getElementById('item-quantity')?.focus()
  else void add([{ item: item.value, quantity: quantity.value }])
}

const mayKeep = session.me?.rights.includes('keep catalogue') === true
const setting = reactive({ from: today.value, steps: '' })
const setTrouble = ref('')
const told = ref('')
async function setPrices(): Promise<void> {
  const plain = readSteps(setting.steps, wording.decimalMark)
  told.value = ''
  setTrouble.value = plain === null ? `“${setting.steps}” is no price; write 4.20, or 4.20; 10: 3.90.` : ''
  if (plain === null) {
    document.getElementById('item-prices')?.focus()
    return
  }
  try {
    await api.put('/api/items/{id}/prices', { params: { id }, body: { from: setting.from, steps: stepsOf(plain) } })
    told.value = `It costs that from ${wording.ways.date(setting.from, today.value)} on.`
    setting.steps = ''
    await refresh()
  } catch (e) {
    setTrouble.value = sayError(e)
  }
}
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'add it to the request' }], (event) => {
  if (!isMainKey(event) || event.repeat) return
  event.preventDefault()
  addIt()
})
</script>

<template>
  <div>
    <PageNote><NuxtLink class="hover:underline" to="/catalogue">back to the catalogue</NuxtLink></PageNote>
    <SheetPage>
      <div class="flex items-start gap-4">
        <ItemDrawing v-if="page.pictures.length === 0" :drawing="item.drawing" class="mt-1" />
        <h1 class="sentence min-w-0">
          {{ item.name
          }}<template v-if="price"
            >: {{ item.currency === base ? '' : item.currency }} {{ wording.price(price.unitPrice, item.currency) }}
            {{ sayPer(item, wording.ways) }}</template
          ><template v-else>, without a price today</template>, from
          <NuxtLink
            v-if="session.me?.rights.includes('see orders')"
            class="quiet-link"
            :to="`/suppliers/${item.supplierId}`"
            >{{ item.supplier }}</NuxtLink><template v-else>{{ item.supplier }}</template
          >, here in {{ formatCount(item.leadDays, 'business day', 'business days') }}.
        </h1>
      </div>
      <p class="small mt-1.5">
        {{ item.category }} · {{ item.number }} · theirs {{ item.supplierPart
        }}{{ item.hasAgreement ? ' · under an agreement' : ''
        }}{{ item.packSize === null ? '' : ` · comes by ${wording.quantity(item.packSize, item.unit)}` }}
      </p>
      <p v-if="item.description" class="mt-3 max-w-[70ch]">{{ item.description }}</p>
      <p v-if="item.facts.retired" class="notice-amber mt-3">
        {{ sayWarning({ text: null, successor: null }) }}
        <NuxtLink v-if="page.successor" class="quiet-link font-semibold" :to="`/catalogue/${page.successor.id}`"
          >{{ page.successor.name }} takes its place</NuxtLink
        >
      </p>
      <p v-if="item.facts.warning" class="notice-amber mt-3">{{ item.facts.warning }}</p>
      <p v-if="item.supplierFacts.warning" class="notice-amber mt-3">
        {{ item.supplier }}: {{ item.supplierFacts.warning }}
      </p>

      <ItemPictures
        :item-id="id"
        :name="item.name"
        :pictures="page.pictures"
        :may-keep="mayKeep"
        @changed="refresh()"
      />

      <h2 class="head mt-6">{{ all.length > 1 ? 'Who has it' : 'Prices' }}</h2>
      <div class="overflow-x-auto" tabindex="0" role="region" aria-label="Prices">
        <table class="table">
          <caption class="sr-only">
            Prices of each supplier that has it
          </caption>
          <thead>
            <tr>
              <th scope="col">Supplier</th>
              <th scope="col" class="num">Prices</th>
              <th scope="col" class="num">Here in</th>
              <th scope="col">Agreement</th>
              <th scope="col" class="num">Last paid</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="i in all" :key="i.id">
              <td class="align-top">
                <span v-if="i.id === item.id" class="font-semibold">{{ i.supplier }}</span>
                <NuxtLink v-else class="quiet-link font-semibold" :to="`/catalogue/${i.id}`">{{ i.supplier }}</NuxtLink>
                <span class="small block">{{ i.supplierPart }}</span>
              </td>
              <td class="num align-top">
                <span v-for="p in sayPrices(i, today, wording.ways, base)" :key="p" class="block">{{ p }}</span>
              </td>
              <td class="num align-top">{{ formatCount(i.leadDays, 'day', 'days') }}</td>
              <td class="align-top text-ink2">{{ i.hasAgreement ? 'yes' : 'no' }}</td>
              <td class="num align-top text-ink2">
                <template v-if="i.paid"
                  >{{ wording.price(i.paid.unitPrice, i.paid.currency)
                  }}<span class="small block">{{ wording.shortDay(i.paid.day) }}</span></template
                ><template v-else>never</template>
              </td>
            </tr>
          </tbody>
        </table>
      </div>

      <h2 class="head mb-1 mt-6">What one cost, in {{ item.currency }}</h2>
      <div class="grid grid-cols-[minmax(0,1fr)_240px] gap-8 max-[900px]:grid-cols-1">
        <AxisChart
          :label="`Price of ${item.name} over the last year`"
          :categories="months.map((m) => m.name)"
          :series="[{ name: 'Price', look: 'line', values: months.map((m) => m.price ?? '0') }]"
          :format="(v) => wording.price(v, item.currency)"
        />
        <ul aria-label="Prices by day">
          <li
            v-for="(h, i) in history"
            :key="h.from"
            class="flex items-baseline justify-between gap-3 border-b border-rule py-1"
          >
            <span :class="h.from > today ? 'text-green' : 'text-ink2'">{{ sayHistory(h, i) }}</span>
            <span class="tabular-nums">{{
              h.unitPrice === null ? 'no price' : wording.price(h.unitPrice, item.currency)
            }}</span>
          </li>
        </ul>
      </div>
      <section v-if="mayKeep" class="mt-4" aria-labelledby="another-price">
        <h2 id="another-price" class="head mb-1">Another price</h2>
        <form class="flex flex-wrap items-center gap-x-2 gap-y-1.5" @submit.prevent="setPrices">
          From
          <BlankDay v-model="setting.from" compact label="From which day" placeholder="which day" :today="today" />
          on it costs
          <input
            id="item-prices"
            v-model="setting.steps"
            class="field w-[220px]! min-h-[34px]! py-1!"
            aria-label="Prices by quantity"
            placeholder="4.20; 10: 3.90"
            autocomplete="off"
          />
          <button type="submit" class="action">Set this price</button>
        </form>
        <p v-if="setTrouble" class="notice-red mt-2" role="alert">{{ setTrouble }}</p>
        <p v-else-if="told" class="small mt-1" role="status">{{ told }}</p>
        <p class="small mt-1">
          What was to hold from that day on holds no more. All else of it is
          <NuxtLink class="quiet-link" :to="{ path: '/set-up/lists/items', query: { open: item.number } }"
            >kept in the item list</NuxtLink
          >.
        </p>
      </section>

      <template #margin>
        <label class="block">
          <span class="head">How many</span>
          <span class="mt-1 flex items-center gap-2"
            ><input
              id="item-quantity"
              v-model="typed"
              class="field w-[110px]! text-right tabular-nums"
              inputmode="decimal"
              autocomplete="off"
            />
            <span class="text-ink2">{{ wording.quantity('1', item.unit).slice(2) }}</span></span
          >
        </label>
        <p v-if="hint" class="sum mt-3 tabular-nums">{{ wording.money(hint.net) }}</p>
        <p v-if="packs" class="small mt-1">
          {{ packsSay }}
          <button
            v-if="!packs.isWhole"
            type="button"
            class="quiet-link min-h-6"
            @click="typed = wording.typed(packs.holds)"
          >
            Take {{ wording.decimal(packs.holds) }}
          </button>
        </p>
        <p v-if="hint && sayHint(hint, quantity ?? '1', wording.ways)" class="notice-green mt-2">
          {{ sayHint(hint, quantity ?? '1', wording.ways) }}
        </p>
        <template v-if="page.askedBy.length > 0">
          <h2 class="head mb-1 mt-5">Who asks for it</h2>
          <ul>
            <li
              v-for="a in page.askedBy"
              :key="a.department"
              class="flex justify-between gap-3 border-t border-rule py-1"
            >
              <span>{{ a.department }}</span>
              <span class="text-ink2">{{ a.lines === 1 ? 'once' : `${wording.decimal(String(a.lines))} times` }}</span>
            </li>
          </ul>
        </template>
        <template v-if="page.together.length > 0">
          <h2 class="head mb-1 mt-5">Often together with</h2>
          <ul>
            <li v-for="t in page.together" :key="t.id" class="border-t border-rule py-1">
              <NuxtLink class="quiet-link" :to="`/catalogue/${t.id}`">{{ t.name }}</NuxtLink>
            </li>
          </ul>
        </template>
      </template>
      <template #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <MainAction :missing="!canAdd" :busy="busy" keys="Ctrl ⏎" @press="addIt">{{ action }}</MainAction>
      </template>
    </SheetPage>
  </div>
</template>
