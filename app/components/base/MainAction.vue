<script setup lang="ts">
/** The one main action of a page, worded by its consequence; outlined while something is missing. */
defineProps<{ missing?: boolean; busy?: boolean; keys?: string }>()
const emit = defineEmits<{ press: [] }>()
</script>

<template>
  <button
    type="button"
    class="main-action moves"
    :data-missing="missing === true"
    :aria-busy="busy === true"
    @click="emit('press')"
  >
    <span class="min-w-0"><slot /></span>
    <kbd v-if="keys" class="key font-sans max-[900px]:hidden" aria-hidden="true">{{ keys }}</kbd>
  </button>
</template>
