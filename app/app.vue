<script setup lang="ts">
import { refuseHeldKeys } from '~/composables/base/held-keys'
import { pressEarly } from '~/composables/base/early-presses'
import { keepFocus } from '~/composables/base/lost-focus'

if (import.meta.client) {
  refuseHeldKeys()
  keepFocus()
  // The first time all that is shown has its scripts.
  useNuxtApp().hooks.hookOnce('app:suspense:resolve', pressEarly)
}
</script>

<template>
  <NuxtLayout>
    <NuxtPage />
  </NuxtLayout>
</template>
