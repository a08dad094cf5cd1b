<script setup lang="ts">
import StationPost from './StationPost.vue'

/** Who decides, in order, and why each. */
export interface RouteEntry {
  readonly key: string
  readonly name: string
  readonly why: string
  readonly state: 'done' | 'open' | 'ahead'
  readonly you: boolean
}
defineProps<{ entries: readonly RouteEntry[] }>()
const WORD = { done: 'has approved', open: 'is asked now', ahead: 'is asked later' }
/** Whoever reads it is spoken to. */
const YOUR = { done: 'have approved', open: 'are asked now', ahead: 'are asked later' }
</script>

<template>
  <ol>
    <li v-for="(e, i) in entries" :key="e.key" class="relative flex gap-3 pb-3">
      <span
        v-if="i < entries.length - 1"
        class="absolute bottom-[-3px] left-[3.5px] top-[20px] border-l border-strong"
        aria-hidden="true"
      />
      <span class="pt-[3px]"
        ><StationPost :look="e.state === 'done' ? 'filled' : 'empty'" :share="1" :waits="e.you && e.state === 'open'"
      /></span>
      <span class="min-w-0"
        ><span class="block font-medium"
          >{{ e.name }}<span class="sr-only"> {{ (e.you ? YOUR : WORD)[e.state] }}</span></span
        ><span class="small block">{{ e.why }}</span></span
      >
    </li>
  </ol>
</template>
