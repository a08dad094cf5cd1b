<script setup lang="ts">
import { dec } from '#core/base/decimal'
import { readTypedNumber } from '#core/base/typed-number'
import { stepHint } from '#core/catalogue/step-hint'
import type { CatalogueItem } from '#shared/contract/catalogue'
import { capital, formatCount, formatCounted } from '#shared/words/format'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import ItemRow from '~/components/browse/ItemRow.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useWordsFilter } from '~/composables/base/use-words-filter'
import { sayHint } from '#shared/words/step-hint'
import { sayPrices } from '~/composables/browse/say-item'
import { useOpenRequisition } from '~/composables/browse/use-open-requisition'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Catalogue · Rekko' })
const api = useApi()
const route = useRoute()
const router = useRouter()
const wording = useWording()
const base = useSessionStore().me?.organisation.baseCurrency ?? 'EUR'
const { words, typed } = useWordsFilter()
const one = (key: string) => {
  const v = route.query[key]
  return typeof v === 'string' && v !== '' ? v : undefined
}
const asked = computed(() => ({
  words: words.value,
  category: one('category'),
  supplier: one('supplier'),
  agreement: one('agreement') as 'yes' | 'no' | undefined,
  by: one('by'),
  from: one('from'),
  to: one('to'),
  bought: one('bought') as 'me' | 'department' | undefined,
}))
const isNarrowed = computed(() =>
  ['words', 'category', 'supplier', 'agreement', 'by', 'from', 'to', 'bought'].some((k) => one(k) !== undefined),
)
const PAGE = 30
const more = ref<CatalogueItem[]>([])
const next = ref<string | null>(null)
const { data, error, refresh } = await useAsyncData(
  'catalogue',
  () => api.get('/api/catalogue', { query: { ...asked.value, limit: PAGE } }),
  { watch: [asked] },
)
const { data: choices } = await useAsyncData('catalogue-choices', () => api.get('/api/catalogue/choices'))
watch(
  data,
  () => {
    more.value = []
    next.value = data.value?.next ?? null
  },
  { immediate: true },
)
useLive((changes) => {
  if (changes.some((c) => c.kind === 'settings' || c.kind === 'again')) void refresh()
})
const items = computed(() => [...(data.value?.items ?? []), ...more.value])
const trouble = ref('')
async function readOn(): Promise<void> {
  if (next.value === null) return
  try {
    const page = await api.get('/api/catalogue', { query: { ...asked.value, limit: PAGE, after: next.value } })
    more.value = [...more.value, ...page.items]
    next.value = page.next
  } catch (e) {
    trouble.value = sayError(e)
  }
}

const narrow = (change: Record<string, string | undefined>) => router.replace({ query: { ...route.query, ...change } })
/** Categories as a tree laid flat: what is part of another stands under it, and says of what. */
const categories = computed(() => {
  const all = choices.value?.categories ?? []
  const under = (parentId: string | null, above: string): { id: string; name: string; note?: string }[] =>
    all
      .filter((c) => c.parentId === parentId)
      .flatMap((c) => [
        { id: c.id, name: c.name, ...(above === '' ? {} : { note: `part of ${above}` }) },
        ...under(c.id, c.name),
      ])
  return [{ id: '', name: 'all categories' }, ...under(null, '')]
})
const suppliers = computed(() => [{ id: '', name: 'any supplier' }, ...(choices.value?.suppliers ?? [])])
const AGREEMENTS = [
  { id: '', name: 'with or without an agreement' },
  { id: 'yes', name: 'under an agreement' },
  { id: 'no', name: 'without an agreement' },
]
const BOUGHT = [
  { id: '', name: 'by anybody or nobody yet' },
  { id: 'me', name: 'by me before' },
  { id: 'department', name: 'by my department before' },
]
const count = computed(() => {
  const n = data.value?.count ?? 0
  if (n === 0) return 'Nothing'
  const counted = n < 13 ? capital(formatCount(n, 'thing', 'things')) : `${formatCounted(n)} things`
  return asked.value.words === '' || n < PAGE ? capital(counted) : `The ${counted} closest`
})
/** A price as it was typed becomes a part of the address; what is no number stays where it is and says so. */
const prices = reactive({ from: wording.typed(one('from') ?? ''), to: wording.typed(one('to') ?? '') })
function setPrice(key: 'from' | 'to'): void {
  const number = readTypedNumber(prices[key], wording.decimalMark)
  if (prices[key].trim() === '') void narrow({ [key]: undefined })
  else if (number !== null && !dec(number).isNegative()) void narrow({ [key]: number })
  else prices[key] = wording.typed(one(key) ?? '')
}
watch(asked, (now) => {
  prices.from = wording.typed(now.from ?? '')
  prices.to = wording.typed(now.to ?? '')
})

