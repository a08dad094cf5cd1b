<script setup lang="ts">
import { useUndo } from '~/composables/base/use-undo'

/** What was just done, and the way back from it while there is one; the newest stands lowest. */
const undo = useUndo()
</script>

<template>
  <div
    aria-live="polite"
    :class="[
      'no-print pointer-events-none fixed inset-x-0 bottom-5 z-40 flex flex-col items-center gap-1.5 px-4',
      'max-[900px]:bottom-36',
    ]"
  >
    <div
      v-for="offer in undo.offers"
      :key="offer.key"
      class="pointer-events-auto flex max-w-[640px] items-center gap-4 rounded border border-ink bg-sheet px-4 py-2.5"
    >
      <span :id="`undo-${offer.key}`" class="min-w-0">{{ offer.sentence }}</span>
      <button
        type="button"
        class="quiet-link shrink-0 font-semibold"
        :aria-describedby="`undo-${offer.key}`"
        @click="undo.take(offer)"
      >
        {{ offer.label }}
      </button>
      <span class="small w-6 shrink-0 text-right" aria-hidden="true">{{ undo.left(offer) }} s</span>
    </div>
  </div>
</template>
