<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { readEntry, type Entry } from '#core/requisition/entry'
import { nextStep, priceFor } from '#core/catalogue/price'
import type { ItemFound } from '#shared/contract/catalogue'
import { unitName } from '#core/base/unit'
import { useApi } from '~/composables/base/use-api'
import { isMainKey, passMainKey } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'

const wording = useWording()

/**
 * One field adds anything: words with a quantity, a part number, or a free line with its price; it shows what it
 * understood.
 */
const props = defineProps<{ departmentId: string | null; today: string; currency: string }>()
const emit = defineEmits<{ item: [item: ItemFound, quantity: string]; free: [entry: Entry] }>()

type Option = { readonly key: string; readonly item: ItemFound } | { readonly key: 'free'; readonly item: null }
/** The field keeps nothing: what is taken becomes a line. */
const nothing: Option | null = null
const api = useApi()
const text = ref('')
const found = shallowRef<ItemFound[]>([])
const searching = ref(false)
const input = useTemplateRef<{ el: HTMLInputElement }>('input')
const entry = computed(() => readEntry(text.value, wording.decimalMark))
const quantity = computed(() => entry.value.quantity ?? '1')
let asked = 0
let timer: ReturnType<typeof setTimeout> | undefined

/** Everything but the quantity: a number at the end may be a price, or belong to the name. */
const wanted = computed(() =>
  entry.value.price === null
    ? entry.value.words
    : text.value.trim().slice(text.value.trim().indexOf(entry.value.words)),
)
watch(wanted, (words) => {
  clearTimeout(timer)
  if (words.trim().length < 2) {
    found.value = []
    searching.value = false
    return
  }
  searching.value = true
  timer = setTimeout(() => {
    void search(words)
  }, 120)
})
async function search(words: string): Promise<void> {
  const mine = ++asked
  try {
    const { items } = await api.get('/api/items', {
      query: {
        words,
        departmentId: props.departmentId ?? undefined,
        limit: 6,
      },
    })
    if (mine === asked) found.value = items
  } catch {
    if (mine === asked) found.value = []
  } finally {
    if (mine === asked) searching.value = false
  }
}
const options = computed<Option[]>(() => {
  if (entry.value.words.trim() === '') return []
  const free: Option = { key: 'free', item: null }
  const items = found.value.map((item): Option => ({ key: item.id, item }))
  // A price typed at the end is how a free line is said, so it stands first then.
  return entry.value.price !== null && !found.value.some(isNamed) ? [free, ...items] : [...items, free]
})
function isNamed(item: ItemFound): boolean {
  const known = `${item.name} ${item.supplierPart} ${item.number}`.toLowerCase()
  return wanted.value
    .toLowerCase()
    .split(/\s+/)
    .every((word) => known.includes(word))
}
function price(item: ItemFound): string {
  const step = priceFor(item.prices, quantity.value, props.today)
  if (step === null) return 'no price now'
  return [
    ...(item.currency === props.currency ? [] : [item.currency]),
    wording.price(step.unitPrice, item.currency),
    item.priceBase === '1' ? unitName(item.unit) : `per ${item.priceBase}`,
  ].join(' ')
}
function more(item: ItemFound): string {
  const step = nextStep(item.prices, quantity.value, props.today)
  return [
    item.supplier,
    item.supplierPart,
    ...(item.hasAgreement ? ['agreement price'] : []),
    `here in ${item.leadDays} days`,
    ...(step === null ? [] : [`${wording.price(step.unitPrice, item.currency)} from ${step.from}`]),
    ...(item.bought > 0 ? [`bought ${item.bought} ${item.bought === 1 ? 'time' : 'times'}`] : []),
  ].join(' · ')
}
async function take(option: Option | null): Promise<void> {
  if (option === null) return
  // What was typed counts as it stands now, even while a search is on its way.
  if (option.item === null) emit('free', { ...entry.value })
  else emit('item', option.item, quantity.value)
  text.value = ''
  found.value = []
  await nextTick()
  focus()
}
/** Enter before the suggestions came takes what was typed as soon as they are known. */
async function enterEarly(event: KeyboardEvent): Promise<void> {
  if (!searching.value || event.isComposing || entry.value.words.trim() === '') return
  event.preventDefault()
  event.stopImmediatePropagation()
  clearTimeout(timer)
  await search(wanted.value)
  await take(options.value[0] ?? null)
}
/** Whether one is in the field; what could be taken is shown only then. */
const inside = ref(false)
function leave(event: FocusEvent): void {
  if (!(event.currentTarget as HTMLElement).contains(event.relatedTarget as Node | null)) inside.value = false
}
/** The combobox takes what is offered when one leaves it, by Tab too; here what was typed stays (also `nullable`). */
function beforeCombobox(event: KeyboardEvent): void {
  if (event.key === 'Tab') event.stopImmediatePropagation()
  else if (isMainKey(event) && text.value.trim() === '') {
    // With nothing typed there is nothing to take: it is the key of the main action.
    event.stopImmediatePropagation()
    passMainKey(event, input.value?.el ?? null)
  } else if (event.key === 'Enter') void enterEarly(event)
}
function focus(): void {
  input.value?.el.focus()
}
/** Begins with words, as if they had been typed. */
function begin(words: string): void {
  const el = input.value?.el
  if (el === undefined) return
  el.focus()
  el.value = words
  el.dispatchEvent(new Event('input', { bubbles: true }))
}
// What is typed before the page is alive would go when it comes alive: it is typed again then.
let early = ''
onBeforeMount(() => {
  const el = document.getElementById('add-line')
  if (el instanceof HTMLInputElement) early = el.value
})
onMounted(async () => {
  await nextTick()
  if (early !== '') begin(early)
})
defineExpose({ focus, begin })
</script>

