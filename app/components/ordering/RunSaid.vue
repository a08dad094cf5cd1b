<script setup lang="ts">
import type { RunHead } from '#shared/contract/ordering'
import { sayRun } from '#shared/words/ordering'
import { useWording } from '~/composables/base/use-wording'

/** How a rule went last, in half a sentence. */
defineProps<{ run: RunHead; linked: boolean }>()
const wording = useWording()
</script>

<template>
  <span
    >The last run,
    <time :datetime="run.lastAt" :title="wording.exact(run.lastAt)">{{ wording.moment(run.lastAt) }}</time>:
    <NuxtLink v-if="linked" class="quiet-link" :to="`/orders/runs/${run.id}`">{{ sayRun(run) }}</NuxtLink><template
      v-else
      >{{ sayRun(run) }}</template
    >.</span
  >
</template>
