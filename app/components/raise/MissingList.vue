<script setup lang="ts">
import type { FieldRef } from '#core/requisition/missing'
import type { Lack } from '~/composables/raise/judge'

/** What stands between a draft and its sending, each entry a way to its field. */
defineProps<{ lacks: readonly Lack[] }>()
const emit = defineEmits<{ go: [at: FieldRef] }>()
const MOST_SHOWN = 6
</script>

<template>
  <ul v-if="lacks.length > 0" class="mb-2.5 space-y-1.5" aria-label="What is missing">
    <li v-for="(l, i) in lacks.slice(0, MOST_SHOWN)" :key="i" :class="l.refuses ? 'notice-red' : 'notice-amber'">
      <button type="button" class="block w-full text-left hover:underline" @click="emit('go', l.at)">
        {{ l.sentence }}
      </button>
    </li>
    <li v-if="lacks.length > MOST_SHOWN" class="small">and {{ lacks.length - MOST_SHOWN }} more</li>
  </ul>
</template>
