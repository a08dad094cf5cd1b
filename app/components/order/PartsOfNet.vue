<script setup lang="ts">
import type { Money } from '#core/base/money'
import type { LaidAdjustment } from '#shared/contract/order-conditions'
import { rowsOfParts } from '#shared/words/adjustment'
import { useWording } from '~/composables/base/use-wording'

/** Of what an order's net is made, row by row, under its lines; nothing where its lines are all there is. */
defineProps<{ parts: { goods: Money; adjustments: readonly LaidAdjustment[]; freight: Money } }>()
const wording = useWording()
</script>

<template>
  <p
    v-for="(row, i) in rowsOfParts(parts, wording.ways)"
    :key="i"
    class="flex justify-end gap-6"
    :class="i === 0 ? 'mt-2' : 'mt-1'"
  >
    <span>{{ row.says }}</span><span class="num w-24">{{ wording.amount(row.amount) }}</span>
  </p>
</template>
