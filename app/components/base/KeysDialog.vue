<script setup lang="ts">
import DialogSheet from './DialogSheet.vue'
import { useKeysStore } from '~/composables/base/use-keys'

/** F1: the keys of the place. */
const keys = useKeysStore()
</script>

<template>
  <DialogSheet title="The keys of this place." @close="keys.open = false">
    <dl class="mt-4">
      <div v-for="line in keys.lines" :key="line.keys" class="flex justify-between gap-6 border-b border-rule py-2">
        <dt class="font-medium">{{ line.keys }}</dt>
        <dd class="text-right text-ink2">{{ line.does }}</dd>
      </div>
    </dl>
    <button type="button" class="action mt-5 self-start" @click="keys.open = false">Back to the work</button>
  </DialogSheet>
</template>