<template>
  <Combobox
    as="div"
    class="relative"
    nullable
    :model-value="nothing"
    @update:model-value="take"
    @focusin="inside = true"
    @focusout="leave"
  >
    <div
      :class="[
        'flex items-center gap-3 rounded border border-edge bg-sheet px-3 focus-within:outline-2',
        'focus-within:outline-green',
      ]"
    >
      <span aria-hidden="true" class="text-ink2">+</span>
      <ComboboxInput
        id="add-line"
        ref="input"
        data-slash-finds
        class="min-h-[40px] w-full bg-transparent outline-none"
        aria-label="Add a line: words, a part number or your own text"
        placeholder="Type words, a part number or your own text, with how many in front and a price behind"
        autocomplete="off"
        :display-value="() => text"
        @change="(e: Event) => (text = (e.target as HTMLInputElement).value)"
        @keydown.capture="beforeCombobox"
      />
      <span v-if="entry.quantity !== null || entry.price !== null" class="small shrink-0 max-[700px]:hidden"
        >read as {{ wording.quantity(quantity, '').trim() }} × “{{ entry.words }}”<template v-if="entry.price !== null">
          at {{ wording.price(entry.price, currency) }}</template
        ></span
      >
    </div>
    <ComboboxOptions
      v-if="inside && options.length > 0"
      static
      class="picker left-0 right-0 top-full mt-1 max-w-none! max-h-[340px]!"
      @mousedown.prevent
    >
      <ComboboxOption v-for="o in options" v-slot="{ active }" :key="o.key" as="template" :value="o">
        <li class="option flex list-none justify-between gap-4" :data-active="active">
          <template v-if="o.item">
            <span class="min-w-0"
              ><span class="block font-medium">{{ o.item.name }}</span
              ><span class="small block">{{ more(o.item) }}</span></span
            >
            <span class="num shrink-0">{{ price(o.item) }}</span>
          </template>
          <template v-else>
            <span class="min-w-0"
              ><span class="block font-medium">“{{ entry.words }}” as a line of your own</span
              ><span class="small block">{{
                searching
                  ? 'looking in the catalogue …'
                  : 'not in the catalogue: you choose the supplier, or the buyer does'
              }}</span></span
            >
            <span class="num shrink-0">{{
              entry.price === null ? 'price to be filled in' : wording.price(entry.price, currency)
            }}</span>
          </template>
        </li>
      </ComboboxOption>
    </ComboboxOptions>
  </Combobox>
</template>
