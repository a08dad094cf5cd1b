<script setup lang="ts">
import StationPost from './StationPost.vue'

/** Five small posts on one line: the state of a row, with words for a screen reader. */
export interface SmallStation {
  readonly name: string
  readonly look: 'empty' | 'dashed' | 'filled' | 'stopped'
  readonly share: number
  readonly waits: boolean
  readonly word: string
}
const props = defineProps<{ stations: readonly SmallStation[] }>()
const said = computed(() => props.stations.map((s) => `${s.name}: ${s.word}`).join(', '))
</script>

<template>
  <span
    class="inline-flex items-end gap-[9px] border-b border-strong pb-0 leading-none"
    role="img"
    :aria-label="said"
    :title="said"
  >
    <StationPost v-for="s in stations" :key="s.name" :look="s.look" :share="s.share" :waits="s.waits" />
  </span>
</template>
