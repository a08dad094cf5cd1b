<script setup lang="ts">
import { pressEarly } from '~/composables/base/early-presses'

// The first time all that is shown has its scripts.
if (import.meta.client) useNuxtApp().hooks.hookOnce('app:suspense:resolve', pressEarly)
</script>

<template>
  <NuxtLayout>
    <NuxtPage />
  </NuxtLayout>
</template>