/** How many were typed, by item; what was typed stays when the list is narrowed. */
const quantities = reactive(new Map<string, string>())
const known = reactive(new Map<string, CatalogueItem>())
function setQuantity(item: CatalogueItem, text: string): void {
  if (text.trim() === '') quantities.delete(item.id)
  else {
    quantities.set(item.id, text)
    known.set(item.id, item)
  }
}
function numberOf(id: string): string | null {
  const number = readTypedNumber(quantities.get(id) ?? '', wording.decimalMark)
  return number !== null && dec(number).isPositive() ? number : null
}
const picked = computed(() =>
  [...quantities.keys()].flatMap((id) => {
    const item = known.get(id)
    return item === undefined ? [] : [{ item, quantity: numberOf(id) }]
  }),
)
const wrong = computed(() => picked.value.filter((p) => p.quantity === null))
const looked = ref<string | null>(null)
const shown = computed(() => {
  const id = looked.value ?? items.value[0]?.id
  return items.value.find((i) => i.id === id) ?? (id === undefined ? undefined : known.get(id)) ?? items.value[0]
})
const hint = computed(() => {
  if (shown.value === undefined) return null
  const quantity = numberOf(shown.value.id) ?? '1'
  const found = stepHint(shown.value, quantity, wording.today.value)
  return found === null ? null : { ...found, quantity, sentence: sayHint(found, quantity, wording.ways) }
})
const lineOf = (item: CatalogueItem, quantity: string) => {
  const net = stepHint(item, quantity, wording.today.value)?.net
  return net === undefined ? 'no price' : net.currency === base ? wording.amount(net) : wording.money(net)
}

const { open, busy, trouble: addTrouble, find, add } = useOpenRequisition()
onMounted(find)
const into = computed(() =>
  open.value === null ? null : open.value.title === '' ? 'your open draft' : open.value.title,
)
const action = computed(() => {
  if (wrong.value.length > 0)
    return capital(formatCount(wrong.value.length, 'quantity is no number', 'quantities are no numbers'))
  const [first] = picked.value
  if (first === undefined) return 'Type how many you need'
  const what =
    picked.value.length === 1
      ? `${wording.quantity(first.quantity ?? '1', first.item.unit).replace(/ each$/, '')} of ${first.item.name}`
      : formatCount(picked.value.length, 'thing', 'things')
  return into.value === null ? `Begin a request with ${what}` : `Add ${what} to “${into.value}”`
})
const boxOf = (id: string | undefined) => document.querySelector<HTMLInputElement>(`[data-quantity="${id ?? ''}"]`)
async function addPicked(): Promise<void> {
  const [first] = wrong.value.length > 0 ? wrong.value : picked.value
  if (wrong.value.length > 0 || first === undefined) {
    boxOf(first?.item.id ?? shown.value?.id)?.focus()
    return
  }
  const taken = picked.value.flatMap((p) => (p.quantity === null ? [] : [{ item: p.item, quantity: p.quantity }]))
  if (!(await add(taken))) return
  for (const { item } of taken) quantities.delete(item.id)
}
function move(from: string, by: 1 | -1): void {
  const at = items.value.findIndex((i) => i.id === from)
  boxOf(items.value[at + by]?.id)?.focus()
}

