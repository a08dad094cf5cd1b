<script setup lang="ts">
import type { SetUpStep } from '#core/lists/set-up'
import { saySetUpStep } from '#shared/words/lists'
import { useApi } from '~/composables/base/use-api'

/** What is still missing before a first order can go out, where nothing has come to the Desk yet. */
const api = useApi()
const missing = shallowRef<readonly SetUpStep[]>([])
onMounted(async () => {
  const { steps } = await api.get('/api/set-up').catch(() => ({ steps: [] as SetUpStep[] }))
  missing.value = steps.filter((s) => !s.done && s.before !== 'use')
})
</script>

<template>
  <div v-if="missing.length > 0" class="notice-amber mt-3 max-w-[640px]" role="status">
    <p v-for="s in missing" :key="s.code">{{ saySetUpStep(s) }}</p>
    <p class="mt-1"><NuxtLink class="quiet-link font-semibold" to="/set-up">See what is missing</NuxtLink></p>
  </div>
</template>
