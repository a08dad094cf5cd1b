<script setup lang="ts">
import type { CatalogueItem } from '#shared/contract/catalogue'
import { formatCount } from '#shared/words/format'
import FoundName from '~/components/browse/FoundName.vue'
import ItemDrawing from '~/components/browse/ItemDrawing.vue'
import { useWording } from '~/composables/base/use-wording'
import { pictureOf } from '~/composables/browse/picture-of'
import { sayPrices } from '~/composables/browse/say-item'

/** An item of the catalogue: what it is, whose, what it costs, what is remembered of it, and how many. */
const props = defineProps<{
  item: CatalogueItem
  words: string
  base: string
  /** How many were typed. */
  quantity: string
  wrong: boolean
  looked: boolean
  compared: boolean
}>()
const emit = defineEmits<{ quantity: [typed: string]; look: []; compare: []; move: [by: 1 | -1] }>()
const wording = useWording()
const prices = computed(() => sayPrices(props.item, wording.today.value, wording.ways, props.base))
const paid = computed(() => {
  const { paid, bought } = props.item
  const asked = bought === 0 ? '' : `asked for ${bought === 1 ? 'once' : `${wording.decimal(String(bought))} times`}`
  if (paid === null) return asked === '' ? 'never bought' : asked
  const last = `last paid ${wording.price(paid.unitPrice, paid.currency)}, ${wording.shortDay(paid.day)}`
  return asked === '' ? last : `${asked}, ${last}`
})
const about = computed(() => {
  const { supplier, supplierPart, hasAgreement, leadDays, packSize } = props.item
  return [
    supplier,
    supplierPart,
    ...(hasAgreement ? ['agreement'] : []),
    formatCount(leadDays, 'day', 'days'),
    ...(packSize === null ? [] : [`by ${wording.decimal(packSize)}`]),
  ].join(' · ')
})
function onKey(event: KeyboardEvent): void {
  // A space is no part of a number: it marks.
  if (event.key === ' ') {
    event.preventDefault()
    if (!event.repeat) emit('compare')
    return
  }
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
  event.preventDefault()
  emit('move', event.key === 'ArrowDown' ? 1 : -1)
}
</script>

<template>
  <li
    class="grid grid-cols-[40px_minmax(0,1fr)_150px_150px_92px] items-start gap-x-4 border-b border-rule py-2.5"
    :class="['max-[900px]:grid-cols-[minmax(0,1fr)_92px]', looked ? 'bg-green-ground/40' : '']"
    @focusin="emit('look')"
    @click="emit('look')"
  >
    <ItemDrawing :drawing="item.drawing" :picture="pictureOf(item)" class="max-[900px]:hidden" />
    <div class="min-w-0">
      <NuxtLink class="font-semibold hover:underline" :to="`/catalogue/${item.id}`"
        ><FoundName :name="item.name" :words="words"
      /></NuxtLink>
      <p class="small">{{ about }}</p>
      <p v-if="item.facts.warning" class="small text-amber-ink!">{{ item.facts.warning }}</p>
    </div>
    <p class="text-right tabular-nums max-[900px]:col-start-1 max-[900px]:row-start-2 max-[900px]:text-left">
      <span v-for="(p, i) in prices" :key="i" class="block" :class="i === 0 ? '' : 'small'">{{ p }}</span>
    </p>
    <p class="small max-[900px]:hidden">
      {{ paid }}
      <span v-if="compared" class="block font-semibold text-ink">side by side</span>
    </p>
    <input
      class="field text-right tabular-nums max-[900px]:col-start-2 max-[900px]:row-span-2 max-[900px]:row-start-1"
      :class="wrong ? 'border-red!' : ''"
      :data-quantity="item.id"
      :value="quantity"
      inputmode="decimal"
      placeholder="–"
      autocomplete="off"
      :aria-label="`How many of ${item.name}`"
      :aria-invalid="wrong"
      @input="emit('quantity', ($event.target as HTMLInputElement).value)"
      @keydown="onKey"
    />
  </li>
</template>
