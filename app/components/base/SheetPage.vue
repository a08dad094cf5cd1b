<script setup lang="ts">
/**
 * The frame of every place: what people wrote on the sheet, what Rekko worked out in the margin, the action at its
 * foot.
 */
defineProps<{ printsMargin?: boolean }>()
defineSlots<{ strip?: () => unknown; default: () => unknown; margin?: () => unknown; action?: () => unknown }>()
</script>

<template>
  <main id="page" tabindex="-1" class="page outline-none">
    <slot name="strip" />
    <div class="page-frame" :data-prints-margin="printsMargin">
      <section class="page-sheet"><slot /></section>
      <aside v-if="$slots.margin" class="page-margin" aria-label="What Rekko worked out">
        <div class="page-margin-inner">
          <slot name="margin" />
          <div v-if="$slots.action" class="page-foot"><slot name="action" /></div>
        </div>
      </aside>
    </div>
  </main>
</template>
