<script setup lang="ts">
import { useKeysStore } from '~/composables/base/use-keys'

/** What stands at the right of the places: a few words about the page, and F1. */
const keys = useKeysStore()
</script>

<template>
  <!-- Its place is inside the application, where a server cannot teleport to. -->
  <ClientOnly>
    <Teleport defer to="#page-note">
      <span class="truncate"><slot /></span>
      <button type="button" class="key text-ink2" aria-label="Keys of this place" @click="keys.open = true">F1</button>
    </Teleport>
  </ClientOnly>
</template>
