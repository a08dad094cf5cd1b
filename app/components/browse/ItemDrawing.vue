<script setup lang="ts">
import {
  Box,
  Droplet,
  FileText,
  Fish,
  FlaskConical,
  Gauge,
  Lamp,
  Leaf,
  LifeBuoy,
  Milk,
  Monitor,
  Pill,
  ShoppingBag,
  Signpost,
  Spool,
  Cable,
  Truck,
  Users,
  Wrench,
} from 'lucide-vue-next'
import type { Drawing } from '#core/catalogue/drawing'

/** What stands for an item: its picture, or the drawing of its category. */
defineProps<{ drawing: Drawing; picture?: string | null }>()
const DRAWN = {
  box: Box,
  bottle: Milk,
  bag: ShoppingBag,
  drop: Droplet,
  fish: Fish,
  flask: FlaskConical,
  gauge: Gauge,
  lamp: Lamp,
  leaf: Leaf,
  medicine: Pill,
  paper: FileText,
  people: Users,
  ring: LifeBuoy,
  rope: Spool,
  screen: Monitor,
  sign: Signpost,
  tool: Wrench,
  truck: Truck,
  wire: Cable,
} satisfies Record<Drawing, unknown>
</script>

<template>
  <img
    v-if="picture"
    :src="picture"
    alt=""
    loading="lazy"
    width="40"
    height="40"
    class="size-10 shrink-0 rounded border border-rule bg-white object-contain"
  />
  <span
    v-else
    class="inline-flex size-10 shrink-0 items-center justify-center rounded border border-rule bg-margin text-ink2"
    aria-hidden="true"
    ><component :is="DRAWN[drawing]" :size="18" :stroke-width="1.5"
  /></span>
</template>
