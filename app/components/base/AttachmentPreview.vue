<script setup lang="ts">
import AttachmentView from './AttachmentView.vue'
import DialogSheet from './DialogSheet.vue'

/** A PDF or picture, looked at in place, and the address from which it is read. */
defineProps<{ attachment: { id: string; name: string; mime: string }; address: string }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <DialogSheet :title="attachment.name" hide-title :width="960" @close="emit('close')">
    <div class="mb-3 flex items-baseline justify-between gap-4">
      <p class="head min-w-0 truncate">{{ attachment.name }}</p>
      <span class="flex shrink-0 gap-4"
        ><a class="quiet-link" :href="address">keep a copy</a
        ><button type="button" class="quiet-link" @click="emit('close')">close</button></span
      >
    </div>
    <AttachmentView :attachment="attachment" :address="address" />
  </DialogSheet>
</template>
