<script setup lang="ts">
/** A PDF or picture as it is, at most so high. */
defineProps<{ attachment: { name: string; mime: string }; address: string }>()
</script>

<template>
  <iframe
    v-if="attachment.mime === 'application/pdf'"
    class="h-[72dvh] w-full border border-rule bg-margin"
    :src="`${address}?show=true#navpanes=0&view=FitH`"
    :title="attachment.name"
  />
  <div v-else class="max-h-[76dvh] overflow-auto">
    <img class="mx-auto max-w-full" :src="`${address}?show=true`" :alt="attachment.name" />
  </div>
</template>
