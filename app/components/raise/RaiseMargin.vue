<script setup lang="ts">
import { useWording } from '~/composables/base/use-wording'
import type { Margin } from '~/composables/raise/margin-of'

// They come with the first line.
const RouteList = defineAsyncComponent(() => import('~/components/base/RouteList.vue'))
const BudgetEffects = defineAsyncComponent(() => import('~/components/budget/BudgetEffects.vue'))

/** What Rekko worked out of a requisition while it is written. */
defineProps<{ margin: Margin }>()
const wording = useWording()
</script>

<template>
  <div>
    <p class="text-ink2">All in, without tax you can reclaim</p>
    <p class="sum">{{ wording.money(margin.amount) }}</p>
    <p class="small min-h-[17px]">{{ margin.tax }}</p>
    <p v-for="f in margin.foreign" :key="f" class="small">{{ f }}</p>
    <h2 class="head mb-1.5 mt-5">What it does to the budget</h2>
    <BudgetEffects v-if="margin.effects.length > 0" :effects="margin.effects" />
    <p v-else class="text-ink3">Each line that pays stands here, before and after.</p>
    <h2 class="head mb-2 mt-5">Who decides, and why</h2>
    <RouteList v-if="margin.entries.length > 0" :entries="margin.entries" />
    <p v-else-if="!margin.isHeld" class="text-ink2">Nobody has to: it is approved when you send it.</p>
    <p v-for="n in margin.notes" :key="n" class="small">{{ n }}</p>
  </div>
</template>
