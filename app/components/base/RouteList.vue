<script setup lang="ts">
import type { SeatView } from '#shared/contract/decide'
import StationPost from './StationPost.vue'

/** Who decides, in order, and why each. */
export interface RouteEntry {
  readonly key: string
  readonly name: string
  readonly why: string
  readonly state: SeatView['state']
  readonly you: boolean
}
defineProps<{ entries: readonly RouteEntry[] }>()
const WORD = {
  done: 'has approved',
  open: 'is asked now',
  ahead: 'is asked later',
  'sent back': 'has sent it back',
  rejected: 'has rejected it',
  over: 'is not asked any more',
}
/** Whoever reads it is spoken to. */
const YOUR = {
  done: 'have approved',
  open: 'are asked now',
  ahead: 'are asked later',
  'sent back': 'have sent it back',
  rejected: 'have rejected it',
  over: 'are not asked any more',
}
const LOOK = {
  done: 'filled',
  open: 'empty',
  ahead: 'empty',
  'sent back': 'stopped',
  rejected: 'stopped',
  over: 'dashed',
} as const
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
        ><StationPost :look="LOOK[e.state]" :share="1" :waits="e.you && e.state === 'open'"
      /></span>
      <span class="min-w-0"
        ><span class="block font-medium"
          >{{ e.you ? 'You' : e.name }}<span class="sr-only"> {{ (e.you ? YOUR : WORD)[e.state] }}</span></span
        ><span class="small block">{{ e.why }}</span></span
      >
    </li>
  </ol>
</template>
