<script setup lang="ts">
import type { FieldRef, Missing } from '#core/requisition/missing'
import { sayMissing } from '#shared/words/requisition'
import { useWording } from '~/composables/base/use-wording'

/** What stands between a draft and its sending, each entry a way to its field. */
defineProps<{ missing: readonly Missing[] }>()
const emit = defineEmits<{ go: [at: FieldRef] }>()
const wording = useWording()
const MOST_SHOWN = 6
</script>

<template>
  <ul v-if="missing.length > 0" class="mb-2.5 space-y-1.5" aria-label="What is missing">
    <li
      v-for="(m, i) in missing.slice(0, MOST_SHOWN)"
      :key="i"
      :class="m.code === 'budget-refuses' ? 'notice-red' : 'notice-amber'"
    >
      <button type="button" class="block w-full text-left hover:underline" @click="emit('go', m.at)">
        {{ sayMissing(m, wording.ways) }}
      </button>
    </li>
    <li v-if="missing.length > MOST_SHOWN" class="small">and {{ missing.length - MOST_SHOWN }} more</li>
  </ul>
</template>