const MOST_COMPARED = 4
const compared = ref<string[]>([])
function compare(item: CatalogueItem): void {
  known.set(item.id, item)
  compared.value = compared.value.includes(item.id)
    ? compared.value.filter((id) => id !== item.id)
    : [...compared.value, item.id].slice(-MOST_COMPARED)
}
const finder = useTemplateRef<HTMLInputElement>('finder')
onMounted(() => finder.value?.focus())
function fromFinder(event: KeyboardEvent): void {
  if (event.key !== 'ArrowDown' && event.key !== 'Enter') return
  if (isMainKey(event)) return
  event.preventDefault()
  boxOf(items.value[0]?.id)?.focus()
}
usePlaceKeys(
  [
    { keys: '↓ ↑', does: 'from one quantity to the next' },
    { keys: 'Space', does: 'in a quantity: put the item side by side with others' },
    { keys: 'Ctrl Enter', does: 'add what has a quantity to the request' },
  ],
  (event) => {
    if (!isMainKey(event) || event.repeat) return
    event.preventDefault()
    void addPicked()
  },
)
</script>

<template>
  <div>
    <PageNote>
      <template v-if="open"
        >adding to
        <NuxtLink class="font-semibold text-ink hover:underline" :to="`/raise/${open.id}`">{{
          open.title || 'your open draft'
        }}</NuxtLink>
        · {{ formatCount(open.lines, 'line', 'lines') }}</template
      >
      <template v-else>what you pick begins a request</template>
    </PageNote>
    <SheetPage>
      <h1 class="sr-only">Catalogue</h1>
      <div class="sentence">
        {{ count }} in
        <BlankChoice
          :model-value="asked.category ?? ''"
          :choices="categories"
          label="Category"
          placeholder="all categories"
          @update:model-value="narrow({ category: $event || undefined })"
        />, from
        <BlankChoice
          :model-value="asked.supplier ?? ''"
          :choices="suppliers"
          label="Supplier"
          placeholder="any supplier"
          @update:model-value="narrow({ supplier: $event || undefined })"
        />,
        <BlankChoice
          :model-value="asked.agreement ?? ''"
          :choices="AGREEMENTS"
          label="Agreement"
          placeholder="with or without an agreement"
          @update:model-value="narrow({ agreement: $event || undefined })"
        />, that can be here by
        <BlankDay
          :model-value="asked.by ?? null"
          label="To be here by"
          placeholder="any day"
          optional
          :today="wording.today.value"
          @update:model-value="narrow({ by: $event || undefined })"
        />.
      </div>
      <p class="mt-1.5 flex flex-wrap items-center gap-x-2 gap-y-1 text-ink2">
        One costs from
        <input
          v-model="prices.from"
          class="cell w-[84px]! text-right tabular-nums"
          aria-label="Price from"
          placeholder="any price"
          inputmode="decimal"
          @change="setPrice('from')"
        />
        to
        <input
          v-model="prices.to"
          class="cell w-[84px]! text-right tabular-nums"
          aria-label="Price to"
          placeholder="any price"
          inputmode="decimal"
          @change="setPrice('to')"
        />
        {{ base }}, asked for
        <BlankChoice
          compact
          class="font-medium text-ink"
          :model-value="asked.bought ?? ''"
          :choices="BOUGHT"
          label="Asked for before"
          placeholder="by anybody or nobody yet"
          @update:model-value="narrow({ bought: $event || undefined })"
        />
        <button v-if="asked.by" type="button" class="quiet-link min-h-6" @click="narrow({ by: undefined })">
          Any day will do</button
        ><NuxtLink v-if="isNarrowed" class="quiet-link" to="/catalogue">Look at everything</NuxtLink>
      </p>
      <label class="mt-3 flex items-center gap-3 rounded border border-edge px-3 focus-within:border-ink">
        <span class="text-ink3">find</span>
        <input
          ref="finder"
          v-model="typed"
          class="min-h-[38px] min-w-0 flex-1 bg-transparent outline-none"
          type="search"
          aria-label="Find in the catalogue"
          placeholder="words, a part number, a supplier"
          autocomplete="off"
          @keydown="fromFinder"
        />
      </label>
      <p v-if="error" class="notice-red mt-3">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <p v-else-if="items.length === 0 && !isNarrowed" class="mt-4 max-w-[60ch] text-ink2">
        Nothing is in the catalogue yet. Buyers keep it:
        <NuxtLink class="quiet-link" to="/set-up/lists/items">bring the items</NuxtLink> as a file or one by one. What
        is not in it can be asked for in words all the same:
        <NuxtLink class="quiet-link" to="/raise">raise</NuxtLink> it.
      </p>
      <p v-else-if="items.length === 0" class="mt-4 max-w-[60ch] text-ink2">
        Nothing fits. <NuxtLink class="quiet-link" to="/catalogue">Look at everything</NuxtLink>, or ask for it in your
        own words:
        <NuxtLink class="quiet-link" :to="`/raise?add=${encodeURIComponent(typed)}`"
          >raise {{ typed === '' ? 'it' : `“${typed}”` }}</NuxtLink
        >.
      </p>
      <ul v-else class="mt-2" aria-label="Items">
        <ItemRow
          v-for="i in items"
          :key="i.id"
          :item="i"
          :words="asked.words"
          :base="base"
          :quantity="quantities.get(i.id) ?? ''"
          :wrong="quantities.has(i.id) && numberOf(i.id) === null"
          :looked="shown?.id === i.id"
          :compared="compared.includes(i.id)"
          @quantity="setQuantity(i, $event)"
          @look="looked = i.id"
          @compare="compare(i)"
          @move="move(i.id, $event)"
        />
      </ul>
      <p v-if="next" class="mt-3">
        <button type="button" class="quiet-link" @click="readOn">Show the next {{ PAGE }}</button>
      </p>
      <template #margin>
        <template v-if="shown">
          <h2 class="head">
            <NuxtLink class="hover:underline" :to="`/catalogue/${shown.id}`">{{ shown.name }}</NuxtLink>
          </h2>
          <p v-if="shown.description" class="mt-1 text-ink2">{{ shown.description }}</p>
          <ul class="mt-2">
            <li
              v-for="(p, i) in sayPrices(shown, wording.today.value, wording.ways, base)"
              :key="i"
              class="tabular-nums"
              :class="i === 0 ? 'sum-small' : 'text-ink2'"
            >
              {{ p }}
            </li>
          </ul>
          <p v-if="hint?.sentence" class="notice-green mt-2.5">{{ hint.sentence }}</p>
          <p v-if="shown.facts.warning" class="notice-amber mt-2.5">{{ shown.facts.warning }}</p>
          <p v-if="shown.supplierFacts.warning" class="notice-amber mt-2.5">
            {{ shown.supplier }}: {{ shown.supplierFacts.warning }}
          </p>
          <p class="mt-2">
            <NuxtLink class="quiet-link" :to="`/catalogue/${shown.id}`">Its prices, and who asks for it</NuxtLink>
          </p>
          <p class="mt-1">
            <button type="button" class="quiet-link min-h-6" @click="compare(shown)">
              {{
                compared.includes(shown.id) ? 'Leave it out of what is side by side' : 'Put it side by side with others'
              }}
            </button>
          </p>
        </template>
        <template v-if="picked.length > 0">
          <h2 class="head mb-1 mt-5">To be added</h2>
          <ul>
            <li
              v-for="p in picked"
              :key="p.item.id"
              class="flex items-baseline justify-between gap-3 border-t border-rule py-1.5"
            >
              <span class="min-w-0"
                ><span class="tabular-nums">{{ quantities.get(p.item.id) }}</span> {{ p.item.name }}
                <button
                  type="button"
                  class="quiet-link small min-h-6"
                  :aria-label="`Leave ${p.item.name} out`"
                  @click="quantities.delete(p.item.id)"
                >
                  leave out
                </button></span
              >
              <span class="tabular-nums whitespace-nowrap">{{
                p.quantity === null ? '?' : lineOf(p.item, p.quantity)
              }}</span>
            </li>
          </ul>
        </template>
      </template>
      <template #action>
        <p v-if="addTrouble || trouble" class="notice-red mb-2.5" role="alert">{{ addTrouble || trouble }}</p>
        <MainAction :missing="picked.length === 0 || wrong.length > 0" :busy="busy" keys="Ctrl ⏎" @press="addPicked">{{
          action
        }}</MainAction>
        <NuxtLink
          v-if="compared.length > 1"
          class="action mt-2.5 w-full justify-center"
          :to="{ path: '/catalogue/compare', query: { items: compared.join(',') } }"
          >Put {{ formatCount(compared.length, 'thing', 'things') }} side by side</NuxtLink
        >
      </template>
    </SheetPage>
  </div>
</template>
