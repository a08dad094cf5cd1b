<script setup lang="ts">
import { Decimal, dec } from '#core/base/decimal'
import { sayBesideLast } from '#shared/words/price-memory'
import { useWording } from '~/composables/base/use-wording'

/** A price beside the last ones paid: small bars, this one in ink, and the difference in words. */
const props = defineProps<{
  unitPrice: string
  paid: readonly { unitPrice: string; currency: string; day: string }[]
}>()
const wording = useWording()
const bars = computed(() => {
  const all = [...props.paid]
    .slice(0, 4)
    .reverse()
    .map((p) => dec(p.unitPrice))
    .concat(dec(props.unitPrice))
  const most = Decimal.max(dec('0.000001'), ...all)
  return all.map((v) => Math.max(2, v.dividedBy(most).toNumber() * 14))
})
const last = computed(() => props.paid[0])
const words = computed(() => sayBesideLast(props.unitPrice, last.value?.unitPrice ?? null))
</script>

<template>
  <span class="flex items-end gap-2">
    <svg v-if="last" :width="bars.length * 6" height="14" aria-hidden="true">
      <rect
        v-for="(h, i) in bars"
        :key="i"
        :x="i * 6"
        :y="14 - h"
        width="4"
        :height="h"
        :fill="i === bars.length - 1 ? 'var(--ink)' : 'var(--rule-strong)'"
      />
    </svg>
    <span>{{ words }}</span>
  </span>
  <span v-if="last" class="small block"
    >{{ wording.price(last.unitPrice, last.currency) }}, {{ wording.shortDay(last.day) }}</span
  >
</template>
